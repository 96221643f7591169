import { readFileSync } from 'node:fs';
import Excel from 'exceljs';
import { readBackIfc } from '@/core/exports/ifc/readBack';
import { readModel } from '@/core/handover/model/readModel';
import { ask, choose, ofKind, openStage, problems, station, stateOf, type Stage } from './harness';

let stage: Stage;
let project: string;

beforeAll(async () => {
  stage = await openStage();
  project = await stage.seed();
}, 90_000);
afterAll(async () => stage.close());

test('the model goes out as IFC, as a workbook and as schedules, and every element comes back from each', async () => {
  const { page, context } = await stage.person();
  await page.goto(`${stage.address}/projects/${project}`);
  await page.getByText(/[\d,]+ lines, \d+ elements/).waitFor();
  await station(page, 'Handover');
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
  expect(pdf.match(/\/Type \/Page\b(?!s)/g)).toHaveLength(model.value.levels.length);
  await context.close();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
