import * as fc from 'fast-check';
import { Matrix, solve } from 'ml-matrix';
import { DenseFront } from './dense';
import { factorise, type Element } from './factor';
import { eliminationOrder } from './order';

/** A repeatable stream of numbers between -0.5 and 0.5. */
function stream(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647 - 0.5;
}

/** Elements between random groups of three unknowns, each stiff by itself, and the matrix that they add up to. */
function system(seed: number, groups: number, links: number) {
  const random = stream(seed);
  const count = 3 * groups;
  const k = Matrix.zeros(count, count);
  const elements: Element[] = [];
  const add = (own: readonly number[]): void => {
    const unknowns = Int32Array.from(own.flatMap((g) => [3 * g, 3 * g + 1, 3 * g + 2]));
    const n = unknowns.length;
    const rows = Array.from({ length: n + 1 }, () => Array.from({ length: n }, random));
    const matrix = Float64Array.from({ length: n * n }, (_, at) =>
      rows.reduce((sum, row) => sum + row[Math.floor(at / n)] * row[at % n], 0),
    );
    unknowns.forEach((a, i) => unknowns.forEach((b, j) => k.set(a, b, k.get(a, b) + matrix[i * n + j])));
    elements.push({ unknowns, matrix });
  };
  for (let g = 0; g < groups; g += 1) add([g]);
  for (let i = 0; i < links; i += 1) {
    const [a, b] = [0, 1].map(() => Math.floor((random() + 0.5) * (groups - 1e-9)));
    if (a !== b) add([a, b]);
  }
  const right = Float64Array.from({ length: count }, random);
  return { k, elements, right, groups: Array.from({ length: groups }, (_, g) => [3 * g, 3 * g + 1, 3 * g + 2]) };
}

const systems = fc.record({
  seed: fc.integer({ min: 1, max: 1e6 }),
  groups: fc.integer({ min: 1, max: 60 }),
  links: fc.integer({ min: 0, max: 200 }),
});

test('any system has the solution that a public dense solver finds', () => {
  fc.assert(
    fc.property(systems, ({ seed, groups: n, links }) => {
      const { k, elements, right, groups } = system(seed, n, links);
      const dense = solve(k, Matrix.columnVector(Array.from(right))).to1DArray();
      const own = right.slice();
      const factor = factorise(elements, groups);
      factor.solve(own);
      expect(factor.loose).toEqual([]);
      const size = Math.max(...dense.map(Math.abs));
      own.forEach((value, i) => expect(Math.abs(value - dense[i])).toBeLessThan(1e-7 * size));
    }),
    { numRuns: 60 },
  );
});

test('a chain of springs on nothing: one loose unknown, a motion of all, and what holds it is all the load', () => {
  const spring = (a: number, b: number): Element => ({
    unknowns: Int32Array.of(a, b),
    matrix: Float64Array.of(5, -5, -5, 5),
  });
  const factor = factorise([spring(0, 1), spring(1, 2), spring(2, 3)], [[0], [1], [2], [3]]);
  expect(factor.loose).toHaveLength(1);
  expect(Array.from(factor.motionOf(factor.loose[0]))).toEqual([1, 1, 1, 1].map((v) => expect.closeTo(v, 12)));
  const values = Float64Array.of(1, 2, 0, -0.5);
  expect(Array.from(factor.solve(values))).toEqual([expect.closeTo(2.5, 12)]);
  // Pushed and pulled alike it hangs on nothing: 2 N over a spring of 5 N/m.
  const even = Float64Array.of(-2, 0, 0, 2);
  expect(Array.from(factor.solve(even))).toEqual([expect.closeTo(0, 12)]);
  expect(even[3] - even[0]).toBeCloseTo(3 * 0.4, 12);
});

test('the order of elimination names every vertex once, and takes the leaves of a star before its middle', () => {
  fc.assert(
    fc.property(fc.array(fc.uniqueArray(fc.nat(40), { minLength: 1, maxLength: 6 }), { maxLength: 80 }), (cliques) => {
      expect(Array.from(eliminationOrder(41, cliques)).sort((a, b) => a - b)).toEqual(
        Array.from({ length: 41 }, (_, i) => i),
      );
    }),
  );
  const star = Array.from({ length: 30 }, (_, i) => [0, i + 1]);
  expect(Array.from(eliminationOrder(31, star)).indexOf(0)).toBeGreaterThanOrEqual(29);
});

test('dense elimination over several panels and odd sizes gives the matrix back', () => {
  for (const [m, columns] of [
    [1, 1],
    [7, 3],
    [53, 53],
    [101, 60],
    [230, 150],
  ]) {
    const random = stream(m);
    const full = Array.from({ length: m }, () => Array.from({ length: m }, random));
    const a = (i: number, j: number): number =>
      full[i].reduce((sum, v, k) => sum + v * full[j][k], 0) + (i === j ? m : 0);
    const front = new DenseFront(m + 5);
    // A matrix before this one leaves nothing behind.
    front.begin(m + 5);
    front.values.fill(7);
    front.begin(m);
    const { values: f, stride } = front;
    for (let i = 0; i < m; i += 1) for (let j = 0; j <= i; j += 1) f[i * stride + j] = a(i, j);
    const d = new Float64Array(columns);
    front.eliminate(columns, d, {
      least: 1e-12,
      diagonal: new Float64Array(columns).fill(1),
      vanished: () => undefined,
    });
    // L D L' of the columns, and behind them what is left, add up to the matrix.
    for (let i = 0; i < m; i += 1)
      for (let j = 0; j <= i; j += 1) {
        let sum = i >= columns && j >= columns ? f[i * stride + j] : 0;
        for (let k = 0; k < Math.min(columns, j + 1); k += 1) sum += f[i * stride + k] * d[k] * f[j * stride + k];
        expect(Math.abs(sum - a(i, j))).toBeLessThan(1e-9 * m);
      }
  }
});
