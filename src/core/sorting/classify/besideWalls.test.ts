import { groups, line, outline } from '@/core/drawing/testing/dxf';
import { looksOf } from './testing/looksOf';

const at = ([x, y]: readonly [number, number]): [number, number][] => [
  [10, x],
  [20, y],
];
const text = (x: number, y: number, words: string) =>
  groups([0, 'TEXT'], [8, '0'], [10, x], [20, y], [40, 0.3], [1, words], [72, 1], [73, 2], [11, x], [21, y]);

/** A room of 6 by 4 m within walls of 0.2 m: its inner and its outer faces. */
const room = () =>
  [
    [0, 0, 6, 4],
    [-0.2, -0.2, 6.2, 4.2],
  ]
    .map(
      ([x0, y0, x1, y1]) => line(x0, y0, x1, y0) + line(x1, y0, x1, y1) + line(x1, y1, x0, y1) + line(x0, y1, x0, y0),
    )
    .join('');
const walls = Array.from({ length: 8 }, () => 'wall');

describe('a line beside a wall', () => {
  test('that hangs on nothing, or on the wall by a short one, is none of its faces', () => {
    expect(looksOf(room() + line(0.5, 0.4, 5.5, 0.4))).toEqual([...walls, null]);
    // Two in a row, as of a pipe with a bend.
    expect(looksOf(room() + line(0.5, 0.4, 5.5, 0.4) + line(5.5, 0.4, 5.5, 0.8))).toEqual([...walls, null, null]);
    // The short one ends on the face of the wall.
    expect(looksOf(room() + line(0.5, 0.4, 5.5, 0.4) + line(5.5, 0.4, 5.5, 0))).toEqual([...walls, null, null]);
  });

  test('that ends beside another at both ends is a face: a wall may stand free', () => {
    expect(looksOf(room() + line(1, 2, 5, 2) + line(1, 2.15, 5, 2.15)).slice(8)).toEqual(['wall', 'wall']);
  });
});

/** A wall of 0.2 m along x with a gap of 1.2 m, and its jambs. */
const gap =
  line(-4, 0, 0, 0) +
  line(-4, 0.2, 0, 0.2) +
  line(0, 0, 0, 0.2) +
  line(1.2, 0, 1.2, 0.2) +
  line(1.2, 0, 5, 0) +
  line(1.2, 0.2, 5, 0.2);
const thresholds = line(0, 0, 1.2, 0) + line(0, 0.2, 1.2, 0.2);
/** A leaf before the wall. */
const leaf = (from = 0, to = 1.2) =>
  outline([
    [from, 0.22],
    [to, 0.22],
    [to, 0.26],
    [from, 0.26],
  ]);

test('a thin rectangle before a wall from jamb to jamb is a leaf that slides, and what joins the jambs its threshold', () => {
  const door = ['door', 'door', 'door'];
  expect(looksOf(gap + thresholds + leaf()).slice(6)).toEqual(door);
  // A leaf covers its opening, and a little more.
  expect(looksOf(gap + thresholds + leaf(-0.1, 1.3)).slice(6)).toEqual(door);
  // What does not reach from jamb to jamb slides before nothing.
  for (const [from, to] of [
    [0.1, 1.2],
    [0.3, 1.5],
    [-0.4, 1.6],
  ])
    expect(looksOf(gap + leaf(from, to))[6]).not.toBe('door');
});

/** Stretches of lines across a wall of 0.3 m along x. */
const bundle = (from: number, to: number, offsets: readonly number[]) =>
  offsets.map((y) => line(from, y, to, y)).join('');
const panes = [0, 0.13, 0.17, 0.3];
/** Five pieces of a wall with four windows between them, which end for good at both ends. */
const pieces = (leaves: readonly number[]) => [0, 3, 6, 9, 12].map((x) => bundle(x, x + 1.5, leaves)).join('');
const windows = (own: readonly number[] = panes) => [1.5, 4.5, 7.5, 10.5].map((x) => bundle(x, x + 1.5, own)).join('');
const allWindows = (count: number) => Array.from({ length: count }, () => 'window');

describe('bundles of lines in a wall', () => {
  test('of one form are windows or leaves together', () => {
    const looks = looksOf(pieces([0, 0.1, 0.2, 0.3]) + windows());
    expect(looks.slice(20)).toEqual(allWindows(16));
    expect(looks.slice(0, 20)).not.toContain('window');
  });

  test('are windows where their pane lies in one line with a leaf, or half a centimetre beside it', () => {
    for (const leaf of [0.15, 0.157]) {
      const looks = looksOf(pieces([0, 0.07, leaf, 0.3]) + windows([0, 0.15, 0.3]));
      expect([leaf, looks.slice(20)]).toEqual([leaf, allWindows(12)]);
      expect(looks.slice(0, 20)).not.toContain('window');
    }
  });

  test('are none where two faces are three lines because one is drawn twice', () => {
    const doubled = [0, 0, 0.3];
    // The wall goes on beyond, drawn a little aside.
    const beyond = bundle(-6, 0, [0.014, 0.314]) + bundle(13.5, 20, [0.014, 0.314]);
    expect(looksOf(pieces(doubled) + beyond)).not.toContain('window');
  });

  test('are windows beside a leaf that stops short of the jambs, half a centimetre beside their pane', () => {
    const faces = [0, 3, 6, 9, 12].map((x) => bundle(x, x + 1.5, [0, 0.3])).join('');
    const leaf = [0, 3, 6, 9, 12].map((x) => line(x + 0.06, 0.157, x + 1.44, 0.157)).join('');
    expect(looksOf(faces + leaf + windows([0, 0.15, 0.3])).slice(15)).toEqual(allWindows(12));
  });

  test('are windows although their pane lies on an axis of the grid', () => {
    const axis = square(-9, -0.35, 1) + text(-8.5, 0.15, 'A') + line(-8, 0.15, 0, 0.15);
    const looks = looksOf(axis + pieces([0, 0.3]) + windows([0, 0.15, 0.3]));
    expect(looks.slice(0, 2)).toEqual(['grid', 'grid']);
    expect(looks.slice(12)).toEqual(allWindows(12));
  });

  test('are leaves where the wall ends in a column of loose lines on a crossing, whose sides are no wall beyond', () => {
    const axis = (x: number, y: number, ux: number, uy: number, label: string) =>
      square(x - 0.5, y - 0.5, 1) + text(x, y, label) + line(x + ux / 2, y + uy / 2, x + 26 * ux, y + 26 * uy);
    const grid =
      axis(0, -4, 0, 1, '1') + axis(13.5, -4, 0, 1, '2') + axis(-4, 0.15, 1, 0, 'A') + axis(-4, 12, 1, 0, 'B');
    const column = (x: number, y: number) => {
      const [x0, y0, x1, y1] = [x - 0.25, y - 0.25, x + 0.25, y + 0.25];
      return line(x0, y0, x1, y0) + line(x1, y0, x1, y1) + line(x1, y1, x0, y1) + line(x0, y1, x0, y0);
    };
    const columns = column(0, 0.15) + column(13.5, 0.15) + column(0, 12) + column(13.5, 12);
    // Without the columns the leaves end where nothing is beyond.
    const looks = looksOf(grid + columns + pieces([0, 0.07, 0.23, 0.3]) + windows([0, 0.13, 0.17, 0.3]));
    expect(looks.slice(8, 24)).toEqual(Array.from({ length: 16 }, () => 'column'));
    expect(looks.slice(24, 44)).not.toContain('window');
    expect(looks.slice(44)).toEqual(allWindows(16));
  });
});

const square = (x: number, y: number, a = 0.4) =>
  outline([
    [x, y],
    [x + a, y],
    [x + a, y + a],
    [x, y + a],
  ]);

test('short faces about a jamb that begin and end on a column are of a wall, those of a chair are not', () => {
  const columns = [0, 6, 12, 18].map((x) => square(x, 0)).join('');
  const open = (points: readonly (readonly [number, number])[]) =>
    points
      .slice(1)
      .map((b, i) => [points[i], b])
      .map(([p, q]) => line(p[0], p[1], q[0], q[1]))
      .join('');
  const polyline = (points: readonly (readonly [number, number])[]) =>
    groups([0, 'LWPOLYLINE'], [8, '0'], [90, points.length], [70, 0], ...points.flatMap(at));
  const stub = [
    [0.4, 0.1],
    [0.6, 0.1],
    [0.6, 0.3],
    [0.4, 0.3],
  ] as const;
  const chair = stub.map(([x, y]) => [x + 2, y + 2] as const);
  expect(looksOf(columns + polyline(stub) + polyline(chair)).slice(4)).toEqual(['wall', null]);
  expect(looksOf(columns + open(stub)).slice(4)).toEqual(['wall', 'wall', 'wall']);
});

test('the outline of all walls of a floor, which goes from room to room by the jambs of doors, is no room', () => {
  const rooms = [
    [0, 0, 5, 4],
    [5.2, 0, 10, 4],
  ];
  const drawn = rooms.map(([x0, y0, x1, y1]) =>
    outline([
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ]),
  );
  const floor = outline([
    [0, 0],
    [5, 0],
    [5, 1],
    [5.2, 1],
    [5.2, 0],
    [10, 0],
    [10, 4],
    [5.2, 4],
    [5.2, 2],
    [5, 2],
    [5, 4],
    [0, 4],
  ]);
  const words = text(2.5, 2, 'Store') + text(7.5, 2, 'Office');
  const outer = outline([
    [-0.2, -0.2],
    [10.2, -0.2],
    [10.2, 4.2],
    [-0.2, 4.2],
  ]);
  const looks = looksOf(floor + outer + drawn.join('') + words);
  expect([looks[0], looks.slice(2)]).toEqual(['wall', ['zone', 'zone']]);
});

test('lines that step aside to a text without a ring are grid, several of them, and what leads to it too', () => {
  const axis = (x: number, label: string) => line(x, 0, x, 12) + line(x, 0, x - 0.4, -0.8) + text(x - 0.5, -1.2, label);
  const axes = [0, 5, 11].map((x, i) => axis(x, String(i + 1))).join('');
  expect(looksOf(axes)).toEqual(Array.from({ length: 6 }, () => 'grid'));
  // Two of them may be anything.
  expect(looksOf(axis(0, '1') + axis(5, '2'))).not.toContain('grid');
});

test('a room with a name as short as a label is no ring of the grid where there are smaller ones', () => {
  const bubble = (x: number, label: string) => square(x - 0.5, -1.5, 1) + text(x, -1, label) + line(x, -0.5, x, 12);
  const room = (y: number) => square(1, y, 3.6) + text(2.8, y + 1.8, '\u53a8\u623f') + line(4.6, y + 1.8, 9, y + 1.8);
  const looks = looksOf(bubble(0, '1') + bubble(12, '2') + room(3) + room(7));
  expect([looks[0], looks[1], looks[2], looks[3]]).toEqual(['grid', 'grid', 'grid', 'grid']);
  expect(looks.slice(4)).not.toContain('grid');
});
