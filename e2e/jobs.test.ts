import { request as httpRequest } from 'node:http';
import { ask, fileNamed, newProject, openStage, type Stage } from './harness';

let stage: Stage;
beforeAll(async () => {
  // Little memory for the reader and little patience with uploads, so that both run out within a test.
  stage = await openStage({ ZIRCON_READ_MEMORY_MB: '48', ZIRCON_UPLOAD_STALL_S: '3' });
}, 60_000);
afterAll(async () => stage.close());

const head = '  0\nSECTION\n  2\nENTITIES\n';
const tail = '  0\nENDSEC\n  0\nEOF\n';
const aLine = '  0\nLINE\n  8\n0\n 10\n0.0\n 20\n0.0\n 11\n1.0\n 21\n1.0\n';
const lines = (count: number): string => head + aLine.repeat(count) + tail;
/** Texts are kept as objects while a file is read: these need far more than the reader may have. */
const heavy = head + '  0\nTEXT\n  8\n0\n 10\n0\n 20\n0\n 40\n1\n  1\nNote\n'.repeat(600_000) + tail;

interface IntakeView {
  id: string;
  fileName: string;
  state: string;
  message: string | null;
  again: boolean;
}

const makeProject = async (name: string) => (await ask<{ id: string }>(stage, '/api/projects', { name })).body.id;
const send = (project: string, name: string, body: string) =>
  fetch(`${stage.address}/api/projects/${project}/intakes?name=${name}`, { method: 'POST', body });
const intakes = async (project: string) =>
  (await ask<{ intakes: IntakeView[] }>(stage, `/api/projects/${project}/intakes`)).body.intakes;

/** Waits until the database says so. */
async function until(project: string, condition: string): Promise<void> {
  for (let i = 0; i < 600; i += 1) {
    const rows = await stage.sql(`select 1 from intakes where project_id = $1 and ${condition}`, [project]);
    if (rows.length > 0) return;
    await new Promise((wait) => setTimeout(wait, 100));
  }
  throw new Error(`Never: ${condition}: ${JSON.stringify(await stage.sql('select * from intakes'))}`);
}

test('a file that ends its reader is set aside after three times, said, and can be tried again', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Too much');
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('heavy.dxf', heavy));
  const alert = page.getByRole('alert').filter({ hasText: 'the file ended its reader 3 times and is set aside' });
  await alert.waitFor({ timeout: 120_000 });
  expect(await stage.sql('select crashes, deaths from intakes where project_id = $1', [project])).toEqual([
    { crashes: 3, deaths: 0 },
  ]);
  // The next file is not held up by it.
  await send(project, 'light.dxf', lines(100));
  await until(project, "file_name = 'light.dxf' and state = 'done'");
  await alert.getByRole('button', { name: 'Try again' }).click();
  await until(project, "file_name = 'heavy.dxf' and state in ('reading', 'failed') and crashes < 3");
  await until(project, "file_name = 'heavy.dxf' and state = 'failed'");
  await alert.getByRole('button', { name: 'Take note' }).click();
  await alert.waitFor({ state: 'detached' });
  // Its bytes have gone with it.
  expect(await stage.sql('select count(*)::int as n from files')).toEqual([{ n: 1 }]);
  await context.close();
});

test('a server killed again and again while it reads does not count against the file', async () => {
  const project = await makeProject('Killed thrice');
  await send(project, 'plan.dxf', lines(5_000));
  for (let i = 0; i < 3; i += 1) {
    await stage.kill();
    // As if it took long: the job belongs to a process that is no more.
    await stage.sql(
      "update intakes set state = 'reading', process = gen_random_uuid(), drawing_id = null where project_id = $1",
      [project],
    );
    await stage.restart();
    await until(project, `deaths = ${i + 1}`);
  }
  await until(project, "state = 'done'");
  expect(await stage.sql('select crashes, deaths from intakes where project_id = $1', [project])).toEqual([
    { crashes: 0, deaths: 3 },
  ]);
});

/** Sends the first bytes of an upload and then nothing. */
function stall(project: string, name: string) {
  const url = new URL(`/api/projects/${project}/intakes?name=${name}`, stage.address);
  const { hostname, port } = url;
  const headers = { 'content-length': 5_000_000 };
  const request = httpRequest({ hostname, port, path: url.pathname + url.search, method: 'POST', headers });
  request.on('error', () => undefined);
  request.write(lines(50).slice(0, -tail.length));
  return request;
}

test('uploads that stand still take nothing from others, and end with a sentence', async () => {
  const project = await makeProject('Stalled');
  const stalled = Array.from({ length: 8 }, (_, i) => stall(project, `stalled-${i}.dxf`));
  await until(project, "state = 'receiving'");
  const before = Date.now();
  expect((await send(project, 'quick.dxf', lines(10))).status).toBe(200);
  await until(project, "file_name = 'quick.dxf' and state = 'done'");
  expect((await stage.sql('select count(*)::int as n from intakes where state = $1', ['receiving']))[0].n).toBe(8);
  expect(Date.now() - before).toBeLessThan(30_000);
  await until(project, "state = 'failed'");
  for (let i = 0; i < 100 && (await intakes(project)).some(({ state }) => state === 'receiving'); i += 1)
    await new Promise((wait) => setTimeout(wait, 100));
  const failed = (await intakes(project)).filter(({ state }) => state === 'failed');
  expect(failed).toHaveLength(8);
  expect(failed[0].message).toContain('stood still for 3 s and was ended. Nothing was stored');
  for (const request of stalled) request.destroy();
});

test('small files pass large ones, and one project does not hold all slots', async () => {
  const [busy, other] = [await makeProject('Busy'), await makeProject('Other')];
  // Large ones wait: as if they were being read elsewhere, none of them is free to be taken.
  for (let i = 0; i < 3; i += 1) await send(busy, `large-${i}.dxf`, lines(250_000));
  await send(busy, 'last.dxf', lines(10));
  await send(other, 'other.dxf', lines(10));
  await until(other, "state = 'done'");
  await until(busy, "file_name = 'last.dxf' and state = 'done'");
  // The large one that came last before them is done after them, however many are done while the others are sent.
  const order = await stage.sql<{ file_name: string }>(
    "select file_name from intakes where state = 'done' and project_id = any($1) order by updated_at",
    [[busy, other]],
  );
  const names = order.map(({ file_name: name }) => name);
  const upToLarge = names.includes('large-2.dxf') ? names.slice(0, names.indexOf('large-2.dxf')) : names;
  expect(upToLarge).toEqual(expect.arrayContaining(['last.dxf', 'other.dxf']));
  for (const intake of await intakes(busy))
    await ask(stage, `/api/projects/${busy}/intakes/${intake.id}`, undefined, 'DELETE');
});

test('an array of 30,000 by 30,000 is told with its count, and holds nobody up', async () => {
  const project = await makeProject('Array');
  const bomb = [
    '  0\nSECTION\n  2\nBLOCKS\n  0\nBLOCK\n  2\nB\n 10\n0\n 20\n0\n',
    aLine,
    '  0\nENDBLK\n  0\nENDSEC\n',
    head,
    '  0\nINSERT\n  8\n0\n  2\nB\n 10\n0\n 20\n0\n 70\n30000\n 71\n30000\n 44\n1\n 45\n1\n',
    tail,
  ].join('');
  await send(project, 'bomb.dxf', bomb);
  await until(project, "state = 'done'");
  const [{ message }] = await stage.sql<{ message: string }>(
    `select warning ->> 'message' as message from file_reports join revisions using (file_id)
     join drawings on drawings.id = drawing_id, jsonb_array_elements(intake -> 'warnings') as warning
     where project_id = $1 and warning ->> 'code' = 'expansion'`,
    [project],
  );
  expect(message).toContain('An insert of block B comes to 1,800,000,000 parts');
});

test('a reading that is cancelled ends at once and leaves its slot', async () => {
  const project = await makeProject('Cancelled');
  await send(project, 'large.dxf', lines(280_000));
  await until(project, "state = 'reading'");
  const [{ id }] = await intakes(project);
  await ask(stage, `/api/projects/${project}/intakes/${id}`, undefined, 'DELETE');
  // The next large one begins, and nothing of the first is left.
  await send(project, 'next.dxf', lines(1000));
  await until(project, "file_name = 'next.dxf' and state = 'done'");
  expect(await stage.sql('select state, file_id from intakes where id = $1', [id])).toEqual([
    { state: 'cancelled', file_id: null },
  ]);
  expect(await intakes(project)).toEqual([]);
});
