import { matches } from '@/core/pattern';
import { roleByRules } from './roles';
import { suggestRole } from './suggest';

test.each([
  ['A-GRID', 'grid'],
  ['A-COLS', 'column'],
  ['S-COLUMN-CONC', 'column'],
  ['S-BEAM', 'beam'],
  ['A-WALL-FULL', 'wall'],
  ['A-DOOR', 'door'],
  ['A-GLAZ', 'window'],
  ['S-SLAB', 'slab'],
  ['S-VOID', 'slabOpening'],
  ['A-ROOM', 'zone'],
  ['C-PAVE', 'outdoor'],
  ['A-ANNO-DIMS', 'ignore'],
  ['A-WALL-TEXT', 'label'],
  ['Achsen', 'grid'],
  ['ST\u00dcTZEN', 'column'],
  ['Tr\u00e4ger', 'beam'],
  ['cloisons', 'wall'],
  ['Fen\u00eatres', 'window'],
  ['A-HATCH', 'ignore'],
])('the name %s suggests %s', (layer, role) => {
  expect(suggestRole(layer)?.role).toBe(role);
});

test.each(['0', 'XY12', 'LAYER1', 'Protocol'])('the name %s suggests nothing', (layer) => {
  expect(suggestRole(layer)).toBeNull();
});

test('the first rule that matches wins, and only * is special', () => {
  expect(roleByRules('A-COLS-NEW', { 'A-COLS': 'ignore', 'a-cols*': 'column', '*': 'wall' })).toEqual({
    role: 'column',
    pattern: 'a-cols*',
  });
  expect([matches('A.B', 'AxB'), matches('*WALL*', 'A-WALL-1'), matches('(a)+', '(A)+'), matches('', 'x')]).toEqual([
    false,
    true,
    true,
    false,
  ]);
});
