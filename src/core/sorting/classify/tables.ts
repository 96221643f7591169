import { groupBy } from '@/core/groupBy';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import type { AllLooks, Line } from './looks';

/** A table has so many lines across at least, as long as one another within that, metres, and rows so high at most. */
const table = { fewest: 4, even: 0.01, highest: 1.5 };

/**
 * Tables and title blocks: lines of one length under one another, with lines down along both ends; all that lies within
 * is theirs. Room of a stair has no lines down both sides, a window no rows.
 */
export function tables(looks: AllLooks, lines: readonly Line[], written: BoxIndex<Point>): void {
  const open = lines.filter(({ path }) => looks[path] === null);
  const index = new BoxIndex(open, ({ a, b }) => boxOf([a, b], table.even));
  const done = new Set<Line>();
  for (const own of groupBy(open, keyOf).values()) {
    if (own.length < table.fewest) continue;
    for (const rows of runsOf(own)) {
      if (rows.length < table.fewest || rows.some((row) => done.has(row))) continue;
      const corners = [rows[0].a, rows[0].b, rows[rows.length - 1].a, rows[rows.length - 1].b];
      if (!isRuled(index, rows) || written.touching(boxOf(corners)).length < rows.length - 1) continue;
      const box = boxOf(corners, table.even);
      const inside = ([x, y]: Point): boolean => x >= box[0] && x <= box[2] && y >= box[1] && y <= box[3];
      for (const row of rows) done.add(row);
      for (const { path, a, b } of index.touching(box))
        if (inside(a) && inside(b)) looks[path] = { role: 'ignore', why: 'a line of a table' };
    }
  }
}

/** Lines of one direction and length, to a centimetre, share it. */
function keyOf({ a, b, length }: Line): string {
  const angle = Math.atan2(b[1] - a[1], b[0] - a[0]);
  const turned = Math.round((((angle % Math.PI) + Math.PI) % Math.PI) / 0.005) % Math.round(Math.PI / 0.005);
  return `${turned} ${length.toFixed(2)}`;
}

/** A line with its ends in one order, whichever way it was drawn. */
const ordered = (line: Line): Line =>
  line.a[0] < line.b[0] - table.even || (Math.abs(line.a[0] - line.b[0]) <= table.even && line.a[1] < line.b[1])
    ? line
    : { ...line, a: line.b, b: line.a };

/** Runs of parallel lines of one length that lie square under one another, row by row. */
function runsOf(own: readonly Line[]): Line[][] {
  const lines = own.map(ordered);
  const [{ a, b, length }] = lines;
  const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const along = ({ a: at }: Line): number => at[0] * u[0] + at[1] * u[1];
  const across = ({ a: at }: Line): number => at[1] * u[0] - at[0] * u[1];
  const runs: Line[][] = [];
  for (const column of groupBy(lines, (line) => Math.round(along(line) / (2 * table.even))).values()) {
    let run: Line[] = [];
    for (const line of column.sort((p, q) => across(p) - across(q))) {
      const last = run.at(-1);
      if (last !== undefined && across(line) - across(last) > table.highest) {
        runs.push(run);
        run = [];
      }
      run.push(line);
    }
    runs.push(run);
  }
  return runs;
}

/** Whether lines go down along both ends of all rows. */
function isRuled(index: BoxIndex<Line>, rows: readonly Line[]): boolean {
  const [first, last] = [rows[0], rows[rows.length - 1]];
  const isDrawn = (p: Point, q: Point): boolean =>
    index.around(p, table.even).some(({ a, b }) =>
      [
        [a, b],
        [b, a],
      ].some(([s, t]) => distance(s, p) <= 2 * table.even && distance(t, q) <= 2 * table.even),
    );
  return isDrawn(first.a, last.a) && isDrawn(first.b, last.b);
}
