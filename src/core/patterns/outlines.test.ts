import { area } from '@/core/geometry/polygon';
import { findOutlines, pathPoints } from './outlines';

const source = { handle: '1', entity: 0, layer: 0 };

test('a round slab of ten metres has the area of its circle, within what a millimetre of sagitta takes', () => {
  // Two half circles about zero.
  const circle = {
    ...source,
    source,
    points: [
      [-10, 0],
      [10, 0],
    ] as [number, number][],
    bulges: [1, 1],
    closed: true,
    circle: true,
  };
  const found = Math.abs(area(pathPoints(circle)));
  // Chords of sagitta s leave out about two thirds of s along the whole circumference.
  const least = Math.PI * 100 - ((2 / 3) * 0.001 * 2 * Math.PI * 10 + 1e-3);
  expect(found).toBeLessThan(Math.PI * 100);
  expect(found).toBeGreaterThan(least);
});

test('two rings are two, though a line leads from one to the other', () => {
  const piece = (i: number, a: [number, number], b: [number, number]) => {
    const from = { handle: String(i), entity: i, layer: 0 };
    return { ...from, source: from, points: [a, b], bulges: [0, 0], closed: false, circle: false };
  };
  const square = (x: number): [number, number][] => [
    [x, 0],
    [x + 1, 0],
    [x + 1, 1],
    [x, 1],
  ];
  const rings = [square(0), square(3)].flatMap((corners) => corners.map((a, i) => [a, corners[(i + 1) % 4]] as const));
  const lines = [
    ...rings,
    [
      [1, 1],
      [3, 0],
    ] as const,
  ].map(([a, b], i) => piece(i, [...a], [...b]));
  const { outlines, loose } = findOutlines(lines, 0.02, true);
  expect(outlines.map(({ handles }) => handles.map(Number).sort())).toEqual([
    [0, 1, 2, 3],
    [4, 5, 6, 7],
  ]);
  expect(loose.map(({ handle }) => handle)).toEqual(['8']);
});
