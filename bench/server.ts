import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import pg from 'pg';
import { buildApplication } from '@/cli/build';
import { removeCluster, startCluster } from '@/cli/postgres';
import { serve, type Serving } from '@/cli/serve';
import { anyPort } from '@/cli/system';
import type { Change } from '@/core/model/edits';
import type { ProjectState } from '@/core/model/state';
import { hashOf, newToken } from '@/server/people/tokens';
import { makeModel } from './makeModel';
import { makePlan } from './makePlan';

/** How long each number of editors works, milliseconds. */
const working = 10_000;

/** Fifty editors at this pace make some seventy steps a second, milliseconds. */
const officePace = 700;

interface Snapshot {
  state: ProjectState;
  history: { version: number };
}

/** A server on a database of its own, which cares for power cuts as one in an office does. */
class Bench {
  private serving!: Serving;
  private port = 0;

  /** @param cookie of who is signed in; null where nobody signs in */
  constructor(
    private readonly databaseUrl: string,
    private readonly cookie: string | null = null,
  ) {}

  get address(): string {
    return this.serving.address;
  }

  async start(): Promise<void> {
    this.port ||= await anyPort();
    const signIn = this.cookie === null ? '' : '1';
    const env = { DATABASE_URL: this.databaseUrl, ZIRCON_SIGN_IN: signIn, ZIRCON_LOG: 'plain' };
    this.serving = await serve('start', this.port, env);
  }

  async kill(): Promise<void> {
    const ended = new Promise((done) => {
      this.serving.process.once('exit', done);
    });
    process.kill(-this.serving.process.pid!, 'SIGKILL');
    await ended;
  }

  stop = (): Promise<void> => this.serving.stop();

  /** Memory that the server's process holds, MB. */
  memory(): number {
    const status = readFileSync(`/proc/${this.serving.process.pid}/status`, 'utf8');
    return Number(/VmRSS:\s+(\d+)/.exec(status)![1]) / 1024;
  }

  async json<T>(path: string, body?: unknown): Promise<{ status: number; body: T }> {
    const response = await fetch(this.address + path, {
      method: body === undefined ? 'GET' : 'POST',
      headers: {
        ...(this.cookie === null ? {} : { cookie: this.cookie }),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    return { status: response.status, body: (await response.json()) as T };
  }

  project = async (name: string): Promise<string> =>
    (await this.json<{ id: string }>('/api/projects', { name })).body.id;
  load = async (id: string): Promise<Snapshot> => (await this.json<Snapshot>(`/api/projects/${id}/state`)).body;

  edit(project: string, seen: number, changes: readonly Change[], label = 'Move') {
    const body = { seen, clientId: crypto.randomUUID(), edit: { label, changes } };
    return this.json<{ history: { version: number } }>(`/api/projects/${project}/edits`, body);
  }
}

const column = (id: string, levelId: string, x: number, y = 0): Change => ({
  table: 'element',
  id,
  row: {
    id,
    levelId,
    source: null,
    libraryId: null,
    kind: 'column',
    shape: { position: [x, y], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: '' },
  },
});

const share = (sorted: readonly number[], part: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? NaN;

/**
 * Editors who each move their own columns for a while.
 * @param pace milliseconds from step to step; zero is as soon as the step before is confirmed
 */
async function editors(bench: Bench, count: number, pace = 0): Promise<void> {
  const project = await bench.project(`Editors ${count}`);
  const { state } = await bench.load(project);
  const [level] = Object.keys(state.level);
  const took: number[] = [];
  const confirmed = new Map<string, number>();
  let refused = 0;
  const end = Date.now() + working;
  await Promise.all(
    Array.from({ length: count }, async (_, who) => {
      const id = crypto.randomUUID();
      let [seen, x] = [0, 0];
      await new Promise((wait) => setTimeout(wait, Math.random() * pace));
      while (Date.now() < end) {
        x += 1;
        const next = performance.now() + pace;
        const start = performance.now();
        const { status, body } = await bench.edit(project, seen, [column(id, level, x, who)]);
        took.push(performance.now() - start);
        if (status === 200) {
          seen = body.history.version;
          confirmed.set(id, x);
        } else refused += 1;
        if (pace > 0) await new Promise((wait) => setTimeout(wait, Math.max(0, next - performance.now())));
      }
    }),
  );
  const after = await bench.load(project);
  const lost = [...confirmed].filter(([id, x]) => {
    const row = after.state.element[id];
    return row?.kind !== 'column' || row.shape.position[0] !== x;
  }).length;
  took.sort((a, b) => a - b);
  console.log(
    `${String(count).padStart(3)} editors, ${pace === 0 ? 'as fast as they can' : `one step in ${pace} ms`}: ` +
      `${(took.length / (working / 1000)).toFixed(0).padStart(4)} edits a second, ` +
      `median ${share(took, 0.5).toFixed(0)} ms, p99 ${share(took, 0.99).toFixed(0)} ms; ${refused} refused, ${lost} lost` +
      (pace > 0 ? '   goal 60 a second, p99 300 ms' : ''),
  );
}

/** The state of a large project: how it is sent when it has to be put together, and when it is kept. */
async function stateAnswer(bench: Bench): Promise<string> {
  const project = await bench.project('Large');
  const { model } = makeModel(20_000);
  const changes = (['level', 'library', 'element'] as const).flatMap((table) =>
    Object.values(model[table]).map((row) => ({
      table,
      id: row.id,
      row: 'source' in row ? { ...row, source: null } : row,
    })),
  ) as Change[];
  const start = performance.now();
  const { status, body } = await bench.edit(project, 0, changes, 'A large model');
  if (status !== 200) throw new Error(JSON.stringify(body));
  console.log(`an edit of ${changes.length.toLocaleString('en')} rows: ${(performance.now() - start).toFixed(0)} ms`);
  for (const which of ['put together', 'kept']) {
    const begun = performance.now();
    const response = await fetch(`${bench.address}/api/projects/${project}/state`, {
      headers: { accept: 'application/gzip' },
    });
    const bytes = Buffer.from(await response.arrayBuffer());
    console.log(
      `state of ${Object.keys(model.element).length.toLocaleString('en')} elements, ${which}: ` +
        `${(performance.now() - begun).toFixed(0)} ms, ${(bytes.length / 1e6).toFixed(2)} MB of ` +
        `${(gunzipSync(bytes).length / 1e6).toFixed(1)} MB   goal 200 ms, 1 MB`,
    );
  }
  return project;
}

/** What others wait while a very large file is read. */
async function whileReading(bench: Bench): Promise<void> {
  const project = await bench.project('Reading');
  const text = makePlan(1_150_000);
  await fetch(`${bench.address}/api/projects/${project}/intakes?name=large.dxf`, { method: 'POST', body: text });
  const took: number[] = [];
  const end = Date.now() + 120_000;
  for (;;) {
    const start = performance.now();
    const { body } = await bench.json<{ intakes: unknown[] }>(`/api/projects/${project}/intakes`);
    took.push(performance.now() - start);
    if (body.intakes.length === 0 || Date.now() > end) break;
    await new Promise((wait) => setTimeout(wait, 50));
  }
  took.sort((a, b) => a - b);
  console.log(
    `while ${(text.length / 1e6).toFixed(0)} MB are read: others wait ${share(took, 0.5).toFixed(0)} ms (median), ` +
      `${share(took, 0.99).toFixed(0)} ms (p99) of ${took.length}   goal p99 300 ms`,
  );
}

/** Memory after many edits, and many windows that came and went. */
async function memory(bench: Bench): Promise<void> {
  const project = await bench.project('Memory');
  const { state } = await bench.load(project);
  const [level] = Object.keys(state.level);
  const id = crypto.randomUUID();
  let version = 0;
  const edits = async (count: number) => {
    for (let i = 0; i < count; i += 1) {
      const { body } = await bench.edit(project, version, [column(id, level, i)]);
      ({ version } = body.history);
    }
  };
  await edits(500);
  const before = bench.memory();
  await edits(5000);
  for (let i = 0; i < 500; i += 1) {
    const leaving = new AbortController();
    const response = await fetch(`${bench.address}/api/projects/${project}/events`, { signal: leaving.signal });
    await response.body!.getReader().read();
    leaving.abort();
  }
  const after = bench.memory();
  console.log(
    `memory: ${before.toFixed(0)} MB, after 5,000 edits and 500 windows ${after.toFixed(0)} MB, ` +
      `${(after / before).toFixed(2)} times   goal 1.2`,
  );
}

/** Kills the server at random moments amid edits and uploads: what was confirmed has to be there. */
async function kills(bench: Bench, count: number): Promise<void> {
  const project = await bench.project('Kills');
  const { state } = await bench.load(project);
  const [level] = Object.keys(state.level);
  const confirmed = new Map<string, number>();
  let uploads = 0;
  for (let round = 0; round < count; round += 1) {
    let alive = true;
    const editing = async (who: number) => {
      const id = crypto.randomUUID();
      for (let [seen, x] = [0, 1]; alive; x += 1) {
        const answer = await bench.edit(project, seen, [column(id, level, x, 2 * round + who)]).catch(() => null);
        if (answer?.status !== 200) continue;
        seen = answer.body.history.version;
        confirmed.set(id, x);
      }
    };
    const uploading = async () => {
      const answer = await fetch(`${bench.address}/api/projects/${project}/intakes?name=kill-${round}.dxf`, {
        method: 'POST',
        body: makePlan(2000),
      }).catch(() => null);
      if (answer?.status === 200) uploads += 1;
    };
    const work = Promise.all([editing(0), editing(1), uploading()]);
    await new Promise((wait) => setTimeout(wait, 100 + Math.random() * 2000));
    await bench.kill();
    alive = false;
    await work;
    await bench.start();
  }
  const stuck = async () =>
    (await bench.json<{ intakes: { state: string }[] }>(`/api/projects/${project}/intakes`)).body.intakes.filter(
      (intake) => ['receiving', 'waiting', 'reading'].includes(intake.state),
    ).length;
  for (let i = 0; i < 300 && (await stuck()) > 0; i += 1) await new Promise((wait) => setTimeout(wait, 200));
  const after = await bench.load(project);
  const lost = [...confirmed].filter(([id, x]) => {
    const row = after.state.element[id];
    return row?.kind !== 'column' || row.shape.position[0] < x;
  }).length;
  console.log(
    `${count} kills: ${confirmed.size} columns confirmed, ${lost} lost; ${uploads} uploads confirmed, ` +
      `${uploads - Object.keys(after.state.drawing).length > 0 ? uploads - Object.keys(after.state.drawing).length : 0} lost, ` +
      `${await stuck()} stuck   goal 0, 0, 0`,
  );
}

/** The same office with everybody signed in: each request asks who asks, and what they may. */
async function signedIn(url: string): Promise<void> {
  const [person, token] = [crypto.randomUUID(), newToken()];
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query('insert into people (id, name, password, head) values ($1, $2, $3, true)', [person, 'Quay', '-']);
  await client.query('insert into sessions (token, person_id) values ($1, $2)', [hashOf(token), person]);
  await client.end();
  const bench = new Bench(url, `zircon=${token}`);
  await bench.start();
  try {
    console.log('With sign-in:');
    for (const count of [10, 50]) await editors(bench, count);
    await editors(bench, 50, officePace);
  } finally {
    await bench.stop();
  }
}

/** `./run bench server [kills]`: many at once, large answers, memory, and a server that is killed. */
export async function benchServer(rounds: number): Promise<number> {
  const temporary = mkdtempSync(join(tmpdir(), 'zircon-server-'));
  const cluster = join(temporary, 'db');
  try {
    const { url } = await startCluster(cluster, { throwAway: false });
    await buildApplication();
    const bench = new Bench(url);
    await bench.start();
    try {
      for (const count of [1, 10, 50]) await editors(bench, count);
      await editors(bench, 50, officePace);
      await stateAnswer(bench);
      await memory(bench);
      await whileReading(bench);
      await kills(bench, rounds);
    } finally {
      await bench.stop();
    }
    await signedIn(url);
    return 0;
  } finally {
    removeCluster(cluster);
    rmSync(temporary, { recursive: true, force: true });
  }
}
