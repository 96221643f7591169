import { parseSpacings, parseTyped } from './typed';

const value = (text: string, unit: 'm' | 'mm' | 'ft-in' = 'm') => {
  const found = parseTyped(text, unit);
  return found.ok ? Number(found.value.toFixed(9)) : found.message;
};

test.each([
  ['5.4+0.3', 5.7],
  ['18/4', 4.5],
  ['3*5.4 - 150mm', 16.05],
  ['3 \u00d7 5,4', 16.2],
  ['2*1.2/4', 0.6],
  ['-2+5', 3],
  ['1 m + 1 ft', 1.3048],
  ['7.2 - 0.4 / 2', 7],
  ['4', 4],
])('%s is worked out', (text, metres) => {
  expect(value(text)).toBe(metres);
});

test('what is a length by itself stays one: feet and inches with a dash, fractions of an inch', () => {
  // 12 feet and 6.5 inches: 12 * 0.3048 + 6.5 * 0.0254.
  expect(value(`12'-6 1/2"`, 'ft-in')).toBe(3.8227);
  expect(value('7/8 in', 'mm')).toBe(0.022225);
  expect(value(`12' + 6"`, 'ft-in')).toBe(3.81);
});

test.each([
  ['5.4+', /nothing was typed/],
  ['5 m * 3 m', /only one factor is a length/],
  ['5/0', /zero/],
  ['4 / 2.5 m', /divides by a length/],
  ['5.4++3', /not a length/],
  ['abc+1', /not a length/],
])('%s is refused with a sentence', (text, said) => {
  expect(value(text)).toEqual(expect.stringMatching(said));
});

describe('spacings', () => {
  const spacings = (text: string, unit: 'm' | 'mm' = 'm') => {
    const found = parseSpacings(text, unit);
    return found.ok ? found.value : found.message;
  };

  test('are counted and parted by commas or semicolons, in any unit', () => {
    expect(spacings('3x5.4, 6.15, 4.8')).toEqual([5.4, 5.4, 5.4, 6.15, 4.8]);
    expect(spacings('5,4; 6,15')).toEqual([5.4, 6.15]);
    expect(spacings('2x5400;6150', 'mm')).toEqual([5.4, 5.4, 6.15]);
    expect(spacings('5.4,6')).toEqual([5.4, 6]);
    expect(spacings('2 x 10.8/2')).toEqual([5.4, 5.4]);
  });

  test('that are none, nothing, or too many are refused with a sentence', () => {
    expect(spacings('')).toMatch(/No spacing/);
    expect(spacings('5, 0')).toMatch(/more than zero/);
    expect(spacings('900x5')).toMatch(/between 1 and 200/);
    expect(spacings('5, x')).toMatch(/not a length/);
  });
});
