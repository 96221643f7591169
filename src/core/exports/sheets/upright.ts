import { boxOf } from '@/core/geometry/boxIndex';
import { contains } from '@/core/geometry/polygon';
import { cross, dot, radians, subtract, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import type { ReadModel } from '@/core/handover/model/readModel';
import { columnOutline } from '@/core/kinds/column';
import { alongLine, bandOutline, lengthOfLine, pieceOfLine } from '@/core/kinds/lines';
import { sectionSize } from '@/core/kinds/section';
import { columnReach, wallSizes } from '../sizes';
import { wallPlan } from '../wallPlan';

type V2 = Point;

/** An upright plane: a point of it in plan, and the way along it, of length one; it is looked at from its right. */
export interface Cut {
  from: Point;
  along: Point;
}

/** A cut with its letter. */
export interface NamedCut {
  name: string;
  cut: Cut;
}

/** What the plane cuts or what stands behind it: faces in metres along it and up. */
export interface Face {
  ring: V2[];
  /** How light it is, and how it is bound. */
  kind: 'wall' | 'column' | 'slab' | 'beam' | 'opening';
  /** Metres behind the plane; zero of what it cuts. */
  behind: number;
}

/** A part of the building over an outline in plan, between an underside and an upper side. */
interface Solid {
  kind: Face['kind'];
  outline: readonly Point[];
  holes?: readonly (readonly Point[])[];
  low: (p: Point) => number;
  high: (p: Point) => number;
  /** Left out where it is both cut and seen: walls are cut in pieces and seen whole, their openings before them. */
  only?: 'cut' | 'seen';
}

const level = (z: number) => (): number => z;

/** Where a point lies along a cut, and how far to the left of it: behind it. */
const seen = ({ from, along }: Cut, p: Point): { at: number; behind: number } => {
  const d = subtract(p, from);
  return { at: dot(d, along), behind: cross(along, d) };
};
const placeAt = ({ from, along }: Cut, at: number): Point => [from[0] + along[0] * at, from[1] + along[1] * at];

/** A sliver of a solid that a cut goes through is none, metres. */
const least = 1e-6;

/** The stretches of a cut that lie in an outline and in none of its holes. */
function stretchesIn(cut: Cut, { outline, holes = [] }: Pick<Solid, 'outline' | 'holes'>): [number, number][] {
  const crossings = [outline, ...holes].flatMap((ring) =>
    ring.flatMap((p, i) => {
      const [a, b] = [seen(cut, p), seen(cut, ring[(i + 1) % ring.length])];
      if (a.behind > 0 === b.behind > 0) return [];
      return [a.at + ((b.at - a.at) * a.behind) / (a.behind - b.behind)];
    }),
  );
  const stops = crossings.sort((a, b) => a - b);
  return stops.slice(1).flatMap((to, i): [number, number][] => {
    const from = stops[i];
    if (to - from < least) return [];
    const middle = placeAt(cut, (from + to) / 2);
    const inside = contains(outline, middle) && !holes.some((hole) => contains(hole, middle));
    return inside ? [[from, to]] : [];
  });
}

/** What a cut goes through. */
const cutFaces = (cut: Cut, solid: Solid): Face[] =>
  stretchesIn(cut, solid).flatMap(([from, to]) => {
    const [a, b] = [placeAt(cut, from), placeAt(cut, to)];
    const ring: V2[] = [
      [from, solid.low(a)],
      [to, solid.low(b)],
      [to, solid.high(b)],
      [from, solid.high(a)],
    ];
    return ring[2][1] - ring[1][1] < least && ring[3][1] - ring[0][1] < least
      ? []
      : [{ ring, kind: solid.kind, behind: 0 }];
  });

/** What stands behind a cut, as it looks from it: as wide as its outline, between its lowest and its highest. */
function faceBehind(cut: Cut, solid: Solid): Face[] {
  const corners = solid.outline.map((p) => ({ p, ...seen(cut, p) }));
  const behind = Math.max(0, Math.min(...corners.map((one) => one.behind)));
  if (Math.max(...corners.map((one) => one.behind)) <= least) return [];
  const here = corners.filter((one) => one.behind >= 0);
  const ring = here.flatMap(({ at, p }): V2[] => [
    [at, solid.low(p)],
    [at, solid.high(p)],
  ]);
  return ring.length < 3 ? [] : [{ ring: hull(ring), kind: solid.kind, behind: Math.max(least, behind) }];
}

/** The convex hull of points (monotone chain), counter-clockwise. */
function hull(points: readonly V2[]): V2[] {
  const sorted = [...points].sort(([x1, y1], [x2, y2]) => x1 - x2 || y1 - y2);
  const chain = (all: readonly V2[]): V2[] => {
    const kept: V2[] = [];
    for (const p of all) {
      while (
        kept.length > 1 &&
        cross(subtract(kept[kept.length - 1], kept[kept.length - 2]), subtract(p, kept[kept.length - 1])) <= 0
      )
        kept.pop();
      kept.push(p);
    }
    return kept.slice(0, -1);
  };
  return [...chain(sorted), ...chain([...sorted].reverse())];
}

/** Everything of a model that has a body, and the openings of walls, which are seen in front of theirs. */
function solidsOf(model: ReadModel): Solid[] {
  const elevations = new Map(model.levels.map((one) => [one.id, one]));
  const openings = groupBy(model.openings, ({ wall }) => wall);
  return [
    ...model.slabs.map(({ level: id, outline, holes, thickness, top }): Solid => {
      const own = elevations.get(id);
      const z = top ?? own?.structuralTop ?? own?.elevation ?? 0;
      return { kind: 'slab', outline, holes, low: level(z - thickness), high: level(z) };
    }),
    ...model.columns.map((column): Solid => {
      const [low, high] = columnReach(column, model);
      return { kind: 'column', outline: columnOutline(column), low: level(low), high: level(high) };
    }),
    ...model.beams.flatMap((beam) => beamSolid(beam)),
    ...model.walls.flatMap((wall) =>
      wallSolids(wall, elevations.get(wall.level)?.elevation ?? 0, openings.get(wall.id) ?? []),
    ),
    ...(model.roofs ?? []).flatMap((roof) => roofSolid(roof)),
  ];
}

function beamSolid({ start, end, section, use }: ReadModel['beams'][number]): Solid[] {
  const [a, b]: Point[] = [
    [start[0], start[1]],
    [end[0], end[1]],
  ];
  const length = lengthOfLine([a, b]);
  if (length === 0) return [];
  const { width, depth } = sectionSize(section);
  const d: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const line = (p: Point): number => start[2] + ((end[2] - start[2]) * dot(subtract(p, a), d)) / length;
  // Braces and members of trusses lie about their line, beams beneath theirs.
  const over = use === undefined || use === 'beam' ? 0 : depth / 2;
  return [
    {
      kind: 'beam',
      outline: bandOutline([a, b], width),
      low: (p) => line(p) + over - depth,
      high: (p) => line(p) + over,
    },
  ];
}

/** The pieces of a wall that are solid over all its height, and those beneath sills and above heads. */
function wallSolids(
  wall: ReadModel['walls'][number],
  elevation: number,
  own: readonly ReadModel['openings'][number][],
): Solid[] {
  const plan = wallPlan(wall, own);
  if (plan === null) return [];
  const { base, height } = wallSizes(wall, elevation, []);
  const band = (from: number, to: number): Point[] => bandOutline(pieceOfLine(plan.line, from, to), wall.thickness);
  const top = topOfWall(wall, plan.line, base + height);
  const piece = (from: number, to: number, low: number, high: (p: Point) => number): Solid => ({
    kind: 'wall',
    outline: band(from, to),
    low: level(low),
    high: (p) => Math.max(low, high(p)),
    only: 'cut',
  });
  return [
    { ...piece(0, plan.length, base, top), only: 'seen' },
    ...plan.solid.map(([from, to]) => piece(from, to, base, top)),
    ...plan.openings.flatMap(({ offset, width, sill, height: tall }): Solid[] => {
      const to = Math.min(plan.length, offset + width);
      const head = base + sill + tall;
      return [
        ...(sill > 0 ? [piece(offset, to, base, level(base + sill))] : []),
        piece(offset, to, head, top),
        { kind: 'opening', outline: band(offset, to), low: level(base + sill), high: level(head), only: 'seen' },
      ];
    }),
  ];
}

/** How high a wall is at a place: under a roof by its profile. */
function topOfWall({ profile }: ReadModel['walls'][number], line: readonly Point[], plain: number) {
  if (profile === undefined || profile.length < 2) return level(plain);
  const length = lengthOfLine(line);
  const [start, direction] = [line[0], alongLine(line, 0).direction];
  return (p: Point): number => {
    const at = Math.max(0, Math.min(length, dot(subtract(p, start), direction)));
    const i = Math.max(
      1,
      profile.findIndex(([along]) => along >= at),
    );
    const [[a, low], [b, high]] = [profile[i - 1], profile[i]];
    return b === a ? high : low + ((high - low) * (at - a)) / (b - a);
  };
}

function roofSolid({ outline, slope, direction, thickness }: NonNullable<ReadModel['roofs']>[number]): Solid[] {
  if (outline.length < 3) return [];
  const [x, y, z] = outline[0];
  const rise = Math.tan(radians(slope));
  const up: Point = [Math.cos(radians(direction)), Math.sin(radians(direction))];
  const low = (p: Point): number => z + rise * dot(subtract(p, [x, y]), up);
  const thick = thickness / Math.cos(radians(slope));
  return [{ kind: 'slab', outline: outline.map(([u, w]): Point => [u, w]), low, high: (p) => low(p) + thick }];
}

/** A model with its solids, worked out once for all planes that it is seen from. */
export interface Built {
  model: ReadModel;
  solids: readonly Solid[];
}

export const builtOf = (model: ReadModel): Built => ({ model, solids: solidsOf(model) });

/** What is seen of a model from an upright plane, from the farthest to what it cuts. */
export function facesFrom({ solids }: Built, cut: Cut): Face[] {
  const behind = solids.filter(({ only }) => only !== 'cut').flatMap((solid) => faceBehind(cut, solid));
  // An opening is seen in front of the wall that it is in.
  const order = (face: Face): number => face.behind - (face.kind === 'opening' ? least : 0);
  return [
    ...behind.sort((a, b) => order(b) - order(a)),
    ...solids.filter(({ only }) => only !== 'seen').flatMap((solid) => cutFaces(cut, solid)),
  ];
}

/** Places of a cut that are tried. */
const tried = 24;
/** A cut is as good as the longest one from this share of what that goes through inside. */
const longEnough = 0.8;

const lengthIn = (cut: Cut, outlines: readonly Pick<Solid, 'outline' | 'holes'>[]): number =>
  outlines.reduce((sum, one) => sum + stretchesIn(cut, one).reduce((all, [from, to]) => all + to - from, 0), 0);

/**
 * A cut through a model that is long inside it and goes along as little of walls and columns as it can; null where
 * nothing has an inside.
 * @param along the way of it
 */
export function cutThrough({ model, solids }: Built, along: Point): Cut | null {
  const inside = model.zones.length > 0 ? model.zones : model.slabs;
  const corners = inside.flatMap(({ outline }): Point[] => outline);
  if (corners.length === 0) return null;
  const [x1, y1, x2, y2] = boxOf(corners);
  const middle: Point = [(x1 + x2) / 2, (y1 + y2) / 2];
  const left: Point = [-along[1], along[0]];
  const reach = (Math.abs(left[0]) * (x2 - x1) + Math.abs(left[1]) * (y2 - y1)) / 2;
  const upright = solids.filter(({ kind, only }) => (kind === 'wall' || kind === 'column') && only !== 'seen');
  const cuts = Array.from({ length: tried }, (_, i) => {
    // From the middle outward, to one side and the other.
    const off = (((i % 2 === 0 ? 1 : -1) * Math.ceil(i / 2)) / (tried / 2)) * reach;
    const cut: Cut = { from: [middle[0] + left[0] * off, middle[1] + left[1] * off], along };
    return { cut, solid: lengthIn(cut, upright), inner: lengthIn(cut, inside) };
  });
  const longest = cuts.reduce((most, { inner }) => Math.max(most, inner), 0);
  const good = cuts.filter(({ inner }) => inner >= longest * longEnough);
  return good.reduce((best, one) => (one.solid < best.solid - least ? one : best)).cut;
}
