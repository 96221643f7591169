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
 * under an id that says so, and the same as that one. A level on which something was changed stands for itself.
 */
export function repeatingIn(model: ReadModel): Set<string> {
  const on = elementsByLevel(model);
  const repeats = ({ id, repeats: other }: Level): boolean => {
    const [here, there] = [on.get(id), other === undefined ? undefined : on.get(other)];
    if (here === undefined || there === undefined || here.size !== there.size) return false;
    return [...here].every(([one, text]) => one.endsWith(`@${id}`) && there.get(elementOf(one)) === text);
  };
  return new Set(model.levels.filter(repeats).map(({ id }) => id));
}

/** What follows from the rest, and what tells where an element is: left out where two are compared. */
const apart = new Set(['id', 'level', 'source', 'wall', 'boundaries', 'roofs', 'clearHeight', 'volume']);
/** Fields that are elevations, and those whose points have one last. */
const elevations = new Set(['base', 'top']);
const inSpace: Record<string, ReadonlySet<string>> = {
  beams: new Set(['start', 'end']),
  roofs: new Set(['outline']),
  walls: new Set(['profile']),
};

/**
 * What an element is, heights above its level: a text, the same of two that are alike. A foot or a head that is where
 * the storey has it says nothing.
 */
function textOf(list: string, element: object, { elevation, height }: Level): string {
  const usual = (key: string, z: number): boolean => isSame(z, key === 'base' ? elevation : elevation + height);
  const above = (z: number): number => Number((z - elevation).toFixed(6));
  const lowered = (value: unknown): unknown => {
    if (!Array.isArray(value)) return value;
    if (value.every((one) => typeof one === 'number')) return [...value.slice(0, -1), above(value[value.length - 1])];
    return value.map(lowered);
  };
  const fields = Object.entries(element).flatMap(([key, value]): [string, unknown][] => {
    if (apart.has(key)) return [];
    if (elevations.has(key) && typeof value === 'number') return usual(key, value) ? [] : [[key, above(value)]];
    return [[key, inSpace[list]?.has(key) ? lowered(value) : value]];
  });
  return JSON.stringify(fields.sort(([a], [b]) => a.localeCompare(b)));
}

/** The elements of each level, openings with their walls, as texts by their ids. */
function elementsByLevel(model: ReadModel): Map<string, Map<string, string>> {
  const levels = new Map(model.levels.map((level) => [level.id, level]));
  const on = new Map<string, Map<string, string>>(model.levels.map(({ id }) => [id, new Map<string, string>()]));
  const put = (list: string, level: string | undefined, element: { id: string }): void => {
    const own = levels.get(level ?? '');
    if (own !== undefined) on.get(own.id)?.set(element.id, textOf(list, element, own));
  };
  for (const list of standingLists) for (const element of model[list] ?? []) put(list, element.level, element);
  const hosts = new Map(model.walls.map(({ id, level }) => [id, level]));
  for (const opening of model.openings) put('openings', hosts.get(opening.wall), opening);
  return on;
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
