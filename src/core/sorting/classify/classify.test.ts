import { groundFloor } from '../../../../demo/ground';
import { asDrawn } from '@/core/datum/placement';
import { block, dxf, groups, insert, line, readText } from '@/core/drawing/testing/dxf';
import { readDxf } from '@/core/drawing/reader';
import { read } from '@/core/reading/read';
import { toleranceFor } from '@/core/patterns/settings';
import { Scene } from '@/core/reading/scene';
import { flatten } from '@/core/underlay/flatten';
import { classify, classifySteps } from './classify';
import { suggestLayers } from '../suggestLayers';
import { looksOf } from './testing/looksOf';

const polyline = (points: [number, number][], closed: boolean, layer = '0') =>
  groups(
    [0, 'LWPOLYLINE'],
    [8, layer],
    [90, points.length],
    [70, closed ? 1 : 0],
    ...points.flatMap(([x, y]): [number, number][] => [
      [10, x],
      [20, y],
    ]),
  );

const circle = (x: number, y: number, r: number) => groups([0, 'CIRCLE'], [8, '0'], [10, x], [20, y], [40, r]);
const text = (x: number, y: number, words: string) =>
  groups([0, 'TEXT'], [8, '0'], [10, x], [20, y], [40, 0.3], [1, words], [72, 1], [73, 2], [11, x], [21, y]);
const square = (x: number, y: number, a: number, layer = '0') =>
  groups(
    [0, 'LWPOLYLINE'],
    [8, layer],
    [90, 4],
    [70, 1],
    ...[
      [x, y],
      [x + a, y],
      [x + a, y + a],
      [x, y + a],
    ].flatMap(([px, py]): [number, number][] => [
      [10, px],
      [20, py],
    ]),
  );

test('a ring with a label, the line that ends in it and the pieces on its run are grid; a ring without a label is not', () => {
  expect(
    looksOf(circle(0, -0.5, 0.5) + text(0, -0.5, 'A') + line(0, 0, 0, 9) + line(0, 9.4, 0, 14) + circle(5, 5, 0.7)),
  ).toEqual(['grid', 'grid', 'grid', null]);
});

test('four squares of one size are columns, three are not, and loose lines of that size are one more', () => {
  const four = [0, 6, 12, 18].map((x) => square(x, 0, 0.4)).join('');
  expect(looksOf(four)).toEqual(['column', 'column', 'column', 'column']);
  expect(looksOf([0, 6, 12].map((x) => square(x, 0, 0.4)).join(''))).not.toContain('column');
  const loose = line(24, 0, 24.4, 0) + line(24.4, 0, 24.4, 0.4) + line(24.4, 0.4, 24, 0.4) + line(24, 0.4, 24, 0.005);
  expect(looksOf(four + loose).slice(4)).toEqual(['column', 'column', 'column', 'column']);
});

test('boxes about the numbers of rooms are no columns, columns with their marks in them are', () => {
  const boxed = (words: (i: number) => string) =>
    looksOf([0, 6, 12, 18].map((x, i) => square(x, 0, 0.6) + text(x + 0.3, 0.3, words(i))).join(''));
  expect(boxed((i) => `0.${i + 11}`)).toEqual(['label', 'label', 'label', 'label']);
  expect(boxed((i) => `S${i + 1}`)).toEqual(['column', 'column', 'column', 'column']);
});

test('a quarter arc with its leaf is a door, three lines between common ends a window, two beside one another a wall', () => {
  const door = groups([0, 'ARC'], [8, '0'], [10, 0], [20, 0], [40, 0.9], [50, 0], [51, 90]) + line(0, 0, 0, 0.9);
  expect(looksOf(door)).toEqual(['door', 'door']);
  const faces = line(-3, 0, 0, 0) + line(-3, 0.2, 0, 0.2);
  const panes = [0, 0.1, 0.2].map((y) => line(0, y, 1.8, y)).join('');
  expect(looksOf(panes + faces).slice(0, 3)).toEqual(['window', 'window', 'window']);
  // Without a wall beyond its ends it is a piece of wall with a leaf.
  expect(looksOf(panes)).not.toContain('window');
  expect(looksOf(line(0, 0, 6, 0) + line(0, 0.2, 6, 0.2) + line(9, 5, 19, 5))).toEqual(['wall', 'wall', null]);
});

test('a line drawn hundreds of times over is no window', () => {
  expect(looksOf(line(0, 0, 1.8, 0).repeat(400))).not.toContain('window');
});

test('loose lines that close to one size four times are columns without a drawn one beside them; three times they are not', () => {
  const loose = (x: number) =>
    line(x, 0, x + 0.4, 0) + line(x + 0.4, 0, x + 0.4, 0.4) + line(x + 0.4, 0.4, x, 0.4) + line(x, 0.4, x, 0);
  expect(looksOf([0, 6, 12, 18].map(loose).join(''))).toEqual(Array.from({ length: 16 }, () => 'column'));
  expect(looksOf([0, 6, 12].map(loose).join(''))).not.toContain('column');
});

test('a block of a column\u2019s size that stands on crossings of grid lines is a column, one that stands in rooms is furniture', () => {
  const axis = (x1: number, y1: number, x2: number, y2: number, label: string) => {
    const length = Math.hypot(x2 - x1, y2 - y1);
    const [cx, cy] = [x1 - (0.5 * (x2 - x1)) / length, y1 - (0.5 * (y2 - y1)) / length];
    return line(x1, y1, x2, y2) + circle(cx, cy, 0.5) + text(cx, cy, label);
  };
  const grid = axis(0, -2, 0, 12, '1') + axis(6, -2, 6, 12, '2') + axis(-2, 0, 12, 0, 'A') + axis(-2, 8, 12, 8, 'B');
  const blocks = block('X1', square(-0.2, -0.2, 0.4)) + block('X2', square(-0.2, -0.2, 0.4));
  const posts = [
    [0, 0],
    [6, 0],
    [0, 8],
    [6, 8],
  ]
    .map(([x, y]) => insert('X1', x, y))
    .join('');
  const stools = [
    [2, 2],
    [3, 2],
    [2, 4],
    [3, 4],
  ]
    .map(([x, y]) => insert('X2', x, y))
    .join('');
  expect(looksOf(grid + posts + stools, blocks).slice(-8)).toEqual([
    'column',
    'column',
    'column',
    'column',
    'ignore',
    'ignore',
    'ignore',
    'ignore',
  ]);
});

/** Lines to the bubbles of a small plan. */
const axes = () => line(0, -2.5, 0, 9) + line(6, -2.5, 6, 9) + line(-2.5, 0, 8, 0) + line(-2.5, 8, 8, 8);

test('what runs round all bubbles is the frame of the sheet, as loose lines or as an outline; without bubbles it is not told', () => {
  const bubble = (x: number, y: number, label: string) => circle(x, y, 0.5) + text(x, y, label);
  const bubbles = bubble(0, -3, '1') + bubble(6, -3, '2') + bubble(-3, 0, 'A') + bubble(-3, 8, 'B') + axes();
  const loose = (d: number) =>
    line(-8 - d, -8 - d, 20 + d, -8 - d) +
    line(20 + d, -8 - d, 20 + d, 14 + d) +
    line(20 + d, 14 + d, -8 - d, 14 + d) +
    line(-8 - d, 14 + d, -8 - d, -8 - d);
  const frame = loose(0) + loose(0.5) + square(-10, -10, 32);
  expect(looksOf(bubbles + frame).slice(8)).toEqual(Array.from({ length: 9 }, () => 'ignore'));
  expect(looksOf(frame)).not.toContain('ignore');
  // An outer wall on a side without bubbles stands near the last axis.
  const outer = line(-2, 8.1, 9, 8.1) + line(-2, 8.3, 9, 8.3);
  expect(looksOf(bubbles + outer).slice(8)).toEqual(['wall', 'wall']);
  // A wall inside passes no bubble on one side alone.
  expect(looksOf(bubbles + line(-2, 0.9, 7, 0.9) + line(-2, 1.1, 7, 1.1)).slice(8)).toEqual(['wall', 'wall']);
});

test('a line between the middles of two jambs is a window; with faces from jamb to jamb it is a leaf of the wall', () => {
  const jambs = line(2, 0, 2, 0.3) + line(3.5, 0, 3.5, 0.3);
  expect(looksOf(jambs + line(2, 0.15, 3.5, 0.15))[2]).toBe('window');
  expect(looksOf(jambs + line(2, 0.15, 3.5, 0.15) + line(2, 0, 3.5, 0))[2]).not.toBe('window');
});

describe('what layers of a frame building look like by what is drawn on them', () => {
  const hexagon = (x: number, y: number): [number, number][] =>
    Array.from({ length: 7 }, (_, i) => [x + 0.5 * Math.sin((i * Math.PI) / 3), y - 0.5 * Math.cos((i * Math.PI) / 3)]);
  const angle = (x: number, y: number): [number, number][] => [
    [x, y],
    [x + 0.6, y],
    [x + 0.6, y + 0.3],
    [x + 0.3, y + 0.3],
    [x + 0.3, y + 0.6],
    [x, y + 0.6],
  ];
  const corners = [0, 6, 12].flatMap((x) => [0, 6].map((y): [number, number] => [x, y]));

  test('a polyline back to its first point about a label is a bubble where a line ends in it, a boxed number is not', () => {
    const bubble = polyline(hexagon(0, -0.5), false) + text(0, -0.5, 'A');
    expect(looksOf(bubble + line(0, 0, 0, 9))).toEqual(['grid', 'grid']);
    expect(looksOf(polyline(hexagon(0, -0.5), false) + text(0, -0.5, '12') + line(3, 0, 3, 9))).toEqual([
      'label',
      null,
    ]);
  });

  test('angles of one size are columns, though a size is rounded to either side', () => {
    const angles = corners.map(([x, y], i) =>
      polyline(
        angle(x, y).map(([px, py]): [number, number] => [px + (px > x + 0.4 && i % 2 ? 0.012 : 0), py]),
        true,
      ),
    );
    expect(looksOf(angles.join(''))).toEqual(corners.map(() => 'column'));
  });

  const room = (x: number, y: number) =>
    line(x, y, x + 4, y, 'W') +
    line(x, y + 0.2, x + 4, y + 0.2, 'W') +
    line(x, y, x, y + 0.2, 'W') +
    line(x + 4, y, x + 4, y + 0.2, 'W');
  const walls = [0, 2, 4, 6].map((y) => room(0.9, y + 0.5)).join('');
  const columns = corners.map(([x, y]) => square(x - 0.2, y - 0.2, 0.4, 'C')).join('');
  const rolesOf = (entities: string): Record<string, string | null> => {
    const { drawing } = readText(dxf({ entities }));
    const found = suggestLayers(drawing, flatten(drawing), 1);
    return Object.fromEntries(drawing.layers.map(({ name }, i) => [name, found[i].role]));
  };
  const pairs = (layer: string) =>
    [0, 6].map((y) => line(0.2, y - 0.1, 5.8, y - 0.1, layer) + line(0.2, y + 0.1, 5.8, y + 0.1, layer)).join('');

  test('pairs from column to column are beams where the walls are elsewhere, and walls where they are not', () => {
    expect(rolesOf(walls + columns + pairs('Q'))).toMatchObject({ W: 'wall', C: 'column', Q: 'beam' });
    expect(rolesOf(columns + pairs('Q'))).toMatchObject({ Q: 'wall' });
    // Panes of 1.2 m between columns that stand closer are none.
    const close = [0, 1.6, 3.2].map((x) => square(x - 0.2, -0.2, 0.4, 'C') + square(x - 0.2, 2.8, 0.4, 'C')).join('');
    const pane = (x: number, y: number) => line(x, y, x + 1.2, y, 'P') + line(x, y + 0.1, x + 1.2, y + 0.1, 'P');
    const panes = pane(0.2, 0) + pane(1.8, 0) + pane(0.2, 3) + pane(1.8, 3);
    expect(rolesOf(room(10, 0) + room(10, 2) + room(10, 4) + close + panes)).not.toMatchObject({ P: 'beam' });
  });

  test('pairs with marks along them are beams although they end on walls', () => {
    const spans = (mark: string) =>
      [1, 3]
        .map((y) => line(20, y, 26, y, 'Q') + line(20, y + 0.2, 26, y + 0.2, 'Q') + text(23, y + 0.5, mark))
        .join('');
    expect(rolesOf(walls + columns + spans('T4 20/35'))).toMatchObject({ Q: 'beam' });
    expect(rolesOf(walls + columns + spans('to be clad'))).toMatchObject({ Q: 'wall' });
  });

  test('half of a layer is enough where nothing on it looks like anything else, but for walls', () => {
    const door = (x: number) =>
      line(x, 0, x, 0.9, 'D') + groups([0, 'ARC'], [8, 'D'], [10, x], [20, 0], [40, 0.9], [50, 0], [51, 90]);
    const stray = (layer: string) =>
      [0, 1, 2, 3].map((i) => line(40 + 3 * i, 30 + i, 41 + 3 * i, 32 + 2.3 * i, layer)).join('');
    expect(rolesOf(door(0) + door(3) + stray('D'))).toEqual({ '0': null, D: 'door' });
    expect(
      rolesOf(
        line(0, 0, 6, 0, 'Q') +
          line(0, 0.2, 6, 0.2, 'Q') +
          line(0, 9, 6, 9, 'Q') +
          line(0, 9.2, 6, 9.2, 'Q') +
          stray('Q'),
      ),
    ).toEqual({ '0': null, Q: null });
  });

  test('one outline about all columns is a slab; the frame far outside is not', () => {
    const ring = (by: number): [number, number][] => [
      [-by, -by],
      [12 + by, -by],
      [12 + by, 6 + by],
      [-by, 6 + by],
    ];
    const outline = (by: number) => polyline(ring(by), true, 'S');
    const back = polyline([...ring(0.3), ring(0.3)[0]], false, 'S');
    expect(rolesOf(columns + back)).toMatchObject({ S: 'slab' });
    const sides = ring(0.3).map(([x, y], i) => line(x, y, ...ring(0.3)[(i + 1) % 4], 'S'));
    expect(rolesOf(columns + sides.join(''))).toMatchObject({ S: 'slab' });
    expect(rolesOf(columns + outline(0.3) + polyline(ring(0.1), true, 'S'))).not.toMatchObject({ S: 'slab' });
    expect(rolesOf(columns + outline(0.3))).toMatchObject({ S: 'slab' });
    expect(rolesOf(columns + outline(8))).toMatchObject({ S: null });
    // A wing without columns: told from the frame by the bubbles, which lie outside the one and inside the other.
    const grid = circle(0, -4.5, 0.5) + text(0, -4.5, 'A') + line(0, -4, 0, 10, 'G');
    const wing = polyline(
      [
        [-0.3, -0.3],
        [20, -0.3],
        [20, 6.3],
        [-0.3, 6.3],
      ],
      true,
      'S',
    );
    expect(rolesOf(grid + columns + wing)).toMatchObject({ S: 'slab' });
    expect(rolesOf(grid + columns + outline(8))).toMatchObject({ S: null });
  });
});

describe('a block on a layer that says nothing', () => {
  const blocks =
    block('X1', line(0, 0, 0, 0.9) + groups([0, 'ARC'], [8, '0'], [10, 0], [20, 0], [40, 0.9], [50, 0], [51, 90])) +
    block('X2', line(0, 0, 1.5, 0) + line(0, 0.1, 1.5, 0.1) + line(0, 0, 0, 0.1) + line(1.5, 0, 1.5, 0.1));
  const of = (entities: string) => looksOf(entities, blocks);
  const gap = (x: number) =>
    line(x - 3, 0, x, 0) + line(x - 3, 0.1, x, 0.1) + line(x, 0, x, 0.1) + line(x + 1.5, 0, x + 1.5, 0.1);

  test('is a door by its leaf and arc', () => {
    expect(of(insert('X1', 0, 0) + insert('X1', 5, 0))).toEqual(['door', 'door', 'door', 'door']);
  });

  test('is what its name says, whatever it holds', () => {
    const named = blocks.replaceAll('X1', 'WINDOW-CASEMENT').replaceAll('X2', 'WARDROBE');
    const found = looksOf(insert('WINDOW-CASEMENT', 0, 0) + insert('WINDOW-CASEMENT', 5, 0), named);
    expect(found).toEqual(['window', 'window', 'window', 'window']);
  });

  test('is a window where it runs from jamb to jamb, and furniture where it stands free', () => {
    const standing = of(gap(0) + gap(20) + insert('X2', 0, 0) + insert('X2', 20, 0));
    expect(standing.slice(8)).toEqual(Array.from({ length: 8 }, () => 'window'));
    const free = of(gap(0) + gap(20) + insert('X2', 0, 5) + insert('X2', 20, 5));
    expect(free.slice(8)).toEqual(Array.from({ length: 8 }, () => 'ignore'));
  });
});

test('what comes by a block is what its name says, else furniture', () => {
  const content = (name: string) => block(name, line(0, 0, 1, 0));
  expect(looksOf(insert('DOOR-900', 0, 0) + insert('CHAIR', 5, 0), content('DOOR-900') + content('CHAIR'))).toEqual([
    'door',
    'ignore',
  ]);
});

describe('layers by name and by what is drawn on them', () => {
  const suggested = (entities: string) => {
    const { drawing } = readText(dxf({ entities }));
    return new Map(
      suggestLayers(drawing, flatten(drawing), 1).map((suggestion, i) => [drawing.layers[i].name, suggestion]),
    );
  };
  const columns = (layer: string, n: number) =>
    Array.from({ length: n }, (_, i) => square(6 * i, 0, 0.4, layer)).join('');

  test('a name that says nothing takes what the lines look like, with the reason', () => {
    expect(suggested(columns('X-17', 6)).get('X-17')).toMatchObject({
      role: 'column',
      why: ['6 of 6: 6 shapes of one size, 0.40 by 0.40 m'],
      conflict: null,
    });
  });

  test('a name and lines that say the same give two reasons; contradicting ones are pointed out and the name stands', () => {
    expect(suggested(columns('A-COLS', 9)).get('A-COLS')!.why).toHaveLength(2);
    expect(suggested(columns('A-WALL', 9)).get('A-WALL')).toMatchObject({
      role: 'wall',
      conflict: 'Its name says wall; 9 of its 9 lines look like column.',
    });
  });

  test('a layer with too little on it gets no role', () => {
    expect(suggested(line(0, 0, 5, 3, 'Y')).get('Y')).toMatchObject({ role: null, why: [] });
  });
});

test('the demo\u2019s drawing on one layer is sorted by geometry, and reads like the one on many', () => {
  const counts = (dxfText: string) => {
    const result = readDxf(new TextEncoder().encode(dxfText));
    if (!result.ok) throw new Error(result.message);
    const { drawing } = result.value;
    const p = flatten(drawing);
    const roles = suggestLayers(drawing, p, 0.001).map(({ role }) => role);
    const { candidates } = read({ scene: new Scene(drawing, p, asDrawn('mm'), roles), tolerance: toleranceFor('mm') });
    return {
      roles,
      ...Object.fromEntries(
        ['grid', 'column', 'opening', 'zone'].map((kind) => [
          kind,
          candidates.filter((candidate) => candidate.kind === kind).length,
        ]),
      ),
    };
  };
  const one = counts(groundFloor({ oneLayer: true }).dxf);
  const many = counts(groundFloor().dxf);
  expect(one).toEqual({ ...many, roles: ['mixed'] });
});

describe('what else is drawn is told apart', () => {
  const chain = (points: [number, number][], closed = false) => polyline(points, closed, '0');
  const box = (x: number, y: number, w: number, h: number) =>
    line(x, y, x + w, y) + line(x + w, y, x + w, y + h) + line(x + w, y + h, x, y + h) + line(x, y + h, x, y);

  test('a line between two slanting strokes with a figure beside it is a dimension, between two jambs it is not', () => {
    const dimension = line(0, 0, 5, 0) + line(-0.1, -0.1, 0.1, 0.1) + line(4.9, -0.1, 5.1, 0.1);
    expect(looksOf(dimension + text(2.5, 0.3, '5000'))).toEqual(['ignore', 'ignore', 'ignore']);
    expect(looksOf(dimension)).not.toContain('ignore');
    const jambs = line(0, -0.1, 0, 0.1) + line(5, -0.1, 5, 0.1);
    expect(looksOf(line(0, 0, 5, 0) + jambs + text(2.5, 0.3, '5000'))).not.toContain('ignore');
  });

  test('rows between two lines down, with words in them, are a table', () => {
    const rows = [0, 0.6, 1.2, 1.8].map((y) => line(0, y, 6, y)).join('');
    const ruled = rows + [0, 2, 6].map((x) => line(x, 0, x, 1.8)).join('');
    const words = [0.3, 0.9, 1.5].map((y) => text(1, y, 'D1') + text(4, y, '900')).join('');
    expect(new Set(looksOf(ruled + words))).toEqual(new Set(['ignore']));
    expect(looksOf(rows + words)).not.toContain('ignore');
  });

  test('a rectangle that stands free is furniture, closed or of loose lines; one that a wall goes on from is not', () => {
    const shelf: [number, number][] = [
      [0, 0],
      [1.6, 0],
      [1.6, 0.4],
      [0, 0.4],
    ];
    expect(looksOf(chain(shelf, true))).toEqual(['ignore']);
    expect(new Set(looksOf(box(0, 0, 1.6, 0.4)))).toEqual(new Set(['ignore']));
    expect(looksOf(chain(shelf, true) + line(1.6, 0, 6, 0) + line(1.6, 0.4, 6, 0.4))).not.toContain('ignore');
  });

  test('chords on one circle with a leaf are a door, and so is one half open, with a leaf as a thin rectangle', () => {
    const swing = Array.from({ length: 9 }, (_, i): [number, number] => {
      const angle = (i * Math.PI) / 16;
      return [0.9 * Math.cos(angle), 0.9 * Math.sin(angle)];
    });
    expect(looksOf(chain(swing) + line(0, 0, 0, 0.9))).toEqual(['door', 'door']);
    const half = groups([0, 'ARC'], [8, '0'], [10, 0], [20, 0], [40, 0.9], [50, 0], [51, 45]);
    const [c, s] = [0.9 * Math.SQRT1_2, 0.04 * Math.SQRT1_2];
    const leaf: [number, number][] = [
      [0, 0],
      [c, c],
      [c - s, c + s],
      [-s, s],
    ];
    expect(looksOf(half + chain(leaf, true))).toEqual(['door', 'door']);
  });

  test('leaves of a wall between doors are a wall, up to its corners', () => {
    // Pieces of a wall of two leaves, 3 m long each, with doors between them.
    const piece = (x: number) => [0, 0.12, 0.24, 0.36].map((y) => line(x, y, x + 3, y)).join('');
    expect(looksOf(piece(0) + piece(4) + piece(8))).not.toContain('window');
  });

  /** A wall with a single pane in each of its gaps, all jambs drawn. */
  const singlePanes = (count: number, y: number) =>
    Array.from({ length: count }, (_, i) => {
      const x = 4 * i;
      const jambs = line(x, y, x, y + 0.3) + line(x + 1.2, y, x + 1.2, y + 0.3);
      const faces = line(x + 1.2, y, x + 4, y) + line(x + 1.2, y + 0.3, x + 4, y + 0.3);
      return line(x, y + 0.15, x + 1.2, y + 0.15) + jambs + faces;
    }).join('');
  /** Three lines between common ends with a wall beyond them. */
  const three = [0, 0.12, 0.3].map((y) => line(0, y, 1.8, y)).join('') + line(1.8, 0, 6, 0) + line(1.8, 0.3, 6, 0.3);

  test('three lines between common ends are a window, but leaves of the wall where windows are drawn in another way', () => {
    expect(looksOf(three + singlePanes(3, 9)).slice(0, 3)).toEqual(['window', 'window', 'window']);
    expect(looksOf(three + singlePanes(4, 9)).slice(0, 3)).not.toContain('window');
    const sash = block('WINDOW', line(0, 0, 1.2, 0) + line(0, 0.1, 1.2, 0.1));
    const inserted = (count: number) =>
      Array.from({ length: count }, (_, i) => insert('WINDOW', 3 * i, 20, [], '0')).join('');
    expect(looksOf(three + inserted(3), sash).slice(0, 3)).toEqual(['window', 'window', 'window']);
    expect(looksOf(three + inserted(4), sash).slice(0, 3)).not.toContain('window');
  });

  test('leaves of a wall drawn askew are leaves up to the corner, of which one runs on further than the others', () => {
    // Each line is turned by an angle of its own and up to 8 mm off; beyond the last leaf the outer one goes on.
    const askew = (x: number, y: number, length: number, i: number) =>
      line(x, y + 0.004 * ((i % 3) - 1), x + length, y + 0.004 * ((i % 3) - 1) + 0.0007 * ((i % 5) - 2.5));
    const piece = (x: number, i: number) => [0, 0.12, 0.24, 0.36].map((y, k) => askew(x, y, 3, 7 * i + k)).join('');
    const corner = askew(11.05, 0, 0.41, 3) + askew(11.05, 0.12, 0.42, 5);
    expect(looksOf(piece(0, 0) + piece(4, 1) + piece(8, 2) + corner)).not.toContain('window');
  });

  test('a rectangle whose ends are drawn once more, as jambs, is a window and no column', () => {
    const faces = (y: number) =>
      [-3, 1.2, 6.2, 11.2, 16.2].map((x, i) => line(x, y, [0, 5, 10, 15, 19][i], y)).join('');
    const windows = [0, 5, 10, 15].map((x) =>
      chain(
        [
          [x, 0],
          [x + 1.2, 0],
          [x + 1.2, 0.3],
          [x, 0.3],
        ],
        true,
      ),
    );
    const jambs = [0, 5, 10, 15].map((x) => line(x, 0, x, 0.3) + line(x + 1.2, 0, x + 1.2, 0.3));
    expect(looksOf(windows.join('') + jambs.join('') + faces(0) + faces(0.3)).slice(0, 4)).toEqual(
      Array.from({ length: 4 }, () => 'window'),
    );
  });

  test('a line before a window, a little longer than it, is its sill and no wall', () => {
    const faces = [0, 0.3].map((y) => line(-4, y, 0, y) + line(1.2, y, 6, y)).join('');
    const jambs = line(0, 0, 0, 0.3) + line(1.2, 0, 1.2, 0.3);
    const pane = line(0, 0.15, 1.2, 0.15);
    expect(looksOf(pane + line(-0.05, -0.05, 1.25, -0.05) + faces + jambs).slice(0, 2)).toEqual(['window', 'window']);
  });

  test('solid fills of one size are columns; diagonals belong to their column', () => {
    const fill = (x: number) =>
      groups(
        [0, 'SOLID'],
        [8, '0'],
        [10, x],
        [20, 0],
        [11, x + 0.4],
        [21, 0],
        [12, x],
        [22, 0.4],
        [13, x + 0.4],
        [23, 0.4],
      );
    expect(looksOf([0, 6, 12, 18].map(fill).join(''))).toEqual(['column', 'column', 'column', 'column']);
    const crossed = [0, 6, 12, 18].map((x) => square(x, 0, 0.4) + line(x, 0, x + 0.4, 0.4)).join('');
    expect(new Set(looksOf(crossed))).toEqual(new Set(['column']));
  });

  test('an outline about a word on the faces of walls, drawn once more, is a room', () => {
    const inside: [number, number][] = [
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ];
    const walls = box(0, 0, 4, 3) + box(-0.2, -0.2, 4.4, 3.4);
    expect(looksOf(chain(inside, true) + walls + text(2, 1.5, 'Store'))[0]).toBe('zone');
    expect(looksOf(chain(inside, true) + walls)[0]).not.toBe('zone');
  });

  test('a pane that lies on an axis drawn as stubs is a window, not a piece of the axis', () => {
    const axis = line(-6, 0.15, -4, 0.15) + line(8, 0.15, 10, 0.15);
    const bubbles = circle(-6.5, 0.15, 0.5) + text(-6.5, 0.15, 'A') + circle(10.5, 0.15, 0.5) + text(10.5, 0.15, 'A');
    const faces = [0, 0.3].map((y) => line(-3, y, 0, y) + line(1.2, y, 6, y)).join('');
    const jambs = line(0, 0, 0, 0.3) + line(1.2, 0, 1.2, 0.3);
    expect(looksOf(line(0, 0.15, 1.2, 0.15) + axis + bubbles + faces + jambs).slice(0, 3)).toEqual([
      'window',
      'grid',
      'grid',
    ]);
  });

  test('pieces of a wall between doors that close to one size are no columns, where the grid crosses elsewhere', () => {
    const axes = [0, 8]
      .map((x) => line(x, -2.5, x, 8) + circle(x, -3, 0.5) + text(x, -3, x === 0 ? '1' : '2'))
      .join('');
    const across = line(-2.5, 6, 9, 6) + circle(-3, 6, 0.5) + text(-3, 6, 'A');
    const piers = [1, 2.5, 4, 5.5].map((x) => box(x, 0, 0.6, 0.3)).join('');
    const looks = looksOf(piers + axes + across + line(7, 0, 10, 0) + line(7, 0.3, 10, 0.3));
    expect(looks.slice(0, 16)).not.toContain('column');
  });
});

test('what is known of a drawing is not looked for again, but at another scale', () => {
  const { drawing } = readText(dxf({ entities: square(0, 0, 0.3) }));
  const p = flatten(drawing);
  const looks = classify(drawing, p, 1);
  expect(classifySteps(drawing, p, 1).next()).toEqual({ done: true, value: looks });
  expect(classifySteps(drawing, p, 0.001).next().done).toBe(false);
});
