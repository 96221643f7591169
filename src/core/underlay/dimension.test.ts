import { Kind } from '@/core/drawing/drawing';
import { block, dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { flatten } from './flatten';
import { dimensionFacts, dimensionPicture, spanOf } from './dimensionPicture';

type Group = [number, string | number];
const xy = (code: number, x: number, y: number): Group[] => [
  [code, x],
  [code + 10, y],
];
function dimension(more: Group[], header = '', blocks = '') {
  const { drawing } = readText(dxf({ header, blocks, entities: groups([0, 'DIMENSION'], [8, 'D'], ...more) }));
  const row = drawing.kind.indexOf(Kind.dimension);
  return { facts: dimensionFacts(drawing, row), picture: dimensionPicture(drawing, row), shown: flatten(drawing) };
}
const linear = (...more: Group[]): Group[] => [
  ...xy(10, 0, 8),
  ...xy(11, 3, 8),
  ...xy(13, 0, 0),
  ...xy(14, 6, 8),
  ...more,
];

test('a turned dimension spans along its direction, an aligned one from point to point', () => {
  expect(spanOf(dimension(linear([70, 32], [50, 0])).facts)).toBeCloseTo(6, 12);
  expect(spanOf(dimension(linear([70, 32], [50, 90])).facts)).toBeCloseTo(8, 12);
  expect(spanOf(dimension(linear([70, 33])).facts)).toBeCloseTo(10, 12);
  // 3-4-5 at the angle of the points: the same as aligned.
  expect(spanOf(dimension(linear([70, 32], [50, (Math.atan2(8, 6) * 180) / Math.PI])).facts)).toBeCloseTo(10, 9);
  expect(spanOf(dimension([...xy(10, 0, 0), ...xy(15, 3, 4), [70, 4]]).facts)).toBeNull();
});

test('without a picture its lines run from the points to the dimension line', () => {
  // The dimension line lies at y = 8, level: feet at (0, 8) and (6, 8), the second point on it already.
  expect(dimension(linear([70, 32], [50, 0])).picture.lines).toEqual([
    [
      [0, 0],
      [0, 8],
    ],
    [
      [6, 8],
      [6, 8],
    ],
    [
      [0, 8],
      [6, 8],
    ],
  ]);
  expect(dimension([...xy(10, 1, 1), ...xy(15, 4, 5), [70, 36]]).picture.lines).toEqual([
    [
      [1, 1],
      [4, 5],
    ],
  ]);
});

test.each([
  ['the measured value', [[42, 6.25]] as Group[], '', '6.25'],
  ['the span where it was not measured', [], '', '6'],
  ['a factor of the header', [[42, 6.25]] as Group[], groups([9, '$DIMLFAC'], [40, 1000]), '6250'],
  [
    'an override',
    [
      [42, 6.25],
      [1, 'by others'],
    ] as Group[],
    '',
    'by others',
  ],
  [
    'an override round the value',
    [
      [42, 6.25],
      [1, '<> clear'],
    ] as Group[],
    '',
    '6.25 clear',
  ],
])('its text is %s', (_, more, header, words) => {
  expect(dimension(linear([70, 32], [50, 0], ...more), header).picture.text?.text).toBe(words);
});

test('a text of one blank hides it, as drawing programs mean it', () => {
  expect(dimension(linear([70, 32], [50, 0], [1, ' '])).facts.override).toBeNull();
});

test('with a picture in the file that is shown, and nothing is made', () => {
  const { shown } = dimension([[2, '*D7'], ...linear([70, 32], [50, 0])], '', block('*D7', line(0, 8, 6, 8)));
  expect([...shown.kind]).toEqual([Kind.dimension]);
  expect(shown.texts).toEqual([]);
});
