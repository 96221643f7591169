import { cross, distance, dot, middle, subtract, type Point } from '@/core/geometry/vector';
import type { Fix, Found } from '../finding';
import { inPlan, type Subject } from '../subject';
import { found, metres, pairsNear, type Rule } from '../rule';

/** Columns whose middles are closer than this stand in one place, metres. */
const onePlace = 0.05;
/** Lines are one where they lie so close beside one another, and run together so far, metres. */
const [beside, together] = [0.05, 0.1];
const remedy = 'Keep one of them and delete the other, or join them.';

type Run = readonly [from: Point, to: Point];

/** How far two straight runs lie over one another; zero where they do not. */
function overlap([from, to]: Run, other: Run): number {
  const u = subtract(to, from);
  const size = Math.hypot(...u);
  if (size === 0 || other.some((p) => Math.abs(cross(u, subtract(p, from))) > beside * size)) return 0;
  const [s, t] = other.map((p) => dot(subtract(p, from), u) / size).sort((x, y) => x - y);
  return Math.max(0, Math.min(t, size) - Math.max(s, 0));
}

/** Where one of two runs lies over the other for all its length, it can go. */
function withinFix([a, first]: [string, Run], [b, second]: [string, Run], length: number): Fix | undefined {
  const [sizeA, sizeB] = [first, second].map(([from, to]) => distance(from, to));
  const [id, size] = sizeB <= sizeA ? [b, sizeB] : [a, sizeA];
  return length >= size - beside ? { words: 'Delete the one within the other', delete: [id] } : undefined;
}

/** Whether two things that stand have a stretch of height in common. */
const shareHeight = (a: { base: number; top: number }, b: { base: number; top: number }): boolean =>
  Math.min(a.top, b.top) - Math.max(a.base, b.base) >= together;

/** Columns in one place, walls and members over one another. */
export const doubled: Rule = {
  name: 'doubled',
  near: true,
  find: (subject) => [...doubledColumns(subject), ...doubledWalls(subject), ...doubledBeams(subject)],
};

function doubledColumns({ columns, columnsNear }: Subject): Found[] {
  const near = ({ column }: Subject['columns'][number]) => columnsNear(inPlan(column.position), onePlace);
  return [...pairsNear(columns, near)].flatMap(([a, b]) => {
    const at = inPlan(a.column.position);
    const away = distance(at, inPlan(b.column.position));
    if (away > onePlace || !shareHeight(a, b)) return [];
    return found(
      'error',
      [a.column.id, b.column.id],
      at,
      a.base,
      [`Two columns stand in one place, ${metres(away)} apart.`, remedy],
      { words: 'Delete one of them', delete: [b.column.id] },
    );
  });
}

function doubledWalls({ walls, wallsNear }: Subject): Found[] {
  // Bent walls are held against nothing: their chords are not their line.
  const straight = walls.flatMap((one) =>
    one.line.length === 2 ? [{ ...one, run: [one.line[0], one.line[1]] as const }] : [],
  );
  const known = new Map(straight.map((one) => [one.wall.id, one]));
  const near = ({ run: [from, to] }: (typeof straight)[number]) =>
    wallsNear(middle(from, to), distance(from, to) / 2).flatMap(({ wall }) => known.get(wall.id) ?? []);
  return [...pairsNear(straight, near)].flatMap(([a, b]) => {
    const length = shareHeight(a, b) ? overlap(a.run, b.run) : 0;
    if (length < together) return [];
    return found(
      'error',
      [a.wall.id, b.wall.id],
      middle(...a.run),
      a.base,
      [`Two walls run over one another for ${metres(length)}.`, remedy],
      withinFix([a.wall.id, a.run], [b.wall.id, b.run], length),
    );
  });
}

function doubledBeams({ beams, beamsNear }: Subject): Found[] {
  const runOf = ({ beam }: Subject['beams'][number]): Run => [inPlan(beam.start), inPlan(beam.end)];
  const near = (one: Subject['beams'][number]) => {
    const [from, to] = runOf(one);
    return beamsNear(middle(from, to), distance(from, to) / 2);
  };
  return [...pairsNear(beams, near)].flatMap(([a, b]) => {
    const heights = [a, b].flatMap(({ beam: { start, end } }) => [start[2], end[2]]);
    if (Math.max(...heights) - Math.min(...heights) > beside) return [];
    const length = overlap(runOf(a), runOf(b));
    if (length < together) return [];
    return found(
      'error',
      [a.beam.id, b.beam.id],
      middle(...runOf(a)),
      a.beam.start[2],
      [`Two beams run over one another for ${metres(length)}: their loads would be taken twice.`, remedy],
      withinFix([a.beam.id, runOf(a)], [b.beam.id, runOf(b)], length),
    );
  });
}
