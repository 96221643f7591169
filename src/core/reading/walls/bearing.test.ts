import type { Wall } from '@/core/kinds/wall';
import type { WallCandidate } from '../candidate';
import { alongWhich, carriesByName, signsOf, withBearing, type WallFacts } from './bearing';

const wall = (more: Partial<Wall> = {}): Wall => ({
  start: [0, 0],
  end: [6, 0],
  thickness: 0.13,
  height: null,
  bulge: 0,
  outer: false,
  ...more,
});
const nothing: WallFacts = { layers: [], meaning: null, below: null, structural: null };
const candidate = (element: Wall, doubt: string | null = null): WallCandidate => ({
  kind: 'wall',
  key: 'wall:1@3.0,0.0',
  element,
  raw: { thickness: element.thickness },
  evidence: [{ text: 'two faces', weight: 2 }],
  confidence: 0.88,
  handles: ['1'],
  doubt,
});
const judged = (element: Wall, facts: Partial<WallFacts>) =>
  withBearing([candidate(element)], () => ({ ...nothing, ...facts }))[0];

test.each([
  ['S-WALL-CONCRETE', true],
  ['A-WALL-STRUCT', true],
  ['Wand_tragend', true],
  ['W\u00e4nde nicht tragend', false],
  ['WALL_NONBEARING', false],
  ['A-PARTITION', false],
  ['TROCKENBAU 100', false],
  ['murs porteurs', true],
  ['cloisons', false],
  ['A-WALL', null],
  ['ARCHIVE', null],
])('the name %s says %p', (name, says) => {
  expect(carriesByName(name)).toBe(says);
});

test.each([
  ['nothing tells of 130 mm', {}, {}, undefined],
  ['240 mm carry', { thickness: 0.24 }, {}, true],
  ['100 mm carry nothing', { thickness: 0.1 }, {}, false],
  ['a bearing layer outweighs 100 mm', { thickness: 0.1 }, { layers: ['S-BEARING'] }, true],
  ['no wall below and none in the structural drawing', { thickness: 0.24 }, { below: false, structural: false }, false],
  ['one in the structural drawing', {}, { structural: true }, true],
  [
    'a construction with concrete in it, whatever covers it',
    {},
    {
      meaning: {
        id: 'w',
        kind: 'wall' as const,
        name: 'Core',
        thickness: 0.13,
        layers: [
          { name: 'Gypsum', thickness: 0.01, conductivity: 0.5 },
          { name: 'Concrete', thickness: 0.12, conductivity: 2 },
        ],
      },
    },
    true,
  ],
])('%s', (_, shape, facts, bearing) => {
  expect(judged(wall(shape), facts).element.bearing).toBe(bearing);
});

test('the verdict stands among the evidence with its reasons, and changes nothing in how sure the wall is', () => {
  const { evidence, confidence, doubt } = judged(wall({ thickness: 0.24, outer: true }), { below: false });
  expect(evidence[1]).toEqual({
    text: 'it carries: 240 mm thick, it is an outer wall; but there is none on the level below',
    weight: 0,
  });
  expect([confidence, doubt]).toEqual([0.88, null]);
});

test('strong signs that contradict one another deserve a look, beside what was doubted before', () => {
  const twofold = withBearing([candidate(wall({ thickness: 0.1 }), 'very short')], () => ({
    ...nothing,
    layers: ['S-BEARING'],
  }));
  expect(twofold[0].doubt).toBe('very short, bearing or not');
  expect(judged(wall({ thickness: 0.1 }), {}).doubt).toBeNull();
});

test('a wall stands on another where most of it runs along that; one that carries nothing does not count', () => {
  const below = (more: Partial<Wall>) => alongWhich([wall({ thickness: 0.24, ...more })])(wall());
  expect(below({ start: [-5, 0.1], end: [20, 0.1] })).toBe(true);
  expect(below({ start: [0, 0], end: [2, 0] })).toBe(false);
  expect(below({ start: [3, -5], end: [3, 5] })).toBe(false);
  expect(below({ start: [0, 0.2], end: [6, 0.2] })).toBe(false);
  expect(below({ bearing: false })).toBe(false);
  // A half circle over 6 m stands on the same half circle, not on its chord.
  const bent = wall({ bulge: 1 });
  expect([alongWhich([bent])(bent), alongWhich([wall()])(bent), alongWhich(null)(bent)]).toEqual([true, false, null]);
});

test('what is not drawn makes no sign', () => {
  expect(signsOf(wall(), { ...nothing, layers: ['A-WALL'] })).toEqual([]);
  expect(signsOf(wall({ outer: true }), nothing).map(({ text }) => text)).toEqual(['it is an outer wall']);
});
