import { readFileSync } from 'node:fs';
import { strToU8, zipSync } from 'fflate';
import { basement } from '../demo/basement';
import { yard } from '../demo/yard';
import { ask, fileNamed, newProject, openStage, problems, station, stateOf, type Stage } from './harness';

/** An office's converter: takes off a first line that names its format, tells what it lost, and can fail. */
const converter = fileNamed(
  'to-dxf.mjs',
  `import { readFileSync, writeFileSync } from 'node:fs';
  const [, , from, to] = process.argv;
  const [first, ...rest] = readFileSync(from, 'utf8').split('\\n');
  if (first !== 'PLAN 7') {
    console.error('format ' + first + ' is not known');
    process.exit(3);
  }
  writeFileSync(to, rest.join('\\n'));
  console.log('2 pictures left out');
`,
);

let stage: Stage;

beforeAll(async () => {
  stage = await openStage({ ZIRCON_CONVERTER: `${process.execPath} ${converter} {in} {out}` });
}, 60_000);
afterAll(async () => stage.close());

test('a file that is no DXF is made one by the office, what it was is kept; one that cannot be made is told', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Converted');
  const original = `PLAN 7\n${basement().dxf}`;
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('basement.plan', original));
  await page.getByRole('button', { name: /^basement\.plan/ }).waitFor();
  await page.getByRole('region', { name: 'Bench' }).getByText('2 pictures left out').waitFor();
  const waiting = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save the original' }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toBe('basement.plan');
  expect(readFileSync((await download.path())!, 'utf8')).toBe(original);

  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('yard.plan', 'PLAN 9\nnothing'));
  await page
    .getByText(/yard\.plan: The office\u2019s converter could not make a DXF of it: it ended with code 3/)
    .waitFor();
  await page.getByText(/It said last: format PLAN 9 is not known/).waitFor();

  // A DXF is not given to it, and tells of no original.
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('plain.dxf', basement().dxf));
  await page.getByRole('button', { name: /^plain/ }).waitFor();
  const { drawing } = await stateOf(stage, page, project);
  const plain = Object.values(drawing).find(({ name }) => name === 'plain')!;
  const told = await ask<{ origin: unknown }>(stage, `/api/projects/${project}/files/${plain.fileId}/origin`);
  expect(told.body).toEqual({ origin: null });
  const none = await ask<{ message: string }>(stage, `/api/projects/${project}/files/${plain.fileId}/original`);
  expect(none.status).toBe(404);

  // A zip of such files is unpacked for it.
  const set = zipSync({ 'set/yard.plan': strToU8(`PLAN 7\n${yard().dxf}`) });
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('set.zip', set));
  await page.getByRole('button', { name: /^yard\.plan/ }).waitFor();

  // Its lines are read as those of any drawing.
  await station(page, 'Sorting');
  await page.getByRole('heading', { name: 'Sorting', level: 1 }).waitFor();
  expect(Object.values((await stateOf(stage, page, project)).role).length).toBeGreaterThan(5);
  await context.close();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
