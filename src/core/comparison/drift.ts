import { cross, distance, subtract, type Point } from '@/core/geometry/vector';
import type { ElementKind, ElementRow } from '@/core/kinds/element';
import { gridPoints } from '@/core/kinds/grid';
import { anchorOf, outlinesOf } from '@/core/kinds/kinds';
import { alongWall, type Opening } from '@/core/kinds/opening';
import type { Wall } from '@/core/kinds/wall';
import { awayFromLine } from '@/core/kinds/lines';
import { wallLine } from '@/core/kinds/wall';
import { leastOf, mostOf } from '@/core/lists';
import { piecesOf, pointsAlong, StrokeIndex, type Stroke } from './strokes';

/** How far an element lies from the lines it was made of. */
export interface Drift {
  id: string;
  kind: ElementKind;
  /** Metres. */
  away: number;
  at: Point;
  /** The shift in plan that takes it back onto its lines; null where no shift alone does. */
  back: Point | null;
}

/** An element with the wall that it is in, if it is an opening, or with the openings in it, if it is a wall. */
export interface Hosted {
  row: ElementRow;
  host: Wall | null;
  openings: readonly Opening[];
}

/** Faces are asked at points so far apart, metres, and at most at so many of a side. */
const [apart, most] = [0.25, 40];
/** So far about an element its lines are looked for, metres; what lies further off is said to lie this far. */
const reach = 5;
/** Of what is asked along a closed outline this share is as near as is said: corners may be cut, a side undrawn. */
const outlineShare = 0.75;
/** A shift takes an element back where at most this is left, metres, and this share of what there was. */
const [leftOver, leftShare] = [0.002, 0.25];

/** Points of an element, each group of which lies on one drawn line. */
interface Face {
  points: Point[];
  /** Of the distances in order, the one that counts. */
  share: number;
}

const alongPieces = (line: readonly Point[], closed: boolean): Point[] =>
  piecesOf(line, closed).flatMap(([a, b]) => pointsAlong(a, b, apart, most));

/** Whether what has a width was drawn by one line alone: no two of its lines lie more than this share of it apart. */
const oneLine = 0.3;

function isOneLine(axis: readonly Point[], width: number, strokes: readonly Stroke[]): boolean {
  if (axis.length !== 2) return false;
  const along = subtract(axis[1], axis[0]);
  const length = Math.hypot(...along) || 1;
  const offs = strokes
    .filter(({ a, b }) => Math.abs(cross(subtract(b, a), along)) <= 0.05 * length * distance(a, b))
    .map(({ a }) => cross(subtract(a, axis[0]), along) / length);
  return offs.length > 0 && mostOf(offs) - leastOf(offs) < oneLine * width;
}

/** Where an element's lines should be: along its faces, or, of what was drawn by one line, along its axis. */
function facesOf({ row, host, openings }: Hosted, strokes: readonly Stroke[]): Face[] {
  if (row.kind === 'grid') return [{ points: alongPieces(gridPoints(row.shape), false), share: 0.5 }];
  const [ring] = outlinesOf(row, host);
  if (ring === undefined) return [];
  if (row.kind !== 'wall' && row.kind !== 'beam') return [{ points: alongPieces(ring, true), share: outlineShare }];
  // A band goes along one side and comes back on the other.
  const half = ring.length / 2;
  const [left, right] = [ring.slice(0, half), ring.slice(half).reverse()];
  const axis = left.map(([x, y], i): Point => [(x + right[i][0]) / 2, (y + right[i][1]) / 2]);
  const lines = isOneLine(axis, distance(left[0], right[0]), strokes) ? [axis] : [left, right];
  const drawn = (p: Point): boolean => row.kind !== 'wall' || !isOpen(row.shape, openings, p);
  return lines.map((line) => {
    const points = alongPieces(line, false);
    const solid = points.filter(drawn);
    return { points: solid.length > 0 ? solid : points, share: 0.5 };
  });
}

/** Whether a wall is open at a point: its faces are not drawn there. */
const isOpen = (wall: Wall, openings: readonly Opening[], p: Point): boolean => {
  const at = alongWall(wall, p);
  return openings.some(({ offset, width }) => at >= offset && at <= offset + width);
};

interface Foot {
  from: Point;
  to: Point;
  away: number;
}

const feetOf = (points: readonly Point[], index: StrokeIndex, by: Point): Foot[] =>
  points.map(([x, y]) => {
    const from: Point = [x + by[0], y + by[1]];
    const found = index.nearest(from, reach);
    return { from, to: found?.point ?? from, away: found?.away ?? Infinity };
  });

/** How far a face lies from lines once it is shifted: the distance of the point that counts. */
function awayOf({ points, share }: Face, index: StrokeIndex, by: Point): number {
  const sorted = feetOf(points, index, by)
    .map(({ away }) => away)
    .sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Infinity;
}

const farthestOf = (faces: readonly Face[], index: StrokeIndex, by: Point): number =>
  Math.max(...faces.map((face) => awayOf(face, index, by)));

/** How often a shift is made better; points find other lines once they are nearer. */
const rounds = 6;

/**
 * Where a shift may begin: from nothing, and from either face where the other is, because a wall that was shifted by
 * its own thickness has one face on a line already.
 */
function beginnings(faces: readonly Face[]): Point[] {
  if (faces.length < 2) return [[0, 0]];
  const [dx, dy] = subtract(faces[1].points[0], faces[0].points[0]);
  return [
    [0, 0],
    [dx, dy],
    [-dx, -dy],
  ];
}

/** The shift that takes faces onto their lines best: least squares across the lines, nearest lines found anew. */
function shiftFrom(faces: readonly Face[], index: StrokeIndex, begun: Point): Point {
  let by = begun;
  for (let round = 0; round < rounds; round += 1) {
    let [xx, xy, yy, bx, byy] = [0, 0, 0, 0, 0];
    for (const { points } of faces)
      for (const { from, to, away } of feetOf(points, index, by)) {
        if (!(away > 0 && away < Infinity)) continue;
        const [nx, ny] = [(to[0] - from[0]) / away, (to[1] - from[1]) / away];
        xx += nx * nx;
        xy += nx * ny;
        yy += ny * ny;
        bx += nx * away;
        byy += ny * away;
      }
    // A little stiffness, so that what lies along its lines does not slide on them.
    const soft = 1e-6 * (xx + yy) + 1e-12;
    const det = (xx + soft) * (yy + soft) - xy * xy;
    const step: Point = [((yy + soft) * bx - xy * byy) / det, ((xx + soft) * byy - xy * bx) / det];
    by = [by[0] + step[0], by[1] + step[1]];
    if (Math.hypot(...step) < 1e-7) break;
  }
  return by;
}

/** The shift that takes faces back best, and how far they are from lines then; of two as good the first. */
function fitOf(faces: readonly Face[], index: StrokeIndex): { by: Point; left: number } {
  const shifts = beginnings(faces).map((begun) => {
    const by = shiftFrom(faces, index, begun);
    return { by, left: farthestOf(faces, index, by) };
  });
  return shifts.reduce((a, b) => (b.left + leftOver < a.left ? b : a));
}

/** How far an opening's jambs lie from the drawn ends nearest along its wall. */
function jambsOf({ row, host }: Hosted, strokes: readonly Stroke[]): number {
  if (row.kind !== 'opening' || host === null) return Infinity;
  const line = wallLine(host);
  const ends = strokes.flatMap(({ a, b }) => [a, b]).filter((p) => awayFromLine(line, p) <= host.thickness);
  const at = ends.map((p) => alongWall(host, p));
  const { offset, width } = row.shape;
  return Math.max(...[offset, offset + width].map((jamb) => leastOf(at.map((x) => Math.abs(x - jamb)))));
}

/**
 * How far an element lies from the lines it was made of.
 * @param strokes the pieces of those lines, metres in the project
 * @returns null where none of them is in its reach
 */
export function driftOf(hosted: Hosted, strokes: readonly Stroke[]): Drift | null {
  const { row, host } = hosted;
  const at = anchorOf(row, host);
  if (at === null || strokes.length === 0) return null;
  const told = { id: row.id, kind: row.kind, at };
  if (row.kind === 'opening') {
    const away = jambsOf(hosted, strokes);
    return Number.isFinite(away) ? { ...told, away, back: null } : null;
  }
  const index = new StrokeIndex(strokes);
  const faces = facesOf(hosted, strokes);
  if (faces.length === 0) return null;
  const { by, left } = fitOf(faces, index);
  const away = Math.min(reach, farthestOf(faces, index, [0, 0]));
  const certain = away > leftOver && left <= Math.max(leftOver, leftShare * away);
  return { ...told, away, back: certain ? by : null };
}
