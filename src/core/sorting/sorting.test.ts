import { dxf, line, readText } from '@/core/drawing/testing/dxf';
import { matches } from '@/core/pattern';
import { flatten } from '@/core/underlay/flatten';
import { roleByRules } from './roles';
import { suggestRole } from './suggest';
import { suggestLayers } from './suggestLayers';

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

test('a large drawing whose layers are named is taken at its names; a small one is asked for what is drawn, too', () => {
  // Lines that look like nothing on a layer that says wall, and a grid of circles that the small one would doubt.
  const lines = (count: number): string =>
    Array.from({ length: count }, (_, i) => line(0, i * 3, 1 + (i % 7), i * 3, 'A-WALL')).join('');
  const suggested = (count: number) => {
    const { drawing } = readText(dxf({ entities: lines(count) }));
    const i = drawing.layers.findIndex(({ name }) => name === 'A-WALL');
    return suggestLayers(drawing, flatten(drawing), 1)[i];
  };
  expect(suggested(40_001)).toMatchObject({ role: 'wall', conflict: null });
  expect(suggested(30).role).toBe('wall');
});

test.each([
  ['PILARES', 'column'],
  ['02_Soyler', 'column'],
  ['S\u00f8jler', 'column'],
  ['VIG', 'beam'],
  ['Forjado', 'slab'],
  ['HUEC', 'slabOpening'],
  ['Ventanas', 'window'],
  ['D\u00d8R', 'door'],
  ['\u015aciany', 'wall'],
  ['10_MW', 'wall'],
  ['\u58c1', 'wall'],
  ['A-\u67f1-1F', 'column'],
  ['\u0421\u0442\u0435\u043d\u044b', 'wall'],
  ['Column Lines', 'grid'],
  ['S-COLS', 'column'],
  ['DECKENDURCHBR\u00dcCHE', 'slabOpening'],
  ['LISTE_UZ', 'label'],
  ['A-FURN-TABLE', 'ignore'],
])('a layer called %s is suggested as %s', (name, role) => {
  expect(suggestRole(name)?.role).toBe(role);
});

test.each([
  ['TRAVI', 'beam'],
  ['BELKI', 'beam'],
  ['Gerendák', 'beam'],
  ['RAMEN', 'window'],
  ['ABLAKOK', 'window'],
  ['AMBIENTES', 'zone'],
  ['STENY', 'wall'],
  ['SEINÄT', 'wall'],
  ['A-WALL-PATT', 'ignore'],
  ['COTAS', 'ignore'],
  ['MAATVOERING', 'ignore'],
  ['WYMIARY', 'ignore'],
  ['MEUBILAIR', 'ignore'],
  ['寸法', 'ignore'],
  ['图框', 'ignore'],
  ['기둥', 'column'],
] as const)('the name %s is that of %s', (name, role) => {
  expect(suggestRole(name)?.role).toBe(role);
});

test.each(['VENTILATION', 'L12', '0', 'Pilot'])('a layer called %s says nothing, or no such thing', (name) => {
  expect(['window', 'column']).not.toContain(suggestRole(name)?.role);
});
