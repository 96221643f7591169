import { block, dxf, groups, insert, line, readText } from '@/core/drawing/testing/dxf';
import { flatten } from '@/core/underlay/flatten';
import { checkDimensions } from './dimensionCheck';
import { judgeUnit } from './evidence/judge';
import { mirrorWise } from './evidence/mirrorWise';
import { mixedBlocks } from './evidence/mixedBlocks';
import { knownLength, knownWords } from './knownLength';

function opened(parts: Parameters<typeof dxf>[0]) {
  const { drawing } = readText(dxf(parts));
  return { drawing, p: flatten(drawing) };
}
const dimension = (type: number, points: Partial<Record<10 | 13 | 14 | 15, [number, number]>>, text = '', angle = 0) =>
  groups(
    [0, 'DIMENSION'],
    [8, 'D'],
    [70, 32 + type],
    [50, angle],
    ...(text ? [[1, text] as [number, string]] : []),
    ...Object.entries(points).flatMap(([code, [x, y]]): [number, number][] => [
      [Number(code), x],
      [Number(code) + 10, y],
    ]),
  );
const known = (drawn: number, metres: number, verdict: Parameters<typeof knownLength>[2] = null) => {
  const result = knownLength(drawn, metres, verdict);
  if (!result.ok) throw new Error(result.message);
  return result.value;
};

describe('dimensions against what they span', () => {
  // In a drawing in millimetres: 5400 and 3300 are right, 6900 spans 6750; 5.40 and 3.30 would be metres, which two
  // texts do not outvote.
  const right =
    dimension(0, { 13: [0, 0], 14: [5400, 0], 10: [5400, -900] }, '5400') +
    dimension(0, { 13: [5400, 0], 14: [8700, 40], 10: [8700, -900] }, '3300') +
    dimension(1, { 13: [0, 0], 14: [3000, 4000], 10: [3000, 4000] }, '5000');
  const wrong = dimension(0, { 13: [0, 0], 14: [0, 6750], 10: [-900, 0] }, '6900', 90);

  test('three agree and one differs by 150 mm, shown with its points', () => {
    const { drawing, p } = opened({ entities: right + wrong });
    const check = checkDimensions(drawing, p, 0.001);
    expect([check.total, check.agree, check.unread, check.writtenIn]).toEqual([4, 3, 0, 'mm']);
    expect(check.differ).toMatchObject([
      {
        text: '6900',
        kind: 'length',
        ends: [
          [0, 0],
          [0, 6750],
        ],
      },
    ]);
    expect(check.differ[0].written - check.differ[0].measured).toBeCloseTo(0.15, 9);
  });

  test('texts in metres agree to half their last digit, and a measured value stands for its sign', () => {
    const { drawing, p } = opened({
      entities:
        dimension(0, { 13: [0, 0], 14: [5402, 0], 10: [0, 0] }, '5.40') +
        dimension(0, { 13: [0, 0], 14: [5407, 0], 10: [0, 0] }, '5.40') +
        dimension(0, { 13: [0, 0], 14: [3300, 0], 10: [0, 0] }, '<>') +
        dimension(6, { 13: [0, 0], 14: [1, 0], 10: [0, 0] }, '12'),
    });
    const check = checkDimensions(drawing, p, 0.001);
    // 5.402 rounds to 5.40 and 5.407 does not; "3300" beside texts in metres is another matter, an ordinate is none.
    expect([check.total, check.agree, check.unread, check.writtenIn]).toEqual([4, 1, 1, 'm']);
    expect(check.differ.map(({ text }) => text).sort()).toEqual(['3300', '5.40']);
  });

  test('radii, diameters and angles are compared too', () => {
    const corner = {
      15: [0, 0] as [number, number],
      13: [100, 0] as [number, number],
      14: [50, 86.60254] as [number, number],
      10: [80, 40] as [number, number],
    };
    const { drawing, p } = opened({
      entities:
        dimension(4, { 10: [0, 0], 15: [2400, 0] }, 'R2400') +
        dimension(3, { 10: [0, 0], 15: [450, 0] }, '\u00d8450') +
        dimension(5, corner, '60\u00b0') +
        dimension(5, corner, '45\u00b0') +
        dimension(5, corner, '300\u00b0'),
    });
    const check = checkDimensions(drawing, p, 0.001);
    expect([check.total, check.agree]).toEqual([5, 4]);
    expect(check.differ).toMatchObject([{ kind: 'angle', written: 45, measured: expect.closeTo(60, 4) }]);
  });

  test('feet and inches are compared in inches', () => {
    const { drawing, p } = opened({
      entities:
        dimension(0, { 13: [0, 0], 14: [150, 0], 10: [0, 0] }, '12\'-6"') +
        dimension(0, { 13: [0, 0], 14: [151, 0], 10: [0, 0] }, '12\'-6"'),
    });
    expect(checkDimensions(drawing, p, 0.0254)).toMatchObject({
      total: 2,
      agree: 1,
      differ: [{ written: expect.closeTo(3.81, 9), measured: expect.closeTo(3.8354, 9) }],
    });
  });
});

describe('a known length', () => {
  const doors = Array.from(
    { length: 6 },
    (_, i) =>
      groups([0, 'ARC'], [8, 'D'], [10, i * 3000], [20, 0], [40, 900], [50, 0], [51, 90]) +
      line(i * 3000, 0, i * 3000, 900),
  ).join('');
  const { drawing, p } = opened({ entities: doors });
  const verdict = judgeUnit(drawing, p);

  test('5.40 m at 5400 units is millimetres; at 54 units millimetres at 1:100; at 216 units inches; at 5.4 units metres', () => {
    expect(known(5400, 5.4)).toMatchObject({ unit: 'mm', scale: 1, against: [] });
    expect(known(54, 5.4)).toMatchObject({ unit: 'mm', scale: 100 });
    expect(known(216, 216 * 0.0254)).toMatchObject({ unit: 'in', scale: 1 });
    expect(known(5.4, 5.4)).toMatchObject({ unit: 'm', scale: 1 });
    expect(knownWords(known(5400, 5.4))).toBe('The drawing is in millimetres.');
    expect(knownWords(known(54, 5.4))).toBe('The drawing is in millimetres at 1:100.');
  });

  test('one that misses a unit by one in a hundred means it and says so; one that fits none gives its own scale', () => {
    const rough = known(5400, 5.45);
    expect(rough).toMatchObject({ unit: 'mm', scale: 1, off: expect.closeTo(0.00926, 5) });
    expect(knownWords(rough)).toMatch(/0\.9 % longer/);
    const odd = known(1000, 3.7);
    expect(odd.scale).toBeCloseTo(3.7, 12);
    expect(odd.metresPerUnit).toBeCloseTo(0.0037, 12);
  });

  test('it is held against the rest: doors of nine metres are no doors', () => {
    expect(known(5400, 5.4, verdict).against).toEqual([]);
    expect(known(540, 5.4, verdict).against).toEqual(['doors 9.00 m']);
  });

  test.each([
    [0, 5.4, /two points lie on one another/],
    [1e-12, 5.4, /lie on one another/],
    [5400, 0, /more than zero/],
    [5400, -2, /more than zero/],
  ])('%d units as %d m is refused', (drawn, metres, words) => {
    const result = knownLength(drawn, metres, verdict);
    expect(result.ok ? '' : result.message).toMatch(words);
  });
});

test('a door block in inches in a drawing in millimetres is found, doors of the right size and other blocks are not', () => {
  const doorOf = (name: string, r: number) =>
    block(name, groups([0, 'ARC'], [8, '0'], [10, 0], [20, 0], [40, r], [50, 0], [51, 90]) + line(0, 0, 0, r));
  const { drawing, p } = opened({
    blocks: doorOf('DOOR-36', 36) + doorOf('DOOR-900', 900) + doorOf('ODD', 7),
    entities:
      insert('DOOR-36', 0, 0) +
      insert('DOOR-36', 4000, 0) +
      insert('DOOR-900', 8000, 0) +
      insert('ODD', 12000, 0) +
      insert('DOOR-36', 16000, 0, [
        [41, 25.4],
        [42, 25.4],
      ]),
  });
  // The third insert of the same block was brought to size: the middle of 36, 36 and 914.4 still is 36.
  expect(mixedBlocks(drawing, p, 0.001)).toMatchObject([
    {
      block: 'DOOR-36',
      inserts: 3,
      unit: 'in',
      words: 'Its door leaves come to 0.036 m; in inches they would be 0.91 m.',
    },
  ]);
  expect(mixedBlocks(drawing, p, 0.0254).map(({ block: name }) => name)).toEqual(['DOOR-900']);
});

describe('texts that read mirror-wise', () => {
  const text = (x: number, more: [number, number][] = []) =>
    groups([0, 'TEXT'], [8, 'T'], [10, x], [20, 0], [40, 2], [1, `Room ${x}`], ...more);
  test('written backwards, in a mirrored block or in a mirrored plane they count; upside down and backwards is only turned', () => {
    const { p } = opened({
      blocks: block('B', text(1)),
      entities:
        text(10, [[71, 2]]) +
        insert('B', 20, 0, [[41, -1]]) +
        text(-30, [
          [210, 0],
          [220, 0],
          [230, -1],
        ]) +
        text(40, [[71, 6]]),
    });
    expect(p.texts.map(({ mirrored }) => mirrored)).toEqual([true, true, true, false]);
    expect(mirrorWise(p)).toEqual({ mirrored: 3, texts: 4, verdict: true });
    // Backwards: the base line runs to the left, and the letters stand above it all the same.
    expect(Math.abs(p.texts[0].angle)).toBeCloseTo(Math.PI, 9);
  });

  test('two of three texts are too few of a sign, and a plain drawing is none', () => {
    expect(mirrorWise(opened({ entities: text(0) + text(5) + text(9) }).p).verdict).toBe(false);
    expect(mirrorWise(opened({ entities: text(0, [[71, 2]]) + text(5, [[71, 2]]) }).p).verdict).toBe(false);
  });
});
