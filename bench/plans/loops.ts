import type { XY } from '../../demo/building';

/** A stretch of a wall's centre line on a lattice line, through all that it passes. */
export interface Run {
  along: 'x' | 'y';
  /** Where the line lies across, metres. */
  at: number;
  from: number;
  to: number;
  thickness: number;
  outer: boolean;
}

/** A side of a face: along a run, at half its thickness from it. */
export interface Side {
  run: Run;
  a: XY;
  b: XY;
}

/** A point on a lattice line. */
export const on = (along: 'x' | 'y', at: number, across: number): XY => (along === 'x' ? [at, across] : [across, at]);

interface Edge {
  from: [number, number];
  to: [number, number];
}

/** The edges of cells that lie within, counter-clockwise about each, where what is beyond does not. */
function edgesOf(columns: number, rows: number, within: (i: number, j: number) => boolean): Edge[] {
  const edges: Edge[] = [];
  for (let i = -1; i <= columns; i += 1)
    for (let j = -1; j <= rows; j += 1) {
      if (!within(i, j)) continue;
      if (!within(i, j - 1)) edges.push({ from: [i, j], to: [i + 1, j] });
      if (!within(i + 1, j)) edges.push({ from: [i + 1, j], to: [i + 1, j + 1] });
      if (!within(i, j + 1)) edges.push({ from: [i + 1, j + 1], to: [i, j + 1] });
      if (!within(i - 1, j)) edges.push({ from: [i, j + 1], to: [i, j] });
    }
  return edges;
}

const direction = ({ from, to }: Edge): [number, number] => [Math.sign(to[0] - from[0]), Math.sign(to[1] - from[1])];

/** Links edges to loops; where two loops touch in a corner each keeps to its own cell, by turning left. */
function linked(edges: Edge[]): Edge[][] {
  const byStart = new Map<string, Edge[]>();
  for (const edge of edges) byStart.set(edge.from.join(), [...(byStart.get(edge.from.join()) ?? []), edge]);
  const used = new Set<Edge>();
  const loops: Edge[][] = [];
  for (const first of edges) {
    if (used.has(first)) continue;
    const loop: Edge[] = [];
    for (let edge: Edge | undefined = first; edge && !used.has(edge);) {
      used.add(edge);
      loop.push(edge);
      const [dx, dy] = direction(edge);
      const onward: Edge[] = (byStart.get(edge.to.join()) ?? []).filter((next) => !used.has(next));
      edge = onward.sort((p, q) => leftness(q, dx, dy) - leftness(p, dx, dy))[0];
    }
    loops.push(loop);
  }
  return loops;
}

function leftness(edge: Edge, dx: number, dy: number): number {
  const [ex, ey] = direction(edge);
  return dx * ey - dy * ex;
}

/**
 * The faces of the walls about a set of cells: loops of sides, each moved off its wall's centre line towards the set.
 * @param within whether a cell belongs to the set; cells from -1 to one past the last are asked for
 * @param runAt the wall on a lattice edge; null at the rim of what is looked at
 */
export function facesAbout(
  xs: readonly number[],
  ys: readonly number[],
  within: (i: number, j: number) => boolean,
  runAt: (from: [number, number], to: [number, number]) => Run | null,
): Side[][] {
  return linked(edgesOf(xs.length - 1, ys.length - 1, within)).flatMap((loop) => {
    const sides: { run: Run; inward: XY }[] = [];
    for (const edge of loop) {
      const run = runAt(edge.from, edge.to);
      if (run === null) return [];
      const [dx, dy] = direction(edge);
      if (sides.at(-1)?.run !== run || sides.at(-1)?.inward.join() !== [-dy, dx].join())
        sides.push({ run, inward: [-dy, dx] });
    }
    if (
      sides.length > 1 &&
      sides[0].run === sides.at(-1)!.run &&
      sides[0].inward.join() === sides.at(-1)!.inward.join()
    )
      sides.pop();
    const lineOf = ({ run, inward }: (typeof sides)[number]) =>
      run.at + ((run.along === 'x' ? inward[1] : inward[0]) * run.thickness) / 2;
    const corner = (p: (typeof sides)[number], q: (typeof sides)[number]): XY =>
      p.run.along === 'x' ? [lineOf(q), lineOf(p)] : [lineOf(p), lineOf(q)];
    return [
      sides.map((side, k) => ({
        run: side.run,
        a: corner(sides[(k + sides.length - 1) % sides.length], side),
        b: corner(side, sides[(k + 1) % sides.length]),
      })),
    ];
  });
}

/** The area within loops of sides, holes taken off, square metres. */
export const areaOf = (loops: readonly Side[][]): number =>
  loops.flat().reduce((sum, { a, b }) => sum + (a[0] * b[1] - b[0] * a[1]) / 2, 0);
