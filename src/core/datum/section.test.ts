import { crossSection, heights, levelMarks, sectionPlace, slabThickness, truss } from '../../../demo/section';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { readDxf } from '@/core/drawing/reader';
import { flatten } from '@/core/underlay/flatten';
import { readElevation, readSection, signedMetres } from './sectionHeights';

test.each([
  ['+3.90', 3.9, 'decimals', ''],
  ['\u00b10.00', 0, 'decimals', ''],
  ['-3,15', -3.15, 'decimals', ''],
  ['\u22123.150', -3.15, 'decimals', ''],
  ['+3900', 3900, 'whole', ''],
  ['Upper floor +3.90 m', 3.9, 'decimals', 'Upper floor'],
  ['+12\'-6 1/2"', 150.5 * 0.0254, 'feet', ''],
  ['Roof -1\' 6"', -18 * 0.0254, 'feet', 'Roof'],
  ['FFL (+7.50)', 7.5, 'decimals', 'FFL'],
])('the elevation %s is read', (text, value, form, name) => {
  const read = readElevation(text)!;
  expect(read.value).toBeCloseTo(value, 9);
  expect([read.form, read.name]).toEqual([form, name]);
});

test.each(['3.90', 'Upper floor', 'A', '1:100', '12 x 30', 'Section 2-2', 'B-3.90'])(
  '%s is no elevation: it has no sign',
  (text) => {
    expect(readElevation(text)).toBeNull();
  },
);

const flat = (text: string) => {
  const read = readDxf(new TextEncoder().encode(text));
  if (!read.ok) throw new Error(read.message);
  return flatten(read.value.drawing);
};

test('the demo\u2019s section gives its five levels with their names, and the slabs with their thickness', () => {
  const result = readSection(flat(crossSection().dxf), 0.001);
  if (!result.ok) throw new Error(result.message);
  const { marks, zero, slabs } = result.value;
  expect(marks.map(({ name, elevation }) => [name, elevation])).toEqual(levelMarks.map(([name, at]) => [name, at]));
  expect(Math.max(...marks.map(({ off }) => Math.abs(off)))).toBeLessThan(1e-6);
  expect(zero).toBeCloseTo(sectionPlace[1] * 1000, 6);
  // The chords of the truss over the roof are long and thin too; what is written of heights goes before them.
  const chords = [truss.low, truss.high].map((axis) => [axis + truss.chord / 2, truss.chord]);
  expect(slabs.map(({ y, thickness }) => [Number((y / 1000 - sectionPlace[1]).toFixed(6)), thickness])).toEqual([
    ...[heights.foundation, heights.ground, heights.upper, heights.roof].map((top) => [top, slabThickness]),
    ...chords.map((pair) => pair.map((value) => Number(value.toFixed(6)))),
  ]);
});

const text = (x: number, y: number, words: string) =>
  groups([0, 'TEXT'], [8, 'T'], [10, x], [20, y], [40, 0.25], [1, words]);
const mark = (y: number, words: string) => line(0, y, 3, y) + text(0.5, y + 0.05, words);
const section = (entities: string, metresPerUnit = 1) =>
  readSection(flatten(readText(dxf({ entities })).drawing), metresPerUnit);

test('a mark that is written wrongly is told by how much, and the others fix the zero', () => {
  const result = section(mark(100, '\u00b10.00') + mark(103.9, '+3.90') + mark(107.5, '+7.05') + mark(111, '+11.00'));
  if (!result.ok) throw new Error(result.message);
  expect(result.value.zero).toBeCloseTo(100, 9);
  expect(result.value.marks.map(({ elevation, off }) => [elevation, Number(off.toFixed(6)) + 0])).toEqual([
    [0, 0],
    [3.9, 0],
    [7.05, 0.45],
    [11, 0],
  ]);
});

test('heights written in millimetres or in feet and inches are told by how they lie apart', () => {
  const whole = section(mark(0, '\u00b10') + mark(3.9, '+3900') + mark(7.5, '+7500'));
  expect(whole.ok && whole.value.marks.map(({ elevation }) => elevation)).toEqual([0, 3.9, 7.5]);
  const feet = section(mark(0, "\u00b10'") + mark(12, '+12\'-0"') + mark(24.5, '+24\'-6"'), 0.3048);
  expect(feet.ok && feet.value.marks.map(({ elevation }) => elevation)).toEqual([0, 3.6576, 7.4676]);
});

test('a section of the wrong unit, and a drawing without heights, are refused with what to do', () => {
  const wrong = section(mark(0, '\u00b10.00') + mark(3900, '+3.90') + mark(7500, '+7.50'));
  expect(wrong.ok ? '' : wrong.message).toMatch(/3 elevations are written.*its unit is wrong/);
  const none = section(line(0, 0, 1, 5));
  expect(none.ok ? '' : none.message).toMatch(/No elevation is written.*by hand/);
});

test('slabs alone give heights without a zero', () => {
  const result = section(
    [0, 3, 6].map((y) => line(0, y, 12, y) + line(0, y - 0.25, 12, y - 0.25)).join('') + line(0, 8, 3, 8),
  );
  expect(result.ok && [result.value.zero, result.value.slabs.map(({ y, thickness }) => [y, thickness])]).toEqual([
    null,
    [
      [0, 0.25],
      [3, 0.25],
      [6, 0.25],
    ],
  ]);
});

test('a written elevation shows its sign', () => {
  expect([3.9, 0, -3.15].map(signedMetres)).toEqual(['+3.900', '\u00b10.000', '\u22123.150']);
});
