import { asDrawn } from '@/core/datum/placement';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { defaultSettings } from '@/core/patterns/settings';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import { windowOf } from '@/core/underlay/window';
import { candidateAt, candidatesIn, takeReadings, type TakeTask } from './takeAt';

/** A closed rectangle by four loose lines. */
const rectangle = (x: number, y: number, w: number, h: number, layer: string): string =>
  line(x, y, x + w, y, layer) +
  line(x + w, y, x + w, y + h, layer) +
  line(x + w, y + h, x, y + h, layer) +
  line(x, y + h, x, y, layer);

const text = (x: number, y: number, words: string, layer: string): string =>
  groups([0, 'TEXT'], [8, layer], [10, x], [20, y], [40, 200], [1, words]);

/** A wall of 200 between two lines, a column of 400 by 400 and a furniture square, each on a layer without a role. */
const entities =
  line(0, 0, 6000, 0, 'X1') +
  line(0, 200, 6000, 200, 'X1') +
  line(0, 0, 0, 200, 'X1') +
  line(6000, 0, 6000, 200, 'X1') +
  rectangle(8000, 0, 400, 400, 'X2') +
  rectangle(12_000, 0, 400, 400, 'X2') +
  text(8500, 500, 'C7', 'X3');

function task(kind: TakeTask['kind'], path: number | null, roles: Record<string, Role> = {}): TakeTask {
  const { drawing } = readText(dxf({ entities }));
  return {
    drawing,
    primitives: flatten(drawing),
    placement: asDrawn('mm'),
    roles: drawing.layers.map(({ name }) => roles[name] ?? null),
    picked: { lines: new Map(), blocks: new Map() },
    accepted: [],
    settings: defaultSettings,
    zero: 0,
    linked: [],
    answers: [],
    kind,
    own: true,
    path,
  };
}

test('a wall is read of two lines on a layer without a role, where one of them is pointed at', () => {
  const [first] = takeReadings(task('wall', 0), candidateAt('wall', [3, 0.05], 0.1));
  expect(first.candidates[0]).toMatchObject({ kind: 'wall', element: { thickness: 0.2 } });
  const [wall] = first.candidates;
  if (wall.kind !== 'wall') throw new Error('It reads as something else');
  const { start, end } = wall.element;
  expect([start[1], end[1]].map((v) => Number(v.toFixed(6)))).toEqual([0.1, 0.1]);
  expect(Math.abs(start[0] - end[0])).toBeCloseTo(6, 6);
});

test('a column is read of loose lines; what is too far from the place is not meant', () => {
  const [first] = takeReadings(task('column', 4), candidateAt('column', [8.2, 0.2], 0.1));
  expect(first.candidates[0].element).toMatchObject({ section: { shape: 'rectangle', width: 0.4, depth: 0.4 } });
  const [read] = first.candidates;
  if (read.kind !== 'column') throw new Error('It reads as something else');
  expect(read.element.position.map((v) => Number(v.toFixed(6)))).toEqual([8.2, 0.2]);
  expect(takeReadings(task('column', 4), candidateAt('column', [20, 5], 0.1))).toEqual([]);
});

test('all of its like in a box are those whose middles lie in it', () => {
  const [both] = takeReadings(task('column', 4), candidatesIn('column', [7, -1, 13, 1]));
  expect(both.candidates).toHaveLength(2);
  const [one] = takeReadings(task('column', 4), candidatesIn('column', [11, -1, 13, 1]));
  expect(one.candidates).toHaveLength(1);
});

test('what a role says already is one reading; the same again by another way is left out', () => {
  const readings = takeReadings(task('column', 4, { X2: 'column' }), candidateAt('column', [8.2, 0.2], 0.1));
  expect(readings).toHaveLength(1);
});

test('a window has some paths and the texts of its box, about the same origin', () => {
  const { drawing } = readText(dxf({ entities }));
  const whole = flatten(drawing);
  const part = windowOf(whole, Uint32Array.from([4, 5]), [-1e9, -1e9, 1e9, 1e9]);
  expect([part.layer.length, part.start[2], part.texts.length]).toEqual([2, 4, 1]);
  expect([...part.xy.slice(0, 4)]).toEqual([...whole.xy.slice(2 * whole.start[4], 2 * whole.start[4] + 4)]);
  expect(windowOf(whole, Uint32Array.from([0]), [1e8, 1e8, 1e9, 1e9]).texts).toEqual([]);
});
