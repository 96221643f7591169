import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import DxfParser from 'dxf-parser';
import Excel from 'exceljs';
import { strFromU8, unzipSync } from 'fflate';
import type { DeliveryReport } from '@/core/exports/deliveries/report';
import { readBackIfc } from '@/core/exports/ifc/readBack';
import type { JobView } from '@/core/jobs';
import { unplace } from '@/core/datum/placement';
import { gridCrossings } from '@/core/kinds/gridCrossings';
import { readModel, type ReadModel } from '@/core/handover/model/readModel';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import type { ProjectState } from '@/core/model/state';
import { parseSettings } from '@/cli/settings';
import {
  ask,
  choose,
  fileNamed,
  ofKind,
  openFinished,
  part,
  problems,
  station,
  stateOf,
  type Stage,
  openProject,
} from './harness';

let stage: Stage;
let project: string;

beforeAll(async () => {
  ({ stage, project } = await openFinished());
}, 90_000);
afterAll(async () => stage.close());

test('the model goes out as IFC, as a workbook and as schedules, and every element comes back from each', async () => {
  const { page, context } = await stage.person();
  await openProject(stage, page, project);
  await station(page, 'Handover');
  await part(page, 'Single files');
  const saved = async (name: string): Promise<{ file: string; path: string }> => {
    const waiting = page.waitForEvent('download');
    await page.getByRole('link', { name, exact: true }).click();
    const download = await waiting;
    return { file: download.suggestedFilename(), path: (await download.path())! };
  };
  const { body } = await ask<unknown>(stage, `/api/projects/${project}/handover/model.json`);
  const model = readModel(JSON.stringify(body));
  if (!model.ok) throw new Error(model.message);
  const ifc = await saved('Save IFC');
  expect(ifc.file).toBe('Marram Point Field Station, finished.ifc');
  const back = readBackIfc(readFileSync(ifc.path, 'utf8'), model.value);
  if (!back.ok) throw new Error(back.message);
  // Every element of every kind is found again by its identifier.
  expect(back.value.map(({ kind, file }) => [kind, file])).toEqual(
    back.value.map(({ kind, model: own }) => [kind, own]),
  );
  expect(back.value.find(({ kind }) => kind === 'columns')!.file).toBe(model.value.columns.length);
  // The window tells the same.
  await page.getByRole('button', { name: 'Read it back' }).click();
  const columnsBack = page.getByRole('table', { name: 'Read back' }).getByRole('row', { name: /^columns/ });
  await columnsBack.waitFor();
  expect(await columnsBack.getByRole('cell').allInnerTexts()).toEqual(
    ['columns', model.value.columns.length, model.value.columns.length].map(String),
  );
  const book = new Excel.Workbook();
  await book.xlsx.readFile((await saved('Save workbook')).path);
  const columns = book.getWorksheet('columns')!;
  expect(columns.rowCount).toBe(model.value.columns.length + 1);
  const csv = readFileSync((await saved('Rooms')).path, 'utf8');
  const rooms = ofKind(await stateOf(stage, page, project), 'zone');
  expect(csv.trim().split('\r\n')).toHaveLength(rooms.length + 1);
  expect(csv).toContain('area by inner faces [m2]');
  expect((await ask(stage, `/api/projects/${project}/handover/schedule.csv?of=nothing`)).status).toBe(404);
  // Every zone is a space of the gbXML.
  const gbxml = readFileSync((await saved('Save gbXML')).path, 'utf8');
  expect(gbxml.match(/<Space /g)).toHaveLength(rooms.length);
  // A plan at 1:50 on A0 has the sheet's size, and its rooms.
  await choose(page, 'Sheet', 'A0');
  await choose(page, 'Scale', '1:50');
  const svg = readFileSync((await saved('Save the plan of Upper')).path, 'utf8');
  expect(svg).toContain('width="1189mm" height="841mm"');
  expect(svg).toContain('1:50 on A0');
  expect(svg).toContain('>Library<');
  const pdf = readFileSync((await saved('Save PDF')).path, 'latin1');
  expect(pdf.match(/\/Type \/Page\b(?!s)/g)).toHaveLength(model.value.levels.length + 3);
  await context.close();
});

test('a delivery for structure: previewed, written in the background, read again, zipped, and told as of before', async () => {
  const { page, context } = await stage.person();
  await openProject(stage, page, project);
  const before = await stateOf(stage, page, project);
  await station(page, 'Handover');
  await page.getByRole('button', { name: 'For structure' }).click();
  // The preview counts storeys that repeat another too.
  const { body } = await ask<unknown>(stage, `/api/projects/${project}/handover/model.json`);
  const model = readModel(JSON.stringify(body));
  if (!model.ok) throw new Error(model.message);
  await page.getByRole('button', { name: `Columns ${model.value.columns.length}`, exact: true }).waitFor();
  expect(await page.getByRole('button', { name: /^Zones \d+$/ }).getAttribute('aria-pressed')).toBe('false');
  await choose(page, 'Unit', 'millimetres');
  await choose(page, 'Origin', 'grid crossing 1/A');
  await page.getByRole('button', { name: 'Write it' }).click();
  const written = page.getByRole('article', { name: 'For structure' });
  await written
    .getByText(/^Read again: all [\d,]+ things counted came back\. ([\d,]+) of \1 elements agree within 0\.1 mm\.$/)
    .waitFor();
  const waiting = page.waitForEvent('download');
  await written.getByRole('link', { name: 'Save all of For structure' }).click();
  const files = unzipSync(readFileSync((await (await waiting).path())!));
  const names = Object.keys(files).sort();
  expect(names).toEqual(expect.arrayContaining(['delivery.json', 'model.dxf', 'model.ifc', 'model.xlsx']));
  const report = JSON.parse(strFromU8(files['delivery.json'])) as DeliveryReport;
  expect(report.counts).toMatchObject({ columns: model.value.columns.length, zones: 0, luminaires: 0 });
  for (const { name, size, sha256 } of report.files)
    expect([name, files[name].length, createHash('sha256').update(files[name]).digest('hex')]).toEqual([
      name,
      size,
      sha256,
    ]);
  // About the crossing 1/A, in millimetres: where that lies in the project is taken off every point.
  const crossing = gridCrossings(ofKind(before, 'grid').map(({ shape }) => shape)).find(({ name }) => name === '1/A')!;
  const dxf = new DxfParser().parseSync(strFromU8(files['model.dxf']))!;
  const [x, y] = model.value.columns[0].position;
  const feet = dxf.entities.flatMap((entity) =>
    entity.layer === 'ZF-COLUMN' && 'vertices' in entity ? [(entity.vertices as { x: number; y: number }[])[0]] : [],
  );
  const expected = [(x - crossing.point[0]) * 1000, (y - crossing.point[1]) * 1000];
  expect(feet.some((foot) => Math.hypot(foot.x - expected[0], foot.y - expected[1]) < 0.01)).toBe(true);
  // The workbook tells of the drawings that the model was made of, entity by entity.
  const book = new Excel.Workbook();
  await book.xlsx.load(new Uint8Array(files['model.xlsx']).buffer);
  const { fileId, name: called } = Object.values(before.drawing)[0];
  const intake = (await ask<IntakeFile>(stage, `/api/projects/${project}/files/${fileId}/intake.json`)).body;
  const total = (list: { count: number }[]) => list.reduce((sum, { count }) => sum + count, 0);
  const lines = book.getWorksheet('drawings')!.getSheetValues() as (Excel.CellValue[] | undefined)[];
  const line = lines.find((cells) => cells?.[1] === called)!;
  expect(line.slice(6, 8)).toEqual([total(intake.read), total(intake.leftOut)]);
  const account = book.getWorksheet('intake')!.getSheetValues() as (Excel.CellValue[] | undefined)[];
  const own = account.filter((cells) => cells?.[1] === called).map((cells) => Number(cells?.[6]));
  expect(own.reduce((sum, count) => sum + count, 0)).toBe(total(intake.read) + total(intake.leftOut));
  // Its content is the receiver's alone.
  const ifc = strFromU8(files['model.ifc']);
  expect([ifc.includes('IFCSPACE('), ifc.includes('IFCCOLUMN(')]).toEqual([false, true]);
  // An edit later it is told to be of an older model; it stays over a reload, and can be deleted.
  const row = { ...before.project[project], name: 'Handed over' };
  const edit = { label: 'Rename', changes: [{ table: 'project', id: project, row }] };
  const seen = (await ask<{ history: { version: number } }>(stage, `/api/projects/${project}/state`)).body.history;
  const sent = { seen: seen.version, clientId: crypto.randomUUID(), edit };
  expect((await ask(stage, `/api/projects/${project}/edits`, sent)).status).toBe(200);
  await written.getByText('The model has changed since: this is as it was.').waitFor();
  await page.reload();
  await written.getByText('The model has changed since: this is as it was.').waitFor();
  await written.getByRole('button', { name: 'Delete' }).click();
  await page.getByText('Nothing has been handed over yet.').waitFor();
  expect(await stage.sql('select count(*)::int as n from job_files')).toEqual([{ n: 0 }]);
  await context.close();
});

test('what cannot be written is said, with the way out', async () => {
  const wish = {
    name: 'Rooms',
    formats: ['gbxml'],
    content: ['columns'],
    levels: null,
    unit: 'm',
    origin: { at: 'project' },
  };
  const { body } = await ask<JobView>(stage, `/api/projects/${project}/jobs`, { kind: 'delivery', wish });
  const { page, context } = await stage.person();
  await openProject(stage, page, project);
  await station(page, 'Handover');
  await page.getByText('gbXML holds rooms, and there is none in what is handed over.').waitFor();
  await page.getByRole('article', { name: 'Rooms' }).getByRole('button', { name: 'Take it up again' }).click();
  await page.getByRole('textbox', { name: 'Name' }).and(page.locator('[value="Rooms"]')).waitFor();
  await ask(stage, `/api/projects/${project}/jobs/${body.id}`, undefined, 'DELETE');
  const odd = await ask<{ message: string }>(stage, `/api/projects/${project}/jobs`, {
    kind: 'delivery',
    wish: { ...wish, formats: [] },
  });
  expect(odd.status).toBe(400);
  await context.close();
});

test('a project goes out as one archive and opens again as a copy, its history with it; a damaged one is refused', async () => {
  const { page, context } = await stage.person();
  await page.goto(stage.address);
  const stored = async (id: string) =>
    (await ask<{ state: ProjectState }>(stage, `/api/projects/${id}/state`)).body.state;
  const before = await stored(project);
  const { name } = before.project[project];
  await page.getByRole('button', { name: `What to do with ${name}` }).click();
  const waiting = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Save its archive' }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toBe(`${name}.zircon`);
  const bytes = readFileSync((await download.path())!);
  await page
    .getByLabel('Archive or model')
    .setInputFiles(fileNamed('damaged.zircon', bytes.subarray(0, bytes.length / 2)));
  await page.getByText(/damaged\.zircon/).waitFor();
  await page.getByLabel('Archive or model').setInputFiles(fileNamed('whole.zircon', bytes));
  await page.waitForURL(/\/projects\//);
  const copy = page.url().split('/').pop()!;
  expect(copy).not.toBe(project);
  const after = await stored(copy);
  const kindsOf = (state: typeof before) =>
    Object.values(state.element)
      .map(({ kind, shape }) => `${kind} ${JSON.stringify(shape).replace(/[0-9a-f-]{36}/g, '')}`)
      .sort();
  expect(kindsOf(after)).toEqual(kindsOf(before));
  const edits = async (id: string) =>
    (await stage.sql<{ n: number }>('select count(*)::int as n from edits where project_id = $1', [id]))[0].n;
  expect(await edits(copy)).toBe(await edits(project));
  expect(await edits(copy)).toBeGreaterThan(0);
  await context.close();
});

test('a model.json is taken in as a project of its own and is the same model again; a broken one is refused', async () => {
  const { page, context } = await stage.person();
  const written = async (id: string) => (await ask<ReadModel>(stage, `/api/projects/${id}/handover/model.json`)).body;
  /** What of a model does not depend on ids, on the names of drawings, and on an order, nor on the rest. */
  const sizes = (model: ReadModel) =>
    Object.fromEntries(
      (
        [
          'grids',
          'columns',
          'beams',
          'walls',
          'openings',
          'slabs',
          'zones',
          'outdoor',
          'roofs',
          'supports',
          'loads',
        ] as const
      ).map((list) => [
        list,
        (model[list] ?? [])
          .map(({ source: _, boundaries: _derived, ...one }: { source?: unknown; boundaries?: unknown }) =>
            JSON.stringify(one).replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, ''),
          )
          .sort(),
      ]),
    );
  const before = await written(project);
  await page.goto(stage.address);
  const choice = page.getByLabel('Archive or model');
  await choice.setInputFiles(fileNamed('broken.json', '{"format":"something else"}'));
  await page.getByText(/broken\.json: The file says "something else" as its format/).waitFor();
  await choice.setInputFiles(fileNamed('Marram again.json', JSON.stringify(before)));
  await page.waitForURL(/\/projects\//);
  await page.getByRole('heading', { name: 'Marram again' }).waitFor();
  const after = await written(page.url().split('/').pop()!);
  expect(sizes(after)).toEqual(sizes(before));
  expect(after.walls.length).toBeGreaterThan(20);
  await context.close();
});

test('plans show what is chosen, a section its levels, and a delivery lies over a drawing with what the trials come to', async () => {
  const { page, context } = await stage.person();
  await openProject(stage, page, project);
  await station(page, 'Handover');
  await part(page, 'Single files');
  const svg = async (name: string): Promise<string> => {
    const waiting = page.waitForEvent('download');
    await page.getByRole('link', { name }).click();
    return readFileSync((await (await waiting).path())!, 'utf8');
  };
  const whole = await svg('Save the plan of Ground');
  expect(whole).toContain('>0.02<');
  const shown = page.getByRole('group', { name: 'Shown on plans' });
  await shown.getByRole('button', { name: 'rooms' }).click();
  await shown.getByRole('button', { name: 'rooms', pressed: false }).waitFor();
  const without = await svg('Save the plan of Ground');
  expect(without).not.toContain('>0.02<');
  expect(await svg('Section A')).toContain('>Upper +3.900 m<');

  await part(page, 'Deliveries');
  await page.getByRole('group', { name: 'For whom' }).getByRole('button', { name: 'For structure' }).click();
  const formats = page.getByRole('group', { name: 'Formats' });
  for (const name of ['IFC4', 'Workbook', 'Analysis tables']) await formats.getByRole('button', { name }).click();
  for (const name of ['Results drawn', 'Report']) await formats.getByRole('button', { name }).click();
  await page.getByRole('combobox', { name: 'Origin' }).click();
  await page.getByRole('option', { name: 'as marram-upper lies' }).click();
  await page.getByRole('textbox', { name: 'Name' }).and(page.locator('input')).fill('Over the upper floor');
  await page.getByRole('button', { name: 'Write it' }).click();
  const article = page.getByRole('article', { name: 'Over the upper floor' });
  await article.getByText(/^Read again: all/).waitFor();
  const waiting = page.waitForEvent('download');
  await article.getByRole('link', { name: 'Save all of Over the upper floor' }).click();
  const files = unzipSync(new Uint8Array(readFileSync((await (await waiting).path())!)));
  expect(Object.keys(files)).toEqual(
    expect.arrayContaining(['results.pdf', 'results-Upper.dxf', 'report.pdf', 'model.dxf']),
  );
  expect(strFromU8(files['report.pdf'].subarray(0, 5))).toBe('%PDF-');
  // The columns of the upper floor lie where its drawing, which is turned and off its place, has them.
  const { state } = (await ask<{ state: ProjectState }>(stage, `/api/projects/${project}/state`)).body;
  const drawing = Object.values(state.drawing).find(({ name }) => name === 'marram-upper')!;
  const placement = state.placement[drawing.id];
  const plan = new DxfParser().parseSync(strFromU8(files['plan-Upper.dxf']))!;
  const crossing = gridCrossings(ofKind(state, 'grid').map(({ shape }) => shape)).find(({ name }) => name === '1/A')!;
  const [x, y] = unplace(placement, crossing.point);
  const columns = plan.entities
    .filter(({ layer }) => layer === 'ZF-COLUMN')
    .map((one) => (one as unknown as { vertices: { x: number; y: number }[] }).vertices);
  const away = columns.map((ring) => {
    const middle = ring.reduce((sum, p) => [sum[0] + p.x / ring.length, sum[1] + p.y / ring.length], [0, 0]);
    return Math.hypot(middle[0] - x, middle[1] - y);
  });
  expect(Math.min(...away)).toBeLessThan(1);
  await context.close();
});

test('the next project starts as a finished one is set, and the command line takes its settings', async () => {
  const { page, context } = await stage.person();
  const stored = async (id: string) =>
    (await ask<{ state: ProjectState }>(stage, `/api/projects/${id}/state`)).body.state;
  const before = await stored(project);
  const { name } = before.project[project];
  await page.goto(stage.address);
  await page.getByRole('button', { name: `What to do with ${name}`, exact: true }).click();
  await page.getByRole('menuitem', { name: 'Start the next as this one' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Boat house');
  await page.getByRole('button', { name: 'Create' }).click();
  await page.waitForURL(/\/projects\//);
  await page.getByText(/On the shelves at Sorting and Intake: role map/).waitFor();
  // Started once more it finds the same there; a map of somebody's under that name is left alone.
  const shelf = async () => (await ask<{ maps: { name: string }[] }>(stage, '/api/rolemaps')).body.maps;
  const [{ name: first }] = await shelf();
  expect(first).toBe(name);
  const empty = {
    format: 'zircon-frame-roles',
    version: 1,
    name,
    rules: [{ pattern: 'X', role: 'wall', of: 'layer' }],
  };
  await ask(stage, '/api/rolemaps', empty);
  const again = await ask<{ kept: string[] }>(stage, `/api/projects/${project}/start`, { name: 'Jetty' });
  expect(again.body.kept[0]).toBe(`role map ${name} 2`);
  await ask(stage, `/api/projects/${project}/start`, { name: 'Slip' });
  expect((await shelf()).map((one) => one.name)).toEqual([name, `${name} 2`]);
  const next = await stored(page.url().split('/').pop()!);
  const namesIn = (rows: Record<string, { name: string }>) =>
    Object.values(rows)
      .map((row) => row.name)
      .sort();
  expect(namesIn(next.level)).toEqual(namesIn(before.level));
  expect(namesIn(next.library)).toEqual(namesIn(before.library));
  expect([Object.keys(next.drawing), Object.keys(next.element)]).toEqual([[], []]);
  // Constructions by rule are those of the new project's own library.
  const [made] = Object.values(next.project).map((row) => row.site?.made.outerWall);
  expect(Object.keys(next.library)).toContain(made);
  const settings = await fetch(`${stage.address}/api/projects/${project}/settings.json`);
  expect(parseSettings(await settings.text())).toMatchObject({
    ok: true,
    value: { unit: 'mm', level: { name: 'Ground' } },
  });
  await context.close();
});

test('a project that is held stays as it is until it is let go, in every window', async () => {
  const { page, context } = await stage.person();
  const other = await stage.person();
  await page.goto(`${stage.address}/projects/${project}`);
  await other.page.goto(`${stage.address}/projects/${project}`);
  await station(page, 'Handover');
  await page.getByRole('button', { name: 'Hold it' }).click();
  await other.page.getByRole('status').filter({ hasText: 'Held as it is' }).waitFor();
  const levels = async () =>
    Object.keys((await ask<{ state: ProjectState }>(stage, `/api/projects/${project}/state`)).body.state.level);
  const before = await levels();
  await other.page.getByRole('button', { name: 'Add level' }).click();
  await other.page.getByText('This project is held as it is, for a handover.').waitFor();
  // The server refuses what a window would not, and files too.
  const { state, history } = (
    await ask<{ state: ProjectState; history: { version: number } }>(stage, `/api/projects/${project}/state`)
  ).body;
  const row = { ...state.project[project], name: 'Changed' };
  const edit = { label: 'Rename', changes: [{ table: 'project', id: project, row }] };
  const sent = { seen: history.version, clientId: crypto.randomUUID(), edit };
  const refused = [
    await ask<{ message: string }>(stage, `/api/projects/${project}/edits`, sent),
    await ask<{ message: string }>(stage, `/api/projects/${project}/undo`, {
      seen: history.version,
      clientId: crypto.randomUUID(),
    }),
    await ask<{ message: string }>(stage, `/api/projects/${project}/intakes?name=a.dxf`, {}),
  ];
  expect(refused.map(({ status }) => status)).toEqual([423, 423, 423]);
  await page.getByRole('button', { name: 'Let it go' }).click();
  await page.getByRole('button', { name: 'Hold it' }).waitFor();
  await other.page.getByRole('status').filter({ hasText: 'Held as it is' }).waitFor({ state: 'detached' });
  expect(await levels()).toEqual(before);
  expect((await ask(stage, `/api/projects/${project}/edits`, sent)).status).toBe(200);
  await other.context.close();
  await context.close();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
