import { block, dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { digest } from './digest';
import { intakeCsv } from './intakeCsv';
import type { IntakeFile } from './writeIntake';

const intakeOf = (parts: Parameters<typeof dxf>[0]): IntakeFile =>
  digest('plan.dxf', 'abc', readText(dxf(parts)), {
    entities: 1e6,
    lineBytes: 1e6,
    groupsOfEntity: 1e6,
    primitives: 1e6,
    expansion: 1e6,
    nesting: 32,
    warnings: 20,
  }).intake;
const insert = (name: string, x: number) => groups([0, 'INSERT'], [8, 'F'], [2, name], [10, x], [20, 0]);

test('entities are counted where they are defined, primitives where they are drawn', () => {
  const intake = intakeOf({
    blocks:
      block('CHAIR', line(0, 0, 1, 0) + line(0, 0, 0, 1)) + block('EMPTY', '') + block('UNUSED', line(0, 0, 1, 1)),
    entities: insert('CHAIR', 0) + insert('CHAIR', 5) + insert('CHAIR', 9) + insert('EMPTY', 1) + line(0, 0, 9, 9, 'W'),
  });
  expect(intake.account).toEqual([
    { kind: 'INSERT', layer: 'F', block: null, entities: 3, primitives: 0, reason: null, remedy: null },
    {
      kind: 'INSERT',
      layer: 'F',
      block: null,
      entities: 1,
      primitives: 0,
      reason: 'Its block is empty.',
      remedy: expect.any(String),
    },
    { kind: 'LINE', layer: 'W', block: null, entities: 1, primitives: 1, reason: null, remedy: null },
    { kind: 'LINE', layer: '0', block: 'CHAIR', entities: 2, primitives: 6, reason: null, remedy: null },
    { kind: 'LINE', layer: '0', block: 'UNUSED', entities: 1, primitives: 0, reason: null, remedy: null },
  ]);
  expect(intake.blocks).toEqual([
    { name: 'CHAIR', entities: 2, inserted: 3, primitives: 6, kinds: { LINE: 2 }, reference: null },
    { name: 'EMPTY', entities: 0, inserted: 1, primitives: 0, kinds: {}, reference: null },
    { name: 'UNUSED', entities: 1, inserted: 0, primitives: 0, kinds: { LINE: 1 }, reference: null },
  ]);
  // Layer 0 inside a block is drawn on the layer of its insert.
  expect(Object.fromEntries(intake.layers.map((layer) => [layer.name, [layer.entities, layer.primitives]]))).toEqual({
    0: [3, 0],
    F: [4, 6],
    W: [1, 1],
  });
  expect(intake.leftOut).toEqual([
    { kind: 'INSERT', count: 1, reason: 'Its block is empty.', remedy: expect.any(String) },
  ]);
});

test('a stray is told with its place and distance, and the overview shows where the content lies', () => {
  const plan = Array.from({ length: 40 }, (_, i) => line(i, 0, i, 20)).join('') + line(0, 0, 39, 0);
  const intake = intakeOf({ entities: plan + groups([0, 'POINT'], [8, '0'], [10, 1039], [20, 0]) });
  expect(intake.strays).toEqual([
    {
      box: [
        [1039, 0],
        [1039, 0],
      ],
      away: 1000,
    },
  ]);
  expect(intake.extents).toEqual({
    all: [
      [0, 0],
      [1039, 20],
    ],
    main: [
      [0, 0],
      [39, 20],
    ],
  });
  const { columns, rows, counts } = intake.overview!;
  expect([columns, rows, counts.length]).toEqual([56, 2, 112]);
  // The plan is 39 of 1039 wide, a little more than two of 56 cells; the dot has the last one.
  expect(counts.slice(0, 3).every((n) => n > 0)).toBe(true);
  expect(counts.slice(3, 55).every((n) => n === 0)).toBe(true);
  expect(counts[55]).toBe(1);
});

test('header facts are told as the file has them', () => {
  const header = groups(
    [9, '$INSUNITS'],
    [70, 4],
    [9, '$MEASUREMENT'],
    [70, 1],
    [9, '$LUNITS'],
    [70, 2],
    [9, '$DIMLFAC'],
    [40, 10],
    [9, '$INSBASE'],
    [10, 5],
    [20, 6],
    [9, '$EXTMIN'],
    [10, -1],
    [20, -2],
    [9, '$EXTMAX'],
    [10, 3],
    [20, 4],
  );
  expect(intakeOf({ header, entities: line(0, 0, 1, 1) }).header).toEqual({
    insUnits: 4,
    measurement: 1,
    lengthFormat: 2,
    dimensionFactor: 10,
    insertionBase: [5, 6],
    extents: [
      [-1, -2],
      [3, 4],
    ],
  });
});

test('the table is plain CSV: quoted where it must be, and no cell is a formula', () => {
  const rows = intakeCsv(
    intakeOf({
      entities: line(0, 0, 1, 1, '=HYPERLINK("x")') + line(0, 0, 1, 1, 'a,b "c"') + groups([0, '3DSOLID'], [8, '-2+3']),
    }),
  ).split('\r\n');
  expect(rows[0]).toBe('what,kind,layer,block,entities,primitives,reason,remedy');
  expect(rows).toContain('read,LINE,"\'=HYPERLINK(""x"")",(model space),1,1,,');
  expect(rows).toContain('read,LINE,"a,b ""c""",(model space),1,1,,');
  expect(rows.find((row) => row.startsWith('left out'))).toBe(
    'left out,3DSOLID,\'-2+3,(model space),1,0,"It is a solid or surface model, not lines.",Ask for a 2D export of this view.',
  );
});
