import { groups, line, outline } from '@/core/drawing/testing/dxf';
import { looksOf } from './testing/looksOf';

/** An open polyline. */
const chain = (points: readonly (readonly [number, number])[]): string =>
  groups(
    [0, 'LWPOLYLINE'],
    [8, '0'],
    [90, points.length],
    [70, 0],
    ...points.flatMap(([x, y]): [number, number][] => [
      [10, x],
      [20, y],
    ]),
  );

const rectangle = (x0: number, y0: number, x1: number, y1: number) =>
  outline([
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ]);

/** A wall from 0 to 6 with a gap from 2 to 3, with its jambs; what stands in the gap comes before it. */
const wallOf = (thick: number) =>
  [
    [0, 2],
    [3, 6],
  ]
    .flatMap(([from, to]) => [line(from, 0, to, 0), line(from, thick, to, thick)])
    .concat(line(2, 0, 2, thick), line(3, 0, 3, thick))
    .join('');
const wall = wallOf(0.2);

const first = (drawn: string, thick = 0.2) => looksOf(drawn + wallOf(thick))[0];

describe('what stands in a gap from jamb to jamb', () => {
  test('is a leaf that is shut, where it is thin and off the middle of the wall', () => {
    expect(first(rectangle(2, 0.12, 3, 0.16))).toBe('door');
  });

  test('is no leaf in the middle of the wall, where panes are, nor as thick as the wall, nor short of a jamb', () => {
    expect(first(rectangle(2, 0.08, 3, 0.12))).not.toBe('door');
    expect(first(rectangle(2, 0, 3, 0.2))).not.toBe('door');
    expect(first(rectangle(2, 0.02, 3, 0.1), 0.1)).not.toBe('door');
    expect(first(rectangle(2, 0.12, 2.8, 0.16))).not.toBe('door');
  });

  test('is a leaf that folds, of a few even pieces by turns', () => {
    const folds = [0, 1, 2, 3, 4].map((k): [number, number] => [2 + k / 4, k % 2 === 0 ? 0.1 : 0.3]);
    expect(first(chain(folds))).toBe('door');
    expect(first(chain([...folds.slice(0, 3), [2.75, 0.5], [3, 0.1]]))).not.toBe('door');
    for (const by of [0.2, 0.6])
      expect(first(chain(folds.map(([x, y]): [number, number] => [x, y + by])))).not.toBe('door');
  });

  test('takes the thresholds beneath it along', () => {
    const drawn = rectangle(2, 0.12, 3, 0.16) + line(2, 0, 3, 0) + line(2, 0.2, 3, 0.2);
    expect(looksOf(drawn + wall).slice(0, 3)).toEqual(['door', 'door', 'door']);
  });
});

test('a long zigzag of short strokes between two leaves is insulation, and the leaves stay wall', () => {
  const zigzag = chain(Array.from({ length: 61 }, (_, k): [number, number] => [k / 10, k % 2 === 0 ? 0.15 : 0.25]));
  const leaves = [0, 0.15, 0.25, 0.4].map((y) => line(0, y, 6, y)).join('');
  const ends = line(0, 0, 0, 0.4) + line(6, 0, 6, 0.4);
  expect(looksOf(zigzag + leaves + ends)).toEqual(['ignore', ...Array.from({ length: 6 }, () => 'wall')]);
});

test('ten leaves of a folding wall are no insulation', () => {
  const folds = chain(Array.from({ length: 11 }, (_, k): [number, number] => [0.7 * k, k % 2 === 0 ? 0 : 0.4]));
  expect(first(folds)).not.toBe('ignore');
});

test('walls drawn as an outline within a room that goes round them are no court', () => {
  const ring = (x0: number, y0: number, x1: number, y1: number) => rectangle(x0, y0, x1, y1);
  const text = groups([0, 'TEXT'], [8, '0'], [10, 2], [20, 1], [40, 0.2], [1, 'Walk']);
  // A room of 12 by 10 m, its outline drawn once more, about a wall of 0.3 m in the shape of an L.
  const bent = outline([
    [3, 3],
    [9, 3],
    [9, 7],
    [8.7, 7],
    [8.7, 3.3],
    [3, 3.3],
  ]);
  const faces = [
    [3, 3, 9, 3],
    [9, 3, 9, 7],
    [8.7, 7, 8.7, 3.3],
    [8.7, 3.3, 3, 3.3],
  ].map(([x0, y0, x1, y1]) => line(x0, y0, x1, y1));
  const outer = [
    [0, 0, 12, 0],
    [12, 0, 12, 10],
    [12, 10, 0, 10],
    [0, 10, 0, 0],
  ].map(([x0, y0, x1, y1]) => line(x0, y0, x1, y1));
  const looks = looksOf(ring(0, 0, 12, 10) + bent + [...faces, ...outer].join('') + text);
  expect(looks.slice(0, 2)).toEqual(['zone', expect.not.stringMatching('zone')]);
  const court = looksOf(ring(0, 0, 12, 10) + ring(3, 3, 9, 7) + [...outer, ...sidesOf(3, 3, 9, 7)].join('') + text);
  expect(court.slice(0, 2)).toEqual(['zone', 'zone']);
});

const sidesOf = (x0: number, y0: number, x1: number, y1: number): string[] => [
  line(x0, y0, x1, y0),
  line(x1, y0, x1, y1),
  line(x1, y1, x0, y1),
  line(x0, y1, x0, y0),
];

test('fills of one size are a set of columns where rounding parts them', () => {
  // 0.309 and 0.311 m are 0.30 and 0.32 to two centimetres.
  const fill = (x: number, size: number): string => {
    const corners = [
      [x, 0],
      [x + size, 0],
      [x + size, size],
      [x, size],
    ];
    return groups(
      [0, 'HATCH'],
      [8, '0'],
      [2, 'SOLID'],
      [70, 1],
      [91, 1],
      [92, 3],
      [72, 0],
      [73, 1],
      [93, 4],
      ...corners.flatMap(([px, py]): [number, number][] => [
        [10, px],
        [20, py],
      ]),
      [97, 0],
      [75, 0],
      [76, 1],
    );
  };
  const sizes = [0.309, 0.311, 0.309, 0.311];
  expect(looksOf(sizes.map((size, i) => fill(5 * i, size)).join(''))).toEqual(sizes.map(() => 'column'));
});
