import { asDrawn } from '@/core/datum/placement';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { steelOutline } from '@/core/drawing/testing/steel';
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

function resultOf(entities: string, unit: LengthUnit = 'm') {
  const { drawing } = readText(dxf({ entities }));
  const roleOf = drawing.layers.map((layer) => roles[layer.name] ?? null);
  return read({
    scene: new Scene(drawing, flatten(drawing), asDrawn(unit), roleOf),
    tolerance: toleranceFor(unit),
  });
}

const unreadOf = (entities: string) => resultOf(entities).unread;

function readPlan(entities: string, unit: LengthUnit = 'm') {
  const { candidates } = resultOf(entities, unit);
  return <K extends Candidate['kind']>(kind: K) =>
    candidates.filter((c): c is Extract<Candidate, { kind: K }> => c.kind === kind);
}

const rectangle = (x1: number, y1: number, x2: number, y2: number, layer: string): string =>
  line(x1, y1, x2, y1, layer) + line(x2, y1, x2, y2, layer) + line(x2, y2, x1, y2, layer) + line(x1, y2, x1, y1, layer);
const arc = (radius: number, from: number, to: number, layer = 'W'): string =>
  groups([0, 'ARC'], [8, layer], [10, 0], [20, 0], [40, radius], [50, from], [51, to]);
const text = (x: number, y: number, words: string, layer: string, height = 0.2): string =>
  groups([0, 'TEXT'], [8, layer], [10, x], [20, y], [40, height], [1, words], [72, 1], [73, 2], [11, x], [21, y]);

describe('a curved wall', () => {
  /** A quarter round zero in chords of 5 degrees, in whole millimetres. */
  const face = (radius: number): [number, number][] =>
    Array.from({ length: 19 }, (_, i) => {
      const angle = (i * 5 * Math.PI) / 180;
      return [Math.round(radius * 1000 * Math.cos(angle)) / 1000, Math.round(radius * 1000 * Math.sin(angle)) / 1000];
    });
  const polyline = (points: [number, number][], closed: boolean): string =>
    groups(
      [0, 'LWPOLYLINE'],
      [8, 'W'],
      [90, points.length],
      [70, closed ? 1 : 0],
      ...points.flatMap(([x, y]): [number, number][] => [
        [10, x],
        [20, y],
      ]),
    );
  const quarter = {
    thickness: expect.closeTo(0.3, 2) as number,
    bulge: expect.closeTo(Math.tan(Math.PI / 8), 2) as number,
  };

  test('is drawn as one closed polyline of chords', () => {
    const walls = readPlan(polyline([...face(6.3), ...face(6).reverse()], true))('wall');
    expect(walls.map(({ element }) => element)).toEqual([expect.objectContaining(quarter)]);
  });

  test('is drawn as two polylines of chords, and meets straight walls', () => {
    const straight = line(6, -5, 6, 0, 'W') + line(6.3, -5, 6.3, 0, 'W');
    const walls = readPlan(polyline(face(6), false) + polyline(face(6.3), false) + straight)('wall');
    expect(walls.map(({ element }) => element.bulge).sort()).toEqual([0, quarter.bulge]);
  });
});

describe('a curved wall taken apart into loose chords', () => {
  /** A quarter round zero in chords of 5 degrees, in whole tenths of a millimetre, in any order and direction. */
  const chords = (radius: number): string => {
    const at = (i: number): [number, number] => {
      const angle = (i * 5 * Math.PI) / 180;
      return [Math.round(radius * 1e4 * Math.cos(angle)) / 1e4, Math.round(radius * 1e4 * Math.sin(angle)) / 1e4];
    };
    return Array.from({ length: 18 }, (_, i) => (7 * i) % 18)
      .map((i) => (i % 2 === 0 ? [at(i), at(i + 1)] : [at(i + 1), at(i)]))
      .map(([a, b]) => line(...a, ...b, 'W'))
      .join('');
  };

  test('is one wall, and has all of them for its source', () => {
    const [wall, ...more] = readPlan(chords(6.3) + chords(6))('wall');
    expect(more).toEqual([]);
    expect(wall.element.bulge).toBeCloseTo(Math.tan(Math.PI / 8), 2);
    expect(wall.element.thickness).toBeCloseTo(0.3, 2);
    expect(new Set(wall.handles).size).toBe(36);
  });

  test('goes on to the straight walls that it meets', () => {
    const straight = line(6, -5, 6, 0, 'W') + line(6.3, -5, 6.3, 0, 'W');
    const walls = readPlan(chords(6.3) + chords(6) + straight)('wall');
    expect(walls.map(({ element }) => element.bulge === 0).sort()).toEqual([false, true]);
  });

  test('is none where the lines are the sides of something with corners', () => {
    const octagon = (radius: number): string => {
      const at = (i: number): [number, number] => [
        radius * Math.cos((i * Math.PI) / 4),
        radius * Math.sin((i * Math.PI) / 4),
      ];
      return Array.from({ length: 8 }, (_, i) => line(...at(i), ...at(i + 1), 'W')).join('');
    };
    const walls = readPlan(octagon(2.3) + octagon(2))('wall');
    expect(walls.map(({ element }) => element.bulge)).toEqual(Array.from({ length: 8 }, () => 0));
  });
});

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

  test('has the bubble that a leader leads to aside of it, and the leader is no line', () => {
    const bent = line(0, 1, 0, 19, 'A') + line(0, 1, 0.6, 0, 'A') + circle(0.6, -0.5, '5');
    const stepped = line(6, 1, 6, 19, 'A') + line(6, 1, 6.6, 0.4, 'A') + line(6.6, 0.4, 6.6, 0, 'A');
    expect(lines(bent + stepped + circle(6.6, -0.5, '6')).map((found) => found?.[0])).toEqual(['6', '5']);
  });

  test('keeps its leader where a dimension line ends at the same bend', () => {
    const bent = line(0, 1, 0.6, 0, 'A') + line(0, 1, 0, 19, 'A') + circle(0.6, -0.5, '5');
    const dimension = line(-9, 1, 0, 1, 'A');
    const found = readPlan(dimension + bent)('grid').filter(({ proposedLabel }) => !proposedLabel);
    expect(found.map(({ element }) => element.kind === 'line' && [element.label, element.end[1]])).toEqual([['5', 19]]);
  });

  test('has the text for a label that a leader without a ring leads to, and two stubs with one text are one', () => {
    const bent = line(0, 1, 0, 19, 'A') + line(0, 1, 0.6, 0, 'A') + text(0.6, -0.3, '5', 'A');
    const stubs = line(6, 0, 6, 2, 'A') + line(6, 17, 6, 19, 'A') + text(6, -0.3, '6', 'A') + text(6, 19.3, '6', 'A');
    expect(lines(bent + stubs).map((found) => found?.[0])).toEqual(['6', '5']);
  });

  test('ends in a ring of two arcs, however it is turned', () => {
    const ring = (from: number): string =>
      groups([0, 'ARC'], [8, 'A'], [10, 0], [20, 20.5], [40, 0.5], [50, from], [51, from + 180]);
    const [found] = lines(line(0, 0, 0, 23, 'A') + ring(11) + ring(191) + text(0, 20.5, 'K', 'A'));
    expect([found?.[0], found?.[2]]).toEqual(['K', null]);
    // The ring is kept as chords, which leave it by some millimetres.
    expect((found![1] as number[][])[1][1]).toBeCloseTo(20, 1);
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

test('beams dashed by hand are beams, whole and as wide as their lines are apart; mark and size may stand apart', () => {
  const columns = [0, 6].map((x) => rectangle(x - 0.2, -0.2, x + 0.2, 0.2, 'C')).join('');
  const dashes = (y: number): string =>
    Array.from({ length: 10 }, (_, i) => line(0.2 + 0.6 * i, y, Math.min(0.6 + 0.6 * i, 5.8), y, 'B')).join('');
  const words = text(2.2, 0.4, 'T7', 'B') + text(3.4, 0.4, '300x500', 'B');
  const beams = readPlan(columns + dashes(0.15) + dashes(-0.15) + words)('beam');
  expect(beams.map(({ element: { start, end, section, mark } }) => ({ start, end, section, mark }))).toEqual([
    { start: [0, 0], end: [6, 0], section: { shape: 'rectangle', width: 0.3, depth: 0.5 }, mark: 'T7' },
  ]);
});

test('the jambs of doors beside an outer wall, facing one another over a passage, make no thicker wall of it', () => {
  // A passage of 2 m from the outer wall at x = 0, between two walls whose doors begin 15 cm beside it.
  const outer = line(-0.15, -4, -0.15, 6, 'W') + line(0.15, -4, 0.15, -0.1, 'W') + line(0.15, 0, 0.15, 2, 'W');
  const beyond = line(0.15, 2.1, 0.15, 6, 'W');
  const inner = [-0.1, 0, 2, 2.1].map((y) => line(0.15, y, 0.3, y, 'W') + line(1.2, y, 6, y, 'W')).join('');
  const jambs = [0.3, 1.2].flatMap((x) => [line(x, -0.1, x, 0, 'W'), line(x, 2, x, 2.1, 'W')]).join('');
  const door = rectangle(0.3, -0.07, 1.2, -0.03, 'D') + rectangle(0.3, 2.03, 1.2, 2.07, 'D');
  const of = readPlan(outer + beyond + inner + jambs + door + line(-0.1, 0.1, -0.1, 1.9, 'D'));
  expect(
    of('wall')
      .map(({ element }) => Number(element.thickness.toFixed(3)))
      .filter((t) => t > 0.3),
  ).toEqual([]);
  expect(of('opening').map(({ element }) => Number(element.width.toFixed(3)))).toEqual([0.9, 0.9]);
});

test('a room drawn round others has what lies in it taken off; an outline in it without a word is no room', () => {
  // A passage 2 m wide round a core of 4 by 4 m, whose room is drawn inside walls of 20 cm.
  const rooms = rectangle(0, 0, 8, 8, 'Z') + rectangle(2, 2, 6, 6, 'Z') + rectangle(2.2, 2.2, 5.8, 5.8, 'Z');
  const zones = readPlan(rooms + text(1, 4, 'Passage', 'Z') + text(4, 4, 'Core', 'Z'))('zone');
  expect(
    zones.map(({ element, areas }) => [element.name, Number(areas.inner.toFixed(6)), element.holes.length]),
  ).toEqual([
    ['Core', 12.96, 0],
    ['Passage', 48, 1],
  ]);
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

test('grid lines drawn a little off do not turn those with them that are drawn exactly, and are straightened to these', () => {
  const drawn = [0.05, 0, 0, 0.04, 0.02].map((off, i) => line(6 * i - off, 0, 6 * i + off, 20, 'A')).join('');
  const lines = readPlan(drawn)('grid').map(({ element }) =>
    element.kind === 'line' ? [element.start[0], element.end[0]] : [],
  );
  expect(lines.sort((a, b) => a[0] - b[0])).toEqual(
    [0, 6, 12, 18, 24].map((x) => [expect.closeTo(x, 6), expect.closeTo(x, 6)]),
  );
});

test('a wall with a face drawn off has the thickness of its like; one drawn exactly keeps its own', () => {
  const wall = (y: number, thickness: number) => line(0, y, 6, y, 'W') + line(0, y + thickness, 6, y + thickness, 'W');
  const thicknesses = (...list: number[]) =>
    readPlan(list.map((thickness, i) => wall(4 * i, thickness)).join(''))('wall')
      .sort((a, b) => a.element.start[1] - b.element.start[1])
      .map(({ element }) => element.thickness);
  expect(thicknesses(0.15, 0.15, 0.1468, 0.1531)).toEqual([0.15, 0.15, 0.15, 0.15]);
  expect(thicknesses(0.15, 0.15, 0.145)).toEqual([0.15, 0.15, 0.145]);
});

test('the number of a room stands by its name; marks of beams and other notes in it are not its number', () => {
  const room = rectangle(0, 0, 8, 6, 'W') + rectangle(0.2, 0.2, 7.8, 5.8, 'W');
  const beam = line(0.2, 4.9, 7.8, 4.9, 'B') + line(0.2, 5.2, 7.8, 5.2, 'B') + text(2, 5.35, 'B7', 'T');
  const notes = text(7, 1, 'T30', 'T') + text(4, 2.6, 'W.12', 'Z') + text(4, 3, 'Workshop', 'Z');
  const of = readPlan(room + beam + notes);
  expect(of('beam').map(({ element }) => element.mark)).toEqual(['B7']);
  expect(of('zone').map(({ element }) => [element.name, element.number])).toEqual([['Workshop', 'W.12']]);
});

test('a cavity wall with a window between its corner and the first partition is one wall with that window', () => {
  // A corner at the origin: outer leaf 115, cavity 75, inner leaf 175; the window from 2 to 3.2, a partition at 4.2.
  const h = (y: number, spans: [number, number][], layer = 'W') =>
    spans.map(([from, to]) => line(from, y, to, y, layer)).join('');
  const south =
    h(0, [
      [0, 2],
      [3.2, 12],
    ]) +
    h(0.115, [
      [0.115, 1.94],
      [3.26, 12],
    ]) +
    h(0.19, [
      [0.19, 1.94],
      [3.26, 12],
    ]) +
    h(0.365, [
      [0.365, 2],
      [3.2, 4.14],
      [4.26, 12],
    ]);
  const ends =
    [2, 3.2].map((x) => line(x, 0, x, 0.365, 'W')).join('') +
    [1.94, 3.26].map((x) => line(x, 0.115, x, 0.19, 'W')).join('');
  const west = [0, 0.115, 0.19, 0.365].map((x) => line(x, x, x, 8, 'W')).join('');
  const partition = line(4.14, 0.365, 4.14, 8, 'W') + line(4.26, 0.365, 4.26, 8, 'W');
  const window = [0, 0.1825, 0.365].map((y) => line(2, y, 3.2, y, 'G')).join('');
  const of = readPlan(south + ends + west + partition + window);
  expect(of('opening').map(({ element }) => [element.use, element.width])).toEqual([
    ['window', expect.closeTo(1.2, 6)],
  ]);
  const sizes = of('wall').map(({ element }) => Math.round(element.thickness * 1000));
  expect([...new Set(sizes)].sort()).toEqual([120, 365]);
});

describe('a curved bay that leans on a straight wall', () => {
  // The bay's circle about the origin; the wall's middle runs at x = 1.64, 36 cm thick, and meets it at an angle.
  const [inner, outer, face] = [4.67, 4.91, 1.82];
  const angle = (radius: number): number => (Math.acos(face / radius) * 180) / Math.PI;
  const at = (radius: number): number => Math.sqrt(radius ** 2 - face ** 2);
  const bay = [inner, outer].map((radius) => arc(radius, -angle(radius), angle(radius))).join('');
  const wall =
    line(face - 0.36, -10, face - 0.36, 10, 'W') +
    line(face, -10, face, -at(outer), 'W') +
    line(face, -at(inner), face, at(inner), 'W') +
    line(face, at(outer), face, 10, 'W');

  test('leaves that wall whole, and is a room', () => {
    const of = readPlan(bay + wall + text(3, 0, 'Bay', 'Z'));
    expect(of('opening')).toEqual([]);
    const [zone, ...more] = of('zone');
    expect(more).toEqual([]);
    // The segment of the inner circle beyond the wall's face.
    const half = Math.acos(face / inner);
    expect(zone.areas.inner).toBeCloseTo(inner ** 2 * (half - Math.sin(half) * Math.cos(half)), 0);
  });
});

test('a window drawn over a curved wall whose faces go on is as wide as it is drawn', () => {
  const ring = arc(6.15, -90, 90) + arc(5.85, -90, 90);
  const turned = (radius: number, degrees: number): [number, number] => [
    radius * Math.cos((degrees * Math.PI) / 180),
    radius * Math.sin((degrees * Math.PI) / 180),
  ];
  const jamb = (degrees: number) => line(...turned(5.85, degrees), ...turned(6.15, degrees), 'G');
  const of = readPlan(ring + jamb(10) + jamb(30) + arc(6, 10, 30, 'G'));
  expect(of('wall')).toHaveLength(1);
  expect(of('opening').map(({ element }) => [element.use, element.offset, element.width])).toEqual([
    ['window', expect.closeTo((6 * 100 * Math.PI) / 180, 4), expect.closeTo((6 * 20 * Math.PI) / 180, 4)],
  ]);
});

test('walls drawn as pieces that close on one another in a corner meet in one node, wherever that lies', () => {
  for (let place = 0; place < 40; place += 1) {
    const at = 0.37 * place;
    const side = (x1: number, y1: number, x2: number, y2: number) => line(at + x1, at + y1, at + x2, at + y2, 'W');
    const cap = side(0, -0.1825, 0, 0.1825);
    const south = side(0, -0.1825, 10, -0.1825) + cap + side(0, 0.1825, 10, 0.1825);
    const west =
      side(-0.1825, 6, -0.1825, -0.1825) +
      side(-0.1825, -0.1825, 0, -0.1825) +
      cap +
      side(0, 0.1825, 0.1825, 0.1825) +
      side(0.1825, 0.1825, 0.1825, 6);
    const walls = readPlan(south + west)('wall').map(({ element }) => [element.start, element.end]);
    expect(walls).toHaveLength(2);
    for (const ends of walls) expect(ends.some(([x, y]) => Math.hypot(x - at, y - at) < 1e-6)).toBe(true);
  }
});

test('a room\u2019s name that stands in no closed room is told, a note on another layer is not', () => {
  const room = rectangle(0, 0, 8, 6, 'W') + rectangle(0.2, 0.2, 7.8, 5.8, 'W') + text(4, 3, 'Store', 'Z');
  const beside = text(12, 3, 'Loading bay', 'Z') + text(12, 1, '0.12', 'Z') + text(12, 0, 'existing fence', 'T');
  const told = unreadOf(room + beside).map(({ role, words, why }) => [role, words, why]);
  expect(told).toEqual([['zone', 'Loading bay', 'a name that stands in no closed room']]);
});

describe('a room whose wall is not drawn over a stretch', () => {
  // 8 by 6 m outside, walls of 200 mm; of the lower wall the stretch between two places is missing,
  // without jambs, which would make it an opening.
  const room = (from: number, to: number) =>
    line(0, 0, from, 0, 'W') +
    line(from, 0.2, 0.2, 0.2, 'W') +
    line(to, 0, 8, 0, 'W') +
    line(to, 0.2, 7.8, 0.2, 'W') +
    line(8, 0, 8, 6, 'W') +
    line(8, 6, 0, 6, 'W') +
    line(0, 6, 0, 0, 'W') +
    line(0.2, 0.2, 0.2, 5.8, 'W') +
    line(0.2, 5.8, 7.8, 5.8, 'W') +
    line(7.8, 5.8, 7.8, 0.2, 'W') +
    text(4, 3, 'Store', 'Z') +
    text(4, 2.5, '0.07', 'Z');

  test('is read with the stretch as its doubt', () => {
    const [zone] = readPlan(room(3, 4.5))('zone');
    expect(zone.element).toMatchObject({ name: 'Store', number: '0.07' });
    // Where it is open it goes to the middle of the wall: 7.6 by 5.6 m, and 1.5 m by 100 mm or none of it.
    expect(area(zone.element.outline)).toBeGreaterThan(7.6 * 5.6 - 1e-6);
    expect(area(zone.element.outline)).toBeLessThan(7.6 * 5.6 + 0.15 + 1e-6);
    expect(zone.doubt).toBe('open over 1.50 m');
    expect(zone.areas.centre).toBeCloseTo(7.8 * 5.8, 6);
    expect(zone.leak!.map(([x, y]) => [x.toFixed(3), y.toFixed(3)]).sort()).toEqual([
      ['3.000', '0.100'],
      ['4.500', '0.100'],
    ]);
    expect(zone.confidence).toBeLessThan(readPlan(room(3, 3.0001))('zone')[0].confidence);
  });

  test('is none where the stretch is as wide as a room, and the name says where it is open', () => {
    const { candidates, unread } = resultOf(room(2, 6));
    expect(candidates.filter(({ kind }) => kind === 'zone')).toEqual([]);
    const told = unread.filter(({ words }) => words === 'Store');
    expect(told.map(({ why }) => why)).toEqual(['a name that stands in no closed room: it is open over 4.00 m']);
    expect(told[0].leak!.map(([x]) => x.toFixed(3)).sort()).toEqual(['2.000', '6.000']);
  });
});

test('a window over a wall whose faces go on is as wide as its jambs are apart, however far its sill goes on', () => {
  const wall = line(0, 0, 8, 0, 'W') + line(0, 0.3, 8, 0.3, 'W');
  const jambs = line(2, 0, 2, 0.3, 'G') + line(3.2, 0, 3.2, 0.3, 'G');
  const pane = line(2, 0.15, 3.2, 0.15, 'G');
  const sill = line(1.9, -0.05, 3.3, -0.05, 'G');
  const opening = (drawn: string) =>
    readPlan(wall + drawn)('opening').map(({ element }) => [element.use, element.offset, element.width]);
  expect(opening(jambs + pane + sill)).toEqual([['window', expect.closeTo(2, 6), expect.closeTo(1.2, 6)]]);
  // Without jambs the lines themselves say it.
  expect(opening(pane)).toEqual([['window', expect.closeTo(2, 6), expect.closeTo(1.2, 6)]]);
});

test('piers between doors that face one another over a corridor are no wall through it', () => {
  const wall = (y: number) =>
    [
      [0, 2],
      [2.9, 3.3],
      [4.2, 8],
    ]
      .map(([a, b]) => rectangle(a, y, b, y + 0.12, 'W'))
      .join('');
  const leaf = (x: number, y: number, to: number) => line(x, y, x, to, 'D');
  const doors = [2.9, 3.3].map((x) => leaf(x, 0.12, 1.02) + leaf(x, 1.62, 0.72)).join('');
  const of = readPlan(wall(0) + wall(1.62) + doors);
  expect(of('wall').map(({ element }) => [element.thickness, element.start[1], element.end[1]])).toEqual([
    [expect.closeTo(0.12, 9), expect.closeTo(0.06, 9), expect.closeTo(0.06, 9)],
    [expect.closeTo(0.12, 9), expect.closeTo(1.68, 9), expect.closeTo(1.68, 9)],
  ]);
  expect(of('opening').map(({ element }) => element.width)).toEqual([0.9, 0.9, 0.9, 0.9]);
});

test('thousands of lines beside one another, as of a pattern, are no walls, and do not end the reading', () => {
  const pattern = Array.from({ length: 20_000 }, (_, i) => line(0, i * 0.01, 2, i * 0.01, 'W')).join('');
  expect(readPlan(pattern)('wall')).toEqual([]);
});

test('walls are as thick as their jambs say, several of one length; ends of passages and of small rooms say nothing', () => {
  // A house of 12 by 8 m with walls of 0.8 m, inside, and a door of 1 m in the middle of each.
  const side = (x1: number, y1: number, x2: number, y2: number) => {
    const length = Math.hypot(x2 - x1, y2 - y1);
    const at = (s: number): [number, number] => [x1 + ((x2 - x1) * s) / length, y1 + ((y2 - y1) * s) / length];
    const [p, q] = [at(length / 2 - 0.5), at(length / 2 + 0.5)];
    return line(x1, y1, ...p, 'W') + line(...q, x2, y2, 'W');
  };
  const ring = (d: number) =>
    side(-d, -d, 12 + d, -d) +
    side(12 + d, -d, 12 + d, 8 + d) +
    side(12 + d, 8 + d, -d, 8 + d) +
    side(-d, 8 + d, -d, -d);
  const jambs = [5.5, 6.5].map((x) => line(x, -0.8, x, 0, 'W') + line(x, 8, x, 8.8, 'W')).join('');
  const others = [3.5, 4.5].map((y) => line(-0.8, y, 0, y, 'W') + line(12, y, 12.8, y, 'W')).join('');
  const house = readPlan(ring(0) + ring(0.8) + jambs + others);
  expect(house('wall').map(({ element }) => Number(element.thickness.toFixed(3)))).toEqual([0.8, 0.8, 0.8, 0.8]);
  expect(house('opening')).toHaveLength(4);
  expect(house('zone').map(({ areas }) => Number(areas.inner.toFixed(3)))).toEqual([96]);
  // Six closets of 1 by 2 m in a row, parted by 0.1 m: their inner sides of 1 m are no jambs.
  const closets = Array.from({ length: 6 }, (_, i) => rectangle(1.1 * i, 0, 1.1 * i + 1, 2, 'W')).join('');
  const row = readPlan(closets + rectangle(-0.1, -0.1, 6.6, 2.1, 'W'));
  expect([...new Set(row('wall').map(({ element }) => Number(element.thickness.toFixed(3))))]).toEqual([0.1]);
});

test('a window drawn from jamb to jamb is as wide as it is drawn, however wide', () => {
  const faces = [0, 0.3].map((y) => line(0, y, 3, y, 'W') + line(12, y, 15, y, 'W')).join('');
  const jambs = line(3, 0, 3, 0.3, 'W') + line(12, 0, 12, 0.3, 'W');
  const panes = [0, 0.15, 0.3].map((y) => line(3, y, 12, y, 'G')).join('');
  expect(readPlan(faces + jambs + panes)('opening').map(({ element }) => element.width)).toEqual([9]);
  // A mark of 4 m in the middle of such a gap is no opening of 9 m.
  const some = [0, 0.15, 0.3].map((y) => line(5, y, 9, y, 'G')).join('');
  expect(readPlan(faces + jambs + some)('opening')).toEqual([]);
});

describe('a steel section drawn as loose lines', () => {
  const lines = (ring: [number, number][]): string =>
    ring.map(([x, y], i) => line(x, y, ...ring[(i + 1) % ring.length], 'C')).join('');

  // Two rolled sections, thinner than the gap across which loose ends meet: 2 b t + (h - 2 t) s, without the fillets.
  test.each([
    ['200 by 190, web 6.5, flange 10', steelOutline(0.2, 0.19, 0.0065, 0.01), 0.005105],
    ['300 by 300, web 11, flange 19', steelOutline(0.3, 0.3, 0.011, 0.019), 0.014282],
  ])('%s keeps its web and its flanges', (_, ring, truth) => {
    const columns = readPlan(lines(ring))('column');
    expect(columns).toHaveLength(1);
    const { section } = columns[0].element;
    expect(section.shape).toBe('polygon');
    expect(section.shape === 'polygon' && Math.abs(area(section.outline))).toBeCloseTo(truth, 6);
  });
});
