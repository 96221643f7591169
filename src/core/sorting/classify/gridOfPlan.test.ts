import { groups, line, outline } from '@/core/drawing/testing/dxf';
import { steelOutline } from '@/core/drawing/testing/steel';
import { looksOf } from './testing/looksOf';

const text = (x: number, y: number, words: string) =>
  groups([0, 'TEXT'], [8, '0'], [10, x], [20, y], [40, 0.3], [1, words], [72, 1], [73, 2], [11, x], [21, y]);
const circle = (x: number, y: number) => groups([0, 'CIRCLE'], [8, '0'], [10, x], [20, y], [40, 0.5]);
const box = (x0: number, y0: number, x1: number, y1: number) =>
  outline([
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ]);
const fill = (x0: number, y0: number, x1: number, y1: number) =>
  groups([0, 'SOLID'], [8, '0'], [10, x0], [20, y0], [11, x1], [21, y0], [12, x0], [22, y1], [13, x1], [23, y1]);

test('two lines to texts without rings are grid where they cross many, and none where they cross nothing', () => {
  const many = [0, 4, 8, 12].map((y, i) => line(-1, y, 9, y) + text(-1.6, y, String(i + 1))).join('');
  const two = (x: number) => [x, x + 8].map((at, i) => line(at, -1, at, 13) + text(at, -1.6, 'AB'[i])).join('');
  expect(new Set(looksOf(two(0) + many))).toEqual(new Set(['grid']));
  expect(looksOf(two(30) + many).slice(0, 2)).not.toContain('grid');
});

test('a face of a wall on the run of a side of a ring is no grid line', () => {
  // A hexagon of loose lines about a label, whose lower side lies at the height of a wall's face.
  const r = 0.5;
  const corners = Array.from({ length: 6 }, (_, i): [number, number] => [
    -4 + r * Math.cos((i * Math.PI) / 3),
    r * Math.sin((i * Math.PI) / 3),
  ]);
  const ring = corners.map(([x, y], i) => line(x, y, ...corners[(i + 1) % 6])).join('');
  const side = corners[5][1];
  const plan = ring + text(-4, 0, 'A') + line(-4 + r, 0, 12, 0);
  const faces = line(1, side, 11, side) + line(1, side - 0.2, 11, side - 0.2);
  expect(looksOf(plan + faces)).toEqual([...Array.from({ length: 7 }, () => 'grid'), 'wall', 'wall']);
});

test('fills of one size on crossings are columns, those beside them, of pieces of walls, are not', () => {
  const [xs, ys] = [
    [0, 6, 12],
    [0, 5],
  ];
  const axes =
    xs.map((x, i) => line(x, -2, x, 7) + circle(x, -2.5) + text(x, -2.5, String(i + 1))).join('') +
    ys.map((y, i) => line(-2, y, 14, y) + circle(-2.5, y) + text(-2.5, y, 'AB'[i])).join('');
  const at = (dx: number) => xs.flatMap((x) => ys.map((y) => fill(x + dx, y - 0.1, x + dx + 0.4, y + 0.1))).join('');
  expect(new Set(looksOf(at(-0.2) + axes).slice(0, 6))).toEqual(new Set(['column']));
  expect(looksOf(at(0) + axes).slice(0, 6)).not.toContain('column');
});

test('an outline about a court within a room that goes round it is drawn with the room', () => {
  const walls = box(-0.2, -0.2, 12.2, 10.2) + box(0, 0, 12, 10) + box(4, 3, 8, 7) + box(4.2, 3.2, 7.8, 6.8);
  const rooms = box(0, 0, 12, 10) + box(4, 3, 8, 7);
  const looks = looksOf(walls + rooms + text(2, 2, 'Gallery'));
  expect(looks.slice(4)).toEqual(['zone', 'zone']);
  expect(looks.slice(0, 4)).not.toContain('zone');
});

test('pieces of a wall and windows that are rectangles take turns from a corner', () => {
  const corner = outline([
    [0, 0],
    [2, 0],
    [2, 0.3],
    [0.3, 0.3],
    [0.3, 4],
    [0, 4],
  ]);
  const end = outline([
    [9, 0],
    [12, 0],
    [12, 4],
    [11.7, 4],
    [11.7, 0.3],
    [9, 0.3],
  ]);
  const [first, pier, second] = [box(2, 0, 3.5, 0.3), box(3.5, 0, 7, 0.3), box(7, 0, 9, 0.3)];
  expect(looksOf(corner + first + pier + second + end).slice(1, 4)).toEqual(['window', 'wall', 'window']);
});

test('the webs of steel columns in loose lines are no pieces of the dashed axes that they lie in', () => {
  const [xs, ys] = [
    [0, 6, 12],
    [0, 5],
  ];
  const steel = (x: number, y: number) => {
    const ring = steelOutline(0.3, 0.4, 0.018, 0.032);
    return ring.map(([dx, dy], i) => {
      const [ex, ey] = ring[(i + 1) % ring.length];
      return line(x + dx, y + dy, x + ex, y + ey);
    });
  };
  const dashes = (from: number, to: number, at: (s: number) => [number, number]) =>
    Array.from({ length: Math.ceil((to - from) / 1.2) }, (_, i) => {
      const s = from + 1.2 * i;
      return line(...at(s), ...at(Math.min(to, s + 0.8)));
    }).join('');
  const axes =
    xs.map((x, i) => dashes(-2, 7, (s) => [x, s]) + circle(x, -2.5) + text(x, -2.5, String(i + 1))).join('') +
    ys.map((y, i) => dashes(-2, 14, (s) => [s, y]) + circle(-2.5, y) + text(-2.5, y, 'AB'[i])).join('');
  const columns = xs.flatMap((x) => ys.flatMap((y) => steel(x, y)));
  expect(new Set(looksOf(columns.join('') + axes).slice(0, columns.length))).toEqual(new Set(['column']));
});
