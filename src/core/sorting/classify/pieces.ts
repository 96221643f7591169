import { Kind } from '@/core/drawing/drawing';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { arcOfBulge } from '@/core/geometry/bulge';
import { bulgeThrough } from '@/core/geometry/offsetPath';
import { leastRectangle } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { PathFlag } from '@/core/underlay/primitives';
import { column, sizeKey } from './columns';
import type { Drawn } from './drawn';
import type { AllLooks, ArcPiece, Line } from './looks';

/** Kinds that annotate. */
const annotation = new Set<number>([
  Kind.dimension,
  Kind.leader,
  Kind.multiLeader,
  Kind.table,
  Kind.hatch,
  Kind.solid,
  Kind.image,
  Kind.wipeout,
  Kind.construction,
  Kind.ray,
  Kind.point,
]);

/** A number that is no label of letters: of a room, a door, a detail. */
const number = /^\d[\d.\-/]*[a-z]?$/i;
/** What stands in a ring is as short as this. */
const short = /^.{1,6}$/u;

/** What a drawing is made of, for its geometry to be recognised by. */
export interface Pieces {
  lines: Line[];
  /** Straight sides of paths that have more than one. */
  sides: Line[];
  arcs: ArcPiece[];
  /** Paths of small closed shapes by their size. */
  shapes: Map<string, number[]>;
  /** Paths of boxes about a number and rings about a short text: bubbles, where lines end in them, else tags. */
  tags: number[];
  /** Where something with a figure in it is written, and where anything is. */
  figures: BoxIndex<Point>;
  written: BoxIndex<Point>;
}

/**
 * Takes a drawing apart; annotations are told at once.
 * @param k metres of one drawing unit
 */
export function piecesOf(looks: AllLooks, drawn: Drawn): Pieces {
  const [figures, written] = [pointsOf(drawn, /\d/), pointsOf(drawn, /./)];
  const found: Pieces = { lines: [], sides: [], arcs: [], shapes: new Map(), tags: [], figures, written };
  const [numbers, labels] = [pointsOf(drawn, number), pointsOf(drawn, short)];
  for (let path = 0; path < looks.length; path += 1) {
    if (annotation.has(drawn.p.kind[path])) looks[path] = { role: 'ignore', why: 'an annotation' };
    else if ((drawn.p.flags[path] & PathFlag.circle) !== 0) takeCircle(found, drawn, path, labels);
    else if (drawn.p.chain[path] === 0) takePath(found, drawn, path, numbers);
  }
  return found;
}

/** The middles of texts of one form. */
function pointsOf(drawn: Drawn, form: RegExp): BoxIndex<Point> {
  const points = drawn.p.texts
    .filter(({ text }) => text.trim() !== '' && form.test(text.trim()))
    .map((text) => drawn.middleOf(text));
  return new BoxIndex(points, (point) => boxOf([point]));
}

/** A ring about a text, or a round shape that may be a column. */
function takeCircle(found: Pieces, drawn: Drawn, path: number, labels: BoxIndex<Point>): void {
  const [a, b] = [drawn.vertex(drawn.p.start[path]), drawn.vertex(drawn.p.start[path] + 1)];
  const [centre, radius]: [Point, number] = [[(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], distance(a, b) / 2];
  if (labels.around(centre, radius).some((point) => distance(point, centre) < 0.6 * radius)) found.tags.push(path);
  else if (drawn.p.chain[path] === 0 && 2 * radius >= column.least && 2 * radius <= column.most)
    push(found.shapes, `round ${(2 * radius).toFixed(2)}`, path);
}

/** Small outlines have at most so many corners. */
const mostCorners = 64;

/** A small outline of a column's size; a box about a number is its frame. */
function takeOutline(found: Pieces, path: number, outline: readonly Point[], numbers: BoxIndex<Point>): void {
  const box = outline.length < 3 ? null : leastRectangle(outline);
  if (box === null || Math.max(box.width, box.depth) > column.most) return;
  const reach = Math.min(box.width, box.depth) / 2;
  const name = outline.length === 4 ? sizeKey(box) : `${sizeKey(box)}, ${outline.length} corners`;
  if (numbers.around(box.centre, 0.4 * reach).length > 0) found.tags.push(path);
  else if (2 * reach >= column.least) push(found.shapes, name, path);
}

/** The lines and arcs of a path; what closes to a small shape is a shape too. */
function takePath(found: Pieces, drawn: Drawn, path: number, numbers: BoxIndex<Point>): void {
  const [first, end] = [drawn.p.start[path], drawn.p.start[path + 1]];
  const closed = (drawn.p.flags[path] & PathFlag.closed) !== 0;
  const corners = end - first > mostCorners ? null : drawn.corners(path);
  if (corners !== null) takeOutline(found, path, corners, numbers);
  const chords = closed ? null : arcOfChords(Array.from({ length: end - first }, (_, i) => drawn.vertex(first + i)));
  if (chords !== null) found.arcs.push({ path, ...chords });
  for (let v = first; v + 1 < end + (closed ? 1 : 0); v += 1) {
    const [a, b] = [drawn.vertex(v), drawn.vertex(v + 1 < end ? v + 1 : first)];
    if (drawn.p.bulge[v] === 0) {
      (end - first === 2 ? found.lines : found.sides).push({ path, a, b, length: distance(a, b) });
      continue;
    }
    const { centre, radius, sweep } = arcOfBulge(a, b, drawn.p.bulge[v]);
    found.arcs.push({ path, centre, radius, ends: [a, b], sweep: Math.abs(sweep) });
  }
}

/** An arc drawn as chords has so many, as long as one another and on one circle within this share of its radius. */
const chorded = { fewest: 3, most: 64, even: 0.05, round: 0.01 };

/** The arc that even chords make; null where they make none. */
function arcOfChords(points: readonly Point[]): Omit<ArcPiece, 'path'> | null {
  const count = points.length - 1;
  if (count < chorded.fewest || count > chorded.most) return null;
  const [first, last] = [points[0], points[count]];
  const lengths = points.slice(1).map((b, i) => distance(points[i], b));
  const mean = lengths.reduce((sum, length) => sum + length, 0) / count;
  if (mean === 0 || lengths.some((length) => Math.abs(length - mean) > chorded.even * mean)) return null;
  const bulge = bulgeThrough(first, last, points[count >> 1]);
  if (bulge === 0) return null;
  const { centre, radius, sweep } = arcOfBulge(first, last, bulge);
  if (points.some((point) => Math.abs(distance(centre, point) - radius) > chorded.round * radius)) return null;
  return { centre, radius, ends: [first, last], sweep: Math.abs(sweep) };
}

function push(groups: Map<string, number[]>, key: string, path: number): void {
  const group = groups.get(key);
  if (group) group.push(path);
  else groups.set(key, [path]);
}
