import { borderOf } from './derive/borders';
import { carriedOf } from './carried';
import { beamAt, columnAt, modelOf } from './testing/models';

const corners: [number, number][] = [
  [0, 0],
  [8, 0],
  [8, 6],
  [0, 6],
];
const model = modelOf({
  columns: corners.map((p, i) => columnAt(`C${i}`, p)),
  beams: corners.map(([x, y], i) => {
    const [x2, y2] = corners[(i + 1) % 4];
    return beamAt(`B${i}`, [x, y, 4], [x2, y2, 4]);
  }),
  slabs: [{ id: 'S', level: 'L1', outline: corners, holes: [], thickness: 0.2, top: 4 }],
});

test('beams about a floor carry triangles and trapezoids, that add up to the floor', () => {
  const carried = carriedOf(model);
  const beams = carried.filter(({ kind }) => kind === 'beam').sort((a, b) => a.element.localeCompare(b.element));
  expect(beams.map(({ element, area }) => [element, area])).toEqual([
    ['B0', expect.closeTo(15, 2)],
    ['B1', expect.closeTo(9, 2)],
    ['B2', expect.closeTo(15, 2)],
    ['B3', expect.closeTo(9, 2)],
  ]);
  expect(carried.reduce((sum, { area }) => sum + area, 0)).toBeCloseTo(48, 6);
  expect(beams[0].at[2]).toBe(4);
});

test('the border of a triangle is its two slopes of 45 degrees and its beam', () => {
  const { border } = carriedOf(model).find(({ element }) => element === 'B3')!;
  const lengths = new Map<number, number>();
  for (const [x1, y1, x2, y2] of border) {
    const turn = Math.round(((Math.atan2(y2 - y1, x2 - x1) * 180) / Math.PI + 360) % 180);
    lengths.set(turn, (lengths.get(turn) ?? 0) + Math.hypot(x2 - x1, y2 - y1));
  }
  expect([45, 90, 135].map((turn) => lengths.get(turn))).toEqual(
    [3 * Math.SQRT2, 6, 3 * Math.SQRT2].map((value) => expect.closeTo(value, 1)),
  );
});

test('parts side by side have one border, also where one of them is longer', () => {
  const box = (x: number, y: number, w: number, h: number): [number, number][] => [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ];
  const border = borderOf([[box(0, 0, 2, 2)], [box(2, 0, 1, 1)], [box(2, 1, 1, 1)]]);
  const around = border.reduce((sum, [x1, y1, x2, y2]) => sum + Math.hypot(x2 - x1, y2 - y1), 0);
  expect(around).toBeCloseTo(10, 9);
  expect(border.some(([x1, , x2]) => x1 === 2 && x2 === 2)).toBe(false);
});
