import type { Progress } from '@/core/progress';
import { DenseFront } from './dense';
import { eliminationOrder } from './order';

/** A small symmetric matrix between some unknowns, such as a member's: n x n, row by row. */
export interface Element {
  unknowns: Int32Array;
  matrix: Float64Array;
}

/** Unknowns that are eliminated together: their columns of the factor, and the rows that these reach. */
interface Front {
  /** In the order of elimination; the first `columns` are its own. */
  rows: Int32Array;
  columns: number;
  /** Its columns of L, `rows.length` x `columns`, row by row, and its pivots; infinite where one vanished. */
  lower: Float64Array;
  pivots: Float64Array;
}

/** A pivot smaller than this share of its diagonal is none: beyond it rounding decides. */
const leastPivot = 1e-11;

/**
 * A factorised symmetric matrix, L D L^T by fronts (Duff and Reid 1983; Davis, Direct Methods for Sparse Linear
 * Systems, 2006, chapters 4 and 7). Unknowns are numbered as the elements have them.
 */
export interface Factor {
  /**
   * Solves for a right-hand side, in place; unknowns whose pivots vanished are held at zero.
   * @returns what holds each of them there, in the order of `loose`
   */
  solve: (values: Float64Array) => Float64Array;
  /** The unknowns whose pivots vanished: nothing holds them. */
  loose: number[];
  /** How all unknowns move where a loose one moves by one and nothing resists. */
  motionOf: (loose: number) => Float64Array;
  /** Numbers that the factor holds. */
  size: number;
}

/**
 * Factorises the sum of elements.
 * @param groups unknowns that belong together, such as those of a node: they are eliminated together
 */
export function factorise(
  elements: readonly Element[],
  groups: readonly (readonly number[])[],
  progress?: Progress,
): Factor {
  const plan = planOf(elements, groups);
  const numeric = new Numeric(plan, elements);
  return numeric.run(progress);
}

interface Plan {
  count: number;
  /** The place of each unknown in the order of elimination. */
  place: Int32Array;
  fronts: { rows: Int32Array; columns: number; parent: number }[];
  /** The elements that are added to each front. */
  added: number[][];
}

/** Which unknowns are eliminated when, and what each front reaches. */
function planOf(elements: readonly Element[], groups: readonly (readonly number[])[]): Plan {
  const count = groups.reduce((sum, { length }) => sum + length, 0);
  const groupOf = new Int32Array(count);
  groups.forEach((own, g) => own.forEach((unknown) => (groupOf[unknown] = g)));
  const cliques = elements.map(({ unknowns }) => [...new Set(Array.from(unknowns, (unknown) => groupOf[unknown]))]);
  const order = inPostorder(eliminationOrder(groups.length, cliques), cliques);
  const step = stepsOf(order);
  const place = new Int32Array(count);
  const start = new Int32Array(groups.length + 1);
  let next = 0;
  order.forEach((g, i) => {
    start[i] = next;
    for (const unknown of groups[g]) place[unknown] = (next += 1) - 1;
  });
  start[groups.length] = next;
  const own = cliques.map((clique) => clique.map((g) => step[g]).sort((a, b) => a - b));
  const { fronts, frontOf } = frontsOf(groups.length, own, start);
  const added: number[][] = fronts.map(() => []);
  own.forEach((clique, e) => {
    if (clique.length > 0) added[frontOf[clique[0]]].push(e);
  });
  return { count, place, fronts, added };
}

const stepsOf = (order: Int32Array): Int32Array => {
  const step = new Int32Array(order.length);
  order.forEach((g, i) => (step[g] = i));
  return step;
};

/** The same elimination with every step straight after the last one that leads to it, so that steps can be merged. */
function inPostorder(order: Int32Array, cliques: readonly (readonly number[])[]): Int32Array {
  const step = stepsOf(order);
  const reach = reachOf(
    order.length,
    cliques.map((clique) => clique.map((g) => step[g]).sort((a, b) => a - b)),
  );
  const children: number[][] = reach.map(() => []);
  reach.forEach(([parent], s) => {
    if (parent !== undefined) children[parent].push(s);
  });
  const sorted: number[] = [];
  reach.forEach((own, root) => {
    if (own.length > 0) return;
    // A stack of steps, each put down before its children are: read backwards, children come first.
    const stack = [root];
    const down: number[] = [];
    for (let s = stack.pop(); s !== undefined; s = stack.pop()) {
      down.push(s);
      stack.push(...children[s]);
    }
    for (let i = down.length - 1; i >= 0; i -= 1) sorted.push(down[i]);
  });
  return Int32Array.from(sorted, (s) => order[s]);
}

/** The later steps that each step's columns reach, in their order; the first of them is its parent. */
function reachOf(steps: number, cliques: readonly (readonly number[])[]): number[][] {
  const reach: number[][] = [];
  const first: number[][] = Array.from({ length: steps }, () => []);
  cliques.forEach((clique, e) => {
    if (clique.length > 0) first[clique[0]].push(e);
  });
  const children: number[][] = Array.from({ length: steps }, () => []);
  const mark = new Int32Array(steps).fill(-1);
  for (let s = 0; s < steps; s += 1) {
    const own: number[] = [];
    const take = (t: number): void => {
      if (t <= s || mark[t] === s) return;
      mark[t] = s;
      own.push(t);
    };
    for (const e of first[s]) cliques[e].forEach(take);
    for (const child of children[s]) reach[child].forEach(take);
    own.sort((a, b) => a - b);
    reach.push(own);
    if (own.length > 0) children[own[0]].push(s);
  }
  return reach;
}

/** Steps are eliminated together where that adds no more than this share of rows, and one, to the first of them. */
const slack = 0.06;

/** Fronts of steps whose columns reach the same rows, or nearly: each leads to the next. */
function frontsOf(steps: number, cliques: readonly (readonly number[])[], start: Int32Array) {
  const reach = reachOf(steps, cliques);
  const frontOf = new Int32Array(steps);
  const members: number[][] = [];
  for (let s = 0; s < steps; s += 1) {
    const before = s - 1;
    const more = s === 0 ? Infinity : reach[s].length + 1 - reach[before].length;
    const chained = s > 0 && reach[before][0] === s && more <= 1 + slack * reach[s].length;
    if (chained) members[frontOf[before]].push(s);
    else members.push([s]);
    frontOf[s] = members.length - 1;
  }
  const spread = (list: readonly number[]): number[] =>
    list.flatMap((t) => Array.from({ length: start[t + 1] - start[t] }, (_, i) => start[t] + i));
  const fronts = members.map((own) => {
    const last = own[own.length - 1];
    const columns = spread(own);
    const parent = reach[last].length === 0 ? -1 : frontOf[reach[last][0]];
    return { rows: Int32Array.from([...columns, ...spread(reach[last])]), columns: columns.length, parent };
  });
  return { fronts, frontOf };
}

/** How often progress is told: after so many fronts. */
const toldEvery = 64;

class Numeric {
  private readonly diagonal: Float64Array;
  private readonly local: Int32Array;
  /** Room for the largest front: each is worked out in it and leaves only what is kept of it. */
  private readonly dense: DenseFront;
  private readonly waiting: { rows: Int32Array; matrix: Float64Array }[][];
  private readonly loose: number[] = [];

  constructor(
    private readonly plan: Plan,
    private readonly elements: readonly Element[],
  ) {
    const { count, place } = plan;
    this.diagonal = new Float64Array(count);
    this.local = new Int32Array(count);
    this.dense = new DenseFront(plan.fronts.reduce((most, { rows }) => Math.max(most, rows.length), 0));
    this.waiting = plan.fronts.map(() => []);
    for (const { unknowns, matrix } of elements) {
      const n = unknowns.length;
      for (let i = 0; i < n; i += 1) this.diagonal[place[unknowns[i]]] += Math.abs(matrix[i * n + i]);
    }
  }

  run(progress?: Progress): Factor {
    const { plan } = this;
    const fronts: Front[] = [];
    const total = plan.fronts.reduce((sum, front) => sum + workOf(front), 0) || 1;
    let done = 0;
    plan.fronts.forEach((front, i) => {
      fronts.push(this.front(i));
      done += workOf(front);
      if (progress && i % toldEvery === 0) progress.tell(done / total);
    });
    return factorOf(fronts, plan, this.loose);
  }

  private front(i: number): Front {
    const { rows, columns, parent } = this.plan.fronts[i];
    const { dense } = this;
    dense.begin(rows.length);
    for (let r = 0; r < rows.length; r += 1) this.local[rows[r]] = r;
    for (const e of this.plan.added[i]) this.add(this.elements[e]);
    for (const { rows: own, matrix } of this.waiting[i]) this.extend(own, matrix);
    this.waiting[i] = [];
    const pivots = new Float64Array(columns);
    const diagonal = Float64Array.from(rows.subarray(0, columns), (row) => this.diagonal[row]);
    dense.eliminate(columns, pivots, {
      least: leastPivot,
      diagonal,
      vanished: (column) => this.loose.push(rows[column]),
    });
    if (parent >= 0) this.waiting[parent].push({ rows: rows.subarray(columns), matrix: behind(dense, columns) });
    return { rows, columns, lower: before(dense, columns), pivots };
  }

  private add({ unknowns, matrix }: Element): void {
    const { place } = this.plan;
    const { values: f, stride } = this.dense;
    const n = unknowns.length;
    for (let a = 0; a < n; a += 1) {
      const i = this.local[place[unknowns[a]]];
      for (let b = 0; b < n; b += 1) {
        const j = this.local[place[unknowns[b]]];
        if (j <= i) f[i * stride + j] += matrix[a * n + b];
      }
    }
  }

  /** Adds what is left of a front before; rows are in one order everywhere. */
  private extend(rows: Int32Array, matrix: Float64Array): void {
    const { values: f, stride } = this.dense;
    let at = 0;
    for (let a = 0; a < rows.length; a += 1) {
      const i = this.local[rows[a]] * stride;
      for (let b = 0; b <= a; b += 1) f[i + this.local[rows[b]]] += matrix[at + b];
      at += a + 1;
    }
  }
}

/** Each column changes the square of the rows behind it: their sum. */
const workOf = ({ rows, columns }: { rows: Int32Array; columns: number }): number =>
  (rows.length ** 3 - (rows.length - columns) ** 3) / 3;

/** The lower triangle behind a front's own columns, packed row by row. */
function behind({ values: f, size, stride }: DenseFront, columns: number): Float64Array {
  const left = size - columns;
  const packed = new Float64Array((left * (left + 1)) / 2);
  let at = 0;
  for (let i = columns; i < size; i += 1) {
    packed.set(f.subarray(i * stride + columns, i * stride + i + 1), at);
    at += i - columns + 1;
  }
  return packed;
}

function before({ values: f, size, stride }: DenseFront, columns: number): Float64Array {
  const lower = new Float64Array(size * columns);
  for (let i = 0; i < size; i += 1)
    lower.set(f.subarray(i * stride, i * stride + Math.min(columns, i + 1)), i * columns);
  return lower;
}

function factorOf(fronts: readonly Front[], { count, place }: Plan, loose: readonly number[]): Factor {
  const unknownAt = new Int32Array(count);
  place.forEach((at, unknown) => (unknownAt[at] = unknown));
  const x = new Float64Array(count);
  const sorted = loose.map((at) => unknownAt[at]).sort((a, b) => a - b);
  return {
    loose: sorted,
    size: fronts.reduce((sum, { lower }) => sum + lower.length, 0),
    solve(values) {
      for (let i = 0; i < count; i += 1) x[i] = values[unknownAt[i]];
      fronts.forEach((front) => forward(front, x));
      const held = Float64Array.from(sorted, (unknown) => x[place[unknown]]);
      fronts.forEach(({ rows, pivots }) => pivots.forEach((pivot, j) => (x[rows[j]] /= pivot)));
      for (let i = fronts.length - 1; i >= 0; i -= 1) backward(fronts[i], x);
      for (let i = 0; i < count; i += 1) values[unknownAt[i]] = x[i];
      return held;
    },
    motionOf(unknown) {
      const motion = new Float64Array(count);
      motion[place[unknown]] = 1;
      for (let i = fronts.length - 1; i >= 0; i -= 1) backward(fronts[i], motion);
      return Float64Array.from(place, (at) => motion[at]);
    },
  };
}

/** Goes down a front's columns; its pivots divide later. */
function forward({ rows, columns, lower }: Front, x: Float64Array): void {
  for (let i = 0; i < rows.length; i += 1) {
    let sum = x[rows[i]];
    const most = Math.min(i, columns);
    for (let j = 0; j < most; j += 1) sum -= lower[i * columns + j] * x[rows[j]];
    x[rows[i]] = sum;
  }
}

function backward({ rows, columns, lower }: Front, x: Float64Array): void {
  for (let j = columns - 1; j >= 0; j -= 1) {
    let sum = x[rows[j]];
    for (let i = j + 1; i < rows.length; i += 1) sum -= lower[i * columns + j] * x[rows[i]];
    x[rows[j]] = sum;
  }
}
