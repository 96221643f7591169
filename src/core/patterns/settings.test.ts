import * as v from 'valibot';
import { lengthUnits } from '@/core/units/length';
import { defaultSettings, settingsSchema, toleranceFor, usualModule, type ReadingSettings } from './settings';

const accepts = (change: (settings: ReadingSettings) => void) => {
  const settings = structuredClone(defaultSettings);
  change(settings);
  return v.safeParse(settingsSchema, settings).success;
};

test('what the program takes by itself is within its own limits', () => {
  expect(v.safeParse(settingsSchema, defaultSettings).success).toBe(true);
});

test('sizes are rounded to quarter inches in drawings in inches or feet, to 5 mm in others, or to what is set', () => {
  expect(lengthUnits.map((unit) => [unit, Number(usualModule(unit).toFixed(5))])).toEqual([
    ['mm', 0.005],
    ['cm', 0.005],
    ['m', 0.005],
    ['in', 0.00635],
    ['ft', 0.00635],
  ]);
  const { roundingModule, rounding } = toleranceFor('in', { exact: { ...defaultSettings.exact, module: 0.01 } });
  expect([roundingModule, rounding]).toEqual([0.01, 0.005]);
});

test('the tolerances set are those that reading gets, the others stay', () => {
  const set = toleranceFor('mm', { exact: { gap: 0.05, crossing: 0.1, offAxis: 0.02, module: null } });
  expect(set).toEqual({ ...toleranceFor('mm'), gap: 0.05, crossing: 0.1, offAxis: 0.02 });
});

test.each<[string, (settings: ReadingSettings) => void]>([
  [
    'a wall without thickness',
    ({ wall }) => {
      wall.least = 0;
    },
  ],
  [
    'a gap of a metre',
    ({ exact }) => {
      exact.gap = 1;
    },
  ],
  [
    'a module of nothing',
    ({ exact }) => {
      exact.module = 0;
    },
  ],
  [
    'a height that is no number',
    ({ door }) => {
      door.height = Number.NaN;
    },
  ],
  [
    'a sill below the floor',
    ({ window }) => {
      window.sill = -0.1;
    },
  ],
  [
    'a tilt of ten degrees',
    ({ exact }) => {
      exact.offAxis = 0.18;
    },
  ],
])('%s is refused', (_, change) => {
  expect(accepts(change)).toBe(false);
});

test('an edge may lie within the outer faces, and a slab may be thick', () => {
  expect(
    accepts(({ slab }) => {
      slab.edge = -0.15;
    }),
  ).toBe(true);
  expect(
    accepts(({ slab }) => {
      slab.thickness = 1.2;
    }),
  ).toBe(true);
});
