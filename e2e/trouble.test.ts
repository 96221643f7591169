import { request as httpRequest } from 'node:http';
import { groundFloor } from '../demo/ground';
import type { ProjectState } from '@/core/model/state';
import { ask, bringIn, fileNamed, newProject, openStage, station, type Stage } from './harness';

let stage: Stage;
const plan = groundFloor();
const file = fileNamed('ground.dxf', plan.dxf);

beforeAll(async () => {
  stage = await openStage({ ZIRCON_MAX_UPLOAD_MB: '2' });
}, 60_000);
afterAll(async () => stage.close());

const stateOf = async (project: string) =>
  (await ask<{ state: ProjectState; history: { version: number } }>(stage, `/api/projects/${project}/state`)).body;
const counts = async () =>
  (
    await stage.sql<{ files: number; chunks: number; drawings: number }>(
      'select (select count(*) from files)::int as files, (select count(*) from file_chunks)::int as chunks, ' +
        '(select count(*) from drawings)::int as drawings',
    )
  )[0];

test('files that are no drawing get one clear sentence each, and nothing of them is stored', async () => {
  const { page, context } = await stage.person();
  await newProject(stage, page, 'Bad files');
  const before = await counts();
  const cases: [string, string | Uint8Array, RegExp][] = [
    ['nothing.dxf', '', /nothing\.dxf: The file is empty: 0 bytes/],
    [
      'photo.dxf',
      Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, ...new Array(200).fill(7)]),
      /photo\.dxf: This is a PNG picture that was named \.dxf/,
    ],
    [
      'closed.dxf',
      'AC1032' + '\0'.repeat(200),
      /closed\.dxf: This is a binary drawing in a closed format \(it begins with AC1032\)/,
    ],
    [
      'letter.dxf',
      'Dear colleagues, the plan follows. '.repeat(10),
      /letter\.dxf: This is not a DXF: it should begin with the group "0 SECTION"/,
    ],
    [
      'large.dxf',
      '  0\nSECTION\n  2\nENTITIES\n' + ' '.repeat(3 * 1024 * 1024),
      /large\.dxf has 3\.0 MB, more than the limit of 2\.0 MB/,
    ],
    [
      'broken.dxf',
      '  0\nSECTION\n  2\nENTITIES\n  0\nTEXT\n  1\n' + 'x'.repeat(1_500_000) + 'x'.repeat(500_000),
      /broken\.dxf: Line \d+ is longer than 1,048,576 bytes/,
    ],
  ];
  for (const [name, content, words] of cases) {
    await page.getByLabel('Files to bring in').setInputFiles(fileNamed(name, content));
    await page.getByRole('alert').filter({ hasText: words }).first().waitFor();
  }
  // A reload still says so, until it is taken note of.
  await page.reload();
  await page.getByRole('button', { name: 'Take note' }).nth(4).waitFor();
  while ((await page.getByRole('button', { name: 'Take note' }).count()) > 0) {
    const left = await page.getByRole('button', { name: 'Take note' }).count();
    await page.getByRole('button', { name: 'Take note' }).first().click();
    await page.waitForFunction((n) => document.querySelectorAll('[aria-label="Take note"]').length < n, left);
  }
  expect(await counts()).toEqual(before);
  await context.close();
});

/** Sends the beginning of an upload and holds the connection open. */
function beginUpload(project: string, name: string, length: number, part: Buffer) {
  const url = new URL(`/api/projects/${project}/intakes?name=${name}`, stage.address);
  const request = httpRequest({
    hostname: url.hostname,
    port: url.port,
    path: url.pathname + url.search,
    method: 'POST',
    headers: { 'content-length': length },
  });
  request.on('error', () => undefined);
  request.write(part);
  return request;
}

const longDxf = Buffer.from(
  '  0\nSECTION\n  2\nENTITIES\n' + '  0\nLINE\n  8\n0\n 10\n0.0\n 20\n0.0\n 11\n1.0\n 21\n1.0\n'.repeat(20_000),
);

test('an upload cut off by the sender leaves nothing but a sentence', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Cut off');
  const before = await counts();
  const request = beginUpload(project, 'cut.dxf', longDxf.length, longDxf.subarray(0, 700_000));
  await page.getByText('being sent from another window').waitFor();
  request.destroy();
  await page
    .getByRole('alert')
    .filter({ hasText: 'The upload of cut.dxf was cut off. Nothing was stored; bring it in again.' })
    .waitFor();
  expect(await counts()).toEqual(before);
  await context.close();
});

test('a server killed in the middle of an upload has nothing half of it after restart', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Killed upload');
  const before = await counts();
  beginUpload(project, 'half.dxf', longDxf.length, longDxf.subarray(0, 700_000));
  await page.getByText('being sent from another window').waitFor();
  await page.waitForTimeout(2200);
  await stage.kill();
  await page.getByRole('status').filter({ hasText: 'Server away' }).waitFor();
  await stage.restart();
  await page.getByRole('alert').filter({ hasText: 'The upload of half.dxf was cut off' }).waitFor({ timeout: 30_000 });
  expect(await counts()).toEqual(before);
  expect(Object.keys((await stateOf(project)).state.drawing)).toEqual([]);
  await context.close();
});

test('a server killed in the middle of an accept has all of it or nothing after restart', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Killed accept');
  await bringIn(page, file);
  const { state, history } = await stateOf(project);
  const [drawing] = Object.keys(state.drawing);
  const many = 6000;
  const seen: number[] = [];
  let version = history.version;
  for (const delay of [5, 60, 150, 300, 600]) {
    const changes = Array.from({ length: many }, (_, i) => {
      const id = crypto.randomUUID();
      return [
        {
          table: 'element',
          id,
          row: {
            id,
            levelId: null,
            source: { drawing, handles: ['1'] },
            kind: 'column',
            shape: { position: [i, delay], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: '' },
          },
        },
        {
          table: 'decision',
          id: `${drawing}/column:${delay}-${i}`,
          row: {
            id: `${drawing}/column:${delay}-${i}`,
            drawingId: drawing,
            key: `column:${delay}-${i}`,
            verdict: 'accepted',
            elementId: id,
          },
        },
      ];
    }).flat();
    const sent = ask(stage, `/api/projects/${project}/edits`, {
      seen: version,
      clientId: crypto.randomUUID(),
      edit: { label: 'Accept many columns', changes },
    }).then(
      (answer) => answer.status,
      () => 0,
    );
    await new Promise((done) => setTimeout(done, delay));
    await stage.kill();
    const status = await sent;
    await stage.restart();
    const after = await stateOf(project);
    const here = Object.values(after.state.element).filter(
      (element) => element.kind === 'column' && element.shape.position[1] === delay,
    ).length;
    const decided = Object.values(after.state.decision).filter((row) => row.key.startsWith(`column:${delay}-`)).length;
    expect([0, many]).toContain(here);
    expect(decided).toBe(here);
    expect(after.history.version).toBe(here === many ? version + 1 : version);
    if (status === 200) expect(here).toBe(many);
    version = after.history.version;
    seen.push(here);
  }
  expect(seen).toContain(0);
  await context.close();
});

test('a job that was being run when its server was killed is taken up again', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Killed job');
  await fetch(`${stage.address}/api/projects/${project}/intakes?name=late.dxf`, {
    method: 'POST',
    body: new Uint8Array(longDxf),
  });
  await stage.kill();
  await stage.restart();
  await page.getByText('late', { exact: true }).first().waitFor({ timeout: 30_000 });
  await page.getByRole('table', { name: 'Read' }).getByText('20,000').first().waitFor();
  expect(await stage.sql('select count(*)::int as n from drawings where project_id = $1', [project])).toEqual([
    { n: 1 },
  ]);
  await context.close();
});

test('a stale edit is refused with a message that says what changed, and is not applied', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Two people');
  const { state, history } = await stateOf(project);
  const [level] = Object.values(state.level);
  const edit = (name: string) => ({
    label: `Change level ${name}`,
    changes: [{ table: 'level', id: level.id, row: { ...level, name } }],
  });
  const first = await ask(stage, `/api/projects/${project}/edits`, {
    seen: history.version,
    clientId: crypto.randomUUID(),
    edit: edit('Quay'),
  });
  expect(first.status).toBe(200);
  const second = await ask<{ message: string }>(stage, `/api/projects/${project}/edits`, {
    seen: history.version,
    clientId: crypto.randomUUID(),
    edit: edit('Deck'),
  });
  expect(second.status).toBe(409);
  expect(second.body.message).toContain(
    'Not applied: the same was changed in another window (\u201cChange level Quay\u201d)',
  );
  expect(Object.values((await stateOf(project)).state.level)[0].name).toBe('Quay');
  // The window that is open follows by itself.
  await page.getByRole('button', { name: /^Quay/ }).waitFor();
  await context.close();
});

test('a window that was cut off from the news works on what others did, and is told where its step contradicts it', async () => {
  const { page, context } = await stage.person();
  // This window never hears of other windows' edits.
  await context.route('**/events*', (route) => route.abort());
  const project = await newProject(stage, page, 'Deaf window');
  const { state, history } = await stateOf(project);
  const [level] = Object.values(state.level);
  await page.getByRole('button', { name: 'Ground, \u00b10.000 m' }).waitFor();
  const raise = (seen: number, elevation: number) =>
    ask(stage, `/api/projects/${project}/edits`, {
      seen,
      clientId: crypto.randomUUID(),
      edit: { label: 'Raise the ground', changes: [{ table: 'level', id: level.id, row: { ...level, elevation } }] },
    });
  await raise(history.version, 1.5);
  // A level above the ground is another row: it lands where this window saw it, and what others did comes with it.
  await page.getByRole('button', { name: 'Add level' }).click();
  await page.getByRole('button', { name: 'Ground, +1.500 m' }).waitFor();
  await page.getByRole('button', { name: /^Level 1/ }).waitFor();
  await page.getByText(/^Saved/).waitFor();
  const above = Object.values((await stateOf(project)).state.level).find(({ id }) => id !== level.id)!;
  expect(above.elevation).toBeCloseTo(level.elevation + level.height, 9);
  // Another height of the ground contradicts one that somebody else has given it.
  await raise((await stateOf(project)).history.version, 2);
  await page.getByRole('button', { name: 'Ground, +1.500 m' }).dblclick();
  await page.getByLabel('Name').fill('Quay');
  await page.getByRole('button', { name: 'Apply' }).click();
  await page.getByText(/was not applied: somebody changed the same in another window/).waitFor();
  await page.getByRole('button', { name: 'Ground, +2.000 m' }).waitFor();
  await context.close();
});

test('the same step sent twice, because its answer was lost, counts once', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Twice');
  const { history } = await stateOf(project);
  const id = crypto.randomUUID();
  const body = {
    seen: history.version,
    clientId: crypto.randomUUID(),
    edit: {
      label: 'Add a level',
      changes: [{ table: 'level', id, row: { id, name: 'Once', elevation: 9, height: 3 } }],
    },
  };
  const [one, two] = [
    await ask(stage, `/api/projects/${project}/edits`, body),
    await ask(stage, `/api/projects/${project}/edits`, body),
  ];
  expect([one.status, two.status]).toEqual([200, 200]);
  expect((await stateOf(project)).history.version).toBe(history.version + 1);
  await context.close();
});

test('a step taken while the server restarts is kept and done when it is back', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Restart');
  await page.getByRole('button', { name: 'Add level' }).waitFor();
  await stage.kill();
  await page.getByRole('button', { name: 'Add level' }).click();
  await page.getByRole('status').filter({ hasText: 'Server away' }).waitFor();
  await stage.restart();
  await page.getByRole('button', { name: /^Level 1/ }).waitFor({ timeout: 30_000 });
  await page.getByRole('status').filter({ hasText: 'Saved' }).waitFor();
  expect(Object.keys((await stateOf(project)).state.level)).toHaveLength(2);
  await context.close();
});

test('a project deleted in another window says so here', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Going');
  await ask(stage, `/api/projects/${project}`, undefined, 'DELETE');
  await page
    .getByRole('alert')
    .filter({ hasText: 'This project is not there any more. It may have been deleted in another window' })
    .waitFor();
  await context.close();
});

test('without its database the server says what to do, and goes on when it is back', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'No database');
  const name = new URL(stage.databaseUrl).pathname.slice(1);
  const admin = new URL(stage.databaseUrl);
  admin.pathname = '/postgres';
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: admin.toString() });
  await client.connect();
  await client.query(`alter database ${name} allow_connections false`);
  // A connection that is told to end may still answer: it is waited for, up to half a minute.
  await client.query(
    'select pg_terminate_backend(pid, 30000) from pg_stat_activity where datname = $1 and application_name <> $2',
    [name, 'keep'],
  );
  const answer = await ask<{ message: string }>(stage, `/api/projects/${project}/state`);
  expect(answer.status).toBe(503);
  expect(answer.body.message).toContain('The database does not answer. What was confirmed is safe');
  await client.query(`alter database ${name} allow_connections true`);
  await client.end();
  expect((await ask(stage, `/api/projects/${project}/state`)).status).toBe(200);
  await station(page, 'Datum');
  await context.close();
});

test('requests from another site, to another host name or with a wrong body are refused', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Border');
  const post = (headers: Record<string, string>, body = '{"name":"x"}') =>
    fetch(`${stage.address}/api/projects`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...headers },
      body,
    });
  expect((await post({ origin: 'https://elsewhere.example' })).status).toBe(403);
  expect((await post({ 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  expect((await post({}, '{"name":""}')).status).toBe(400);
  expect((await post({}, 'no json')).status).toBe(400);
  expect((await ask(stage, '/api/projects/not-an-id/state')).status).toBe(404);
  const foreign = await new Promise<number>((done) => {
    const url = new URL(stage.address);
    httpRequest(
      { hostname: url.hostname, port: url.port, path: '/', headers: { host: 'rebound.example' } },
      (response) => {
        response.resume();
        done(response.statusCode ?? 0);
      },
    ).end();
  });
  expect(foreign).toBe(421);
  const policy = (await fetch(`${stage.address}/projects/${project}`)).headers.get('content-security-policy') ?? '';
  expect(policy).toMatch(/default-src 'self'.*script-src 'self' 'nonce-.*object-src 'none'/);
  expect(policy).not.toContain("script-src 'self' 'unsafe-inline'");
  // What a file is called is text, not markup.
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('a<img src=x onerror=alert(1)>.dxf', plan.dxf));
  await page.getByText('a<img src=x onerror=alert(1)>', { exact: true }).first().waitFor();
  await context.close();
});

test('a bench that does not come from the server says so, and comes when it is there', async () => {
  const { context, page } = await stage.person();
  const project = await newProject(stage, page, 'Late bench');
  let away = true;
  await page.route(/\/_next\/static\/chunks\//, async (route) => {
    const response = await route.fetch();
    if (away && (await response.text()).includes('Choose files')) return route.abort();
    return route.fulfill({ response });
  });
  await page.goto(`${stage.address}/projects/${project}`);
  await page.getByText('has not come from the server yet').waitFor();
  away = false;
  await page.getByRole('button', { name: 'Choose files' }).waitFor();
  await context.close();
});
