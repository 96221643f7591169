import { innerAt } from '../solve/solve';
import { beamAt, columnAt, deep, modelOf, table } from '../testing/models';
import { tryStructure, type StructureTrial } from '../trial';
import { propertiesOf } from '../section/properties';

const g = 9.80665;
const caseOf = ({ solution }: StructureTrial, id: string) => solution.cases.find((one) => one.id === id)!;
/** The members of an element, from its start to its end. */
const membersOf = ({ structure }: StructureTrial, element: string): number[] =>
  structure.frame.members.flatMap((member, m) => (member.element === element ? [m] : []));
const uprightAt = (trial: StructureTrial, id: string, [x, y]: [number, number]): number => {
  const { nodes } = trial.structure.frame;
  const found = caseOf(trial, id).supports.find(
    ({ node }) => Math.hypot(nodes[node].position[0] - x, nodes[node].position[1] - y) < 0.01,
  );
  return found!.value[2];
};
const balanced = (trial: StructureTrial): void => {
  for (const { applied, reactions } of trial.solution.cases)
    applied.forEach((value, i) =>
      expect(Math.abs(value + reactions[i])).toBeLessThanOrEqual(1e-6 * Math.hypot(...applied) + 1e-6),
    );
};

test('a table: 3 kN/m2 on 24 m2, 18 kN a column; triangles of 4 m2 and trapezoids of 8 m2 on its beams', () => {
  const loads = [{ id: 'A', case: 'Q', kind: 'area', slab: 'S1', q: -3000 }];
  const trial = tryStructure(modelOf({ ...table, loadCases: [{ id: 'Q', name: 'Imposed', selfWeight: 0 }], loads }));
  balanced(trial);
  const q = caseOf(trial, 'Q');
  expect(q.applied).toEqual([0, 0, expect.closeTo(-72000, 6)]);
  for (const at of [
    [0, 0],
    [6, 0],
    [6, 4],
    [0, 4],
  ] as [number, number][])
    expect(uprightAt(trial, 'Q', at)).toBeCloseTo(18000, 3);
  // A trapezoid of 6 kN/m over 6 m with slopes of 2 m: w (3 L2 - 4 a2) / 24 = 23 kNm; a triangle: w L2 / 12 = 8 kNm.
  const frame = trial.structure.frame;
  const [long] = membersOf(trial, 'B1');
  expect(innerAt(frame, q, long, 0.5)[4]).toBeCloseTo(23000, 0);
  expect(innerAt(frame, q, long, 0)[2]).toBeCloseTo(12000, 1);
  const [short] = membersOf(trial, 'B2');
  expect(innerAt(frame, q, short, 0.5)[4]).toBeCloseTo(8000, 0);
  // Hinged beams on pinned columns sway both ways, and nothing pushes them.
  expect(
    trial.findings.map(({ rule, severity, message }) => [rule, severity, /can move along [xy] freely/.test(message)]),
  ).toEqual([
    ['mechanism', 'error', true],
    ['mechanism', 'error', true],
  ]);
  expect(trial.assumed.join(' ')).toMatch(/columns on the lowest level are pinned.*\(4 times\)/);
});

test('the same by outline on the level, and by the direction of span: all on the long beams, w L2 / 8', () => {
  const spanning = { ...table, slabs: [{ ...table.slabs[0], span: 90 }] };
  const loads = [{ case: 'Q', kind: 'area', level: 'L2', outline: table.slabs[0].outline, q: -3000 }];
  const trial = tryStructure(modelOf({ ...spanning, loads }));
  balanced(trial);
  const q = caseOf(trial, 'Q');
  const { frame } = trial.structure;
  expect(innerAt(frame, q, membersOf(trial, 'B1')[0], 0.5)[4]).toBeCloseTo((6000 * 36) / 8, 1);
  expect(innerAt(frame, q, membersOf(trial, 'B2')[0], 0.5)[4]).toBeCloseTo(0, 3);
});

test('self-weight by density and volume: columns, beams and slab of the table', () => {
  const trial = tryStructure(modelOf(table));
  balanced(trial);
  const volume = 4 * 0.16 * 4 + 0.18 * 20 + 24 * 0.2;
  expect(caseOf(trial, 'G').applied[2]).toBeCloseTo(-volume * 2500 * g, 3);
  expect(trial.assumed.join(' ')).toMatch(/No material was chosen for 4 columns: concrete, 2500 kg\/m3, E 33 GPa/);
});

test('a slab that reaches beyond its beam turns it: 1 m of 2 kN/m2 is 1 kNm/m', () => {
  // One wide beam from column to column; the slab lies on it with 1 m to one side only.
  const model = modelOf({
    columns: [columnAt('C1', [0, 0]), columnAt('C2', [6, 0])],
    beams: [beamAt('B1', [0, 0, 4], [6, 0, 4])],
    slabs: [
      {
        id: 'S1',
        level: 'L2',
        outline: [
          [0, 0],
          [6, 0],
          [6, 1],
          [0, 1],
        ],
        holes: [],
        thickness: 0.2,
        diaphragm: false,
      },
    ],
    supports: ['C1', 'C2'].map((id, i) => ({ id, position: [6 * i, 0, 0], fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'] })),
    loadCases: [{ id: 'Q', selfWeight: 0 }],
    loads: [{ kind: 'area', slab: 'S1', q: -2000 }],
  });
  const trial = tryStructure(model);
  balanced(trial);
  const { supports } = caseOf(trial, 'Q');
  // 12 kN at 0.5 m: 6 kNm about x in all, taken by the feet; down at +y turns about -x, which they hold.
  expect(supports.reduce((sum, { value }) => sum + value[3], 0)).toBeCloseTo(6000, 3);
});

test('a cantilever of an angle bends aside, and its axis runs through its centroid', () => {
  const outline = [
    [0, 0],
    [0.1, 0],
    [0.1, 0.01],
    [0.01, 0.01],
    [0.01, 0.2],
    [0, 0.2],
  ];
  const section = { shape: 'polygon', outline };
  const model = modelOf({
    columns: [columnAt('C1', [0, 0], { section, rotation: 0 })],
    supports: [{ id: 'P', position: [0.02, 0.07, 0], fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'] }],
    loadCases: [{ id: 'Q', selfWeight: 0 }],
    loads: [{ kind: 'point', position: [0.02, 0.07, 4], force: [0, 100, 0] }],
    materials: [{ id: 'M', kind: 'steel', density: 7850, youngsModulus: 210e9, poissonsRatio: 0.3 }],
  });
  const steel = { ...model, columns: model.columns.map((column) => ({ ...column, material: 'M' })) };
  const trial = tryStructure(steel);
  const { iy, iz, iyz, centroid } = propertiesOf({ shape: 'polygon', outline: outline as [number, number][] });
  const top = trial.structure.frame.nodes.findIndex(({ position }) => position[2] === 4);
  expect(trial.structure.frame.nodes[top].position).toEqual([
    expect.closeTo(centroid[0], 12),
    expect.closeTo(centroid[1], 12),
    4,
  ]);
  // Depth lies along y of the project, width along x. The moment of the load's shift from the centroid only twists.
  const [dx, dy] = caseOf(trial, 'Q').displacements.slice(6 * top, 6 * top + 2);
  const unit = (100 * 64) / (3 * 210e9 * (iy * iz - iyz * iyz));
  expect(dy).toBeCloseTo(unit * iz, 9);
  expect(dx).toBeCloseTo(-unit * iyz, 9);
});

test('a beam that ends at the face of a column is joined by an arm; one that misses a beam is told with its distance', () => {
  const model = modelOf({
    columns: [columnAt('C1', [0, 0]), columnAt('C2', [6, 0])],
    beams: [beamAt('B1', [0.2, 0, 4], [5.8, 0, 4]), beamAt('B2', [3, 0.08, 4], [3, 3, 4])],
    loadCases: [{ id: 'Q', selfWeight: 0 }],
    loads: [{ kind: 'member', element: 'B1', q: [0, 0, -1e4] }],
  });
  const trial = tryStructure(model);
  expect(trial.assumed.join(' ')).toMatch(/2 ends lie in a column/);
  const miss = trial.findings.find(({ rule }) => rule === 'near miss')!;
  expect(miss.message).toMatch(/80 mm/);
  expect(miss.elements).toEqual(['B1', 'B2']);
  // What hangs on nothing falls, and what stands keeps its results: 28 kN a column.
  expect(trial.findings.some(({ rule, elements }) => rule === 'mechanism' && elements.includes('B2'))).toBe(true);
  expect(uprightAt(trial, 'Q', [0, 0])).toBeCloseTo(28000, 3);
});

test('beams that cross share a node, and a column that stands on another goes on', () => {
  const model = modelOf({
    columns: [columnAt('C1', [0, 0]), columnAt('D1', [0.1, 0], { level: 'L2' })],
    beams: [beamAt('B1', [-3, 0, 8], [3, 0, 8]), beamAt('B2', [0, -3, 8], [0, 3, 8])],
    loadCases: [{ id: 'Q', selfWeight: 0 }],
    loads: [{ kind: 'point', position: [0, 0, 8], force: [0, 0, -5000] }],
    supports: [{ id: 'P', position: [0, 0, 0], fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'] }],
  });
  const trial = tryStructure(model);
  balanced(trial);
  // The upper column stands 100 mm aside in the lower one's outline and meets B1 there; the load comes back: no moment.
  expect([membersOf(trial, 'B1').length, membersOf(trial, 'B2').length]).toEqual([3, 2]);
  expect(caseOf(trial, 'Q').supports[0].value).toEqual([0, 0, 5000, 0, 0, 0].map((v) => expect.closeTo(v, 3)));
});

test('loads on lines and points go to the nearest member with the moment of their shift', () => {
  const model = modelOf({
    ...table,
    slabs: [],
    loadCases: [
      { id: 'P', selfWeight: 0 },
      { id: 'L', selfWeight: 0 },
    ],
    supports: table.columns.map(({ id, position }) => ({
      id,
      position: [...position, 0],
      fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'],
    })),
    loads: [
      { case: 'P', kind: 'point', position: [3, 0.5, 4.2], force: [0, 0, -8000], moment: [0, 0, 0] },
      { case: 'L', kind: 'line', start: [1, 0, 4], end: [4, 0, 4], q: [0, 0, -2000] },
    ],
  });
  const trial = tryStructure(model);
  balanced(trial);
  const { frame } = trial.structure;
  const [b1] = membersOf(trial, 'B1');
  const p = caseOf(trial, 'P');
  // P L / 4 with both ends hinged; turned by 8 kN times 0.5 m, half at each end.
  expect(innerAt(frame, p, b1, 0.5)[4]).toBeCloseTo(12000, 3);
  expect(Math.abs(innerAt(frame, p, b1, 0)[3])).toBeCloseTo(2000, 3);
  // 6 kN from 1 to 4 m: left 6 (6 - 2.5) / 6 = 3.5 kN; greatest moment at 1 + 3.5 / 2 m.
  const l = caseOf(trial, 'L');
  expect(innerAt(frame, l, b1, 0)[2]).toBeCloseTo(3500, 3);
  expect(innerAt(frame, l, b1, 2.75 / 6)[4]).toBeCloseTo(3500 * 2.75 - (2000 * 1.75 ** 2) / 2, 3);
});

test('a wall that carries stands on its foot against turning in its plane, at any angle', () => {
  const [c, s] = [Math.cos(0.3), Math.sin(0.3)];
  const model = modelOf({
    walls: [
      { id: 'W', level: 'L1', start: [0, 0], end: [5 * c, 5 * s], thickness: 0.2, height: 4, bulge: 0, bearing: true },
    ],
    loadCases: [{ id: 'H', selfWeight: 0 }],
    loads: [{ kind: 'point', position: [2.5 * c, 2.5 * s, 4], force: [1e5 * c, 1e5 * s, 0] }],
  });
  const trial = tryStructure(model);
  balanced(trial);
  const top = trial.structure.frame.nodes.findIndex(({ position }) => position[2] === 4);
  const [dx, dy] = caseOf(trial, 'H').displacements.slice(6 * top, 6 * top + 2);
  // H h3 / 3 E I with I = t l3 / 12, along the wall.
  const along = (1e5 * 64) / (3 * 33e9 * ((0.2 * 125) / 12));
  expect([dx, dy]).toEqual([expect.closeTo(along * c, 10), expect.closeTo(along * s, 10)]);
  // Across, nothing but its foot's line holds it: it can tip over.
  expect(trial.findings.map(({ rule, message }) => [rule, /No load drives it/.test(message)])).toEqual([
    ['mechanism', true],
  ]);
});

test('walls that carry nothing weigh on what lies beneath, without their openings', () => {
  const model = modelOf({
    ...table,
    walls: [{ id: 'W', level: 'L2', start: [0, 0], end: [6, 0], thickness: 0.1, height: 3, bulge: 0 }],
    openings: [{ id: 'O', wall: 'W', kind: 'door', offset: 1, width: 1, height: 2, sill: 0 }],
  });
  const [bare, loaded] = [tryStructure(modelOf(table)), tryStructure(model)].map(
    (trial) => caseOf(trial, 'G').applied[2],
  );
  expect(bare - loaded).toBeCloseTo((18 - 2) * 0.1 * 1800 * g, 3);
});

test('what nothing takes is told in newtons, a member without a section is left out, and no number is wild', () => {
  const model = modelOf({
    ...table,
    beams: [
      ...table.beams,
      beamAt('Z', [0, 0, 4], [6, 4, 4], { section: { ...deep, width: 0 } }),
      beamAt('Y', [1, 1, 1], [1, 1, 1]),
    ],
    loads: [
      { case: 'Q', kind: 'point', position: [100, 100, 4], force: [0, 0, -7500], moment: [0, 0, 0] },
      { case: 'Q', kind: 'member', element: 'nobody', q: [0, 0, -1] },
      { case: 'Q', kind: 'area', slab: 'nowhere', q: -1000 },
    ],
  });
  const { findings, solution } = tryStructure(model);
  const told = (rule: string) => findings.filter((finding) => finding.rule === rule).map(({ message }) => message);
  expect(told('load path').join(' ')).toMatch(/7\.50 kN of a point load.*|.*"nobody".*|.*"nowhere"/);
  expect(told('load path')).toHaveLength(3);
  expect([told('no section').length, told('zero length').length]).toEqual([1, 1]);
  for (const one of solution.cases) for (const value of one.displacements) expect(Number.isFinite(value)).toBe(true);
});

test.each([
  ['an empty model', {}],
  ['one column alone', { columns: [columnAt('C', [0, 0])] }],
  ['beams without supports', { beams: [beamAt('B1', [0, 0, 4], [6, 0, 4]), beamAt('B2', [6, 0, 4], [6, 4, 4])] }],
  [
    'coordinates of 1e9',
    { columns: [columnAt('C', [1e9, 1e9])], beams: [beamAt('B', [1e9, 1e9, 4], [1e9 + 6, 1e9, 4])] },
  ],
  [
    'levels at one height',
    {
      levels: [
        { id: 'L1', name: 'A', elevation: 0, height: 0 },
        { id: 'L2', name: 'B', elevation: 0, height: 0 },
      ],
      ...table,
    },
  ],
  [
    'a load on nothing',
    {
      loads: [
        {
          case: 'Q',
          kind: 'area',
          level: 'L2',
          outline: [
            [0, 0],
            [1, 0],
            [1, 1],
          ],
          q: -1000,
        },
      ],
    },
  ],
])('%s is a result or a sentence', (_, parts) => {
  const { solution, findings } = tryStructure(modelOf(parts));
  for (const { displacements, applied, reactions } of solution.cases)
    for (const value of [...displacements, ...applied, ...reactions]) expect(Number.isFinite(value)).toBe(true);
  expect(findings.every(({ message }) => message.length > 20)).toBe(true);
});
