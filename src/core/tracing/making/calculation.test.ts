import { area } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { Luminaire } from '@/core/kinds/luminaire';
import { roofHeightAt, type Roof } from '@/core/kinds/roof';
import { column, levelId, planOf } from '../testing/plan';
import { luminaireField, luminaireRow } from './luminaires';
import { roofOverOutline, roofsToRidge } from './roofs';
import { supportsUnderColumns } from './supports';

const like: Luminaire = { position: [0, 0], rise: 2.8, rotation: 0, tilt: 0, photometry: '', output: 1 };
const roof: Roof = { outline: [], eaves: 3, slope: 45, direction: 0, thickness: 0.2 };
const rounded = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(9)) + 0 : v)));

test('luminaires of a row stand half a spacing from both walls and turn along it', () => {
  const row = luminaireRow([0, 0], [0, 6], 3, like);
  expect(rounded(row.map(({ position, rotation }) => [position, rotation]))).toEqual([
    [[0, 1], 90],
    [[0, 3], 90],
    [[0, 5], 90],
  ]);
});

test('those of a field stand half a spacing from all sides of it', () => {
  const corners: Point[] = [
    [0, 0],
    [8, 0],
    [8, 6],
    [0, 6],
  ];
  expect(rounded(luminaireField(corners, 2, 3, like).map(({ position }) => position))).toEqual([
    [2, 1],
    [6, 1],
    [2, 3],
    [6, 3],
    [2, 5],
    [6, 5],
  ]);
});

test('a roof plane rises from its first side to the inside, whichever way round it is drawn', () => {
  const outline: Point[] = [
    [0, 0],
    [10, 0],
    [10, 5],
    [0, 5],
  ];
  expect(roofHeightAt(roofOverOutline(outline, roof), [5, 5])).toBeCloseTo(8, 12);
  const clockwise = [outline[1], outline[0], outline[3], outline[2]];
  expect(roofHeightAt(roofOverOutline(clockwise, roof), [5, 5])).toBeCloseTo(8, 12);
});

test('two planes meet in a ridge along the longer sides, equally high there; of no area none are made', () => {
  const made = roofsToRidge(
    [
      [0, 0],
      [4, 0],
      [4, 10],
      [0, 10],
    ],
    roof,
  );
  const planes = made.ok ? made.value : [];
  expect(planes.map(({ outline }) => Math.abs(area(outline)))).toEqual([20, 20]);
  for (const plane of planes) expect(roofHeightAt(plane, [2, 5])).toBeCloseTo(5, 12);
  const flat: Point[] = [
    [0, 0],
    [4, 0],
    [4, 0],
    [0, 0],
  ];
  expect(roofsToRidge(flat, roof).ok).toBe(false);
});

test('supports come under the columns of a box that have none yet', () => {
  const support = { position: [0, 0] as Point, rise: 0, fixed: ['z' as const] };
  const model = planOf(column(1, [0, 0]), column(2, [5, 0]), column(3, [20, 0]), {
    id: '00000000-0000-4000-8000-000000000099',
    levelId,
    source: null,
    kind: 'support',
    shape: { ...support, position: [5, 0] },
  });
  const made = supportsUnderColumns(
    model,
    levelId,
    [
      [-1, -1],
      [9, 1],
    ],
    support,
  );
  expect(made.map(({ position }) => position)).toEqual([[0, 0]]);
});
