import { cross, distance, dot, subtract, type Point } from '@/core/geometry/vector';
import { found, metres, pairsNear, type Rule } from '../rule';

/** Columns whose middles are closer than this stand in one place, metres. */
const onePlace = 0.05;
/** Lines are one where they lie so close beside one another, and run together so far, metres. */
const [beside, together] = [0.05, 0.1];

interface Run {
  from: Point;
  to: Point;
}

/** How far two straight runs lie over one another; zero where they do not. */
function overlap(a: Run, b: Run): number {
  const u = subtract(a.to, a.from);
  const size = Math.hypot(...u);
  if (size === 0) return 0;
  const off = (p: Point): number => Math.abs(cross(u, subtract(p, a.from))) / size;
  if (off(b.from) > beside || off(b.to) > beside) return 0;
  const [s, t] = [b.from, b.to].map((p) => dot(subtract(p, a.from), u) / size).sort((x, y) => x - y);
  return Math.max(0, Math.min(t, size) - Math.max(s, 0));
}

/** Columns in one place, walls and members over one another. */
export const doubled: Rule = {
  name: 'doubled',
  find({ columns, walls, beams, columnsNear, wallsNear, beamsNear }) {
    const remedy = 'Keep one of them and delete the other, or join them.';
    const found_ = [];
    for (const [a, b] of pairsNear(columns, ({ column: { position } }) =>
      columnsNear([position[0], position[1]], onePlace),
    )) {
      const away = distance([a.column.position[0], a.column.position[1]], [b.column.position[0], b.column.position[1]]);
      if (away > onePlace || Math.min(a.top, b.top) - Math.max(a.base, b.base) < together) continue;
      found_.push(
        found('error', [a.column.id, b.column.id], [a.column.position[0], a.column.position[1]], a.base, [
          `Two columns stand in one place, ${metres(away)} apart.`,
          remedy,
        ]),
      );
    }
    const middle = (line: readonly Point[]): Point => [
      (line[0][0] + line[line.length - 1][0]) / 2,
      (line[0][1] + line[line.length - 1][1]) / 2,
    ];
    for (const [a, b] of pairsNear(walls, ({ line }) =>
      wallsNear(middle(line), distance(line[0], line[line.length - 1]) / 2),
    )) {
      if (a.line.length !== 2 || b.line.length !== 2) continue;
      if (Math.min(a.top, b.top) - Math.max(a.base, b.base) < together) continue;
      const run = overlap({ from: a.line[0], to: a.line[1] }, { from: b.line[0], to: b.line[1] });
      if (run < together) continue;
      found_.push(
        found('error', [a.wall.id, b.wall.id], middle(a.line), a.base, [
          `Two walls run over one another for ${metres(run)}.`,
          remedy,
        ]),
      );
    }
    const flat = ([x, y]: readonly number[]): Point => [x, y];
    for (const [a, b] of pairsNear(beams, ({ beam: { start, end } }) =>
      beamsNear(middle([flat(start), flat(end)]), distance(flat(start), flat(end)) / 2),
    )) {
      const level = [a.beam, b.beam].every(({ start, end }) => start[2] === end[2]);
      if (!level || Math.abs(a.beam.start[2] - b.beam.start[2]) > beside) continue;
      const run = overlap(
        { from: flat(a.beam.start), to: flat(a.beam.end) },
        { from: flat(b.beam.start), to: flat(b.beam.end) },
      );
      if (run < together) continue;
      found_.push(
        found('error', [a.beam.id, b.beam.id], middle([flat(a.beam.start), flat(a.beam.end)]), a.beam.start[2], [
          `Two beams run over one another for ${metres(run)}: their loads would be taken twice.`,
          remedy,
        ]),
      );
    }
    return found_;
  },
};
