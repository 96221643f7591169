import { between, pick, type Random } from './random';

/**
 * How a building is divided: bays along x, rows along y, and what lies in each cell. Cells of one word are one room,
 * null is outside.
 */
export interface Division {
  /** Metres. */
  bays: number[];
  /** Metres. */
  rows: number[];
  /** Whether an axis runs along the lower edge of a row; the last is the top edge. */
  axisRows: boolean[];
  cell: (i: number, j: number) => string | null;
}

const bay = (random: Random) => between(random, 4.8, 7.2);
const times = (n: number, make: () => number): number[] => Array.from({ length: n }, make);

/** Neighbouring bays taken together, one or two of them at a time. @returns the number of the group by bay */
function grouped(random: Random, n: number, most = 2): number[] {
  const groups: number[] = [];
  for (let group = 0; groups.length < n; group += 1)
    for (let size = 1 + Math.floor(random() * most); size > 0 && groups.length < n; size -= 1) groups.push(group);
  return groups;
}

const inWing = (from: number, to: number, i: number) => i >= from && i < to;

/** Rooms on both sides of a corridor. */
function doubleLoaded(random: Random, n: number, depths: [number, number, number], most = 2): Division {
  const [below, above] = [grouped(random, n, most), grouped(random, n, most)];
  return {
    bays: times(n, () => bay(random)),
    rows: depths,
    axisRows: [true, random() < 0.5, true, true],
    cell: (i, j) => (j === 1 ? 'corridor' : `${j} ${j === 0 ? below[i] : above[i]}`),
  };
}

/** A rectangle of cells each a room, along a corridor in the middle. */
function cells(random: Random, n: number, rows: number[], corridor: number): Division {
  return {
    bays: times(n, () => between(random, 3.3, 4.5)),
    rows,
    axisRows: [...rows.map(() => true), true],
    cell: (i, j) => (j === corridor ? 'corridor' : `${i} ${j}`),
  };
}

/** Wings about a corner: cells outside them are outside. */
function wings(random: Random, n: number, m: number, within: (i: number, j: number) => boolean): Division {
  const group = grouped(random, n);
  return {
    bays: times(n, () => bay(random)),
    rows: times(m, () => bay(random)),
    axisRows: Array.from({ length: m + 1 }, () => true),
    cell: (i, j) => {
      if (!within(i, j)) return null;
      return j === 0 ? `low ${group[i]}` : `${i} ${j}`;
    },
  };
}

/** Rooms round a corridor round something in the middle. @param core what the middle cells hold */
function ringed(random: Random, n: number, core: (i: number, j: number) => string | null): Division {
  const ring = (i: number, j: number) => Math.min(i, j, n - 1 - i, n - 1 - j);
  const sizes = () =>
    Array.from({ length: n }, (_, i) => (i === 1 || i === n - 2 ? between(random, 1.8, 2.6) : bay(random)));
  return {
    bays: sizes(),
    rows: sizes(),
    axisRows: Array.from({ length: n + 1 }, () => true),
    cell: (i, j) => {
      if (ring(i, j) === 1) return 'corridor';
      if (ring(i, j) > 1) return core(i, j);
      // A corner room takes the narrow cell beside it too.
      const near = (k: number): number => {
        if (k === 1) return 0;
        return k === n - 2 ? n - 1 : k;
      };
      return `${near(i)} ${near(j)}`;
    },
  };
}

export const buildingTypes: Record<string, (random: Random) => Division> = {
  office: (random) => doubleLoaded(random, 4 + Math.floor(random() * 4), [6.3, 2.1, 5.7]),
  school: (random) => doubleLoaded(random, 4 + Math.floor(random() * 3), [7.5, 2.7, 4.2], 3),
  clinic: (random) => {
    const n = 5 + Math.floor(random() * 4);
    const cross = 2 + Math.floor(random() * (n - 4));
    const plan = doubleLoaded(random, n, [5.4, 2.4, 5.4], 1);
    return { ...plan, cell: (i, j) => (i === cross ? 'corridor' : plan.cell(i, j)) };
  },
  gallery: (random) => {
    const n = 4 + Math.floor(random() * 4);
    const group = grouped(random, n);
    return {
      bays: times(n, () => bay(random)),
      rows: [2.4, 6.6],
      axisRows: [true, true, true],
      cell: (i, j) => (j === 0 ? 'gallery' : `room ${group[i]}`),
    };
  },
  court: (random) => ringed(random, 5, () => null),
  tower: (random) => ringed(random, 5, () => 'core'),
  keep: (random) => ringed(random, 6, (i, j) => `core ${i} ${j === 2 ? 'low' : 'high'}`),
  twoWings: (random) => wings(random, 6, 4, (i, j) => j < 2 || i < 2),
  threeWings: (random) => wings(random, 7, 4, (i, j) => j < 2 || inWing(0, 2, i) || inWing(5, 7, i)),
  tee: (random) => wings(random, 6, 4, (i, j) => j < 2 || inWing(2, 4, i)),
  hall: (random) => ({
    bays: times(5, () => bay(random)),
    rows: times(3, () => bay(random)),
    axisRows: [true, true, true, true],
    cell: (i, j) => (i === 0 ? `room ${j}` : 'hall'),
  }),
  market: (random) => ({
    bays: times(6, () => bay(random)),
    rows: times(4, () => bay(random)),
    axisRows: [true, true, true, true, true],
    cell: (i, j) => ((i === 0 || i === 5) && (j === 0 || j === 3) ? `corner ${i} ${j}` : 'market'),
  }),
  houses: (random) => {
    const n = 3 + Math.floor(random() * 4);
    return {
      bays: Array.from({ length: n }, () => [between(random, 3.6, 4.5), between(random, 2.4, 3.3)]).flat(),
      rows: [4.5, 2.1, 4.2],
      axisRows: [true, false, false, true],
      cell: (i, j) => {
        const house = Math.floor(i / 2);
        if (i % 2 === 1) return j === 2 ? `${house} bath` : `${house} hall`;
        return j === 0 ? `${house} front` : `${house} back`;
      },
    };
  },
  archive: (random) => cells(random, 9, [4.5, 3.9, 2.1, 3.9, 4.5, 3.6], 2),
  ward: (random) => {
    const n = 6 + Math.floor(random() * 3);
    return {
      bays: times(n, () => bay(random)),
      rows: [5.4, 2.1, 4.2, 2.1, 5.4],
      axisRows: [true, true, true, true, true, true],
      cell: (i, j) => {
        if (j === 1 || j === 3 || (j === 2 && (i === 0 || i === n - 1))) return 'corridor';
        return `${i} ${j}`;
      },
    };
  },
  flats: (random) => {
    const merge = Array.from({ length: 24 }, () => random());
    return {
      bays: times(6, () => between(random, 3.3, 5.1)),
      rows: times(3, () => between(random, 3.3, 4.8)),
      axisRows: [true, random() < 0.5, true, true],
      cell: (i, j) => {
        const [left, under] = [merge[i * 3 + j] < 0.25 && i > 0, merge[i * 3 + j] > 0.8 && j > 0];
        if (left && merge[(i - 1) * 3 + j] >= 0.25 && merge[(i - 1) * 3 + j] <= 0.8) return `${i - 1} ${j}`;
        if (under && merge[i * 3 + j - 1] >= 0.25 && merge[i * 3 + j - 1] <= 0.8) return `${i} ${j - 1}`;
        return `${i} ${j}`;
      },
    };
  },
};

/** The types' names, in their order. */
export const typeNames = Object.keys(buildingTypes);

/** One of the types, by chance. */
export const anyType = (random: Random): string => pick(random, typeNames);
