import { elementOf } from '@/core/resolved/elementOf';
import type { LevelRow } from '@/core/model/state';
import type { ReadModel } from '../readModel';
import type { Ids } from './ids';

type Level = ReadModel['levels'][number];

/** Elements that say their level. */
export const standingLists = ['columns', 'beams', 'walls', 'slabs', 'zones', 'outdoor', 'roofs'] as const;

/** Heights closer than this are one, metres. */
const same = 1e-6;
export const isSame = (a: number, b: number): boolean => Math.abs(a - b) < same;

/**
 * The levels that repeat another in the file as the program writes it: each element on them is one of the other level,
 * under an id that says so.
 */
export function repeatingIn(model: ReadModel): Set<string> {
  const on = new Map<string, Set<string>>(model.levels.map(({ id }) => [id, new Set()]));
  for (const list of standingLists) for (const { id, level } of model[list] ?? []) on.get(level)?.add(id);
  const repeats = ({ id, repeats: other }: Level): boolean => {
    const [here, there] = [on.get(id), other === undefined ? undefined : on.get(other)];
    if (here === undefined || there === undefined || here.size !== there.size) return false;
    return [...here].every((one) => one.endsWith(`@${id}`) && there.has(elementOf(one)));
  };
  return new Set(model.levels.filter(repeats).map(({ id }) => id));
}

export function levelRows(model: ReadModel, ids: Ids, repeating: ReadonlySet<string>): LevelRow[] {
  for (const { id } of model.levels) ids.give('level', id);
  return model.levels.map((level) => ({
    id: ids.of('level', level.id)!,
    name: level.name,
    elevation: level.elevation,
    height: level.height,
    kind: level.kind ?? 'floor',
    buildUp: Math.max(0, Number((level.elevation - (level.structuralTop ?? level.elevation)).toFixed(9))),
    slab: level.slabThickness ?? 0,
    repeats: repeating.has(level.id) ? ids.of('level', level.repeats) : null,
  }));
}

/** Finds levels by id and by height. */
export class Ladder {
  private readonly byId: ReadonlyMap<string, Level>;
  private readonly up: readonly Level[];

  constructor(levels: readonly Level[]) {
    this.byId = new Map(levels.map((level) => [level.id, level]));
    this.up = [...levels].sort((a, b) => a.elevation - b.elevation);
  }

  at(id: string | undefined): Level | null {
    return id === undefined ? null : (this.byId.get(id) ?? null);
  }

  /** The level that something at a height belongs to: the highest that is not above it, else the lowest. */
  below(z: number): Level {
    return this.up.findLast(({ elevation }) => elevation <= z + same) ?? this.up[0];
  }

  /** The level that lies at a height, else one that something at that height is measured from. */
  tieAt(z: number, own: Level): Level {
    return this.up.find(({ elevation }) => isSame(elevation, z)) ?? own;
  }
}
