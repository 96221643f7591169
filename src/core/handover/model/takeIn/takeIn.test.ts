import { randomUUID } from 'node:crypto';
import { siteOf } from './settings';
import type { ElementKind, ElementRow, Shapes } from '@/core/kinds/element';
import type { Point } from '@/core/geometry/vector';
import { plainLevel } from '@/core/model/levels';
import { plainSite } from '@/core/model/siteSettings';
import type { LevelRow, LibraryRow, TableName } from '@/core/model/state';
import { plainStructure } from '@/core/model/structureSettings';
import { resolveBuilding } from '@/core/resolved/resolve';
import { readModel, type ReadModel } from '../readModel';
import { writeModel, type HandoverInput } from '../writeModel';
import { takeIn } from './takeIn';
import { Ids, Told } from './ids';

const [ground, upper, third, roofLevel] = Array.from({ length: 4 }, () => randomUUID());
const levels: LevelRow[] = [
  { ...plainLevel, id: ground, name: 'Ground', elevation: 0, height: 3.6, kind: 'ground', buildUp: 0.12, slab: 0.25 },
  { ...plainLevel, id: upper, name: 'Upper', elevation: 3.6, height: 3.2, slab: 0.22 },
  { ...plainLevel, id: third, name: 'Third', elevation: 6.8, height: 3.2, slab: 0.22, repeats: upper },
  { ...plainLevel, id: roofLevel, name: 'Roof', elevation: 10, height: 3, kind: 'roof' },
];
const square: Point[] = [
  [0, 0],
  [8, 0],
  [8, 6],
  [0, 6],
];
const hole: Point[] = [
  [1, 1],
  [2, 1],
  [2, 2],
];
const [section, construction, pane] = [randomUUID(), randomUUID(), randomUUID()];
const library: LibraryRow[] = [
  { id: section, name: 'A 300x300', kind: 'section', section: { shape: 'rectangle', width: 0.3, depth: 0.3 } },
  {
    id: construction,
    name: 'B outer',
    kind: 'wall',
    thickness: 0.3,
    layers: [{ name: 'Concrete', thickness: 0.3, conductivity: 2.3, density: 2400, heatCapacity: 900 }],
  },
  { id: pane, name: 'C pane', kind: 'glazing', uValue: 0.9, gValue: 0.5, transmittance: 0.7 },
  { id: randomUUID(), name: 'panel', kind: 'photometry', ies: 'IESNA:LM-63-2002\n' },
];

const made = <K extends ElementKind>(
  kind: K,
  levelId: string | null,
  shape: Shapes[K],
  libraryId: string | null = null,
  id = randomUUID(),
): ElementRow => ({ id, levelId, source: null, libraryId, kind, shape }) as unknown as ElementRow;

const hollow = { shape: 'rectangle', width: 0.2, depth: 0.3, wall: 0.01 } as const;
const host = randomUUID();
const plainWall = { start: [0, 0], end: [8, 0], thickness: 0.3, height: null, bulge: 0, outer: true } as const;

const elements: ElementRow[] = [
  made('grid', null, { label: 'A', kind: 'line', start: [0, -1], end: [0, 9] }),
  made('grid', null, { label: 'R', kind: 'arc', centre: [1, 2], radius: 9, startAngle: 10, endAngle: 90 }),
  made('column', ground, { position: [1, 1], rotation: 15, section: { shape: 'circle', diameter: 0.4 }, mark: 'C1' }),
  made(
    'column',
    upper,
    {
      position: [2, 1],
      rotation: 0,
      section: { shape: 'rectangle', width: 0.3, depth: 0.3 },
      mark: 'C2',
      material: 'S355',
      ties: { base: { level: upper, offset: -0.4 }, top: { level: third, offset: 0 } },
    },
    section,
  ),
  made('beam', ground, {
    start: [0, 0],
    end: [8, 0],
    section: hollow,
    mark: 'B1',
    drop: 0.1,
    endDrop: 1.4,
    justification: 'left',
    use: 'brace',
    angle: 30,
    releases: { start: ['ry', 'rz'], end: [] },
  }),
  made('beam', upper, { start: [0, 6], end: [8, 6], section: hollow, mark: '' }),
  made('wall', ground, { ...plainWall, start: [0, 0], end: [8, 0], bearing: false }, construction, host),
  made('wall', ground, { ...plainWall, start: [8, 0], end: [8, 6], height: 2.1, bulge: 0.2, beyond: 'neighbour' }),
  made('wall', upper, { ...plainWall, start: [8, 6], end: [0, 6], ties: { base: { level: upper, offset: -0.2 } } }),
  made('wall', roofLevel, { ...plainWall, start: [0, 1], end: [8, 1], ties: { top: 'roof' } }),
  made(
    'opening',
    ground,
    { wall: host, use: 'window', offset: 1, width: 1.2, height: 1.4, sill: 0.9, shading: 0.5 },
    pane,
  ),
  made('opening', ground, { wall: host, use: 'door', offset: 5, width: 1, height: 2.1, sill: 0 }),
  made('slab', ground, {
    outline: square,
    holes: [hole],
    thickness: 0.25,
    span: 90,
    diaphragm: false,
    material: 'mine',
  }),
  made('slab', upper, { outline: square, holes: [], thickness: 0.22 }),
  made('zone', ground, {
    name: 'Mess',
    number: '0.1',
    outline: square,
    holes: [],
    height: null,
    use: 'C1',
    temperature: null,
    airChange: 0.5,
    gains: 4,
    neighbour: true,
    system: 'north',
    reflectances: { ceiling: 0.8, floor: 0.3 },
  }),
  made('zone', roofLevel, {
    name: 'Loft',
    number: '3',
    outline: square,
    holes: [],
    height: 2.5,
    ties: { top: 'roof' },
  }),
  made('outdoor', ground, { name: 'Yard', outline: hole, height: 0.1, use: 'apron', reflectance: 0.4, lux: 30 }),
  made('roof', roofLevel, { outline: square, eaves: 1, slope: 30, direction: 90, thickness: 0.3 }),
  made('support', ground, { position: [1, 1], rise: -0.5, fixed: ['x', 'y', 'z'] }),
  made('pointLoad', upper, { case: 'Q', position: [2, 2], rise: 0.3, force: [0, 0, -1000], moment: [5, 0, 0] }),
  made('lineLoad', ground, { case: 'W', start: [0, 0], end: [8, 0], rise: 3.2, q: [700, 0, 0] }),
  made('areaLoad', ground, { case: 'S', outline: square, holes: [hole], q: -800 }),
  made('luminaire', ground, { photometry: 'panel', position: [3, 3], rise: 3, rotation: 45, tilt: 10, output: 0.9 }),
  made('calculationArea', ground, { name: 'Desk', outline: square, holes: [], rise: 0.75, spacing: 0.4 }),
  made('contour', null, {
    points: [
      [0, 0],
      [9, 9],
    ],
    elevation: -0.6,
  }),
];

const input = (own: Pick<HandoverInput, 'structure' | 'site' | 'survey'>): HandoverInput => ({
  building: resolveBuilding({ levels, elements }),
  library,
  drawingName: (id) => id,
  ...own,
});
const settings = {
  survey: { easting: 4_000, northing: 5_000, elevation: 12, north: 0.2, system: 'Net 5' },
  structure: {
    ...plainStructure,
    materials: [
      {
        id: 'mine',
        name: 'Mine',
        kind: 'other' as const,
        density: 1500,
        youngsModulus: 9e9,
        poissonsRatio: 0.1,
        conductivity: 0.5,
      },
    ],
    combinations: [{ id: 'All', factors: { G: 1.35, Q: 1.5 } }],
  },
  site: { ...plainSite, winterTemperature: -14, maintenanceFactor: 0.7 },
};

/** Ids by the order in which they come: two models that differ only in theirs are one text. */
function withoutIds(model: unknown): string {
  const seen = new Map<string, string>();
  return JSON.stringify(model, null, 1).replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, (id) => {
    if (!seen.has(id)) seen.set(id, `id${seen.size}`);
    return seen.get(id)!;
  });
}

const read = (text: string): ReadModel => {
  const model = readModel(text);
  if (!model.ok) throw new Error(model.message);
  return model.value;
};
const taken = (model: ReadModel) => {
  const result = takeIn(model, randomUUID);
  if (!result.ok) throw new Error(result.message);
  return result.value;
};
const file = (own: object): ReadModel => read(JSON.stringify({ format: 'zircon-frame-model', version: 1, ...own }));

test('a model taken in again is the same model', () => {
  const before = writeModel(input(settings));
  const { project, changes, told } = taken(read(JSON.stringify(before)));
  const rows = <T extends TableName>(table: T) => changes.flatMap((one) => (one.table === table ? [one.row] : []));
  const after = writeModel({
    building: resolveBuilding({ levels: rows('level') as LevelRow[], elements: rows('element') as ElementRow[] }),
    library: rows('library') as LibraryRow[],
    drawingName: (id) => id,
    ...project,
  });
  expect(told).toEqual([]);
  expect(withoutIds(after)).toBe(withoutIds(before));
  // The storey that repeats another does so again: its elements are not twice.
  expect(rows('element')).toHaveLength(elements.length);
});

test('a short file by another hand takes what it leaves out as usual', () => {
  const { changes, told, project } = taken(
    file({
      levels: [{ id: 'L', name: 'Ground', elevation: 0, height: 3 }],
      beams: [
        { id: 'b', level: 'L', start: [0, 0, 2.5], end: [4, 0, 2.5], section: { shape: 'circle', diameter: 0.1 } },
      ],
      slabs: [{ id: 's', level: 'L', outline: square, thickness: 0.2, top: 1.5 }],
      loads: [
        { kind: 'member', element: 'b', q: [0, 0, -900] },
        { kind: 'area', slab: 's', q: -2000 },
        { kind: 'line', start: [0, 0, 1], end: [1, 0, 2], q: [0, 0, -1] },
      ],
      openings: [{ id: 'o', wall: 'none', kind: 'door', offset: 0, width: 1, height: 2 }],
    }),
  );
  const shapes = changes.flatMap((one) => (one.table === 'element' && one.row ? [one.row] : []));
  expect(shapes.map(({ kind }) => kind)).toEqual(['beam', 'slab', 'lineLoad', 'areaLoad']);
  expect(shapes[0].shape).toMatchObject({ drop: 0.5, mark: '' });
  expect(shapes[2].shape).toMatchObject({ rise: 2.5, case: 'G', end: [4, 0], q: [0, 0, -900] });
  expect(shapes[3].shape).toMatchObject({ outline: square, q: -2000 });
  expect(told).toEqual([
    'Doors and windows left out, for their walls are not in the file: o.',
    'Slabs that are not where their level has its floor were put there: s.',
    'Loads along lines that are not level were left out; draw them at Tracing: load 3.',
  ]);
  expect(project).toEqual({ survey: null, structure: null, site: null });
});

test.each([
  ['no level', {}, 'has no level'],
  [
    'an id given twice',
    {
      levels: [{ id: 'L', name: 'G', elevation: 0, height: 3 }],
      supports: ['s', 's'].map((id) => ({ id, position: [0, 0, 0], fixed: [] })),
    },
    'support "s"',
  ],
  [
    'a wall without a thickness',
    {
      levels: [{ id: 'L', name: 'G', elevation: 0, height: 3 }],
      walls: [{ id: 'w', level: 'L', start: [0, 0], end: [1, 0], thickness: 0, height: 3 }],
    },
    'wall, shape.thickness',
  ],
])('%s is said and nothing is made', (_, own, words) => {
  const result = takeIn(file(own), randomUUID);
  expect(result).toMatchObject({ ok: false, message: expect.stringContaining(words) as string });
});

test('thermal bridges of which some are said have none elsewhere', () => {
  const site = siteOf(file({ site: { bridges: { roof: 0.2 } } }), new Ids(randomUUID), new Told());
  expect(site?.bridges).toEqual({ roof: 0.2, between: 0, ground: 0, corner: 0, opening: 0 });
});

test('a repeating level on which somebody changed something in the file stands for itself: nothing is lost', () => {
  const before = writeModel(input(settings));
  const changed = before.walls.find(({ id }) => id.includes('@'))!;
  const walls = before.walls.map((one) => (one === changed ? { ...one, thickness: 0.24 } : one));
  const { changes, told } = taken(read(JSON.stringify({ ...before, walls })));
  expect(told).toEqual(['Levels that repeat another stand for themselves, for something on them differs: Third.']);
  const [repeating] = changes.filter((one) => one.table === 'level' && one.row?.name === 'Third');
  expect(repeating.row).toMatchObject({ repeats: null });
  const thin = changes.filter(
    (one) => one.table === 'element' && one.row?.kind === 'wall' && one.row.shape.thickness === 0.24,
  );
  expect(thin).toHaveLength(1);
  expect(changes.filter((one) => one.table === 'element').length).toBeGreaterThan(elements.length);
});

test('a wall with a foot of its own is as high above it as the file says', () => {
  const level = { id: 'L', name: 'Ground', elevation: 10, height: 3 };
  const wall = { id: 'w', level: 'L', start: [0, 0], end: [5, 0], thickness: 0.2, base: 11, height: 1.2 };
  const { changes } = taken(file({ levels: [level], walls: [wall] }));
  const rows = changes.flatMap(({ row }) => (row === null ? [] : [row]));
  const { walls } = resolveBuilding({
    levels: rows.filter((row): row is LevelRow => 'elevation' in row),
    elements: rows.filter((row): row is ElementRow => 'shape' in row && 'kind' in row),
  });
  expect([walls[0].base, walls[0].top]).toEqual([11, 12.2].map((z) => expect.closeTo(z, 9)));
});

test('settings that there are not here are left out, and those beyond their limits are said', () => {
  const level = { id: 'L', name: 'Ground', elevation: 0, height: 3 };
  const { project } = taken(file({ levels: [level], site: { latitude: 54, winterTemperature: -14 } }));
  expect(project.site).toEqual({ ...plainSite, winterTemperature: -14 });
  expect(takeIn(file({ levels: [level], site: { winterTemperature: -400 } }), randomUUID)).toMatchObject({
    ok: false,
    message: expect.stringContaining('settings, site.winterTemperature') as string,
  });
});
