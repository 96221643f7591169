import { asDrawn } from '@/core/datum/placement';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { survey, yard } from '../../../demo/yard';
import { suggestRole } from '@/core/sorting/suggest';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import { readLuminaires } from './luminaires/readLuminaires';
import { Scene } from './scene';

const roles: Record<string, Role> = { L: 'luminaire', W: 'wall' };

/** A rectangle about the origin, in millimetres. */
const plate = (w: number, d: number, layer = '0'): string =>
  line(-w / 2, -d / 2, w / 2, -d / 2, layer) +
  line(w / 2, -d / 2, w / 2, d / 2, layer) +
  line(w / 2, d / 2, -w / 2, d / 2, layer) +
  line(-w / 2, d / 2, -w / 2, -d / 2, layer);

const block = (name: string, inside: string): string =>
  groups([0, 'BLOCK'], [8, '0'], [2, name], [70, 0], [10, 0], [20, 0]) + inside + groups([0, 'ENDBLK'], [8, '0']);
const insert = (handle: string, name: string, x: number, y: number, turn = 0, layer = 'L'): string =>
  groups([0, 'INSERT'], [5, handle], [8, layer], [2, name], [10, x], [20, y], [50, turn]);

function read(entities: string, blocks = '') {
  const { drawing } = readText(dxf({ entities, blocks }));
  const own = drawing.layers.map(({ name }) => roles[name] ?? null);
  return readLuminaires(new Scene(drawing, flatten(drawing), asDrawn('mm'), own));
}
const told = ({ candidates }: ReturnType<typeof read>) =>
  candidates.map(({ element: { position, rotation, photometry } }) => [
    ...position.map((value) => Number(value.toFixed(6))),
    Number(rotation.toFixed(6)),
    photometry,
  ]);

test('blocks are luminaires where they are placed, turned as their longer side is, by their size', () => {
  const blocks =
    block('LINEAR', plate(1200, 80)) +
    block('PLATE', plate(600, 600) + line(-300, -300, 300, 300) + line(-300, 300, 300, -300));
  const found = read(
    insert('A1', 'LINEAR', 2000, 1000) +
      insert('A2', 'LINEAR', 2000, 4000, 90) +
      insert('A3', 'LINEAR', 5000, 4000, 30) +
      insert('A4', 'PLATE', 8000, 4000) +
      insert('A5', 'PLATE', 9000, 4000, 0, 'W'),
    blocks,
  );
  expect(told(found)).toEqual([
    [2, 1, 0, 'linear'],
    [2, 4, 90, 'linear'],
    [5, 4, 30, 'linear'],
    // Its diagonals are its longest lines, but the box along its sides is smaller.
    [8, 4, 0, 'panel'],
  ]);
  expect(found.candidates[0].handles).toEqual(['A1']);
  expect(found.candidates[0].evidence.map(({ text }) => text)).toEqual([
    'the block \u201cLINEAR\u201d',
    '3 of this size',
    '1200 by 80 mm: linear by its name',
  ]);
  expect(found.candidates[0].confidence).toBeGreaterThan(0.9);
});

test('loose lines that hang together are one symbol, a circle a spot; what is far too large is told', () => {
  const circle = groups([0, 'CIRCLE'], [5, 'C1'], [8, 'L'], [10, 20_000], [20, 1000], [40, 60]);
  const found = read(plate(600, 600, 'L') + circle + line(0, 30_000, 9000, 30_000, 'L'));
  expect(told(found)).toEqual([
    [0, 0, 0, 'panel'],
    [20, 1, 0, 'downlight'],
  ]);
  expect(found.unread.map(({ why }) => why)).toEqual(['no symbol of a luminaire: 9.00 m long']);
});

test('the yard of the demo has its floodlights, on posts, turned with the survey', () => {
  const { dxf: text } = yard();
  const { drawing } = readText(text);
  const own = drawing.layers.map(({ name }) => suggestRole(name)?.role ?? null);
  const { candidates } = readLuminaires(new Scene(drawing, flatten(drawing), asDrawn('m'), own));
  // Six posts stand in the demo's yard.
  expect(candidates).toHaveLength(6);
  for (const { element } of candidates) {
    expect([element.photometry, element.rise]).toEqual(['floodlight', 6]);
    // A cross of two lines as long: along either of them.
    expect(element.rotation % 90).toBeCloseTo(survey.turn, 3);
  }
});

test('a plan that is one block holds many', () => {
  const blocks = block(
    'PLAN',
    plate(600, 600, 'L') + groups([0, 'CIRCLE'], [8, 'L'], [10, 12_000], [20, 0], [40, 60]) + plate(20_000, 50, 'W'),
  );
  expect(told(read(insert('P', 'PLAN', 1000, 0, 0, '0'), blocks))).toEqual([
    [1, 0, 0, 'panel'],
    [13, 0, 0, 'downlight'],
  ]);
});

test('layers of luminaires are known by their names, wells of light are openings', () => {
  const named = (name: string) => suggestRole(name)?.role;
  expect(['E-LITE', 'A-LIGHT-CLNG', 'EL_Leuchten', 'ELEC_ECLAIRAGE', 'el-belysning'].map(named)).toEqual(
    Array(5).fill('luminaire'),
  );
  expect(named('A-LIGHTWELL')).toBe('slabOpening');
});
