import { put } from '@/core/model/edits';
import { column, levelId, planOf, uuid, wall } from '@/core/tracing/testing/plan';
import type { ElementOf } from '@/core/kinds/element';
import { combined } from '../combine';
import { saySupports, supportsMissing } from '../rules/supportsUnderFeet';
import { columnAt, modelOf, table } from '../testing/models';
import { tryStructure } from '../trial';
import { plainCombinations } from './combinations';

const newIds = () => {
  let n = 500;
  return () => uuid((n += 1));
};

test('loads by the use of zones: an office and a store side by side, 3 and 7.5 kN/m2', () => {
  const zone = (id: string, use: string, from: number, to: number) => ({
    id,
    level: 'L2',
    name: id,
    number: '',
    outline: [
      [from, 0],
      [to, 0],
      [to, 4],
      [from, 4],
    ],
    holes: [],
    height: 3,
    use,
  });
  const model = modelOf({
    ...table,
    zones: [zone('Office', 'B', 0, 4), zone('Store', 'E1', 4, 6), zone('Other', 'x', 0, 1)],
  });
  const trial = tryStructure(model);
  const q = trial.solution.cases.find(({ id }) => id === 'Q')!;
  expect(q.applied[2]).toBeCloseTo(-(16 * 3000 + 8 * 7500), 3);
  expect(trial.assumed).toContain('Imposed loads follow from the use of zones, by EN 1991-1-1.');
  // Where area loads are said, they alone count.
  const said = { ...model, loads: [{ case: 'Q', kind: 'area' as const, slab: 'S1', q: -1000 }] };
  expect(tryStructure(said).solution.cases.find(({ id }) => id === 'Q')!.applied[2]).toBeCloseTo(-24000, 3);
});

test('combinations of EN 1990 where none is said: each variable case leads in turn', () => {
  const cases = [
    { id: 'G', name: '', selfWeight: 1 },
    { id: 'Q', name: '', selfWeight: 0 },
    { id: 'S', name: '', selfWeight: 0 },
  ];
  expect(plainCombinations(cases)).toEqual([
    { id: 'ULS Q', factors: { G: 1.35, Q: 1.5, S: 0.75 } },
    { id: 'SLS Q', factors: { G: 1, Q: 1, S: 0.5 } },
    { id: 'ULS S', factors: { G: 1.35, Q: expect.closeTo(1.05, 12), S: 1.5 } },
    { id: 'SLS S', factors: { G: 1, Q: 0.7, S: 1 } },
  ]);
  expect(plainCombinations(cases.slice(0, 2)).map(({ id }) => id)).toEqual(['ULS', 'SLS']);
  expect(plainCombinations(cases.slice(0, 1))).toEqual([]);
  const trial = tryStructure(modelOf({ ...table, loads: [{ case: 'Q', kind: 'area', slab: 'S1', q: -1000 }] }));
  const [g, q] = trial.solution.cases;
  const uls = combined('ULS', { G: 1.35, Q: 1.5 }, trial.solution.cases);
  expect(uls.reactions[2]).toBeCloseTo(1.35 * g.reactions[2] + 1.5 * q.reactions[2], 6);
  expect(uls.supports[0].value[2]).toBeCloseTo(1.35 * g.supports[0].value[2] + 1.5 * q.supports[0].value[2], 6);
});

test('supports are said under feet that nothing carries: pinned, along a wall, clamped where nothing else holds', () => {
  const model = modelOf({
    ...table,
    columns: [...table.columns, columnAt('Upper', [0, 0], { level: 'L2' }), columnAt('Mast', [20, 0])],
    walls: [{ id: 'W', level: 'L1', start: [10, 0], end: [10, 5], thickness: 0.2, height: 4, bulge: 0, bearing: true }],
  });
  const missing = supportsMissing(model);
  expect(missing.map(({ element, fixed }) => [element, fixed.join(' ')]).sort()).toEqual([
    ['C1', 'x y z rz'],
    ['C2', 'x y z rz'],
    ['C3', 'x y z rz'],
    ['C4', 'x y z rz'],
    ['Mast', 'x y z rx ry rz'],
    // It runs along y: about its own line, y, it may turn.
    ['W', 'x y z rx rz'],
  ]);
  const held = {
    ...model,
    supports: missing.map(({ position, fixed }, i) => ({
      id: `P${i}`,
      position: [...position] as [number, number, number],
      fixed,
    })),
  };
  expect(supportsMissing(held)).toEqual([]);
  expect(tryStructure(held).findings.filter(({ rule }) => rule === 'nothing beneath')).toEqual([]);
});

test('saying supports draws them on the levels of what they carry, and twice is refused', () => {
  const model = planOf(column(1, [2, 3]), wall(2, [8, 0], [8, 6]));
  const edit = saySupports(
    model,
    [{ element: uuid(1), position: [2, 3, 0.4], fixed: ['x', 'y', 'z', 'rz'] }],
    newIds(),
  );
  if (!edit.ok) throw new Error(edit.message);
  const [support] = edit.value.changes.map((change) => change.row as ElementOf<'support'>);
  expect(support).toMatchObject({ levelId, shape: { position: [2, 3], rise: 0.4, fixed: ['x', 'y', 'z', 'rz'] } });
  expect(edit.value.label).toBe('Draw 1 support under feet on nothing');
  model.apply([put('element', support)]);
  expect(saySupports(model, [], newIds()).ok).toBe(false);
});
