import { groups, line, outline } from '@/core/drawing/testing/dxf';
import { steelOutline } from '@/core/drawing/testing/steel';
import { looksOf } from './testing/looksOf';

/** Half the thickness of a wall along x, metres. */
const half = 0.1;
const across = (x: number): string => line(x, -half, x, half);
const pair = (from: number, to: number): string => line(from, half, to, half) + line(from, -half, to, -half);

/** Pieces of a wall along x, with a jamb at each end of each but the outer ones; each is two lines. */
const inPieces = (cuts: readonly number[]): string =>
  cuts
    .slice(1)
    .map((to, i) => pair(cuts[i], to))
    .join('') +
  cuts
    .slice(1, -1)
    .map((x) => across(x))
    .join('');

/** What is said of both lines of each piece. */
const ofPieces = (looks: readonly (string | null)[], count: number): (string | null)[][] =>
  Array.from({ length: count }, (_, i) => [looks[2 * i], looks[2 * i + 1]]);

const wall = ['wall', 'wall'];
const door = ['door', 'door'];

describe('two lines from jamb to jamb', () => {
  test('are a door in a wall that goes on, and take turns with the wall between two doors', () => {
    expect(ofPieces(looksOf(inPieces([0, 2, 2.9, 6])), 3)).toEqual([wall, door, wall]);
    expect(ofPieces(looksOf(inPieces([0, 2, 2.9, 5, 5.9, 8])), 5)).toEqual([wall, door, wall, door, wall]);
  });

  test('are wall where nothing goes on beyond: between two openings with nothing drawn in them', () => {
    const pieces = [0, 1.5, 3].map((x) => pair(2 * x, 2 * x + 2) + across(2 * x) + across(2 * x + 2)).join('');
    expect(looksOf(pieces)).not.toContain('door');
  });

  test('are wall where pieces as long as one another follow: panels', () => {
    expect(looksOf(inPieces([0, 2, 4, 6, 8, 10]))).not.toContain('door');
  });

  test('are a door beside a joint in a wall with a leaf, whose pieces are none', () => {
    const leaf = line(0, 0, 1, 0) + line(1, 0, 2, 0) + line(2.9, 0, 6, 0);
    expect(ofPieces(looksOf(inPieces([0, 1, 2, 2.9, 6]) + leaf), 4)).toEqual([wall, wall, door, wall]);
  });

  test('are wall with a leaf between them', () => {
    expect(looksOf(inPieces([0, 2, 2.9, 6]) + line(2, 0.02, 2.9, 0.02))[2]).not.toBe('door');
  });
});

test('a stub between a door and a round column is wall, one beside nothing is not', () => {
  const columns = [0, 4, 8, 12].map((x) => groups([0, 'CIRCLE'], [8, '0'], [10, x], [20, 0], [40, 0.2])).join('');
  // Its faces end on the circle, 0.1 m from its middle line.
  const onCircle = Math.sqrt(0.2 ** 2 - half ** 2);
  const stub = (x: number): string =>
    groups(
      [0, 'LWPOLYLINE'],
      [8, '0'],
      [90, 4],
      [70, 0],
      ...[
        [x, half],
        [x + 0.15, half],
        [x + 0.15, -half],
        [x, -half],
      ].flatMap(([px, py]): [number, number][] => [
        [10, px],
        [20, py],
      ]),
    );
  expect(looksOf(columns + stub(onCircle) + stub(2)).slice(4)).toEqual(['wall', null]);
});

test('a stub that ends between the flanges of steel columns is wall', () => {
  const [width, half] = [0.3, 0.05];
  const steel = (x: number) =>
    outline(steelOutline(width, 0.3, 0.01, 0.02).map(([dx, dy]): [number, number] => [x + dx, dy]));
  const stub = groups(
    [0, 'LWPOLYLINE'],
    [8, '0'],
    [90, 4],
    [70, 0],
    ...[
      [width / 2, half],
      [0.3, half],
      [0.3, -half],
      [width / 2, -half],
    ].flatMap(([x, y]): [number, number][] => [
      [10, x],
      [20, y],
    ]),
  );
  expect(looksOf([0, 4, 8, 12].map(steel).join('') + stub)[4]).toBe('wall');
});

test('leaves that end at columns are wall, panes between them that lie in line with the middle leaf windows', () => {
  const bays = [0, 7, 14, 21];
  const columns = [...bays, 28].map((x) =>
    outline([
      [x - 0.3, -0.3],
      [x + 0.3, -0.3],
      [x + 0.3, 0.3],
      [x - 0.3, 0.3],
    ]),
  );
  const lines = (from: number, to: number, offsets: readonly number[]) => offsets.map((y) => [from, y, to, y]);
  const leaves = bays.flatMap((x) =>
    [
      [x + 0.3, x + 1.3],
      [x + 5.7, x + 6.7],
    ].flatMap(([from, to]) => lines(from, to, [-0.2, -0.1, 0, 0.1, 0.2])),
  );
  const panes = bays.flatMap((x) => lines(x + 1.3, x + 5.7, [-0.2, 0, 0.2]));
  const jambs = bays.flatMap((x) => [x + 1.3, x + 5.7].map((at) => [at, -0.2, at, 0.2]));
  const drawn = [...leaves, ...panes, ...jambs].map(([x0, y0, x1, y1]) => line(x0, y0, x1, y1));
  const looks = looksOf([...columns, ...drawn].join('')).slice(columns.length);
  expect(new Set(looks.slice(0, leaves.length))).toEqual(new Set(['wall']));
  expect(new Set(looks.slice(leaves.length, leaves.length + panes.length))).toEqual(new Set(['window']));
});

test('partitions of 0.1 m between columns are no single panes, however they are turned: windows of four lines stay', () => {
  const [c, s] = [Math.cos(0.192), Math.sin(0.192)];
  const turned = ([x0, y0, x1, y1]: readonly number[]): string =>
    line(x0 * c - y0 * s, x0 * s + y0 * c, x1 * c - y1 * s, x1 * s + y1 * c);
  const across = (x: number, y: number, half: number) => [x, y - half, x, y + half];
  const columns = [0, 4, 8, 12].flatMap((x) => [
    across(x - 0.2, 10, 0.2),
    across(x + 0.2, 10, 0.2),
    [x - 0.2, 9.8, x + 0.2, 9.8],
    [x - 0.2, 10.2, x + 0.2, 10.2],
  ]);
  const partitions = [0, 4, 8].flatMap((x) => [9.95, 10.05].map((y) => [x + 0.2, y, x + 3.8, y]));
  const windows = [2, 6].flatMap((x) => [0, 0.14, 0.21, 0.35].map((y) => [x, y, x + 1.2, y]));
  const wall = [
    [0, 2],
    [3.2, 6],
    [7.2, 12],
  ].flatMap(([from, to]) => [0, 0.35].map((y) => [from, y, to, y]));
  const jambs = [2, 3.2, 6, 7.2].map((x) => across(x, 0.175, 0.175));
  const looks = looksOf([...windows, ...columns, ...partitions, ...wall, ...jambs].map(turned).join(''));
  expect(new Set(looks.slice(0, windows.length))).toEqual(new Set(['window']));
});
