import { checkDimensions } from '@/core/datum/dimensionCheck';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import { markedUp } from './markedUp';
import { questionsOf } from './questions';

const roles: Record<string, Role> = { W: 'wall', T: 'label' };

/** In millimetres: a gap of 12 mm, a doubled line, a line askew by 10 mm over 5 m, a dimension that lies. */
const entities =
  line(0, 0, 6000, 0, 'W') +
  line(6012, 0, 9000, 0, 'W') +
  line(0, 1000, 6000, 1000, 'W') +
  line(6000, 1000, 0, 1000, 'W') +
  line(0, 2000, 5000, 2010, 'W') +
  // One runs on over the last 0.8 m of another; two others by half a millimetre, which is rounding.
  line(0, 3000, 4000, 3000, 'W') +
  line(7000, 3000, 3200, 3000, 'W') +
  line(0, 3500, 4000, 3500, 'W') +
  line(3999.5, 3500, 7000, 3500, 'W') +
  // Of no role of the building: nobody asks.
  line(0, 5000, 100, 5000, 'T') +
  line(112, 5000, 200, 5000, 'T') +
  groups(
    [0, 'DIMENSION'],
    [5, 'D1'],
    [8, 'T'],
    [10, 0],
    [20, -500],
    [13, 0],
    [23, 0],
    [14, 6000],
    [24, 0],
    [70, 0],
    [1, '6100'],
    [50, 0],
  ) +
  groups(
    [0, 'DIMENSION'],
    [5, 'D2'],
    [8, 'T'],
    [10, 0],
    [20, 0],
    [13, 0],
    [23, 0],
    [14, 9000],
    [24, 0],
    [70, 0],
    [1, '9000'],
  ) +
  groups(
    [0, 'DIMENSION'],
    [5, 'D3'],
    [8, 'T'],
    [10, 0],
    [20, 0],
    [13, 0],
    [23, 0],
    [14, 3000],
    [24, 0],
    [70, 0],
    [1, '3000'],
  );

function ask() {
  const { drawing } = readText(dxf({ entities }));
  const primitives = flatten(drawing);
  const { differ } = checkDimensions(drawing, primitives, 0.001);
  const own = drawing.layers.map(({ name }) => roles[name] ?? null);
  return { primitives, questions: questionsOf({ drawing, primitives, metresPerUnit: 0.001, roles: own, differ }) };
}

test('gaps, doubles, askew lines and dimensions are asked at their places, and nothing else', () => {
  const { asked, counts } = ask().questions;
  expect(counts).toEqual({ gap: 1, double: 2, askew: 1, dimension: 1 });
  expect(asked.map(({ kind, at, words }) => [kind, ...at.map((value) => Math.round(value)), words])).toEqual([
    ['gap', 6006, 0, 'Two ends miss one another by 12.0 mm. Do they meet?'],
    ['double', 3000, 1000, 'It lies on another line of its layer. May one of them go?'],
    ['double', 3600, 3000, 'It lies on another line of its layer over 800.0 mm. May the two become one?'],
    // atan(10 / 5000) = 0.1146 degrees.
    ['askew', 2500, 2005, 'It is 0.115\u00b0 askew, 10.0 mm over its length. Is it meant so?'],
    ['dimension', 3000, 0, '\u201c6100\u201d (6.100 m) is written, 6.000 m is drawn. Which is right?'],
  ]);
});

test('the marked-up drawing lies on the drawing, with a numbered ring about each place', () => {
  const { primitives, questions } = ask();
  const { drawing, account } = readText(markedUp(primitives, questions.asked, 'mm', 1));
  expect(account.leftOut).toEqual([]);
  const own = flatten(drawing);
  const layer = (name: string) => drawing.layers.findIndex((one) => one.name === name);
  const ring = [...own.layer.keys()].find((path) => own.layer[path] === layer('QUESTION-GAP'))!;
  const xs = Array.from({ length: own.start[ring + 1] - own.start[ring] }, (_, i) => own.xy[2 * (own.start[ring] + i)]);
  expect((Math.min(...xs) + Math.max(...xs)) / 2 + own.origin[0]).toBeCloseTo(6006, 3);
  expect(own.texts.map(({ text }) => text).filter((text) => /^\d+$/.test(text))).toEqual(['1', '2', '3', '4', '5']);
  expect(own.texts.some(({ text }) => text.startsWith('1  Two ends miss one another by 12.0 mm.'))).toBe(true);
});
