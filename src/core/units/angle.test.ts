import fc from 'fast-check';
import { degrees } from '@/core/geometry/vector';
import { formatDirection, parseAngle, parseDirection } from './angle';

const quarter = Math.PI / 2;

test('a direction is said counter-clockwise from east or clockwise from north', () => {
  expect([0, quarter, Math.PI, -quarter].map((angle) => formatDirection(angle, 'east', 0))).toEqual([
    '0\u00b0',
    '90\u00b0',
    '180\u00b0',
    '270\u00b0',
  ]);
  expect([0, quarter, Math.PI, -quarter].map((angle) => formatDirection(angle, 'north', 0))).toEqual([
    '90\u00b0',
    '0\u00b0',
    '270\u00b0',
    '180\u00b0',
  ]);
  expect(formatDirection((17 * Math.PI) / 180, 'north')).toBe('73.00\u00b0');
  expect(formatDirection(-1e-9, 'east')).toBe('0.00\u00b0');
});

test.each([
  ['17', 17],
  ['-12,5', -12.5],
  ['\u221290\u00b0', -90],
  ["12\u00b0 30'", 12.5],
  ['12\u00b030\u203215\u2033', 12 + 30 / 60 + 15 / 3600],
  ['+3.25 deg', 3.25],
])('the angle %s is read', (text, expected) => {
  const angle = parseAngle(text);
  expect(angle.ok && degrees(angle.value)).toBeCloseTo(expected, 12);
});

test.each([
  ['', /is not an angle/],
  ['north', /is not an angle/],
  ["12\u00b0 75'", /60 or more minutes/],
  ['1/2', /Type degrees/],
])('the angle %j is refused with a reason', (text, reason) => {
  const angle = parseAngle(text);
  expect(angle.ok ? '' : angle.message).toMatch(reason);
});

test('what is written is read back, in both conventions', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 359.99, noNaN: true }),
      fc.constantFrom('east' as const, 'north' as const),
      (value, convention) => {
        const angle = (value * Math.PI) / 180;
        const back = parseDirection(formatDirection(angle, convention, 6), convention);
        if (!back.ok) throw new Error(back.message);
        expect(Math.cos(back.value - angle)).toBeCloseTo(1, 10);
      },
    ),
  );
});
