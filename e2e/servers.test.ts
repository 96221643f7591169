import { spawn, type ChildProcess } from 'node:child_process';
import {
  createServer,
  request as httpRequest,
  type IncomingMessage,
  type Server,
  type ServerResponse,
} from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { dxf, groups, line } from '@/core/drawing/testing/dxf';
import type { ProjectState } from '@/core/model/state';
import { serve, type Serving } from '@/cli/serve';
import { anyPort, root } from '@/cli/system';
import { hashOf, newToken } from '@/server/people/tokens';
import { openStage, problems, type Stage } from './harness';

/** Editors, and files that each of them brings in, while servers come and go. */
const editorsAtOnce = 6;
const filesEach = 3;

let stage: Stage;
let token: string;
let proxy: Proxy;
const env = { ZIRCON_SIGN_IN: '1', ZIRCON_JOBS: '0', ZIRCON_LOG: 'plain' };
const workers: ChildProcess[] = [];

/** One address before several servers: who does not answer is passed over, as a proxy in an office does. */
class Proxy {
  private turn = 0;
  /** How many requests each server was given. */
  readonly given = new Map<number, number>();
  private readonly server: Server;

  constructor(private readonly ports: readonly number[]) {
    this.server = createServer((request, response) => this.pass(request, response, this.ports.length));
  }

  async open(): Promise<string> {
    await new Promise<void>((done) => this.server.listen(0, '127.0.0.1', done));
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  close(): void {
    this.server.closeAllConnections();
    this.server.close();
  }

  private pass(request: IncomingMessage, response: ServerResponse, tries: number): void {
    const port = this.ports[this.turn % this.ports.length];
    this.turn += 1;
    const { url, method, headers } = request;
    const on = httpRequest({ host: '127.0.0.1', port, path: url, method, headers });
    let begun = false;
    on.on('response', (answer) => {
      begun = true;
      this.given.set(port, (this.given.get(port) ?? 0) + 1);
      response.writeHead(answer.statusCode!, answer.headers);
      answer.pipe(response);
      answer.on('error', () => response.destroy());
    });
    on.on('error', (error: NodeJS.ErrnoException) => {
      if (begun) response.destroy();
      // Nothing was sent to one that does not listen: the next is asked.
      else if (error.code === 'ECONNREFUSED' && tries > 1) this.pass(request, response, tries - 1);
      else response.writeHead(502).end();
    });
    response.on('close', () => on.destroy());
    on.on('socket', (socket) => {
      if (socket.connecting) socket.once('connect', () => request.pipe(on));
      else request.pipe(on);
    });
  }
}

let address: string;
let second: Serving;
let secondPort: number;
const beginSecond = async (): Promise<void> => {
  second = await serve('start', secondPort, { DATABASE_URL: stage.databaseUrl, ...env });
};

beforeAll(async () => {
  stage = await openStage(env);
  secondPort = await anyPort();
  await beginSecond();
  const person = crypto.randomUUID();
  token = newToken();
  await stage.sql('insert into people (id, name, password, head) values ($1, $2, $3, true)', [person, 'Quay', 'none']);
  await stage.sql('insert into sessions (token, person_id) values ($1, $2)', [hashOf(token), person]);
  for (let i = 0; i < 3; i += 1)
    workers.push(
      spawn(join(root, 'run'), ['worker'], {
        stdio: 'ignore',
        env: { ...process.env, ...env, ZIRCON_JOBS: '1', DATABASE_URL: stage.databaseUrl },
      }),
    );
  proxy = new Proxy([Number(new URL(stage.address).port), secondPort]);
  address = await proxy.open();
}, 90_000);
afterAll(async () => {
  proxy.close();
  for (const worker of workers) worker.kill('SIGINT');
  await second.stop();
  await stage.close();
});

/** Asks through the one address; null where no answer came. */
async function asked<T>(path: string, init: RequestInit = {}): Promise<{ status: number; body: T } | null> {
  try {
    const answer = await fetch(address + path, {
      ...init,
      headers: { connection: 'close', cookie: `zircon=${token}`, ...init.headers },
    });
    return { status: answer.status, body: (await answer.json()) as T };
  } catch {
    return null;
  }
}

const json = (body: unknown): RequestInit => ({
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

/** Does it again until it is answered with success. */
async function confirmed<T>(path: string, init?: RequestInit): Promise<T> {
  for (let i = 0; i < 200; i += 1) {
    const answer = await asked<T>(path, init);
    if (answer?.status === 200) return answer.body;
    if (answer !== null && answer.status < 500) throw new Error(`${path}: ${JSON.stringify(answer)}`);
    await new Promise((wait) => setTimeout(wait, 50));
  }
  throw new Error(`${path} was never answered`);
}

const endOf = (child: ChildProcess): Promise<void> =>
  new Promise((done) => {
    if (child.exitCode !== null || child.signalCode !== null) done();
    else child.once('exit', () => done());
  });

test('two servers are killed and stopped in turn under load, with three workers: nothing confirmed is lost', async () => {
  const { id: project } = await confirmed<{ id: string }>('/api/projects', json({ name: 'Under load' }));
  const { state } = await confirmed<{ state: ProjectState }>(`/api/projects/${project}/state`);
  const [levelId] = Object.keys(state.level);

  let over = false;
  const last = new Map<string, number>();
  let steps = 0;
  /** Moves a column of its own, step by step; one that was not answered is sent again, the same. */
  const editor = async (who: number): Promise<void> => {
    const id = crypto.randomUUID();
    let seen = 0;
    for (let x = 1; !over; x += 1) {
      const section = { shape: 'circle', diameter: 0.4 };
      const shape = { position: [x, who], rotation: 0, section, mark: '' };
      const row = { id, levelId, source: null, libraryId: null, kind: 'column', shape };
      const edit = { label: 'Move', changes: [{ table: 'element', id, row }] };
      const sent = json({ seen, clientId: crypto.randomUUID(), edit });
      const { history } = await confirmed<{ history: { version: number } }>(`/api/projects/${project}/edits`, sent);
      seen = history.version;
      last.set(id, x);
      steps += 1;
    }
  };
  /** Brings files in; what is not answered is brought in again, by a name that tells the try. */
  const files: string[] = [];
  const bringer = async (who: number): Promise<void> => {
    for (let i = 0; i < filesEach; i += 1)
      for (let attempt = 0; ; attempt += 1) {
        const name = `${who}-${i}-${attempt}.dxf`;
        const body = dxf({ header: groups([9, '$INSUNITS'], [70, 6]), entities: line(0, who, 1 + i, who, 'WALL') });
        const answer = await asked(`/api/projects/${project}/intakes?name=${name}`, { method: 'POST', body });
        if (answer?.status === 200) {
          files.push(name.replace('.dxf', ''));
          break;
        }
        await new Promise((wait) => setTimeout(wait, 200));
      }
  };
  const load = [
    ...Array.from({ length: editorsAtOnce }, (_, who) => editor(who)),
    ...Array.from({ length: editorsAtOnce }, (_, who) => bringer(who)),
  ];
  const untilSteps = async (more: number): Promise<void> => {
    for (const until = steps + more; steps < until;) await new Promise((wait) => setTimeout(wait, 50));
  };
  // A power cut of one, then of the other; then each is stopped in order and started again, as in an upgrade.
  await untilSteps(40);
  await stage.kill();
  await untilSteps(40);
  await stage.restart();
  const process2 = second.process;
  process.kill(-process2.pid!, 'SIGKILL');
  await endOf(process2);
  await untilSteps(40);
  await beginSecond();
  await second.stop();
  await untilSteps(40);
  await beginSecond();
  await untilSteps(40);
  over = true;
  await Promise.all(load);

  // Every column stands where its last confirmed step put it, and each step is in the log once.
  const after = await confirmed<{ state: ProjectState; history: { version: number } }>(
    `/api/projects/${project}/state`,
  );
  const stands = [...last].map(([id]) => {
    const row = after.state.element[id];
    return [id, row.kind === 'column' ? row.shape.position[0] : null];
  });
  expect(stands).toEqual([...last]);
  const [{ moves }] = await stage.sql<{ moves: number }>(
    "select count(*)::int as moves from edits where project_id = $1 and label = 'Move'",
    [project],
  );
  expect(moves).toBe(steps);
  // Every file that was confirmed is read by one of the workers, and is a drawing.
  for (;;) {
    const [{ open }] = await stage.sql<{ open: number }>(
      "select count(*)::int as open from intakes where project_id = $1 and state not in ('done', 'failed')",
      [project],
    );
    if (open === 0) break;
    await new Promise((wait) => setTimeout(wait, 100));
  }
  const drawings = await stage.sql<{ name: string }>('select name from drawings where project_id = $1', [project]);
  expect(drawings.map(({ name }) => name)).toEqual(expect.arrayContaining(files));
  expect(files).toHaveLength(editorsAtOnce * filesEach);
  // Both servers had their share of it.
  for (const share of proxy.given.values()) expect(share).toBeGreaterThan(20);
  expect(proxy.given.size).toBe(2);
});

test('a window goes on while the servers are changed under it, and what it did is there', async () => {
  const { id: project } = await confirmed<{ id: string }>('/api/projects', json({ name: 'A window' }));
  const { page, context } = await stage.person();
  await context.addCookies([{ name: 'zircon', value: token, url: address }]);
  await page.goto(`${address}/projects/${project}`);
  const add = async (word: string): Promise<void> => {
    await page.getByRole('button', { name: 'Add level', exact: true }).click();
    await page.getByRole('button', { name: new RegExp(`^${word}`) }).waitFor();
  };
  await add('Level 1');
  await stage.kill();
  await add('Level 2');
  await stage.restart();
  // One that is stopped in order ends the window's stream, and then by itself: it need not be killed.
  await second.stop();
  expect(second.process.signalCode).not.toBe('SIGKILL');
  await add('Level 3');
  await beginSecond();
  await page.getByText(/^Saved/).waitFor();
  const { state } = await confirmed<{ state: ProjectState }>(`/api/projects/${project}/state`);
  expect(Object.values(state.level).map(({ name }) => name)).toEqual(
    expect.arrayContaining(['Ground', 'Level 1', 'Level 2', 'Level 3']),
  );
  await context.close();
});

test('the pages had nothing to complain about', () => {
  // A thread's script that was on its way from a server when that was killed: the thread is begun again.
  expect(problems.filter((text) => !/failed to load/.test(text))).toEqual([]);
});
