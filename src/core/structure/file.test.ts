import { structureFile } from './file';
import { beamAt, columnAt, modelOf, table } from './testing/models';
import { tryStructure } from './trial';

const loads = [{ id: 'A', case: 'Q', kind: 'area', slab: 'S1', q: -3000 }];
const cases = [
  { id: 'G', name: 'Permanent', selfWeight: 1 },
  { id: 'Q', name: 'Imposed', selfWeight: 0 },
];

test('the file has every node, member and case, and survives being written and read', () => {
  const file = structureFile(tryStructure(modelOf({ ...table, loadCases: cases, loads })));
  expect(JSON.parse(JSON.stringify(file))).toEqual(file);
  expect(file.nodes).toHaveLength(8);
  expect(file.nodes.filter(({ fixed }) => fixed.join() === 'x,y,z,rz')).toHaveLength(4);
  expect(file.members.map(({ element }) => element).sort()).toEqual(['B1', 'B2', 'B3', 'B4', 'C1', 'C2', 'C3', 'C4']);
  expect(file.results.map((result) => result.case)).toEqual(['G', 'Q']);
  const [, q] = file.results;
  expect(q.reactions[2]).toBeCloseTo(72000, 6);
  expect(q.displacements).toHaveLength(8);
  const b1 = file.members.find(({ element }) => element === 'B1')!;
  const inner = q.members.find(({ member }) => member === b1.id)!;
  expect([inner.stations[0], inner.stations[5], inner.stations[10]]).toEqual([0, 0.5, 1]);
  expect(inner.my[5]).toBeCloseTo(23000, 0);
  // Vz is the slope of My: at a tenth of 6 m about 12 kN less what lies on 0.6 m of a triangle.
  expect(inner.vz[0]).toBeCloseTo(12000, 1);
  expect(inner.vz[1]).toBeCloseTo(12000 - (0.6 * 1800) / 2, 1);
  expect(file.envelope).toBeUndefined();
});

test('combinations that are said follow the cases, with the envelope over them', () => {
  const combinations = [
    { id: 'U', factors: { G: 1.35, Q: 1.5 } },
    { id: 'L', factors: { G: 1 } },
  ];
  const file = structureFile(tryStructure(modelOf({ ...table, loadCases: cases, loads, combinations })));
  expect(file.results.map((result) => result.case)).toEqual(['G', 'Q', 'U', 'L']);
  const [g, q, u] = file.results;
  expect(u.applied[2]).toBeCloseTo(1.35 * g.applied[2] + 1.5 * q.applied[2], 6);
  const b1 = file.members.findIndex(({ element }) => element === 'B1');
  const { least, greatest } = file.envelope![b1];
  expect(greatest.my[5]).toBeCloseTo(1.35 * g.members[b1].my[5] + 1.5 * q.members[b1].my[5], 6);
  expect(least.my[5]).toBeCloseTo(g.members[b1].my[5], 6);
});

test('what a driven mechanism moves is left out, what stands keeps its results', () => {
  const model = modelOf({
    columns: [columnAt('C1', [0, 0]), columnAt('C2', [6, 0])],
    beams: [beamAt('B1', [0, 0, 4], [6, 0, 4]), beamAt('Loose', [20, 0, 4], [24, 0, 4])],
  });
  const file = structureFile(tryStructure(model));
  const loose = file.members.find(({ element }) => element === 'Loose')!;
  const [g] = file.results;
  expect(g.members.some(({ member }) => member === loose.id)).toBe(false);
  expect(g.members).toHaveLength(3);
  expect(g.displacements.some(({ node }) => node === loose.start)).toBe(false);
  expect(file.findings.some(({ rule, elements }) => rule === 'mechanism' && elements.includes('Loose'))).toBe(true);
});
