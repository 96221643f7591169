import { modelWith } from '@/core/handover/testing/modelWith';
import type { ReadModel } from '@/core/handover/model/readModel';
import { resultsOf } from '../results/results';
import { analysisTables } from './analysis';

const tablesOf = (model: ReadModel) => analysisTables(resultsOf(model));

/** A beam of 6 m on two columns of 3 m, with 10 kN/m on it, under a case that says no weight. */
function portal() {
  const section = { shape: 'rectangle', width: 0.3, depth: 0.5 };
  const column = (id: string, x: number) => ({ id, level: 'L', position: [x, 0], section, base: 0, top: 3 });
  const foot = (id: string, x: number) => ({ id, position: [x, 0, 0], fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'] });
  return modelWith({
    levels: [{ id: 'L', name: 'Ground', elevation: 0, height: 3 }],
    columns: [column('c1', 0), column('c2', 6)],
    beams: [{ id: 'b1', level: 'L', start: [0, 0, 3], end: [6, 0, 3], section, mark: '=B1' }],
    supports: [foot('p1', 0), foot('p2', 6)],
    loadCases: [{ id: 'Q', name: 'Imposed', selfWeight: 0 }],
    combinations: [{ id: 'U', factors: { Q: 1.5 } }],
    loads: [{ case: 'Q', kind: 'member', element: 'b1', q: [0, 0, -10000] }],
  });
}

test('nodes, members, loads and combinations stand as they are calculated with; reactions carry the load', () => {
  const tables = new Map(tablesOf(portal()).map((one) => [one.name, one]));
  const rows = (name: string) => tables.get(name)!.rows;
  expect(rows('nodes')).toHaveLength(4);
  expect(rows('nodes').filter((row) => row.slice(4).every((fixed) => fixed === 1))).toHaveLength(2);
  expect(tables.get('members')!.columns[4]).toEqual({ head: 'length', unit: 'm' });
  expect(rows('members').map((row) => [row[1], row[4]])).toEqual([
    ['c1', 3],
    ['c2', 3],
    ['b1', 6],
  ]);
  expect(rows('member loads').map((row) => [row[0], ...row.slice(2)])).toEqual([
    ['Q', 0, 6, 0, 0, -10000, 0, 0, -10000],
  ]);
  expect(rows('combinations')).toEqual([['U', 1.5]]);
  // Half of 60 kN on either foot; by half more under the combination.
  const upward = rows('reactions').map(([id, , , , z]) => [id, Math.round(Number(z))]);
  expect(upward).toEqual([
    ['Q', 30000],
    ['Q', 30000],
    ['U', 45000],
    ['U', 45000],
  ]);
  // The shear at the ends of the beam is what it brings to them.
  const shear = rows('inner forces').find(([member, force]) => member === 'M3' && force === 'vz')!;
  expect([Math.abs(Number(shear[3])), Math.abs(Number(shear[6]))]).toEqual(
    [45000, 45000].map((value) => expect.closeTo(value, 3)),
  );
  expect([shear[4], shear[7]]).toEqual(['U', 'U']);
});

test('what is found and what is taken for granted is told; a model without anything gives no table that is empty', () => {
  const tables = tablesOf(portal());
  expect(tables.every(({ columns, rows }) => rows.every((row) => row.length === columns.length))).toBe(true);
  expect(tables.map(({ name }) => name)).toContain('taken for granted');
  const { columns, beams, loads, ...rest } = portal();
  expect([columns.length, beams.length, loads?.length]).toEqual([2, 1, 1]);
  const bare = tablesOf({ ...rest, columns: [], beams: [], loads: [] });
  expect(bare.map(({ name }) => name)).not.toContain('members');
  expect(bare.every(({ rows }) => rows.length > 0)).toBe(true);
});
