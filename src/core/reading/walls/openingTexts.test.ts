import { writtenSizes } from './openingTexts';

test.each([
  ['SILL 900', 1.2, { sill: 0.9 }],
  ['BRH 0.90', 1.2, { sill: 0.9 }],
  ['Br\u00fcstung = 95 cm', 1.2, { sill: 0.95 }],
  ['sill +850 mm, head 2.25 m', 1.5, { sill: 0.85, head: 2.25 }],
  ['H=2100', 0.9, { height: 2.1 }],
  ['h 2,10', 0.9, { height: 2.1 }],
  ['900 x 2100', 0.9, { height: 2.1 }],
  ['90/210', 0.88, { height: 2.1 }],
  ['0.90x2.10 m', 0.9, { height: 2.1 }],
  ['1200x1500', 0.9, {}],
  ['D-12', 0.9, {}],
  ['Archive', 0.9, {}],
  ['sill 9000 m', 1, {}],
] as const)('%s beside an opening of %f m', (text, width, sizes) => {
  expect(writtenSizes(text, width)).toEqual(sizes);
});
