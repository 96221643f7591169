import { Kind } from '@/core/drawing/drawing';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { arcOfBulge } from '@/core/geometry/bulge';
import { centroid, leastRectangle } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { PathFlag, type Primitives } from '@/core/underlay/primitives';
import { centreOfText } from '@/core/underlay/textBox';
import { column, sizeKey } from './columns';
import type { Bubble } from './grid';
import { closedCorners, type AllLooks, type ArcPiece, type Line } from './looks';

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

/** The label of a grid line. */
const gridLabel = /^[A-Z]{0,3}\d{0,3}['.]?\d{0,2}$/i;
/** A number that is no label of letters: of a room, a door, a detail. */
const number = /^\d[\d.\-/]*[a-z]?$/i;
/** The radii of rings that labels stand in, metres. */
const ring = { least: 0.1, most: 1.5 };

/** What a drawing is made of, for its geometry to be recognised by. */
export interface Pieces {
  bubbles: Bubble[];
  lines: Line[];
  arcs: ArcPiece[];
  /** Closed outlines of a ring's size about a label; bubbles where a long line ends in them. */
  rings: LabelledOutline[];
  /** Paths of small closed shapes by their size. */
  shapes: Map<string, number[]>;
}

/** A polygon about a label. */
export interface LabelledOutline extends Bubble {
  path: number;
}

/**
 * Takes a drawing apart; annotations and labelled rings are told at once.
 * @param k metres of one drawing unit
 */
export function piecesOf(looks: AllLooks, p: Primitives, k: number): Pieces {
  const found: Pieces = { bubbles: [], lines: [], arcs: [], rings: [], shapes: new Map() };
  const labels = pointsOf(p, k, gridLabel);
  const numbers = pointsOf(p, k, number);
  for (let path = 0; path < looks.length; path += 1) {
    if (annotation.has(p.kind[path])) looks[path] = { role: 'ignore', why: 'an annotation' };
    else if ((p.flags[path] & PathFlag.circle) !== 0) takeCircle(looks, found, p, k, path, labels);
    else if (p.chain[path] === 0) takePath(looks, found, p, k, path, { labels, numbers });
  }
  return found;
}

/** The middles of texts of one form. */
function pointsOf(p: Primitives, k: number, form: RegExp): BoxIndex<Point> {
  const points = p.texts
    .filter(({ text }) => text.trim() !== '' && form.test(text.trim()))
    .map((text): Point => {
      const [x, y] = centreOfText(text);
      return [x * k, y * k];
    });
  return new BoxIndex(points, (point) => boxOf([point]));
}

const pointAt = (p: Primitives, k: number, v: number): Point => [p.xy[2 * v] * k, p.xy[2 * v + 1] * k];

/** A ring about a label, or a round shape that may be a column. */
function takeCircle(looks: AllLooks, found: Pieces, p: Primitives, k: number, path: number, labels: BoxIndex<Point>) {
  const [a, b] = [pointAt(p, k, p.start[path]), pointAt(p, k, p.start[path] + 1)];
  const [centre, radius]: [Point, number] = [[(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], distance(a, b) / 2];
  const labelled = labels.around(centre, radius).some((point) => distance(point, centre) < 0.6 * radius);
  if (radius > ring.least && radius < ring.most && labelled) {
    looks[path] = { role: 'grid', why: 'a ring with a label' };
    found.bubbles.push({ centre, radius });
  } else if (p.chain[path] === 0 && 2 * radius >= column.least && 2 * radius <= column.most)
    push(found.shapes, `round ${(2 * radius).toFixed(2)}`, path);
}

/** Small outlines have at most so many corners. */
const mostCorners = 16;

/** Where short texts are: those that may be labels of grid lines, and numbers. */
interface Words {
  labels: BoxIndex<Point>;
  numbers: BoxIndex<Point>;
}

/** A small outline: of a column's size, or about a label; a box about a number is its frame. */
function takeOutline(
  looks: AllLooks,
  found: Pieces,
  path: number,
  corners: readonly Point[],
  { labels, numbers }: Words,
): void {
  const box = corners.length < 3 ? null : leastRectangle(corners);
  if (box === null) return;
  const reach = Math.min(box.width, box.depth) / 2;
  const numbered = Math.max(box.width, box.depth) <= column.most && numbers.around(box.centre, 0.4 * reach).length > 0;
  if (numbered) looks[path] = { role: 'label', why: 'a box about a number' };
  const name = corners.length === 4 ? sizeKey(box) : `${sizeKey(box)}, ${corners.length} corners`;
  if (!numbered && Math.min(box.width, box.depth) >= column.least && Math.max(box.width, box.depth) <= column.most)
    push(found.shapes, name, path);
  const centre = centroid(corners);
  const radius = Math.max(...corners.map((corner) => distance(corner, centre)));
  if (radius < ring.least || radius > ring.most) return;
  if (labels.around(centre, radius).some((point) => distance(point, centre) < 0.6 * radius))
    found.rings.push({ path, centre, radius });
}

/** The lines and arcs of a path; what closes to a small shape is a shape too. */
function takePath(looks: AllLooks, found: Pieces, p: Primitives, k: number, path: number, words: Words): void {
  const [first, end] = [p.start[path], p.start[path + 1]];
  const closed = (p.flags[path] & PathFlag.closed) !== 0;
  const corners = end - first > mostCorners ? null : closedCorners(p, k, path);
  if (corners !== null) takeOutline(looks, found, path, corners, words);
  for (let v = first; v + 1 < end + (closed ? 1 : 0); v += 1) {
    const [a, b] = [pointAt(p, k, v), pointAt(p, k, v + 1 < end ? v + 1 : first)];
    if (p.bulge[v] === 0) {
      if (end - first === 2) found.lines.push({ path, a, b, length: distance(a, b) });
      continue;
    }
    const { centre, radius, sweep } = arcOfBulge(a, b, p.bulge[v]);
    found.arcs.push({ path, centre, radius, ends: [a, b], sweep: Math.abs(sweep) });
  }
}

function push(groups: Map<string, number[]>, key: string, path: number): void {
  const group = groups.get(key);
  if (group) group.push(path);
  else groups.set(key, [path]);
}
