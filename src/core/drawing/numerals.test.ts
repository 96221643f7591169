import fc from 'fast-check';
import { parseFloatBytes, parseHexBytes, parseIntBytes } from './numerals';

const bytes = (text: string) => new TextEncoder().encode(text);
const float = (text: string) => parseFloatBytes(bytes(text), 0, text.length);

test.each([
  '0',
  '-0.5',
  '+12.25',
  ' 3.0 ',
  '1e3',
  '1E-3',
  '2.5D2',
  '.5',
  '5.',
  '123456789012345',
  '0.1',
  '1e22',
  '1e300',
  '000123.4500',
])('reads %p as the language itself does', (text) => {
  expect(float(text)).toBe(Number(text.trim().replace('D', 'e')));
});

test.each(['', ' ', 'abc', '1.2.3', '--1', '1e', '1e+', '0x10', '1,5', '.'])('%p is no number', (text) => {
  expect(float(text)).toBeNaN();
});

test('any double written out in full comes back within one unit in the last place', () => {
  fc.assert(
    fc.property(fc.double({ min: -1e12, max: 1e12, noNaN: true }), (value) => {
      const back = float(String(value));
      // Below the least normal number one unit in the last place is no longer a share of the number.
      expect(Math.abs(back - value)).toBeLessThanOrEqual(Math.max(Math.abs(value) * 2.3e-16, Number.MIN_VALUE));
    }),
    { numRuns: 2000 },
  );
});

test('integers and handles', () => {
  expect([parseIntBytes(bytes(' 1071 '), 0, 6), parseIntBytes(bytes('-5'), 0, 2)]).toEqual([1071, -5]);
  expect([parseIntBytes(bytes('1.0'), 0, 3), parseIntBytes(bytes('-'), 0, 1), parseIntBytes(bytes(''), 0, 0)]).toEqual([
    NaN,
    NaN,
    NaN,
  ]);
  expect([parseHexBytes(bytes('FFfe'), 0, 4), parseHexBytes(bytes('xyz'), 0, 3)]).toEqual([0xfffe, 0]);
});
