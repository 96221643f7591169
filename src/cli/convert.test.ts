import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as v from 'valibot';
import { gridLines } from '../../demo/building';
import { dxf, line } from '@/core/drawing/testing/dxf';
import { groundFloor } from '../../demo/ground';
import { readDxf } from '@/core/drawing/reader';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import { modelSchema, type ModelFile } from '@/core/handover/model/schema';
import { convert } from './convert';

const folder = mkdtempSync(join(tmpdir(), 'zircon-convert-'));
const plan = groundFloor();
const file = join(folder, 'ground.dxf');
const said: string[] = [];

beforeAll(() => {
  writeFileSync(file, plan.dxf);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));
beforeEach(() => {
  said.length = 0;
  for (const stream of ['log', 'error'] as const)
    jest.spyOn(console, stream).mockImplementation((...text: unknown[]) => {
      said.push(text.join(' '));
    });
});
afterEach(() => jest.restoreAllMocks());

const json = <T>(...path: string[]): T => JSON.parse(readFileSync(join(folder, ...path), 'utf8')) as T;
const settings = (content: object) => {
  const path = join(folder, 'settings.json');
  writeFileSync(path, JSON.stringify(content));
  return path;
};

test('a drawing becomes model.json, intake.json and model.dxf with the numbers of the building', async () => {
  const code = await convert([
    file,
    '--out',
    join(folder, 'a'),
    '--settings',
    settings({ unit: 'mm', level: { name: 'Ground', elevation: 0.5, height: 3.9 } }),
  ]);
  expect([code, said]).toEqual([
    0,
    [expect.stringMatching(/^20 grid lines, 45 columns, \d+ walls, \d+ openings, \d slabs, \d+ zones written to /)],
  ]);
  const model = json<ModelFile>('a', 'model.json');
  expect(model.levels).toEqual([
    { id: 'L1', name: 'Ground', elevation: 0.5, height: 3.9, kind: 'floor', structuralTop: 0.5, slabThickness: 0 },
  ]);
  const b = gridLines().find((line) => line.label === 'B')!;
  expect(model.grids.find((line) => line.label === 'B')).toMatchObject({
    kind: 'line',
    start: b.start,
    end: b.end.map((value) => Number(value.toFixed(6))),
    source: { drawing: 'ground.dxf' },
  });
  expect(model.columns.every((column) => column.level === 'L1')).toBe(true);
  expect(v.safeParse(modelSchema, model).success).toBe(true);
  // Every opening stands in a wall of the file, within its length.
  expect(model.openings.length).toBeGreaterThan(20);
  const walls = new Map(model.walls.map((wall) => [wall.id, wall]));
  for (const { wall: host, offset, width } of model.openings) {
    const wall = walls.get(host)!;
    expect(offset + width).toBeLessThanOrEqual(
      Math.hypot(wall.end[0] - wall.start[0], wall.end[1] - wall.start[1]) + 1e-6,
    );
  }
  const back = readDxf(readFileSync(join(folder, 'a', 'model.dxf')));
  expect(back.ok && back.value.drawing.header.insUnits).toBe(4);
  const intake = json<IntakeFile>('a', 'intake.json');
  expect(intake).toMatchObject({
    format: 'zircon-frame-intake',
    version: 1,
    file: 'ground.dxf',
    sha256: createHash('sha256').update(plan.dxf).digest('hex'),
    dxfVersion: 'AC1024',
    unit: { header: 'm', chosen: 'mm' },
  });
  expect(intake.extents.main).toEqual([
    [-14000, -9500],
    [56000, 25500],
  ]);
  expect(intake.leftOut).toEqual([]);
  expect(intake.read.find((row) => row.kind === 'HATCH')).toEqual({ kind: 'HATCH', count: 7, primitives: 7 });
});

test('a header that says metres is overruled by what is drawn, cue by cue', async () => {
  expect(await convert([file, '--out', join(folder, 'auto')])).toBe(0);
  const { unit } = json<IntakeFile>('auto', 'intake.json');
  expect(unit).toMatchObject({ header: 'm', chosen: 'mm' });
  expect(unit.cues.filter((cue) => cue.favours === 'mm').length).toBeGreaterThanOrEqual(5);
  expect(unit.cues[0]).toMatchObject({ cue: 'header unit', observations: 1, favours: 'm' });
});

test('a unit that is not certain is said, not hidden: chosen stays null', async () => {
  const bare = join(folder, 'bare.dxf');
  writeFileSync(bare, dxf({ entities: line(0, 0, 100, 0) + line(0, 0, 0, 50) }));
  expect(await convert([bare, '--out', join(folder, 'b')])).toBe(0);
  expect(said[0]).toMatch(/the unit is not certain; \w+ were taken/);
  const { unit } = json<IntakeFile>('b', 'intake.json');
  expect(unit.chosen).toBeNull();
  expect(unit.confidence).toBeLessThan(0.9);
  expect(unit.cues.map((cue) => cue.cue)).toEqual(['overall extent']);
});

test('a recipe in the settings cleans what is read, and the report still tells all of the file', async () => {
  expect(
    await convert([
      file,
      '--out',
      join(folder, 'r'),
      '--settings',
      settings({ unit: 'mm', recipe: [{ step: { kind: 'leaveOutLayers', patterns: ['A-COLS'] } }] }),
    ]),
  ).toBe(0);
  expect(json<ModelFile>('r', 'model.json').columns).toEqual([]);
  expect(json<IntakeFile>('r', 'intake.json').layers.find((layer) => layer.name === 'A-COLS')!.entities).toBe(
    json<IntakeFile>('a', 'intake.json').layers.find((layer) => layer.name === 'A-COLS')!.entities,
  );
});

test('roles by rules: the first that matches wins, its pattern is the reason', async () => {
  expect(
    await convert([
      file,
      '--out',
      join(folder, 'c'),
      '--settings',
      settings({ unit: 'mm', roles: { 'A-COLS': 'column', 'A-G*': 'ignore', '*': 'label' } }),
    ]),
  ).toBe(0);
  const model = json<ModelFile>('c', 'model.json');
  expect([model.grids.length, model.columns.length]).toEqual([0, 45]);
  expect(json<IntakeFile>('c', 'intake.json').layers.find((layer) => layer.name === 'A-GRID')).toMatchObject({
    role: 'ignore',
    why: ['rule "A-G*"'],
  });
});

test('several drawings give one model and an intake each', async () => {
  const second = join(folder, 'second.dxf');
  writeFileSync(second, plan.dxf);
  expect(await convert([file, second, '--out', join(folder, 'd'), '--settings', settings({ unit: 'mm' })])).toBe(0);
  expect(json<IntakeFile>('d', 'intake-2.json').file).toBe('second.dxf');
  expect(json<ModelFile>('d', 'model.json').columns).toHaveLength(90);
});

test.each([
  [['--out', 'x'], 2, /^Usage/],
  [['a.dxf'], 2, /^Usage/],
  [['a.dxf', '--out', 'x', '--what'], 2, /--what/],
  [['a.dxf', '--out', 'x', '--settings', 'nowhere.json'], 2, /Cannot read the settings nowhere\.json/],
  [['nowhere.dxf', '--out', 'x'], 3, /nowhere\.dxf: The file cannot be opened/],
])('convert %p ends with code %d and one sentence', async (args, code, words) => {
  expect(await convert(args)).toBe(code);
  expect(said).toHaveLength(1);
  expect(said[0]).toMatch(words);
});

test('a file that cannot be read writes nothing at all, though another could', async () => {
  const bad = join(folder, 'bad.dxf');
  writeFileSync(bad, '');
  expect(await convert([file, bad, '--out', join(folder, 'e')])).toBe(3);
  expect(said).toEqual([
    `${bad}: The file is empty: 0 bytes. Export the drawing again and check that the copy finished.`,
  ]);
  expect(existsSync(join(folder, 'e'))).toBe(false);
});
