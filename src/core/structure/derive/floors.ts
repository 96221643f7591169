import { common, without, type Region } from '@/core/geometry/clipping';
import { area } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { Axis } from './axes';
import type { Carriers, Floor, UnitLoads } from './carriers';
import { ringsOf } from '@/core/geometry/ringParts';
import type { Report } from '@/core/proof/report';
import type { V3 } from '../vector3';

/** A slab as it lies, and where what rests on it goes. */
export interface LyingSlab extends Floor {
  id: string;
  span: number | null;
  diaphragm: boolean;
  /** kg per square metre. */
  mass: number;
  /** Whether it lies on the ground, and passes nothing on. */
  ground: boolean;
  /** Whether it is the floor of the ground level: where nothing is beneath it, it lies on the ground. */
  groundFloor: boolean;
}

/** What a floor passes on for one newton a square metre. */
export interface Resting {
  loads: UnitLoads;
  /** Square metres that nothing carries, with a place of it. */
  lost: number;
  lostAt: V3;
}

type Slab = ReadModel['slabs'][number];

/** Slabs lie on the ground where they lie no higher above the lowest foot than this, metres. */
const nearGround = 0.3;

const rad = (degrees: number): number => (degrees * Math.PI) / 180;

/** The slabs of a model as they lie. @param density kg/m3 by a slab's material */
export function lyingSlabs(
  model: ReadModel,
  axes: readonly Axis[],
  carriers: Carriers,
  massOf: (slab: Slab) => number,
  report: Report,
): LyingSlab[] {
  const feet = axes.filter(({ kind }) => kind !== 'beam').map(({ start, end }) => Math.min(start[2], end[2]));
  const lowest = feet.length === 0 ? -Infinity : Math.min(...feet);
  const levels = new Map(model.levels.map((level) => [level.id, level]));
  return model.slabs.flatMap((slab): LyingSlab[] => {
    if (slab.outline.length < 3 || area(slab.outline) === 0) return [];
    const level = levels.get(slab.level);
    const plain = slab.top ?? level?.elevation ?? 0;
    const at = (z: number): LyingSlab => ({
      id: slab.id,
      outline: slab.outline,
      holes: slab.holes,
      z,
      thickness: slab.thickness,
      span: slab.span === undefined || slab.span === null ? null : rad(slab.span),
      diaphragm: slab.diaphragm ?? true,
      mass: massOf(slab),
      ground: z <= lowest + nearGround,
      groundFloor: level?.kind === 'ground' || level?.kind === 'foundation',
    });
    const lying = at(plain);
    if (slab.top !== undefined || level === undefined || carriers.of(lying).length > 0) return [lying];
    // A slab without a height of its own, with nothing beneath its floor: it may be the one over its storey.
    const over = { ...at(plain + level.height), ground: false };
    if (carriers.of(over).length === 0) return [lying];
    report.assume(
      'Slabs without a height, with nothing beneath the floor of their level, lie at the top of their storey',
    );
    return [over];
  });
}

/**
 * Where what rests on a floor goes.
 * @param span radians; null spreads to all sides
 * @param onGround whether it lies on the ground where nothing is beneath it, and reaches beyond nothing
 */
export function restingOf(floor: Floor, span: number | null, carriers: Carriers, onGround: boolean): Resting {
  const found = carriers.of(floor);
  const { take, loads } = carriers.gathering(found, floor.z);
  const how = { span, ...(onGround ? { overhang: 0 } : {}) };
  const { patches, lost } = carriers.divisions.of(ringsOf(floor.outline, floor.holes), found, how);
  patches.forEach(take);
  const [x, y] = lost.length === 0 ? [0, 0] : lost[0].centre;
  return { loads: loads(), lost: lost.reduce((sum, part) => sum + part.area, 0), lostAt: [x, y, floor.z] };
}

/** A floor within an outline: its parts on slabs at its height, and what lies on none. */
export function partsOf(
  outline: readonly Point[],
  holes: readonly (readonly Point[])[],
  slabs: readonly LyingSlab[],
): { region: Region; slab: LyingSlab | null }[] {
  let rest: Region = [{ outline: [...outline], holes: holes.map((hole) => [...hole]) }];
  const parts: { region: Region; slab: LyingSlab | null }[] = [];
  for (const slab of slabs) {
    const own: Region = [{ outline: [...slab.outline], holes: slab.holes.map((hole) => [...hole]) }];
    const shared = common(rest, own);
    if (shared.length === 0) continue;
    parts.push({ region: shared, slab });
    rest = without(rest, own);
  }
  if (rest.length > 0) parts.push({ region: rest, slab: null });
  return parts;
}
