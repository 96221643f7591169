import fc from 'fast-check';
import {
  displayUnits,
  formatArea,
  formatLength,
  formatNumber,
  headerCodeOf,
  lengthUnits,
  metresPer,
  parseLength,
  unitOfHeader,
  usualPlaces,
  type DisplayUnit,
} from './length';

const metres = (text: string, unit: DisplayUnit = 'm') => {
  const parsed = parseLength(text, unit);
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.value;
};

test.each([
  ['3.75 m', 'mm', 3.75],
  ['450mm', 'm', 0.45],
  ['450', 'mm', 0.45],
  ['1,5', 'm', 1.5],
  ['.5 cm', 'm', 0.005],
  ['-0.5', 'm', -0.5],
  ['\u22122 m', 'm', -2],
  ['7/8 in', 'm', 0.022225],
  ['1 1/2"', 'm', 0.0381],
  ['12\' 6 1/2"', 'm', 3.8227],
  ['12\'6"', 'm', 3.81],
  ['12\'-6"', 'm', 3.81],
  ['6', 'ft-in', 1.8288],
  ["5' 3", 'ft-in', 1.6002],
  ['2 m 30 cm', 'mm', 2.3],
  ['1 ft 1 in', 'm', 0.3302],
])('reads the typed length %s with bare numbers in %s', (text, unit, expected) => {
  expect(metres(text, unit as DisplayUnit)).toBeCloseTo(expected, 12);
});

test.each(['', 'abc', '3 furlongs', '1/0', '3 mm 2 m', '1.5 1/2 in', '--3', '1e400', 'NaN'])(
  'refuses %p with a sentence that shows how to type it',
  (text) => {
    const parsed = parseLength(text, 'm');
    expect(parsed.ok).toBe(false);
    if (!parsed.ok) expect(parsed.message).toMatch(/is not a length: .+ Type a number with an optional unit/);
  },
);

test('the inch is 25.4 mm and the foot twelve of them', () => {
  expect(metresPer.in).toBe(0.0254);
  expect(metresPer.ft).toBeCloseTo(12 * 0.0254, 15);
});

test.each([
  [3.8227, 'ft-in', '12\' 6 1/2"'],
  [-0.3048, 'ft-in', '\u22121\' 0"'],
  [0, 'ft-in', '0\' 0"'],
  [1.2346, 'mm', '1235 mm'],
  [12.3456, 'mm', '12\u202f346 mm'],
  [1.2346, 'm', '1.235 m'],
  [-0.0001, 'm', '0.000 m'],
  [0.0254, 'in', '1.00 in'],
])('writes %p m in %s as %s', (value, unit, text) => {
  expect(formatLength(value, unit as DisplayUnit)).toBe(text);
});

test('a length written in feet and inches reads back within a thirty-second of an inch', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1000, noNaN: true }), (value) => {
      expect(Math.abs(metres(formatLength(value, 'ft-in'), 'm') - value)).toBeLessThanOrEqual(0.0254 / 32 + 1e-9);
    }),
  );
});

test('what is shown can be typed, in every unit and however large', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -9e6, max: 9e6, noNaN: true }),
      fc.constantFrom(...displayUnits),
      fc.constantFrom(null, 4, 6),
      (value, unit, places) => {
        const style = { unit, places };
        const step =
          unit === 'ft-in' ? 0.0254 / 2 ** (places ?? 4) : metresPer[unit] * 10 ** -(places ?? usualPlaces[unit]);
        const parsed = parseLength(formatLength(value, style), style);
        if (!parsed.ok) throw new Error(parsed.message);
        expect(Math.abs(parsed.value - value)).toBeLessThanOrEqual(step / 2 + 1e-8);
      },
    ),
  );
});

test('a finer or coarser style shows more or fewer places, and smaller or larger fractions', () => {
  expect([
    formatLength(3.8227, { unit: 'm', places: 1 }),
    formatLength(3.8227, { unit: 'mm', places: 2 }),
    formatLength(3.8227, { unit: 'ft-in', places: 0 }),
    formatLength(3.825, { unit: 'ft-in', places: 6 }),
  ]).toEqual(['3.8 m', '3822.70 mm', '12\' 7"', '12\' 6 19/32"']);
  expect([formatArea(48.2, 'm'), formatArea(100 * 0.3048 ** 2, 'ft-in')]).toEqual(['48.20 m\u00b2', '100.0 ft\u00b2']);
});

test('numbers are grouped by narrow spaces that do not break from five digits on', () => {
  expect([formatNumber(1234.5, 1), formatNumber(12345.5, 1), formatNumber(-1234567, 0)]).toEqual([
    '1234.5',
    '12\u202f345.5',
    '\u22121\u202f234\u202f567',
  ]);
});

test('header codes and units name one another', () => {
  for (const unit of lengthUnits) expect(unitOfHeader(headerCodeOf[unit])).toBe(unit);
  expect([unitOfHeader(0), unitOfHeader(null), unitOfHeader(3)]).toEqual([null, null, null]);
});
