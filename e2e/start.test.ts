import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildFolder } from '@/cli/build';
import { anyPort, root } from '@/cli/system';
import { removeCluster } from '@/cli/postgres';
import { groundFloor } from '../demo/ground';
import { ask, openStage } from './harness';

const state = mkdtempSync(join(tmpdir(), 'zircon-start-'));
const environment = (more: Record<string, string | undefined> = {}): NodeJS.ProcessEnv => {
  const env: NodeJS.ProcessEnv = { ...process.env, ZIRCON_STATE: state, ...more };
  for (const [name, value] of Object.entries(env)) if (value === undefined) delete env[name];
  return env;
};
const run = (args: string[], more: Record<string, string | undefined> = {}) =>
  spawnSync(join(root, 'run'), args, { encoding: 'utf8', env: environment(more), timeout: 60_000 });

afterAll(() => {
  removeCluster(join(state, 'db'));
  rmSync(state, { recursive: true, force: true });
});

/** Starts `./run demo` on the private database and waits for its address. */
async function start(args: string[]): Promise<{ child: ChildProcess; address: string; text: () => string }> {
  const child = spawn(join(root, 'run'), ['demo', ...args], {
    env: environment({ DATABASE_URL: undefined }),
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let text = '';
  const address = await new Promise<string>((found, failed) => {
    const hear = (chunk: Buffer) => {
      text += String(chunk);
      const match = /Zircon Frame: (\S+)/.exec(text);
      if (match) found(match[1]);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.on('exit', () => failed(new Error(text)));
  });
  return { child, address, text: () => text };
}

const stop = (child: ChildProcess) =>
  new Promise<number | null>((done) => {
    child.once('exit', done);
    child.kill('SIGINT');
  });
const projects = async (address: string) =>
  (
    (await (await fetch(`${address}/api/projects`)).json()) as {
      projects: { name: string; drawings: number; elements: number }[];
    }
  ).projects;

test('./run alone explains itself, and a word it does not know ends with code 2', () => {
  expect(run([])).toMatchObject({ status: 0, stdout: expect.stringContaining('./run demo') });
  expect(run(['dance']).status).toBe(2);
});

test('a port in use, a port that is none and a database that is away are said in a sentence', async () => {
  const busy = createServer();
  await new Promise<void>((listening) => busy.listen(0, '127.0.0.1', listening));
  const { port } = busy.address() as { port: number };
  const taken = run(['demo', '--port', String(port)]);
  expect([taken.status, taken.stderr]).toEqual([
    1,
    `Port ${port} is in use by another program. Choose another with --port, or leave it out.\n`,
  ]);
  busy.close();
  expect(run(['demo', '--port', 'abc'])).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('"abc" is not a port'),
  });
  const away = run(['demo'], { DATABASE_URL: `postgres://x@127.0.0.1:${await anyPort()}/x` });
  expect(away).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('The database at DATABASE_URL cannot be used: The database does not answer.'),
  });
  expect(run(['demo', '--fresh'])).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('--fresh deletes the private database only'),
  });
});

const raw = 'Marram Point Field Station';
const finished = `${raw}, finished`;

test('the demo starts with its two projects, stops with its database, and keeps the data', async () => {
  const first = await start(['--port', String(await anyPort())]);
  const found = (await projects(first.address)).sort((a, b) => a.name.localeCompare(b.name));
  expect(found).toMatchObject([
    { name: raw, drawings: 6, elements: 0 },
    { name: finished, drawings: 6 },
  ]);
  expect(found[1].elements).toBeGreaterThan(200);
  const again = run(['demo'], { DATABASE_URL: undefined });
  expect([again.status, again.stdout]).toEqual([0, `Zircon Frame runs already: ${first.address}\n`]);
  await fetch(`${first.address}/api/projects`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"name":"Kept"}',
  });
  expect(await stop(first.child)).toBe(0);
  await expect(fetch(first.address)).rejects.toThrow();
  expect(existsSync(join(state, 'server.json'))).toBe(false);
  expect(spawnSync('pgrep', ['-f', `${state.split('/').pop()}`], { encoding: 'utf8' }).stdout.trim()).toBe('');

  const second = await start(['--port', String(await anyPort())]);
  expect((await projects(second.address)).map((project) => project.name).sort()).toEqual(['Kept', raw, finished]);
  expect(await stop(second.child)).toBe(0);

  const fresh = await start(['--fresh', '--port', String(await anyPort())]);
  expect((await projects(fresh.address)).map((project) => project.name).sort()).toEqual([raw, finished]);
  expect(await stop(fresh.child)).toBe(0);
});

test('after a start command was killed the next one ends its server, says so, and goes on with the same data', async () => {
  const port = String(await anyPort());
  const first = await start(['--port', port]);
  await fetch(`${first.address}/api/projects`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"name":"Before the kill"}',
  });
  const gone = new Promise((done) => {
    first.child.once('exit', done);
  });
  first.child.kill('SIGKILL');
  await gone;
  // Its server goes on, on the same port.
  expect((await fetch(`${first.address}/api/projects`)).status).toBe(200);
  const second = await start(['--port', port]);
  expect(second.text()).toContain('The server of an earlier start still ran');
  expect((await projects(second.address)).map(({ name }) => name)).toContain('Before the kill');
  expect(await stop(second.child)).toBe(0);
  await expect(fetch(second.address)).rejects.toThrow();
});

test('a worker of its own does what a server without jobs leaves to it', async () => {
  const stage = await openStage({ ZIRCON_JOBS: '0' });
  const {
    body: { id },
  } = await ask<{ id: string }>(stage, '/api/projects', { name: 'Work' });
  await fetch(`${stage.address}/api/projects/${id}/intakes?name=ground.dxf`, {
    method: 'POST',
    body: groundFloor().dxf,
  });
  expect(await stage.sql('select state from intakes')).toEqual([{ state: 'waiting' }]);
  const worker = spawn(join(root, 'run'), ['worker'], {
    env: environment({ DATABASE_URL: stage.databaseUrl }),
    stdio: 'ignore',
  });
  for (
    let i = 0;
    i < 200 && (await stage.sql<{ state: string }>('select state from intakes'))[0].state !== 'done';
    i += 1
  )
    await new Promise((wait) => setTimeout(wait, 100));
  expect(await stage.sql('select state from intakes')).toEqual([{ state: 'done' }]);
  expect(await stop(worker)).toBe(0);
  await stage.close();
});

test('a server whose output nobody reads any more still ends when it is told to', async () => {
  const port = await anyPort();
  const child = spawn(
    process.execPath,
    [join(root, 'node_modules/next/dist/bin/next'), 'start', '-H', '127.0.0.1', '-p', String(port)],
    {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      // Nobody listens at this address: the server says so every two seconds.
      env: {
        ...process.env,
        NODE_ENV: 'production',
        ZIRCON_BUILD: buildFolder,
        DATABASE_URL: 'postgres://127.0.0.1:9/none',
      },
    },
  );
  const ended = new Promise<void>((done) => child.once('exit', () => done()));
  try {
    await new Promise<void>((heard) => child.stderr.once('data', () => heard()));
    child.stdout.destroy();
    child.stderr.destroy();
    // It says the same twice more, to nobody.
    await new Promise((wait) => setTimeout(wait, 5000));
    child.kill('SIGTERM');
    await Promise.race([ended, new Promise((_, late) => setTimeout(() => late(new Error('It did not end.')), 20_000))]);
  } finally {
    child.kill('SIGKILL');
  }
});
