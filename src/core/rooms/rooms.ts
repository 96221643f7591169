import { BoxIndex, boxOf, type Box } from '@/core/geometry/boxIndex';
import { area, contains, counterClockwise } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { Report } from '@/core/proof/report';

/** A zone as a room that holds heat: its rings in plan, from where to where it reaches. */
export interface Room {
  id: string;
  name: string;
  zone: ReadModel['zones'][number];
  /** The outline counter-clockwise, holes clockwise, so that outside lies to the right of each side. */
  rings: Point[][];
  box: Box;
  /** Elevations of its floor and of its ceiling, metres. */
  low: number;
  high: number;
  /** Square metres by inner faces. */
  area: number;
}

/** Floors within this of one another are one, metres. */
export const sameHeight = 0.05;
/** Structure between a ceiling and the floor over it is at most so thick, metres. */
export const thickestFloor = 1.2;

type Slab = ReadModel['slabs'][number];

/** A slab's top: as it says, else its level's. */
const topOf = (model: ReadModel, slab: Slab): number =>
  slab.top ?? model.levels.find(({ id }) => id === slab.level)?.elevation ?? 0;

/** Slabs by where their tops lie, to be asked which lies over or under a place. */
export class Slabs {
  private readonly index: BoxIndex<{ slab: Slab; top: number }>;

  constructor(model: ReadModel) {
    const lying = model.slabs
      .filter(({ outline }) => outline.length >= 3)
      .map((slab) => ({ slab, top: topOf(model, slab) }));
    this.index = new BoxIndex(lying, ({ slab }) => boxOf(slab.outline));
  }

  /** The slab at a place whose top is nearest to a height, within a reach; null where there is none. */
  at(p: Point, z: number, reach: number): { slab: Slab; top: number } | null {
    const found = this.index
      .around(p)
      .filter(({ slab, top }) => Math.abs(top - z) <= reach && contains(slab.outline, p))
      .sort((a, b) => Math.abs(a.top - z) - Math.abs(b.top - z));
    return found[0] ?? null;
  }
}

/** Tops of slabs lie within this of their level, metres. */
const nearLevel = 0.6;

/** The zones of a model as rooms; those without an outline or a height are told and left out. */
export function roomsOf(model: ReadModel, slabs: Slabs, report: Report): Room[] {
  const levels = [...model.levels].sort((a, b) => a.elevation - b.elevation);
  return model.zones.flatMap((zone): Room[] => {
    const level = levels.find(({ id }) => id === zone.level);
    const size = zone.outline.length < 3 ? 0 : Math.abs(area(zone.outline));
    const told = zone.name || zone.number || zone.id;
    if (level === undefined || size < leastRoom) {
      report.find(
        'zone',
        'error',
        [zone.id],
        [...(zone.outline[0] ?? [0, 0]), level?.elevation ?? 0],
        [
          level === undefined
            ? `The zone ${told} belongs to level ${zone.level}, which is not there.`
            : `The zone ${told} covers ${size.toFixed(3)} m2: it holds nothing.`,
          'Give it a level and an outline at Tracing.',
        ],
      );
      return [];
    }
    const low = level.elevation;
    const high = low + clearHeightOf(zone, level, levels, slabs);
    const holes = zone.holes.filter(({ length }) => length >= 3);
    const rings = [counterClockwise(zone.outline), ...holes.map((hole) => [...counterClockwise(hole)].reverse())];
    const own = holes.reduce((rest, hole) => rest - Math.abs(area(hole)), size);
    return [{ id: zone.id, name: told, zone, rings, box: boxOf(zone.outline), low, high, area: own }];
  });
}

/** Smaller zones are none, square metres. */
const leastRoom = 0.01;

/** From floor to ceiling: as said, else to the underside of what lies over the storey. */
function clearHeightOf(
  zone: ReadModel['zones'][number],
  level: ReadModel['levels'][number],
  levels: readonly ReadModel['levels'][number][],
  slabs: Slabs,
): number {
  if (zone.clearHeight !== undefined && zone.clearHeight > 0) return zone.clearHeight;
  const storey = zone.height > 0 ? zone.height : level.height;
  const over = levels.find(({ elevation }) => Math.abs(elevation - (level.elevation + storey)) <= nearLevel);
  const top = over === undefined ? level.elevation + storey : (over.structuralTop ?? over.elevation);
  const slab = slabs.at(zone.outline[0], top, nearLevel) ?? slabs.at(insideOf(zone.outline), top, nearLevel);
  const thickness = slab?.slab.thickness ?? over?.slabThickness ?? 0;
  return Math.max(leastHeight, (slab?.top ?? top) - thickness - level.elevation);
}

/** No room is lower than this, metres. */
const leastHeight = 0.3;

/** A place well inside an outline: the middle of the first ear that lies in it. */
export function insideOf(outline: readonly Point[]): Point {
  for (let i = 0; i < outline.length; i += 1) {
    const [a, b, c] = [0, 1, 2].map((k) => outline[(i + k) % outline.length]);
    const p: Point = [(a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3];
    if (contains(outline, p)) return p;
  }
  return outline[0];
}
