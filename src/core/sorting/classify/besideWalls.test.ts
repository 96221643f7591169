import { dxf, line, outline, readText } from '@/core/drawing/testing/dxf';
import { flatten } from '@/core/underlay/flatten';
import { classify } from './classify';

/** What each path of a drawing in metres looks like, all on one layer. */
function looksOf(entities: string): (string | null)[] {
  const { drawing } = readText(dxf({ entities }));
  return classify(drawing, flatten(drawing), 1).map((look) => look?.role ?? null);
}

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
/** A leaf before the wall. @param by metres that it is moved along it */
const leaf = (by = 0) =>
  outline([
    [by, 0.22],
    [1.2 + by, 0.22],
    [1.2 + by, 0.26],
    [by, 0.26],
  ]);

test('a thin rectangle before a wall from jamb to jamb is a leaf that slides, and what joins the jambs its threshold', () => {
  expect(looksOf(gap + thresholds + leaf()).slice(6)).toEqual(['door', 'door', 'door']);
  // What does not reach from jamb to jamb slides before nothing.
  expect(looksOf(gap + thresholds + leaf(0.3)).slice(6)).not.toContain('door');
});

/** Stretches of lines across a wall of 0.3 m along x. */
const bundle = (from: number, to: number, offsets: readonly number[]) =>
  offsets.map((y) => line(from, y, to, y)).join('');

test('of bundles of lines in a wall those of one form are windows or leaves together', () => {
  const leaves = [0, 0.1, 0.2, 0.3];
  const panes = [0, 0.13, 0.17, 0.3];
  // Five pieces of a cavity wall, with four windows between them and the wall's two ends for good.
  const pieces = [0, 3, 6, 9, 12].map((x) => bundle(x, x + 1.5, leaves)).join('');
  const windows = [1.5, 4.5, 7.5, 10.5].map((x) => bundle(x, x + 1.5, panes)).join('');
  const looks = looksOf(pieces + windows);
  expect(looks.slice(20)).toEqual(Array.from({ length: 16 }, () => 'window'));
  expect(looks.slice(0, 20)).not.toContain('window');
});
