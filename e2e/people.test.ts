import { spawnSync } from 'node:child_process';
import type { BrowserContext, Page } from 'playwright-core';
import { allRoutes } from '@/cli/allRoutes';
import { serve } from '@/cli/serve';
import { anyPort, root } from '@/cli/system';
import { dxf, line } from '@/core/drawing/testing/dxf';
import type { ProjectState } from '@/core/model/state';
import type { RouteRule } from '@/server/people/routes';
import { hashOf, newToken } from '@/server/people/tokens';
import { openStage, problems, type Stage } from './harness';

/** Reads a stream of events until it tells of a version. */
const untilVersion =
  (reader: ReadableStreamDefaultReader<string>, begun: () => string) => async (): Promise<number> => {
    let text = begun();
    for (;;) {
      const found = /"version":(\d+)/.exec(text);
      if (found !== null) return Number(found[1]);
      const { value, done } = await reader.read();
      if (done) throw new Error('The stream ended');
      text += value;
    }
  };

const right = 'quiet harbour at dawn';

let stage: Stage;
/** The link by which the first owner makes an account, as the server's console tells it. */
let first: string;

interface Somebody {
  context: BrowserContext;
  page: Page;
}
interface People {
  owner: Somebody;
  editor: Somebody;
  reader: Somebody;
  stranger: Somebody;
  project: string;
}
let people: People;

beforeAll(async () => {
  stage = await openStage({ ZIRCON_SIGN_IN: '1', ZIRCON_LOG: 'plain' });
  const { stderr } = spawnSync(
    process.execPath,
    [
      ...['--import', 'tsx', '--input-type=module', '-e'],
      `const { tellFirst } = await import('@/server/people/people');
       const { closeConnections } = await import('@/server/database/connection');
       await tellFirst(); await closeConnections();`,
    ],
    { encoding: 'utf8', cwd: root, env: { ...process.env, DATABASE_URL: stage.databaseUrl, ZIRCON_SIGN_IN: '1' } },
  );
  first = /\/join\/[\w-]+/.exec(stderr)![0];
  people = await everybody();
}, 60_000);
afterAll(async () => stage.close());

/** What a program asks with the cookies of a window. */
async function asked(context: BrowserContext, path: string, method = 'GET', json?: unknown): Promise<number> {
  const cookies = await context.cookies(stage.address);
  const response = await fetch(stage.address + path, {
    method,
    headers: {
      cookie: cookies.map(({ name, value }) => `${name}=${value}`).join('; '),
      ...(json === undefined ? {} : { 'content-type': 'application/json' }),
    },
    ...(json === undefined ? {} : { body: JSON.stringify(json) }),
  });
  await response.body?.cancel();
  return response.status;
}

/** What is answered to somebody. */
async function told<T>({ context }: Somebody, path: string, json: unknown): Promise<T> {
  const cookies = await context.cookies(stage.address);
  const response = await fetch(stage.address + path, {
    method: 'POST',
    headers: {
      cookie: cookies.map(({ name, value }) => `${name}=${value}`).join('; '),
      'content-type': 'application/json',
    },
    body: JSON.stringify(json),
  });
  const [cookie] = response.headers.getSetCookie();
  if (cookie !== undefined) {
    const [name, value] = cookie.split(';')[0].split('=');
    await context.addCookies([{ name, value, url: stage.address }]);
  }
  return (await response.json()) as T;
}

/** The first owner, and those whom they invite: an editor and a reader of a project, and somebody for another job. */
async function everybody(): Promise<People> {
  const joined = async (path: string, name: string): Promise<Somebody> => {
    const person = await stage.person();
    await told(person, '/api/join', { as: 'new', token: path.split('/').pop(), name, password: right });
    return person;
  };
  const owner = await joined(first, 'Harbour office');
  const { id: project } = await told<{ id: string }>(owner, '/api/projects', { name: 'Slipway' });
  const link = async (path: string, json: object) => (await told<{ path: string }>(owner, path, json)).path;
  const members = `/api/projects/${project}/people`;
  return {
    owner,
    editor: await joined(await link(members, { right: 'editor' }), 'Structures'),
    reader: await joined(await link(members, { right: 'reader' }), 'Client'),
    stranger: await joined(await link('/api/people', { head: false }), 'Other job'),
    project,
  };
}

/** Makes an account by a link. */
async function joinBy(page: Page, path: string, name: string): Promise<void> {
  await page.goto(stage.address + path);
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.getByLabel('New password').fill(right);
  await page.getByRole('button', { name: 'Create' }).click();
  await page.getByRole('heading', { name: 'Projects', level: 1 }).waitFor();
}

async function signIn(page: Page, name: string, password = right): Promise<void> {
  await page.goto(`${stage.address}/sign-in`);
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

/** The link that a page shows. */
const linkOn = async (page: Page): Promise<string> =>
  new URL(await page.getByRole('textbox', { name: 'Link' }).inputValue()).pathname;

test('by links one comes in, sees what is theirs, and a link takes nothing from who opens it', async () => {
  const { owner, project } = people;
  const visitor = await stage.person();
  // Who has not signed in is asked to; the first owner's link worked once.
  await visitor.page.goto(stage.address);
  await visitor.page.waitForURL(/\/sign-in$/);
  await visitor.page.goto(stage.address + first);
  await visitor.page.getByRole('heading', { name: 'This link is not good any more' }).waitFor();
  await owner.page.goto(`${stage.address}/projects/${project}/people`);
  await owner.page.getByRole('button', { name: 'Invite' }).click();
  await joinBy(visitor.page, await linkOn(owner.page), 'Visitor');
  await visitor.page.getByRole('link', { name: /Slipway/ }).waitFor();
  // The owner who tries the link of a reader stays the owner.
  await owner.page.reload();
  await owner.page.getByRole('combobox', { name: 'Invite as' }).click();
  await owner.page.getByRole('option', { name: /^reader/ }).click();
  await owner.page.getByRole('button', { name: 'Invite' }).click();
  await owner.page.goto(stage.address + (await linkOn(owner.page)));
  await owner.page.getByRole('button', { name: 'Take part as Harbour office' }).click();
  await owner.page.getByRole('heading', { name: 'Projects', level: 1 }).waitFor();
  const rights = await stage.sql('select name, "right" from rights join people on id = person_id order by name');
  expect(rights).toEqual([
    { name: 'Client', right: 'reader' },
    { name: 'Harbour office', right: 'owner' },
    { name: 'Structures', right: 'editor' },
    { name: 'Visitor', right: 'editor' },
  ]);
  await visitor.context.close();
});

test('a stranger sees nothing, an editor changes, a reader\u2019s window has no tools, the history says who', async () => {
  const { editor, reader, stranger, project } = people;
  // For the stranger there is no such project; the page says what it says of none.
  await stranger.page.goto(`${stage.address}/projects/${project}`);
  await stranger.page.getByRole('alert').getByText('This project is not there any more.').waitFor();

  // The editor edits, the reader sees it, with a window that has no tools.
  await editor.page.goto(`${stage.address}/projects/${project}`);
  await reader.page.goto(`${stage.address}/projects/${project}`);
  const course = (page: Page) => page.getByRole('navigation', { name: 'Course' });
  await course(reader.page).getByText('Handover', { exact: true }).waitFor();
  await editor.page.getByRole('button', { name: 'Add level' }).click();
  await reader.page.getByText('+3.000').first().waitFor();
  const stations = async (page: Page) => (await course(page).getByRole('button').allInnerTexts()).length;
  expect([await stations(editor.page), await stations(reader.page)]).toEqual([7, 3]);
  const tools = async (page: Page) => {
    const counts = await Promise.all(
      ['Add level', 'Edit level', 'Choose files'].map((name) => page.getByRole('button', { name }).count()),
    );
    return counts.map((count) => count > 0);
  };
  expect([await tools(editor.page), await tools(reader.page)]).toEqual([
    [true, true, true],
    [false, false, false],
  ]);
  expect(await reader.page.getByRole('button', { name: /Undo|Nothing to undo/ }).count()).toBe(0);
  // What a trial starts from can be looked at, and not changed.
  const [level] = await editor.page.evaluate(async (id) => {
    const { state } = (await (await fetch(`/api/projects/${id}/state`)).json()) as { state: ProjectState };
    return Object.keys(state.level);
  }, project);
  const shape = { position: [0, 0], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: '' };
  const id = crypto.randomUUID();
  const row = { id, levelId: level, source: null, libraryId: null, kind: 'column', shape };
  const edit = { label: 'A column', changes: [{ table: 'element', id, row }] };
  await told(editor, `/api/projects/${project}/edits`, { seen: 0, clientId: crypto.randomUUID(), edit });
  await course(reader.page).getByText('Proof', { exact: true }).click();
  await reader.page.getByRole('tab', { name: 'Structure', exact: true }).click();
  await reader.page.getByRole('tab', { name: 'Materials and cases' }).click();
  await reader.page.getByText('Who may edit this project sets these.').waitFor();
  const bench = reader.page.getByRole('region', { name: 'Bench' });
  expect(await bench.getByRole('textbox').count()).toBeGreaterThan(0);
  expect(await bench.locator('input:enabled').count()).toBe(0);
  expect(await bench.locator('fieldset').getByRole('button', { name: 'Delete' }).count()).toBeGreaterThan(0);
  expect(await bench.locator('fieldset button:enabled').count()).toBe(0);
  // Each sees that the other is here, by name.
  await reader.page.getByRole('button', { name: '1 other here' }).click();
  await reader.page.getByRole('dialog', { name: 'Others here' }).getByText('Structures').waitFor();
  await reader.page.keyboard.press('Escape');
  // Who did what stands in the history.
  const past = await stage.sql<{ person: string; label: string }>(
    'select person, label from edits where project_id = $1 order by seq',
    [project],
  );
  expect(past.at(-1)).toMatchObject({ person: 'Structures' });
});

test('every route asks who asks: nobody, a stranger, a reader, an editor and an owner of a project', async () => {
  const { owner, editor, reader, stranger, project } = people;
  const nobody = await stage.person();
  const other = crypto.randomUUID();
  const routes = await allRoutes();
  expect(routes.length).toBeGreaterThan(55);
  const order = ['reader', 'editor', 'owner'] as const;
  const refused: string[] = [];
  const expectStatus = async (who: BrowserContext, name: string, one: RouteRule, statuses: number[]): Promise<void> => {
    const path = one.path.replace('[project]', project).replace(/\[\w+\]/g, other);
    const got = await asked(who, path, one.method, one.method === 'GET' || one.method === 'DELETE' ? undefined : {});
    if (!statuses.includes(got)) refused.push(`${name} ${one.method} ${one.path}: ${got}`);
  };
  for (const one of routes) {
    if (one.rule === 'anyone') continue;
    await expectStatus(nobody.context, 'nobody', one, [401]);
    const inProject = order.findIndex((rule) => rule === one.rule);
    if (inProject >= 0) await expectStatus(stranger.context, 'stranger', one, [404]);
    if (inProject > 0) await expectStatus(reader.context, 'reader', one, [403]);
    if (inProject > 1) await expectStatus(editor.context, 'editor', one, [403]);
    if (one.rule === 'head') await expectStatus(editor.context, 'editor', one, [403]);
  }
  expect(refused).toEqual([]);
  // And those who may are not refused: nothing that is sent here changes anything.
  const got = [
    await asked(reader.context, `/api/projects/${project}/state`),
    await asked(reader.context, `/api/projects/${project}/handover/model.json`),
    await asked(editor.context, `/api/projects/${project}/edits`, 'POST', {}),
    await asked(owner.context, `/api/projects/${project}/people`),
    await asked(owner.context, '/api/people'),
  ];
  expect(got).toEqual([200, 200, 400, 200, 200]);
  // A delivery is written by who may change the project; a trial is looked at by readers.
  const wish = {
    kind: 'delivery',
    wish: { name: 'x', formats: ['json'], content: ['walls'], levels: null, unit: 'm', origin: { at: 'project' } },
  };
  expect([
    await asked(reader.context, `/api/projects/${project}/jobs`, 'POST', wish),
    await asked(reader.context, `/api/projects/${project}/jobs`, 'POST', { kind: 'heat' }),
  ]).toEqual([403, 200]);
  await nobody.context.close();
});

test('names are not told apart from passwords, trying ends, and a session cannot be laid under', async () => {
  const { context, page } = await stage.person();
  const wrong = async (name: string, password: string) => {
    await signIn(page, name, password);
    return page.getByText(/Name and password do not belong together|Too many attempts/).innerText();
  };
  expect(await wrong('Structures', 'not this one at all')).toBe(await wrong('Nobody of that name', 'nor this one'));
  // A cookie that somebody else put there is not the one that the session gets.
  await context.addCookies([{ name: 'zircon', value: 'known-to-another', url: stage.address }]);
  await signIn(page, 'Structures');
  await page.getByRole('heading', { name: 'Projects', level: 1 }).waitFor();
  const [cookie] = (await context.cookies(stage.address)).filter(({ name }) => name === 'zircon');
  expect([cookie.value.length, cookie.httpOnly, cookie.sameSite]).toEqual([43, true, 'Lax']);
  expect(await stage.sql('select 1 from sessions where token = $1', [cookie.value])).toEqual([]);
  // Another site's page cannot have anything done.
  const foreign = await fetch(`${stage.address}/api/sign-out`, {
    method: 'POST',
    headers: {
      cookie: `zircon=${cookie.value}`,
      origin: 'https://elsewhere.example',
      'content-type': 'application/json',
    },
    body: '{"everywhere":true}',
  });
  expect(foreign.status).toBe(403);
  expect(await asked(context, '/api/me')).toBe(200);
  // Eleven wrong passwords, and the right one does not help for a while.
  const statuses: number[] = [];
  for (let i = 0; i < 11; i += 1)
    statuses.push(await asked(context, '/api/sign-in', 'POST', { name: 'Client', password: `guess ${i}` }));
  expect(statuses).toEqual([...Array.from({ length: 10 }, () => 401), 429]);
  expect(await asked(context, '/api/sign-in', 'POST', { name: 'Client', password: right })).toBe(429);
  await context.close();
});

test('ids, file names and headers are not worth guessing', async () => {
  const { editor, stranger, project } = people;
  const cookieOf = async ({ context }: Somebody) =>
    (await context.cookies(stage.address)).map(({ name, value }) => `${name}=${value}`).join('; ');
  const sent = async (who: Somebody, path: string, init: RequestInit = {}) =>
    fetch(stage.address + path, { ...init, headers: { cookie: await cookieOf(who), ...init.headers } });
  // A name that is a path is none.
  const body = dxf({ entities: line(0, 0, 1, 0, 'WALL') });
  const bring = async (name: string) => {
    const path = `/api/projects/${project}/intakes?name=${encodeURIComponent(name)}`;
    return (await sent(editor, path, { method: 'POST', body })).status;
  };
  expect([await bring('../../etc/passwd.dxf'), await bring('passwd.dxf')]).toEqual([400, 200]);
  let rows: ProjectState;
  do
    ({ state: rows } = (await (await sent(editor, `/api/projects/${project}/state`)).json()) as {
      state: ProjectState;
    });
  while (Object.keys(rows.drawing).length === 0);
  const [drawing] = Object.values(rows.drawing);
  expect(drawing.fileName).toBe('passwd.dxf');
  // Who knows the id of a file has nothing of it: not in its own project, and not through one of theirs.
  const own = (await told<{ id: string }>(stranger, '/api/projects', { name: 'Of a stranger' })).id;
  for (const through of [project, own])
    expect((await sent(stranger, `/api/projects/${through}/files/${drawing.fileId}/columns`)).status).toBe(404);
  // A project that is there and one that is not are told of alike.
  const answers = await Promise.all(
    [project, crypto.randomUUID()].map(async (id) => (await sent(stranger, `/api/projects/${id}/state`)).text()),
  );
  expect(answers[0]).toBe(answers[1]);
  // No header makes somebody of nobody, nor an owner of a stranger.
  const headers = {
    authorization: 'Bearer owner',
    'x-forwarded-user': 'Harbour office',
    'x-forwarded-for': '127.0.0.1',
    'x-middleware-subrequest': 'src/proxy:src/proxy:src/proxy:src/proxy:src/proxy',
    'x-http-method-override': 'GET',
    'x-original-url': '/api/health',
  };
  expect((await fetch(`${stage.address}/api/projects/${project}/state`, { headers })).status).toBe(401);
  expect((await sent(stranger, `/api/projects/${project}/state`, { headers })).status).toBe(404);
  // Another address each time does not make more attempts of them.
  const statuses: number[] = [];
  for (let i = 0; i < 11; i += 1) {
    const answer = await fetch(`${stage.address}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-forwarded-for': `203.0.113.${i}` },
      body: JSON.stringify({ name: 'Other job', password: `guess ${i}` }),
    });
    statuses.push(answer.status);
  }
  expect(statuses).toEqual([...Array.from({ length: 10 }, () => 401), 429]);
});

test('signing out everywhere, a new password and a taken right end what was open', async () => {
  const { owner, editor, reader, project } = people;
  const second = await stage.person();
  await signIn(second.page, 'Structures');
  await second.page.getByRole('heading', { name: 'Projects', level: 1 }).waitFor();
  await editor.page.goto(`${stage.address}/people`);
  await editor.page.getByRole('button', { name: 'Sign out everywhere' }).click();
  await editor.page.waitForURL(/\/sign-in$/);
  expect(await asked(second.context, '/api/me')).toBe(401);

  // The owner gives a new password by a link that works once; it ends the sessions of the old one.
  await owner.page.goto(`${stage.address}/people`);
  await owner.page.getByRole('button', { name: 'New password for Client' }).click();
  const link = await linkOn(owner.page);
  await second.page.goto(stage.address + link);
  await second.page.getByRole('heading', { name: 'A new password for Client' }).waitFor();
  await second.page.getByLabel('New password').fill('short');
  await second.page.getByRole('button', { name: 'Apply' }).click();
  await second.page
    .getByText(/at least 12 characters/i)
    .last()
    .waitFor();
  await second.page.getByLabel('New password').fill('another quiet harbour');
  await second.page.getByRole('button', { name: 'Apply' }).click();
  await second.page.getByRole('heading', { name: 'Projects', level: 1 }).waitFor();
  expect(await asked(reader.context, '/api/me')).toBe(401);
  expect(await asked(second.context, `/api/projects/${project}/state`)).toBe(200);

  // A right that is taken ends the stream of events too.
  const cookies = await second.context.cookies(stage.address);
  const stream = await fetch(`${stage.address}/api/projects/${project}/events`, {
    headers: { cookie: cookies.map(({ name, value }) => `${name}=${value}`).join('; ') },
  });
  const ended = stream.text();
  await owner.page.goto(`${stage.address}/projects/${project}/people`);
  await owner.page.getByRole('button', { name: 'Take Client out' }).click();
  await owner.page.getByRole('cell', { name: 'Client', exact: true }).waitFor({ state: 'detached' });
  expect(await asked(second.context, `/api/projects/${project}/state`)).toBe(404);
  expect(await ended).toContain('retry: 1000');
  // The last owner stays one.
  await owner.page.getByRole('button', { name: 'Take Harbour office out' }).click();
  await owner.page.getByText('A project has an owner. Make somebody else one first.').waitFor();
  await second.context.close();
});

test('two servers behind one database know every session, and tell 200 listeners of one edit', async () => {
  const { owner, project } = people;
  const other = await serve('start', await anyPort(), {
    DATABASE_URL: stage.databaseUrl,
    ZIRCON_SIGN_IN: '1',
    ZIRCON_LOG: 'plain',
  });
  const servers = [stage.address, other.address];
  try {
    // A thousand sessions of one person, each as a browser of its own would have it.
    const [self] = await stage.sql<{ id: string }>("select id from people where name = 'Harbour office'");
    const tokens = Array.from({ length: 1000 }, () => newToken());
    await stage.sql('insert into sessions (token, person_id) select unnest($1::text[]), $2', [
      tokens.map(hashOf),
      self.id,
    ]);
    const asks = (token: string, i: number) =>
      fetch(`${servers[i % 2]}/api/me`, { headers: { cookie: `zircon=${token}` } }).then(async (answer) => {
        await answer.body?.cancel();
        return answer.status;
      });
    const statuses: number[] = [];
    for (let i = 0; i < tokens.length; i += 50)
      statuses.push(...(await Promise.all(tokens.slice(i, i + 50).map((token, j) => asks(token, i + j)))));
    expect(new Set(statuses)).toEqual(new Set([200]));

    // Two hundred of them listen, half at each server; an edit at one is heard by all.
    const ending = new AbortController();
    const heard = tokens.slice(0, 200).map(async (token, i) => {
      const stream = await fetch(`${servers[i % 2]}/api/projects/${project}/events`, {
        headers: { cookie: `zircon=${token}` },
        signal: ending.signal,
      });
      const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
      let text = '';
      const listening = reader.read().then(({ value = '' }) => (text += value));
      return { listening, version: untilVersion(reader, () => text) };
    });
    const streams = await Promise.all(heard);
    await Promise.all(streams.map(({ listening }) => listening));
    const cookies = await owner.context.cookies(stage.address);
    const headers = {
      cookie: cookies.map(({ name, value }) => `${name}=${value}`).join('; '),
      'content-type': 'application/json',
    };
    const state = await fetch(`${other.address}/api/projects/${project}/state`, { headers });
    const { state: rows, history } = (await state.json()) as { state: ProjectState; history: { version: number } };
    const [level] = Object.values(rows.level);
    const edit = { label: 'Heard', changes: [{ table: 'level', id: level.id, row: { ...level, name: 'Heard' } }] };
    const sent = { seen: history.version, clientId: crypto.randomUUID(), edit };
    const made = await fetch(`${other.address}/api/projects/${project}/edits`, {
      method: 'POST',
      headers,
      body: JSON.stringify(sent),
    });
    expect(made.status).toBe(200);
    expect(new Set(await Promise.all(streams.map(({ version }) => version())))).toEqual(new Set([history.version + 1]));
    ending.abort();
  } finally {
    await other.stop();
  }
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
