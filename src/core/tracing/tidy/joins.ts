import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { area, simplify } from '@/core/geometry/polygon';
import { cross, distance, lineCrossing, subtract, type Point } from '@/core/geometry/vector';
import { withShape } from '@/core/kinds/kinds';
import { samePlace } from './nodes';
import { shareOf, type TidyLine, type TidyOrder, type Workpiece } from './workpiece';

/** Lines whose directions differ by less run alongside, as a sine. */
const alongside = 1e-3;

const straight = ({ bulge }: TidyLine): boolean => bulge === 0;
const sizeOf = ({ row }: TidyLine): string =>
  row.kind === 'wall'
    ? `wall ${row.shape.thickness.toFixed(4)}`
    : `beam ${JSON.stringify(row.shape.section)} ${row.shape.drop ?? 0}`;
const halfOf = ({ row }: TidyLine): number => (row.kind === 'wall' ? row.shape.thickness / 2 : 0);

const indexOf = (lines: readonly TidyLine[], margin: number): BoxIndex<TidyLine> =>
  new BoxIndex(lines, ({ start, end }) => boxOf([start, end], margin));

/** Takes away what is there twice: lines with the same ends, columns at one place. */
export function mergeDoubles(piece: Workpiece, { tolerance }: TidyOrder): number {
  const index = indexOf(piece.lines, tolerance);
  const order = new Map(piece.lines.map((line, i) => [line, i]));
  const left = new Set<TidyLine>();
  let count = 0;
  for (const line of piece.lines) {
    if (left.has(line)) continue;
    const twins = index
      .touching(boxOf([line.start, line.end]))
      .filter((other) => order.get(other)! > order.get(line)! && !left.has(other) && areTwins(line, other, tolerance));
    for (const twin of twins) {
      left.add(twin);
      piece.merge(twin, line);
      count += 1;
    }
  }
  return count + mergeColumns(piece, tolerance);
}

function areTwins(a: TidyLine, b: TidyLine, tolerance: number): boolean {
  if (a.row.kind !== b.row.kind || (a.row.kind === 'beam' && sizeOf(a) !== sizeOf(b))) return false;
  const near = (p: Point, q: Point): boolean => distance(p, q) <= tolerance;
  if (near(a.start, b.start) && near(a.end, b.end)) return Math.abs(a.bulge - b.bulge) < alongside;
  return near(a.start, b.end) && near(a.end, b.start) && Math.abs(a.bulge + b.bulge) < alongside;
}

function mergeColumns(piece: Workpiece, tolerance: number): number {
  const index = new BoxIndex(piece.columns, ({ shape }) => boxOf([shape.position], tolerance));
  const gone = new Set<string>();
  for (const [i, column] of piece.columns.entries()) {
    if (gone.has(column.id)) continue;
    for (const j of index.indices(boxOf([column.shape.position]))) {
      const other = piece.columns[j];
      if (j <= i || distance(other.shape.position, column.shape.position) > tolerance) continue;
      gone.add(other.id);
      piece.merged.set(other.id, column.id);
    }
  }
  piece.columns = piece.columns.filter(({ id }) => !gone.has(id));
  return gone.size;
}

/** Makes one of lines of one size that lie in one line and over one another. */
export function mergeOverlaps(piece: Workpiece, { tolerance }: TidyOrder): number {
  let count = 0;
  const queue = piece.lines.filter(straight);
  const left = new Set<TidyLine>();
  const index = indexOf(queue, tolerance);
  for (const line of queue) {
    if (left.has(line)) continue;
    for (const other of index.touching(boxOf([line.start, line.end], tolerance))) {
      if (other === line || left.has(other) || sizeOf(other) !== sizeOf(line)) continue;
      if (!overlap(line, other, tolerance)) continue;
      const ends = [line.start, line.end, other.start, other.end].sort((a, b) => shareOf(line, a) - shareOf(line, b));
      const [first, last] = [ends[0], ends[3]];
      left.add(other);
      piece.merge(other, line);
      line.start = first;
      line.end = last;
      count += 1;
    }
  }
  return count;
}

/** Whether two lines lie in one line within the tolerance, and over one another by more than it. */
function overlap(a: TidyLine, b: TidyLine, tolerance: number): boolean {
  const d = subtract(a.end, a.start);
  const length = Math.hypot(...d);
  if (length === 0) return false;
  const off = [b.start, b.end].map((p) => Math.abs(cross(d, subtract(p, a.start))) / length);
  if (Math.max(...off) > tolerance) return false;
  const [p, q] = [shareOf(a, b.start), shareOf(a, b.end)].sort((x, y) => x - y);
  return (Math.min(1, q) - Math.max(0, p)) * length > tolerance;
}

/** Extends or cuts back free ends of straight lines to the line of their kind that they nearly reach. */
export function extendToMeet(piece: Workpiece, { tolerance }: TidyOrder): number {
  const reach = Math.max(0, ...piece.lines.map(halfOf)) + tolerance;
  const index = indexOf(piece.lines, reach);
  const ends = new Map<string, number>();
  const keyOf = ([x, y]: Point): string => `${x} ${y}`;
  for (const { start, end } of piece.lines)
    for (const p of [start, end]) ends.set(keyOf(p), (ends.get(keyOf(p)) ?? 0) + 1);
  for (const { shape } of piece.columns) ends.set(keyOf(shape.position), 2);
  let count = 0;
  for (const line of piece.lines.filter(straight))
    for (const which of ['start', 'end'] as const) {
      const p = line[which];
      if (ends.get(keyOf(p))! > 1) continue;
      const to = meetingNear(line, p, index.touching(boxOf([p], reach)), tolerance);
      if (to === null || distance(to, p) <= samePlace) continue;
      line[which] = to;
      count += 1;
    }
  return count;
}

/** Where a free end meets another line of its kind, within that one's half thickness and the tolerance. */
function meetingNear(line: TidyLine, p: Point, others: readonly TidyLine[], tolerance: number): Point | null {
  let best: Point | null = null;
  for (const other of others) {
    if (other === line || !straight(other) || other.row.kind !== line.row.kind) continue;
    // Taken along the other line, so that the place lies on it exactly where it runs along an axis.
    const hit = lineCrossing(other.start, other.end, line.start, line.end);
    if (hit === null) continue;
    const length = distance(other.start, other.end);
    const beside = Math.max(0, -hit.t, hit.t - 1) * length;
    const near = distance(hit.point, p) <= halfOf(other) + tolerance && beside <= halfOf(line) + tolerance;
    if (near && (best === null || distance(hit.point, p) < distance(best, p))) best = hit.point;
  }
  return best;
}

/** Parts lines where others of their kind end on them or cross them; an opening there keeps a line whole. */
export function cutAtCrossings(piece: Workpiece, { tolerance, newId }: TidyOrder): number {
  let count = 0;
  const index = indexOf(piece.lines, tolerance);
  for (const line of piece.lines.filter(straight)) {
    const length = distance(line.start, line.end);
    const margin = tolerance / length;
    const cuts = index
      .touching(boxOf([line.start, line.end], tolerance))
      .filter((other) => other !== line && other.row.kind === line.row.kind)
      .flatMap((other) => cutsBy(line, other))
      .filter((at) => {
        const share = shareOf(line, at);
        const inside = share > margin && share < 1 - margin;
        return inside && !piece.openingsIn(line).some(({ from, to }) => from < share && share < to);
      })
      .sort((a, b) => shareOf(line, a) - shareOf(line, b));
    let rest = line;
    let before: Point | null = null;
    for (const at of cuts) {
      if (before !== null && distance(before, at) <= tolerance) continue;
      rest = piece.part(rest, at, newId());
      before = at;
      count += 1;
    }
  }
  return count;
}

/** The points of a line where another ends on it, or crosses it. */
function cutsBy(line: TidyLine, other: TidyLine): Point[] {
  const length = distance(line.start, line.end);
  const d = subtract(line.end, line.start);
  const ends = [other.start, other.end].filter(
    (p) => Math.abs(cross(d, subtract(p, line.start))) / length <= 1e-6 && shareOf(line, p) > 0 && shareOf(line, p) < 1,
  );
  if (ends.length > 0 || !straight(other)) return ends;
  const hit = lineCrossing(line.start, line.end, other.start, other.end);
  return hit !== null && hit.t > 0 && hit.t < 1 && hit.u > 0 && hit.u < 1 ? [hit.point] : [];
}

/** Takes doubled corners and corners on straight edges out of outlines. */
export function closeOutlines(piece: Workpiece, { tolerance }: TidyOrder): number {
  let count = 0;
  piece.areas = piece.areas.map((element) => {
    const outline = simplify(element.shape.outline, tolerance);
    if (outline.length === element.shape.outline.length || outline.length < 3) return element;
    count += 1;
    return withShape(element, { ...element.shape, outline } as never);
  });
  return count;
}

/** Takes lines away that are shorter than the tolerance, and areas of no width. */
export function removeSlivers(piece: Workpiece, { tolerance }: TidyOrder): number {
  const short = piece.lines.filter(({ start, end }) => distance(start, end) <= tolerance);
  for (const line of short) piece.drop(line);
  const thin = piece.areas.filter(({ shape }) => Math.abs(area(shape.outline)) <= tolerance * round(shape.outline));
  for (const { id } of thin) piece.gone.add(id);
  piece.areas = piece.areas.filter(({ id }) => !piece.gone.has(id));
  return short.length + thin.length;
}

/** Half the length round an outline: the length of an area of no width. */
const round = (outline: readonly Point[]): number =>
  outline.reduce((sum, p, i) => sum + distance(p, outline[(i + 1) % outline.length]), 0) / 2;
