import { dxf, groups, readText } from '@/core/drawing/testing/dxf';
import { flatten } from '@/core/underlay/flatten';
import { findTexts, wordsOf } from '@/core/underlay/findTexts';
import { contradiction, placesOfMark, type MarkSheet } from './markPlaces';
import { tableRowsOf } from './schedule';

const text = (x: number, y: number, words: string): string =>
  groups([0, 'TEXT'], [8, '0'], [10, x], [20, y], [40, 0.3], [1, words]);

/** A drawing of rows of texts, two metres from cell to cell, half a metre from row to row. */
function sheet(drawingId: string, ...rows: string[][]): MarkSheet & { primitives: ReturnType<typeof flatten> } {
  const entities = rows.flatMap((cells, y) => cells.map((words, x) => text(2 * x, -0.5 * y, words))).join('');
  const { drawing } = readText(dxf({ entities }));
  const primitives = flatten(drawing);
  return { drawingId, primitives, texts: primitives.texts, rows: tableRowsOf(drawing, primitives) };
}

const schedule = sheet('S-201', ['T13', '300x500'], ['T14', 'Type R'], ['T15', 'Type R']);
const types = sheet('S-202', ['Type Q', '200x400'], ['Type R', 'C-C']);
const details = sheet('S-301', ['Section C-C'], [], [], ['Section D-D']);
const plan = sheet('plan', ['T14'], [], [], [], [], ['T13']);

test('a mark is followed over its row, its type and its section; where it stands in plans comes last', () => {
  const places = placesOfMark('T14', [plan, schedule, types, details]);
  expect(places.map(({ drawingId, what, words }) => [drawingId, what, words])).toEqual([
    ['S-201', 'row', 'T14  Type R'],
    ['S-202', 'row', 'R  C-C'],
    ['S-301', 'title', 'Section C-C'],
    ['plan', 'mark', 'T14'],
  ]);
  // The row is looked at where its key stands: about the drawing's own origin.
  const [ox, oy] = schedule.primitives.origin;
  const [x, y] = places[0].at;
  expect([x + ox, y + oy]).toEqual([expect.closeTo(0.27, 1), expect.closeTo(-0.5 + 0.15, 1)]);
  expect(placesOfMark('T99', [plan, schedule])).toEqual([]);
  expect(placesOfMark(' ', [plan])).toEqual([]);
});

test('rows that lead round in a ring end', () => {
  const ring = sheet('S', ['Type A', 'Type B'], ['Type B', 'Type C'], ['Type C', 'Type A']);
  expect(placesOfMark('A', [ring]).filter(({ what }) => what === 'row')).toHaveLength(3);
});

test('three schedules with three sizes are told with all of them', () => {
  const sheets = ['300x500', '300x600', '300 x 500'].map((size, i) => sheet(`S-${i}`, ['T7', size], ['T8', '200x400']));
  const words = contradiction('T7', placesOfMark('T7', sheets), (id) => id);
  expect(words).toMatch(/^T7 has 2 sizes: 300x500 in S-0, 300x600 in S-1, 300 x 500 in S-2\./);
  expect(contradiction('T8', placesOfMark('T8', sheets), (id) => id)).toBeNull();
});

test('texts are found by words in any order, over lines, whatever their case; just that text first', () => {
  const { primitives } = sheet('one', ['Wet Lab 2', 'LAB', 'Dry lab'], ['lab', 'Store']);
  const found = (typed: string, most = 10) =>
    findTexts(primitives, wordsOf(typed), most).map((i) => primitives.texts[i].text);
  expect(found('lab wet')).toEqual(['Wet Lab 2']);
  expect(found('lab')).toEqual(['LAB', 'lab', 'Wet Lab 2', 'Dry lab']);
  expect(found('lab', 1)).toEqual(['LAB']);
  expect(found('  ')).toEqual([]);
});
