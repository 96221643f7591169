import { dark, light, tokensOf, type Tokens } from './tokens';

/** Contrast ratio of two colours, WCAG 2.2. */
function contrast(a: string, b: string): number {
  const luminance = (hex: string) =>
    [1, 3, 5]
      .map((i) => parseInt(hex.slice(i, i + 2), 16) / 255)
      .map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4))
      .reduce((sum, v, i) => sum + v * [0.2126, 0.7152, 0.0722][i], 0);
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (high + 0.05) / (low + 0.05);
}

test('the ratio of black on white is 21', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 6);
});

const texts: [keyof Tokens, keyof Tokens][] = [
  ['ink', 'paper'],
  ['ink', 'panel'],
  ['ink', 'board'],
  ['ink', 'zirconSoft'],
  ['ink', 'amberSoft'],
  ['ink2', 'panel'],
  ['ink2', 'paper'],
  ['ink2', 'board'],
  ['zircon', 'panel'],
  ['zircon', 'paper'],
  ['onZircon', 'zircon'],
  ['board', 'ink'],
  ['amber', 'panel'],
  ['clay', 'panel'],
];
const marks: [keyof Tokens, keyof Tokens][] = (
  [
    'grid',
    'column',
    'beam',
    'wall',
    'opening',
    'slab',
    'zone',
    'outdoor',
    'roof',
    'support',
    'pointLoad',
    'luminaire',
    'calculationArea',
    'contour',
    'other1',
    'other2',
    'other3',
    'other4',
    'underlay',
    'zircon',
    'amber',
    'clay',
  ] as const
).flatMap((role): [keyof Tokens, keyof Tokens][] => [
  [role, 'board'],
  [role, 'panel'],
]);

describe.each([
  ['light', light],
  ['dark', dark],
] as const)('in the %s scheme', (_, tokens) => {
  test.each(texts)('%s on %s can be read: 4.5 to 1', (front, back) => {
    expect(contrast(tokens[front], tokens[back])).toBeGreaterThanOrEqual(4.5);
  });
  test.each(marks)('%s on %s can be seen: 3 to 1', (front, back) => {
    expect(contrast(tokens[front], tokens[back])).toBeGreaterThanOrEqual(3);
  });
});

test('a scheme that is not known yet is light', () => {
  expect([tokensOf(undefined), tokensOf('dark')]).toEqual([light, dark]);
});
