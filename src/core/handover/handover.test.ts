import { columnOutline } from '@/core/kinds/column';
import type { ElementRow } from '@/core/kinds/element';
import { outlinesOf } from '@/core/kinds/kinds';
import { readFileSync } from 'node:fs';
import Ajv from 'ajv';
import DxfParser from 'dxf-parser';
import * as v from 'valibot';
import { asDrawn, place, type Placement } from '@/core/datum/placement';
import { readDxf } from '@/core/drawing/reader';
import { plainLevel } from '@/core/model/levels';
import type { LibraryRow } from '@/core/model/library';
import { flatten } from '@/core/underlay/flatten';
import { modelJsonSchema } from '@/cli/schema';
import { writeElementsDxf } from './dxf/writeElements';
import { modelSchema } from './model/schema';
import { resolveBuilding } from '@/core/resolved/resolve';
import { writeModel } from './model/writeModel';

const source = { drawing: 'd1', handles: ['2F'] };
const elements: ElementRow[] = [
  { id: 'g1', levelId: null, source, kind: 'grid', shape: { label: 'A', kind: 'line', start: [0, 0], end: [0, 20] } },
  {
    id: 'g2',
    levelId: null,
    source,
    kind: 'grid',
    shape: { label: 'R\u00fc', kind: 'arc', centre: [1, 2], radius: 9, startAngle: 10, endAngle: 90 },
  },
  {
    id: 'c1',
    levelId: 'L1',
    source,
    kind: 'column',
    shape: { position: [3, 4], rotation: 17, section: { shape: 'rectangle', width: 0.25, depth: 0.6 }, mark: '' },
  },
  {
    id: 'c2',
    levelId: 'L1',
    source: null,
    kind: 'column',
    shape: { position: [6, 4], rotation: 0, section: { shape: 'circle', diameter: 0.45 }, mark: 'C2' },
  },
];
const levels = [{ ...plainLevel, id: 'L1', name: 'Ground', elevation: 0, height: 3.9 }];

test('a beam drawn on its left side lies to the right of its line, and below the storey\u2019s top by its drop', () => {
  const shape = {
    start: [0, 0] as [number, number],
    end: [6, 0] as [number, number],
    section: { shape: 'rectangle' as const, width: 0.3, depth: 0.6 },
    mark: 'B1',
    drop: 0.2,
    justification: 'left' as const,
  };
  expect(
    outlinesOf({ kind: 'beam', shape })[0]
      .map(([, y]) => Number(y.toFixed(9)))
      .sort((a, b) => a - b),
  ).toEqual([-0.3, -0.3, 0, 0]);
  const { beams } = writeModel({
    building: resolveBuilding({ levels, elements: [{ id: 'b', levelId: 'L1', source: null, kind: 'beam', shape }] }),
    drawingName: (id) => id,
  });
  expect(beams[0]).toMatchObject({ start: [0, 0, 3.7], end: [6, 0, 3.7], justification: 'left' });
});

test('the library goes with the model, and elements name what they are made of', () => {
  const library: LibraryRow[] = [
    { id: 's1', name: 'D450', kind: 'section', section: { shape: 'circle', diameter: 0.45 } },
    {
      id: 'w1',
      name: 'Outer',
      kind: 'wall',
      thickness: 0.3,
      layers: [
        { name: 'Concrete', thickness: 0.2, conductivity: 2 },
        { name: 'Mineral wool', thickness: 0.1, conductivity: 0.035 },
      ],
    },
  ];
  const made: ElementRow[] = [
    { ...elements[3], libraryId: 's1' },
    {
      id: 'w',
      levelId: 'L1',
      source: null,
      libraryId: 'w1',
      kind: 'wall',
      shape: { start: [0, 0], end: [5, 0], thickness: 0.3, height: null, bulge: 0, outer: true },
    },
  ];
  const model = writeModel({ building: resolveBuilding({ levels, elements: made }), library, drawingName: (id) => id });
  expect(v.safeParse(modelSchema, model).success).toBe(true);
  expect(model.sections).toEqual([{ id: 's1', name: 'D450', section: { shape: 'circle', diameter: 0.45 } }]);
  expect(model.constructions).toEqual([
    expect.objectContaining({ id: 'w1', thickness: 0.3, uValue: Number((1 / 3.127142857142857).toFixed(9)) }),
  ]);
  expect([model.columns[0].sectionId, model.walls[0].construction]).toEqual(['s1', 'w1']);
  expect(
    writeModel({ building: resolveBuilding({ levels, elements }), drawingName: (id) => id }).sections,
  ).toBeUndefined();
});

/** Survey coordinates, turned, in feet: what hurts. */
const placements: [string, Placement][] = [
  ['millimetres as drawn', asDrawn('mm')],
  [
    'survey coordinates in metres, turned',
    { ...asDrawn('m'), origin: [4500123.25, 5400456.5], target: [10, 20], turning: 0.3 },
  ],
  [
    'mirrored, at a paper scale',
    { ...asDrawn('mm', 100), origin: [12, 7], target: [3, 4], turning: 0.7, mirrored: true },
  ],
  ['feet about a zero of its own', { ...asDrawn('ft'), origin: [1200, -30], target: [0, 0], turning: -1.2 }],
];

test.each(placements)('the DXF overlays its drawing exactly: %s', (_, placement) => {
  const text = writeElementsDxf(elements, placement);
  const result = readDxf(new TextEncoder().encode(text));
  if (!result.ok) throw new Error(result.message);
  const { drawing, account } = result.value;
  expect(account.leftOut).toEqual([]);
  expect(account.warnings).toEqual([]);
  const p = flatten(drawing);
  const onLayer = (name: string) =>
    [...p.layer.keys()]
      .filter((i) => drawing.layers[p.layer[i]].name === name)
      .map((i) =>
        Array.from({ length: p.start[i + 1] - p.start[i] }, (__, k) =>
          place(placement, [p.xy[2 * (p.start[i] + k)] + p.origin[0], p.xy[2 * (p.start[i] + k) + 1] + p.origin[1]]),
        ),
      );
  const expectNear = (
    found: readonly (readonly [number, number])[],
    expected: readonly (readonly [number, number])[],
  ) =>
    found.forEach(([x, y], i) => {
      expect(Math.hypot(x - expected[i][0], y - expected[i][1])).toBeLessThan(
        1e-8 * Math.max(1, Math.hypot(...placement.origin) / 1e3),
      );
    });
  const [line, arc] = onLayer('ZF-GRID');
  expectNear(line, [
    [0, 0],
    [0, 20],
  ]);
  // A mirrored drawing has the arc the other way round.
  expectNear(placement.mirrored ? [arc[arc.length - 1], arc[0]] : [arc[0], arc[arc.length - 1]], [
    [1 + 9 * Math.cos(Math.PI / 18), 2 + 9 * Math.sin(Math.PI / 18)],
    [1, 11],
  ]);
  const [outline, circle] = onLayer('ZF-COLUMN');
  if (elements[2].kind === 'column') expectNear(outline, columnOutline(elements[2].shape));
  expect(Math.hypot(circle[0][0] - circle[1][0], circle[0][1] - circle[1][1])).toBeCloseTo(0.45, 6);
});

test('a public parser reads the same DXF: kinds, layers, header unit', () => {
  const parsed = new DxfParser().parseSync(writeElementsDxf(elements, placements[0][1]))!;
  const count = (type: string) => parsed.entities.filter((entity) => entity.type === type).length;
  expect([count('LINE'), count('ARC'), count('LWPOLYLINE'), count('TEXT')]).toEqual([1, 1, 1, 5]);
  expect(parsed.header.$INSUNITS).toBe(4);
  expect(Object.keys(parsed.tables.layer.layers)).toEqual([
    '0',
    'ZF-GRID',
    'ZF-GRID-LABEL',
    'ZF-COLUMN',
    'ZF-COLUMN-LABEL',
  ]);
});

test('model.json is as its schema says, for the program and for any JSON Schema reader', () => {
  const model = JSON.parse(
    JSON.stringify(writeModel({ building: resolveBuilding({ levels, elements }), drawingName: () => 'plan.dxf' })),
  );
  expect(v.is(modelSchema, model)).toBe(true);
  const validate = new Ajv({ strict: false }).compile(JSON.parse(modelJsonSchema()));
  expect(validate(model)).toBe(true);
  expect(validate({ ...model, version: 2 })).toBe(false);
  expect(model.levels[0]).toEqual({
    id: 'L1',
    name: 'Ground',
    elevation: 0,
    height: 3.9,
    kind: 'floor',
    structuralTop: 0,
    slabThickness: 0,
  });
  expect(model.columns[0]).toEqual({
    id: 'c1',
    level: 'L1',
    position: [3, 4],
    rotation: 17,
    section: { shape: 'rectangle', width: 0.25, depth: 0.6 },
    mark: '',
    source: { drawing: 'plan.dxf', handles: ['2F'] },
  });
  expect(model.grids[1]).toMatchObject({
    label: 'R\u00fc',
    kind: 'arc',
    centre: [1, 2],
    radius: 9,
    startAngle: 10,
    endAngle: 90,
  });
});

test('a level that repeats another has its columns too, and the survey goes along in degrees', () => {
  const tower = [
    ...levels,
    { ...plainLevel, id: 'L2', name: 'Ground 2', elevation: 3.9, height: 3.9, buildUp: 0.1, slab: 0.25, repeats: 'L1' },
  ];
  const model = writeModel({
    building: resolveBuilding({ levels: tower, elements }),
    drawingName: () => 'plan.dxf',
    survey: { easting: 4501230.4, northing: 5402118.75, elevation: 3.2, north: Math.PI / 6 },
  });
  expect(model.columns.map(({ id, level }) => [id, level])).toEqual([
    ['c1', 'L1'],
    ['c2', 'L1'],
    ['c1@L2', 'L2'],
    ['c2@L2', 'L2'],
  ]);
  expect(model.levels[1]).toMatchObject({ structuralTop: 3.8, slabThickness: 0.25, repeats: 'L1' });
  expect(model.survey).toEqual({ easting: 4501230.4, northing: 5402118.75, elevation: 3.2, north: 30 });
  expect(v.is(modelSchema, model)).toBe(true);
});

test('what calculations start from goes out at its height, loads with their cases, an area with the zone it lies in', () => {
  const square: [number, number][] = [
    [0, 0],
    [4, 0],
    [4, 4],
    [0, 4],
  ];
  const on = { levelId: 'L1', source: null };
  const rows: ElementRow[] = [
    { ...on, id: 'z', kind: 'zone', shape: { name: 'Lab', number: '1', outline: square, holes: [], height: null } },
    { ...on, id: 'p', kind: 'support', shape: { position: [1, 2], rise: -0.5, fixed: ['x', 'z'] } },
    {
      ...on,
      id: 'l1',
      kind: 'pointLoad',
      shape: { case: 'Q', position: [1, 2], rise: 1, force: [0, 0, -5], moment: [0, 0, 0] },
    },
    { ...on, id: 'l2', kind: 'areaLoad', shape: { case: 'S', outline: square, holes: [], q: -800 } },
    {
      ...on,
      id: 'r',
      kind: 'roof',
      shape: { outline: square, eaves: 3, slope: 45, direction: 90, thickness: 0.2 },
    },
    {
      ...on,
      id: 'f',
      kind: 'luminaire',
      shape: { position: [2, 2], rise: 2.7, rotation: 90, tilt: 0, photometry: 'F1', output: 0.8 },
    },
    {
      ...on,
      id: 'a',
      kind: 'calculationArea',
      shape: { name: '', outline: square, holes: [], rise: 0.8, spacing: 0.5 },
    },
  ];
  const level = { ...levels[0], elevation: 10 };
  const building = resolveBuilding({ levels: [level], elements: rows });
  const model = writeModel({ building, drawingName: () => '' });
  expect(model.supports).toEqual([{ id: 'p', position: [1, 2, 9.5], fixed: ['x', 'z'] }]);
  expect(model.loads).toMatchObject([
    { kind: 'point', case: 'Q', position: [1, 2, 11], force: [0, 0, -5] },
    { kind: 'area', case: 'S', level: level.id, q: -800 },
  ]);
  expect(model.loadCases).toEqual([
    { id: 'G', name: 'Permanent', selfWeight: 1 },
    { id: 'Q', name: 'Imposed', selfWeight: 0 },
    { id: 'S', name: 'Snow', selfWeight: 0 },
  ]);
  // 4 m up a slope of 45 degrees.
  expect(model.roofs?.[0].outline.map(([, , z]) => z)).toEqual([13, 13, 17, 17]);
  expect(model.luminaires).toMatchObject([{ photometry: 'F1', position: [2, 2, 12.7], rotation: 90, output: 0.8 }]);
  expect(model.calculationAreas).toMatchObject([{ zone: 'z', z: 10.8, spacing: 0.5 }]);
  expect(v.is(modelSchema, model)).toBe(true);
});

test('the schema in the documents is the one the program checks with', () => {
  expect(readFileSync('docs/model.schema.json', 'utf8')).toBe(modelJsonSchema());
});
