import { createHash } from 'node:crypto';
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import pg from 'pg';
import { root } from '@/cli/system';
import type { ProjectState } from '@/core/model/state';
import { ask, ofKind, openFinished, type Stage } from './harness';

const folder = mkdtempSync(join(tmpdir(), 'zircon-backup-'));
let stage: Stage;
let project: string;
beforeAll(async () => {
  ({ stage, project } = await openFinished());
}, 120_000);
afterAll(async () => {
  await stage.close();
  rmSync(folder, { recursive: true, force: true });
});

interface Snapshot {
  state: ProjectState;
  history: { version: number; undo: string | null };
}

const environment = (databaseUrl: string) => ({ ...process.env, DATABASE_URL: databaseUrl, ZIRCON_BACKUPS: folder });
/** Runs a command to its end; not in one go, or the connections to the server would grow old meanwhile. */
const run = (...args: string[]) =>
  new Promise<{ status: number | null; stdout: string; stderr: string }>((done) => {
    const child = spawn(join(root, 'run'), args, { env: environment(stage.databaseUrl) });
    const [out, err]: string[][] = [[], []];
    child.stdout.on('data', (chunk: Buffer) => out.push(String(chunk)));
    child.stderr.on('data', (chunk: Buffer) => err.push(String(chunk)));
    child.on('close', (status) => done({ status, stdout: out.join(''), stderr: err.join('') }));
  });
const load = async (id: string) => (await ask<Snapshot>(stage, `/api/projects/${id}/state`)).body;
const projects = async () =>
  (await ask<{ projects: { id: string; name: string }[] }>(stage, '/api/projects')).body.projects;

/** A state with its ids numbered in the order in which they stand, so that copies can be compared. */
function numbered(state: ProjectState): unknown {
  const { name, ...own } = Object.values(state.project)[0];
  const rows = { ...state, project: [{ ...own, name: name.replace(/ \(restored.*\)$/, '') }] };
  const byShape = Object.fromEntries(
    Object.entries(rows).map(([table, all]) => [
      table,
      Object.values(all as Record<string, unknown>)
        .map((row) => JSON.stringify(row).replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, 'id'))
        .sort(),
    ]),
  );
  return byShape;
}

/** A backup as if another version had made it, its check sum right. */
function ofVersion(path: string, schema: string): Buffer {
  const lines = gunzipSync(readFileSync(path)).toString('utf8').trimEnd().split('\n').slice(0, -1);
  const [head, ...rest] = lines;
  const text = [head.replace(/"schema":"[^"]*"/, `"schema":"${schema}"`), ...rest].map((line) => `${line}\n`).join('');
  const end = { rows: rest.length, sha256: createHash('sha256').update(text).digest('hex') };
  return gzipSync(`${text}${JSON.stringify({ end })}\n`);
}

test('a project comes back beside itself, whole, with its history, and nothing that was there is touched', async () => {
  const path = join(folder, 'whole.zfb');
  const first = await load(project);
  const [level] = Object.values(first.state.level);
  await ask(stage, `/api/projects/${project}/edits`, {
    seen: first.history.version,
    clientId: crypto.randomUUID(),
    edit: {
      label: 'Raise',
      changes: [{ table: 'level', id: level.id, row: { ...level, height: level.height + 0.1 } }],
    },
  });
  const before = await load(project);
  const made = await run('backup', path);
  expect([made.status, made.stderr]).toEqual([0, '']);
  expect(made.stdout).toContain('read again and whole');
  const back = await run('restore', path);
  expect([back.status, back.stderr]).toEqual([0, '']);
  const copy = (await projects()).find(({ name }) => name.endsWith('(restored)'))!;
  const after = await load(copy.id);
  expect(numbered(after.state)).toEqual(numbered(before.state));
  expect(after.history).toMatchObject({ version: before.history.version, undo: before.history.undo });
  expect(await load(project)).toEqual(before);
  // Its drawings have their files, and its openings the copies of their walls.
  const [drawing] = Object.values(after.state.drawing);
  const columns = await fetch(`${stage.address}/api/projects/${copy.id}/files/${drawing.fileId}/columns?reader=0`);
  expect([columns.status, (await columns.arrayBuffer()).byteLength > 1000]).toEqual([200, true]);
  const openings = Object.values(after.state.element).filter(({ kind }) => kind === 'opening');
  expect(openings.length).toBeGreaterThan(5);
  for (const { kind, shape } of openings) if (kind === 'opening') expect(after.state.element[shape.wall]).toBeDefined();
  // The history goes on: its last step is undone and redone, and once more beside it makes a third.
  const step = (way: string, seen: number) =>
    ask(stage, `/api/projects/${copy.id}/${way}`, { seen, clientId: crypto.randomUUID() });
  expect((await step('undo', after.history.version)).status).toBe(200);
  expect((await step('redo', after.history.version + 1)).status).toBe(200);
  expect((await load(copy.id)).state).toEqual(after.state);
  expect((await run('restore', path, '--project', Object.values(before.state.project)[0].name)).status).toBe(0);
  expect((await projects()).filter(({ name }) => name.includes('(restored'))).toHaveLength(2);
});

test('a backup killed in the middle leaves no file of that name, and the server goes on', async () => {
  const path = join(folder, 'killed.zfb');
  for (const delay of [0, 40, 120]) {
    const child = spawn(join(root, 'run'), ['backup', path], {
      env: environment(stage.databaseUrl),
      stdio: 'ignore',
      detached: true,
    });
    const ended = new Promise((done) => {
      child.once('exit', done);
    });
    while (!existsSync(`${path}.part`) && child.exitCode === null) await new Promise((wait) => setTimeout(wait, 5));
    await new Promise((wait) => setTimeout(wait, delay));
    process.kill(-child.pid!, 'SIGKILL');
    await ended;
    if (existsSync(path)) rmSync(path);
    else expect(existsSync(`${path}.part`)).toBe(true);
  }
  expect((await load(project)).history.version).toBeGreaterThan(0);
  // The next one takes the place of what was left.
  expect((await run('backup', path)).status).toBe(0);
  expect(existsSync(`${path}.part`)).toBe(false);
  const twice = await run('backup', path);
  expect([twice.status, twice.stderr]).toEqual([
    1,
    `${path} is there already. Choose another name, or move it away.\n`,
  ]);
});

test('a damaged, a cut and a foreign file are refused with a sentence, and nothing of them is put back', async () => {
  const whole = join(folder, 'to-damage.zfb');
  expect((await run('backup', whole)).status).toBe(0);
  const bytes = readFileSync(whole);
  const before = await projects();
  const attempt = async (name: string, content: Buffer | string) => {
    const path = join(folder, name);
    writeFileSync(path, content);
    const { status, stderr } = await run('restore', path);
    expect(status).toBe(1);
    return stderr;
  };
  const flipped = Buffer.from(bytes);
  flipped[flipped.length >> 1] ^= 0x55;
  expect(await attempt('flipped.zfb', flipped)).toContain('is no whole backup');
  expect(await attempt('cut.zfb', bytes.subarray(0, bytes.length >> 1))).toContain('is no whole backup');
  expect(await attempt('foreign.zfb', 'PK no backup')).toContain('is no whole backup');
  expect((await run('restore', join(folder, 'nowhere.zfb'))).stderr).toContain('There is no file');
  expect((await run('restore', whole, '--project', 'Nobody')).stderr).toContain('The backup holds no project Nobody.');
  expect(await projects()).toEqual(before);
});

test('a restore killed in the middle leaves nothing of itself', async () => {
  const path = join(folder, 'for-kill.zfb');
  expect((await run('backup', path)).status).toBe(0);
  const before = await projects();
  const child = spawn(join(root, 'run'), ['restore', path], {
    env: environment(stage.databaseUrl),
    stdio: 'ignore',
    detached: true,
  });
  const ended = new Promise((done) => {
    child.once('exit', done);
  });
  // As soon as it writes.
  for (let writing = false; !writing && child.exitCode === null;) {
    const rows = await stage.sql(
      "select 1 from pg_stat_activity where query like '%json_populate_recordset%' and pid <> pg_backend_pid()",
    );
    writing = rows.length > 0;
  }
  process.kill(-child.pid!, 'SIGKILL');
  await ended;
  await new Promise((wait) => setTimeout(wait, 500));
  const names = (await projects()).map(({ name }) => name);
  expect([before.length, 2 * before.length]).toContain(names.length);
});

test('edits older than some days go only when told to; what they made stays, and undo ends there', async () => {
  const { id } = (await ask<{ id: string }>(stage, '/api/projects', { name: 'Compacted' })).body;
  const [level] = Object.values((await load(id)).state.level);
  for (let i = 0; i < 3; i += 1)
    await ask(stage, `/api/projects/${id}/edits`, {
      seen: i,
      clientId: crypto.randomUUID(),
      edit: { label: `Rename ${i}`, changes: [{ table: 'level', id: level.id, row: { ...level, name: `N${i}` } }] },
    });
  expect((await run('compact', '1')).stdout).toMatch(/^0 edits/);
  expect((await run('compact', '0')).status).toBe(0);
  const after = await load(id);
  expect([after.state.level[level.id].name, after.history.version, after.history.undo]).toEqual(['N2', 3, null]);
  const undo = await ask<{ message: string }>(stage, `/api/projects/${id}/undo`, {
    seen: 3,
    clientId: crypto.randomUUID(),
  });
  expect([undo.status, undo.body.message]).toEqual([409, 'There is nothing to undo.']);
});

test('an old database is backed up before it is brought up to date, and then has its rows', async () => {
  const base = new URL(stage.databaseUrl);
  const name = `${base.pathname.slice(1)}_old`;
  await stage.sql(`create database ${name}`);
  const url = Object.assign(new URL(base), { pathname: `/${name}` }).toString();
  const before = readdirSync(folder);
  const script = (body: string) =>
    spawnSync(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', body], {
      encoding: 'utf8',
      cwd: root,
      env: environment(url),
    });
  const imports = `
    const { database, closeConnections } = await import('@/server/database/connection');
    const { migrate } = await import('@/server/database/migrate');`;
  const old = script(`${imports} await migrate(database(), '0010_decided_elements'); await closeConnections();`);
  expect(old.stderr).toBe('');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const [project, level, column] = [1, 2, 3].map(() => crypto.randomUUID());
  await client.query("insert into projects (id, name, display_unit) values ($1, 'Old', 'm')", [project]);
  await client.query("insert into levels (id, project_id, name, elevation, height) values ($1, $2, 'Ground', 0, 3)", [
    level,
    project,
  ]);
  await client.query("insert into elements (id, project_id, level_id, kind, shape) values ($1, $2, $3, 'column', $4)", [
    column,
    project,
    level,
    { mark: 'C1', position: [1, 2], rotation: 0, section: { shape: 'circle', diameter: 0.4 } },
  ]);
  await client.query(
    `insert into edits (project_id, seq, client_id, label, changes, inverse) values ($1, 1, $2, 'Old edit', $3, '[]')`,
    [project, crypto.randomUUID(), JSON.stringify([{ table: 'element', id: column, row: null }])],
  );
  const { stderr } = script(
    `const { closeConnections } = await import('@/server/database/connection');
     const { bringUpToDate } = await import('@/server/bringUpToDate');
     await bringUpToDate(); await closeConnections();`,
  );
  expect(stderr).toContain('before it is changed it was backed up to');
  const [made, ...more] = readdirSync(folder).filter((file) => !before.includes(file));
  expect([made, more]).toEqual([expect.stringMatching(/^before-upgrade-.*\.zfb$/), []]);
  const { rows } = await client.query('select touched from edits');
  expect(rows).toEqual([{ touched: [`element ${column}`] }]);
  expect((await client.query('select level_id from elements')).rows).toEqual([{ level_id: level }]);
  await client.end();
  await stage.sql(`drop database ${name}`);

  // The backup of then is brought up to date on its way in; one of a later version is not known.
  const path = join(folder, made);
  expect(await run('restore', path)).toMatchObject({ status: 0, stderr: '' });
  const { id } = (await projects()).find((one) => one.name === 'Old')!;
  const { state } = await load(id);
  expect(Object.values(state.level).map(({ name: own, buildUp }) => [own, buildUp])).toEqual([['Ground', 0]]);
  expect(ofKind(state, 'column').map(({ shape: { mark, position } }) => [mark, position])).toEqual([['C1', [1, 2]]]);
  expect(await stage.sql("select 1 from pg_namespace where nspname like 'zircon_renewing%'")).toEqual([]);
  const later = join(folder, 'later.zfb');
  writeFileSync(later, ofVersion(path, '9999_later'));
  const refused = await run('restore', later);
  expect([refused.status, refused.stderr]).toEqual([1, expect.stringContaining('made by a later version') as string]);
});
