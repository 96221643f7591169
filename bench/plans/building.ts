import type { XY } from '../../demo/building';
import { areaOf, facesAbout, on, type Run, type Side } from './loops';
import { between, pick, step, type Random } from './random';
import { buildingTypes, type Division } from './types';

export interface Gap {
  run: Run;
  /** Its middle along the run, metres. */
  at: number;
  width: number;
  use: 'door' | 'window';
}

export interface Axis {
  at: number;
  label: string;
}

export interface Room {
  key: string;
  name: string;
  number: string;
  faces: Side[][];
  /** Square metres. */
  area: number;
  /** A point well within it. */
  at: XY;
  /** The cell about that point, metres. */
  cell: { x: [number, number]; y: [number, number] };
}

export interface Building {
  type: string;
  axes: { x: Axis[]; y: Axis[] };
  columns: XY[];
  column: { width: number; depth: number; round: boolean };
  beams: { a: XY; b: XY; width: number; depth: number; mark: string }[];
  runs: Run[];
  gaps: Gap[];
  rooms: Room[];
  /** The faces towards outside. */
  outside: Side[][];
  right: number;
  top: number;
}

/** Room from a wall's corner or a column to an opening, metres. */
const clear = 0.15;

/**
 * A made-up building of a type.
 * @param module sizes are round in it, metres
 * @param words names of rooms
 */
export function makeBuilding(
  type: string,
  random: Random,
  module: number,
  words: readonly string[],
  floor: number,
): Building {
  const division = buildingTypes[type](random);
  const running = (sizes: number[]) => sizes.reduce((at, size) => [...at, step(at[at.length - 1] + size, 0.05)], [0]);
  const [xs, ys] = [running(division.bays), running(division.rows)];
  const [n, m] = [xs.length - 1, ys.length - 1];
  const cell = (i: number, j: number) => (i < 0 || j < 0 || i >= n || j >= m ? null : division.cell(i, j));
  const [outer, inner] = [step(between(random, 0.24, 0.42), module), step(between(random, 0.1, 0.2), module)];
  const runs = runsOf(xs, ys, cell, outer, inner);
  const runAt = (from: [number, number], to: [number, number]): Run | null => {
    const along = from[1] === to[1] ? 'x' : 'y';
    const [at, across] = along === 'x' ? [(from[0] + to[0]) / 2, from[1]] : [(from[1] + to[1]) / 2, from[0]];
    const [own, other] = along === 'x' ? [xs, ys] : [ys, xs];
    const middle = (own[Math.floor(at)] + own[Math.ceil(at)]) / 2;
    return (
      runs.find((run) => run.along === along && run.at === other[across] && run.from < middle && run.to > middle) ??
      null
    );
  };
  const axes = axesOf(random, xs, ys, division.axisRows);
  const column = {
    width: step(between(random, 0.3, 0.5), module),
    depth: step(between(random, 0.3, 0.6), module),
    round: random() < 0.2,
  };
  const columns = axes.x.flatMap(({ at: x }) =>
    axes.y.flatMap(({ at: y }): XY[] => {
      const [i, j] = [xs.indexOf(x), ys.indexOf(y)];
      const beside = [cell(i, j), cell(i - 1, j), cell(i, j - 1), cell(i - 1, j - 1)];
      return beside.some((key) => key !== null) ? [[x, y]] : [];
    }),
  );
  const gaps = gapsOf(random, { xs, ys, cell, runAt, columns, half: Math.max(column.width, column.depth) / 2, runs });
  return {
    type,
    axes,
    columns,
    column,
    beams: beamsOf(random, axes, columns, module),
    runs,
    gaps,
    rooms: roomsOf({ xs, ys, cell, runAt }, words, floor),
    outside: facesAbout(xs, ys, (i, j) => i >= -1 && j >= -1 && i <= n && j <= m && cell(i, j) === null, runAt),
    right: xs[n],
    top: ys[m],
  };
}

interface Lattice {
  xs: number[];
  ys: number[];
  cell: (i: number, j: number) => string | null;
  runAt: (from: [number, number], to: [number, number]) => Run | null;
}

/** Walls where two cells differ, each as long as it goes straight on. */
function runsOf(xs: number[], ys: number[], cell: Lattice['cell'], outer: number, inner: number): Run[] {
  const runs: Run[] = [];
  for (const along of ['x', 'y'] as const) {
    const [own, other] = along === 'x' ? [xs, ys] : [ys, xs];
    for (let line = 0; line < other.length; line += 1) {
      let run: Run | null = null;
      for (let k = 0; k + 1 < own.length; k += 1) {
        const [p, q] = along === 'x' ? [cell(k, line - 1), cell(k, line)] : [cell(line - 1, k), cell(line, k)];
        if (p === q) {
          run = null;
          continue;
        }
        if (run === null) {
          run = { along, at: other[line], from: own[k], to: own[k], thickness: inner, outer: false };
          runs.push(run);
        }
        run.to = own[k + 1];
        if (p === null || q === null) [run.outer, run.thickness] = [true, outer];
      }
    }
  }
  return runs;
}

const letters = 'ABCDEFGHJKLMNPQRSTUVWXYZ';

/** Axes with their labels: numbers one way, letters the other, a stroke for one between two others. */
function axesOf(random: Random, xs: number[], ys: number[], axisRows: boolean[]): Building['axes'] {
  const [numbersAlongX, backwards, primes] = [random() < 0.7, random() < 0.2, random() < 0.2];
  const label = (letter: boolean, k: number) => (letter ? letters[k] : String(k + 1));
  const named = (at: number[], letter: boolean) => {
    const order = at.map((_, k) => (backwards ? at.length - 1 - k : k));
    return at.map((value, k): Axis => {
      // Every fourth line is one between main ones, named after the one before.
      const between = primes && k % 4 === 2;
      return { at: value, label: between ? `${label(letter, order[k - 1])}'` : label(letter, order[k]) };
    });
  };
  return {
    x: named(xs, !numbersAlongX),
    y: named(
      ys.filter((_, j) => axisRows[j]),
      numbersAlongX,
    ),
  };
}

/** Beams between neighbouring columns along x, and here and there along y. */
function beamsOf(random: Random, axes: Building['axes'], columns: XY[], module: number): Building['beams'] {
  const stands = new Set(columns.map((at) => at.join()));
  const width = step(between(random, 0.2, 0.35), module);
  const beams: Building['beams'] = [];
  const add = (a: XY, b: XY) => {
    if (!stands.has(a.join()) || !stands.has(b.join()) || random() < 0.3) return;
    beams.push({ a, b, width, depth: step(between(random, 0.4, 0.8), module), mark: `B${beams.length + 1}` });
  };
  for (const { at: y } of axes.y)
    for (let i = 1; i < axes.x.length; i += 1) add([axes.x[i - 1].at, y], [axes.x[i].at, y]);
  return beams;
}

/** Doors between rooms and to outside, windows to outside, clear of corners, columns and one another. */
function gapsOf(
  random: Random,
  { xs, ys, cell, runAt, columns, half, runs }: Lattice & { columns: XY[]; half: number; runs: Run[] },
): Gap[] {
  const gaps: Gap[] = [];
  const doors = new Set<string>();
  const isWay = (key: string | null) => key !== null && /corridor|gallery|hall|market/.test(key);
  const column = new Set(columns.map((at) => at.join()));
  const endOf = (run: Run, along: number): number => {
    const at = on(run.along, along, run.at);
    const crossing = runs.filter((other) => other.along !== run.along && other.at === along);
    const wall = crossing
      .filter(({ from, to }) => from <= run.at && to >= run.at)
      .reduce((most, { thickness }) => Math.max(most, thickness / 2), 0);
    return Math.max(wall, column.has(at.join()) ? half : 0) + clear;
  };
  const place = (from: [number, number], to: [number, number], p: string | null, q: string | null) => {
    const run = runAt(from, to);
    if (run === null) return;
    const own = run.along === 'x' ? xs : ys;
    const [k, l] = run.along === 'x' ? [from[0], to[0]] : [from[1], to[1]];
    const [low, high] = [own[k] + endOf(run, own[k]), own[l] - endOf(run, own[l])];
    const pair = [p, q].sort().join('|');
    const toOutside = p === null || q === null;
    const wants = toOutside
      ? isWay(p ?? q) && !doors.has(pair) && random() < 0.6
      : isWay(p) || isWay(q) || random() < 0.35;
    if (wants && !doors.has(pair)) {
      const width = pick(random, [0.8, 0.9, 1, 1.2]);
      if (high - low < width) return;
      doors.add(pair);
      const at = random() < 0.6 ? low + width / 2 : (low + high) / 2;
      gaps.push({
        run,
        at: step(at, 0.05) < low + width / 2 ? step(at + 0.05, 0.05) : step(at, 0.05),
        width,
        use: 'door',
      });
    } else if (toOutside && random() < 0.7) {
      const width = pick(random, [0.9, 1.2, 1.5, 1.8, 2.4]);
      if (high - low >= width) gaps.push({ run, at: step((low + high) / 2, 0.05), width, use: 'window' });
    }
  };
  for (let j = 0; j < ys.length; j += 1)
    for (let i = 0; i + 1 < xs.length; i += 1)
      if (cell(i, j) !== cell(i, j - 1)) place([i, j], [i + 1, j], cell(i, j), cell(i, j - 1));
  for (let i = 0; i < xs.length; i += 1)
    for (let j = 0; j + 1 < ys.length; j += 1)
      if (cell(i, j) !== cell(i - 1, j)) place([i, j], [i, j + 1], cell(i, j), cell(i - 1, j));
  return gaps;
}

function roomsOf({ xs, ys, cell, runAt }: Lattice, words: readonly string[], floor: number): Room[] {
  const cellsOf = new Map<string, [number, number][]>();
  for (let j = 0; j + 1 < ys.length; j += 1)
    for (let i = 0; i + 1 < xs.length; i += 1) {
      const key = cell(i, j);
      if (key !== null) cellsOf.set(key, [...(cellsOf.get(key) ?? []), [i, j]]);
    }
  return [...cellsOf].map(([key, list], k): Room => {
    const faces = facesAbout(xs, ys, (i, j) => cell(i, j) === key, runAt);
    const [i, j] = list.reduce((best, one) => (sizeOf(xs, ys, one) > sizeOf(xs, ys, best) ? one : best));
    return {
      key,
      name: words[k % words.length],
      number: `${floor}.${String(k + 1).padStart(2, '0')}`,
      faces,
      area: areaOf(faces),
      at: [(xs[i] + xs[i + 1]) / 2, (ys[j] + ys[j + 1]) / 2],
      cell: { x: [xs[i], xs[i + 1]], y: [ys[j], ys[j + 1]] },
    };
  });
}

const sizeOf = (xs: number[], ys: number[], [i, j]: [number, number]) => Math.min(xs[i + 1] - xs[i], ys[j + 1] - ys[j]);

export type { Division };
