import { asDrawn } from '@/core/datum/placement';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import type { Role } from '@/core/sorting/roles';
import { area } from '@/core/geometry/polygon';
import type { LengthUnit } from '@/core/units/length';
import { flatten } from '@/core/underlay/flatten';
import { toleranceFor } from '@/core/patterns/settings';
import type { Candidate } from './candidate';
import { read } from './read';
import { Scene } from './scene';

/** Small drawings, each of one habit of practices that tripped the reader once. */
const roles: Record<string, Role> = {
  A: 'grid',
  W: 'wall',
  D: 'door',
  G: 'window',
  Z: 'zone',
  C: 'column',
  B: 'beam',
  S: 'slab',
  T: 'label',
};

function readPlan(entities: string, unit: LengthUnit = 'm') {
  const { drawing } = readText(dxf({ entities }));
  const roleOf = drawing.layers.map((layer) => roles[layer.name] ?? null);
  const { candidates } = read({
    scene: new Scene(drawing, flatten(drawing), asDrawn(unit), roleOf),
    tolerance: toleranceFor(unit),
  });
  return <K extends Candidate['kind']>(kind: K) =>
    candidates.filter((c): c is Extract<Candidate, { kind: K }> => c.kind === kind);
}

const rectangle = (x1: number, y1: number, x2: number, y2: number, layer: string): string =>
  line(x1, y1, x2, y1, layer) + line(x2, y1, x2, y2, layer) + line(x2, y2, x1, y2, layer) + line(x1, y2, x1, y1, layer);
const arc = (radius: number, from: number, to: number, layer = 'W'): string =>
  groups([0, 'ARC'], [8, layer], [10, 0], [20, 0], [40, radius], [50, from], [51, to]);
const text = (x: number, y: number, words: string, layer: string, height = 0.2): string =>
  groups([0, 'TEXT'], [8, layer], [10, x], [20, y], [40, height], [1, words], [72, 1], [73, 2], [11, x], [21, y]);

describe('the bubble of a grid line', () => {
  const axis = line(0, 0, 0, 20, 'A');
  const labels = (bubble: string) =>
    readPlan(axis + bubble)('grid').map(({ element, doubt }) => [element.label, doubt]);

  test('is a hexagon of loose lines round its label', () => {
    const corner = (i: number) => [0.5 * Math.sin((i * Math.PI) / 3), 20.5 - 0.5 * Math.cos((i * Math.PI) / 3)];
    const sides = Array.from({ length: 6 }, (_, i) => {
      const [[x1, y1], [x2, y2]] = [corner(i), corner(i + 1)];
      return line(x1, y1, x2, y2, 'A');
    });
    expect(labels(sides.join('') + text(0, 20.5, '7', 'A'))).toEqual([['7', null]]);
  });

  test('is a polyline of two half circles, and no line of its own', () => {
    const ring = groups(
      [0, 'LWPOLYLINE'],
      [8, 'A'],
      [90, 2],
      [70, 1],
      [10, -0.5],
      [20, 20.5],
      [42, 1],
      [10, 0.5],
      [20, 20.5],
      [42, 1],
    );
    expect(labels(ring + text(0, 20.5, 'B', 'A'))).toEqual([['B', null]]);
  });
});

describe('a grid line', () => {
  const circle = (x: number, y: number, label: string): string =>
    groups([0, 'CIRCLE'], [8, 'A'], [10, x], [20, y], [40, 0.5]) + text(x, y, label, 'A');
  const lines = (entities: string) =>
    readPlan(entities)('grid').map(({ element, doubt }) =>
      element.kind === 'line' ? [element.label, [element.start, element.end].sort(byHeight).map(rounded), doubt] : null,
    );
  const rounded = (p: readonly number[]) => p.map((c) => Math.round(c * 1e9) / 1e9 + 0);
  const byHeight = (p: readonly number[], q: readonly number[]): number => p[1] - q[1];

  test('is two stubs outside the plan with one label', () => {
    const stubs = line(0, 0, 0, 2, 'A') + line(0, 18, 0, 20, 'A');
    expect(lines(stubs + circle(0, -0.5, 'C') + circle(0, 20.5, 'C'))).toEqual([
      [
        'C',
        [
          [0, 0],
          [0, 20],
        ],
        null,
      ],
    ]);
  });

  test('goes on beyond the building although only one of its stubs has a bubble', () => {
    const stubs = line(0, 0, 0, 2, 'A') + line(0, 18, 0, 20, 'A');
    expect(lines(stubs + circle(0, 20.5, 'C'))).toEqual([
      [
        'C',
        [
          [0, 0],
          [0, 20],
        ],
        null,
      ],
    ]);
  });

  test('is not one with another in its line that has another label', () => {
    const two = line(0, 0, 0, 2, 'A') + line(0, 18, 0, 20, 'A') + circle(0, -0.5, 'C') + circle(0, 20.5, 'D');
    expect(lines(two).map((found) => found?.[0])).toEqual(['C', 'D']);
  });

  test('ends at a bubble that it runs on through', () => {
    expect(lines(line(0, -30, 0, 20, 'A') + circle(0, -5, '4') + circle(0, 12, '4'))).toEqual([
      [
        '4',
        [
          [0, -4.5],
          [0, 11.5],
        ],
        null,
      ],
    ]);
  });

  test('has the text at its end for a label where there is no ring, and a note there is none', () => {
    expect(lines(line(0, 0, 0, 20, 'A') + text(0, 20.3, 'B', 'A'))[0]?.[0]).toBe('B');
    expect(lines(line(0, 0, 0, 20, 'A') + text(0, 20.3, 'see detail', 'A'))[0]?.[2]).toBe('no bubble');
    expect(lines(line(0, 0, 0, 20, 'A') + text(0, 20.3, 'B', 'T'))[0]?.[2]).toBe('"B" is on another layer');
  });

  test('is one, of however many stubs', () => {
    const stubs = Array.from({ length: 10_000 }, (_, i) => line(0, 4 * i, 0, 4 * i + 2, 'A')).join('');
    const end = 4 * 9999 + 2;
    const found = readPlan(stubs + circle(0, -0.5, 'C'))('grid');
    expect(found.map(({ element }) => element.kind === 'line' && [element.start[1], element.end[1]])).toEqual([
      [expect.closeTo(0, 9), expect.closeTo(end, 6)],
    ]);
  });
});

describe('a column of loose lines', () => {
  const cross = line(0, 0, 0.4, 0.3, 'C') + line(0.4, 0, 0, 0.3, 'C');

  test('with both diagonals is its rectangle', () => {
    const columns = readPlan(rectangle(0, 0, 0.4, 0.3, 'C') + cross)('column');
    expect(columns.map(({ element }) => [element.position, element.section])).toEqual([
      [[0.2, 0.15], { shape: 'rectangle', width: 0.4, depth: 0.3 }],
    ]);
  });

  test('one side of which is drawn partly once more is one all the same', () => {
    const columns = readPlan(rectangle(0, 0, 0.4, 0.3, 'C') + line(0, 0, 0.25, 0, 'C'))('column');
    expect(columns.map(({ element }) => element.section)).toEqual([{ shape: 'rectangle', width: 0.4, depth: 0.3 }]);
  });

  test('that form no one shape, as a plan does, are none', () => {
    const steps = [0, 1, 2, 3];
    const pieces = steps.flatMap((i) =>
      steps.slice(1).map((j) => line(i, j - 1, i, j, 'C') + line(j - 1, i, j, i, 'C')),
    );
    const grid = pieces.join('');
    expect(readPlan(grid)('column')).toEqual([]);
  });
});

test('a beam in a drawing in inches has its mark in inches', () => {
  // 8 by 14 inches, between columns 12 inches wide, 20 feet apart.
  const columns = rectangle(-6, -6, 6, 6, 'C') + rectangle(234, -6, 246, 6, 'C');
  const [beam] = readPlan(
    columns + line(6, 4, 234, 4, 'B') + line(6, -4, 234, -4, 'B') + text(120, 9, 'T1 8x14', 'B', 6),
    'in',
  )('beam');
  expect(beam.element.section).toEqual({ shape: 'rectangle', width: 0.2032, depth: 0.3556 });
  expect(beam.element.mark).toBe('T1');
});

describe('walls that stop at the faces of a column where they meet', () => {
  // Two rooms of 5 by 4 m beside one another, columns of 40 cm at all six corners, every wall cut at them.
  const at = [0, 5, 10].flatMap((x) => [0, 4].map((y) => [x, y]));
  const columns = at.map(([x, y]) => rectangle(x - 0.2, y - 0.2, x + 0.2, y + 0.2, 'C')).join('');
  const wall = (x1: number, y1: number, x2: number, y2: number): string =>
    rectangle(Math.min(x1, x2), Math.min(y1, y2), Math.max(x1, x2), Math.max(y1, y2), 'W');
  const plan =
    columns +
    [0, 4].map((y) => wall(0.2, y - 0.1, 4.8, y + 0.1) + wall(5.2, y - 0.1, 9.8, y + 0.1)).join('') +
    [0, 5, 10].map((x) => wall(x - 0.1, 0.2, x + 0.1, 3.8)).join('');

  test('meet in it: two rooms, no opening as wide as the column', () => {
    const of = readPlan(plan);
    expect(of('opening')).toEqual([]);
    expect(of('zone').map(({ areas }) => Number(areas.inner.toFixed(6)))).toEqual([18.24, 18.24]);
    // 4.8 by 3.8 m inside each.
  });

  test('share their nodes exactly', () => {
    const ends = readPlan(plan)('wall').flatMap(({ element: { start, end } }) => [start, end]);
    const nodes = [...new Set(ends.map(([x, y]) => `${x} ${y}`))].map((node) => node.split(' ').map(Number));
    expect(nodes).toHaveLength(6);
    expect(nodes.map((node) => node.map((value) => Number(value.toFixed(9)))).sort()).toEqual(at.sort());
  });
});

describe('a partition that ends on a curved wall', () => {
  // A half ring of 6 m radius, 30 cm thick, closed by a straight wall below; a partition breaks the inner face.
  const turn = (Math.asin(0.1 / 5.85) * 180) / Math.PI;
  const ring = arc(6.15, 0, 180) + arc(5.85, 0, 90 - turn) + arc(5.85, 90 + turn, 180);
  const inside = Math.sqrt(5.85 ** 2 - 0.1 ** 2);
  const partition = line(-0.1, 0.15, -0.1, inside, 'W') + line(0.1, 0.15, 0.1, inside, 'W');
  const base =
    line(-6.15, -0.15, 6.15, -0.15, 'W') + line(-5.85, 0.15, -0.1, 0.15, 'W') + line(0.1, 0.15, 5.85, 0.15, 'W');

  test('leaves the wall whole, and parts the room in two', () => {
    const of = readPlan(ring + partition + base);
    const zones = of('zone');
    expect(zones).toHaveLength(2);
    // A quarter of the ring's inside, above the straight wall's face and beside the partition's.
    const [r, w, h] = [5.85, 0.1, 0.15];
    const quarter = integral((x) => Math.sqrt(r * r - x * x) - h, w, Math.sqrt(r * r - h * h));
    for (const { element } of zones) expect(Math.abs(area(element.outline))).toBeCloseTo(quarter, 0);
    expect(of('wall').filter(({ element }) => element.bulge !== 0)).toHaveLength(2);
  });
});

test('a curved wall that columns interrupt is one, and its windows are as wide as drawn, where they are drawn', () => {
  // Three quarters of a ring of 6 m radius, 30 cm thick, with columns at 60 and 120 degrees and a window of 12 degrees
  // at 90; in degrees, since arcs are drawn in them.
  const column = (angle: number): string => {
    const [x, y] = [6 * Math.cos((angle * Math.PI) / 180), 6 * Math.sin((angle * Math.PI) / 180)];
    return rectangle(x - 0.2, y - 0.2, x + 0.2, y + 0.2, 'C');
  };
  const pieces: [number, number][] = [
    [-45, 58],
    [62, 84],
    [96, 118],
    [122, 225],
  ];
  const ring = pieces.map(([from, to]) => arc(6.15, from, to) + arc(5.85, from, to)).join('');
  const window = [5.85, 6, 6.15].map((radius) => arc(radius, 84, 96, 'G')).join('');
  const of = readPlan(ring + column(60) + column(120) + window);
  const [bent, ...more] = of('wall');
  expect(more).toEqual([]);
  const metresOf = (degrees: number): number => (6 * degrees * Math.PI) / 180;
  expect(4 * Math.atan(bent.element.bulge)).toBeCloseTo((270 * Math.PI) / 180, 6);
  expect(of('opening').map(({ element }) => [element.use, element.offset, element.width])).toEqual([
    ['window', expect.closeTo(metresOf(129), 4), expect.closeTo(metresOf(12), 4)],
  ]);
});

/** An area under a curve, by Simpson's rule. */
function integral(f: (x: number) => number, from: number, to: number): number {
  const n = 2000;
  const step = (to - from) / n;
  let sum = f(from) + f(to);
  for (let i = 1; i < n; i += 1) sum += f(from + i * step) * (i % 2 === 0 ? 2 : 4);
  return (sum * step) / 3;
}

test('a face without a name of less than 2 m\u00b2 is a shaft; with one it is a room', () => {
  const shaft = (words: string) =>
    rectangle(0, 0, 1.4, 1.4, 'W') + rectangle(0.15, 0.15, 1.25, 1.25, 'W') + text(0.7, 0.7, words, 'Z');
  expect(readPlan(shaft(''))('zone')).toEqual([]);
  expect(readPlan(shaft('Store'))('zone').map(({ element }) => element.name)).toEqual(['Store']);
});
