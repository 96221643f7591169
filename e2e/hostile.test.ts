import { request as httpRequest } from 'node:http';
import fc from 'fast-check';
import { plainLevel } from '@/core/model/levels';
import type { ProjectState } from '@/core/model/state';
import { ask, openStage, type Stage } from './harness';

let stage: Stage;
beforeAll(async () => {
  stage = await openStage();
}, 60_000);
afterAll(async () => stage.close());

interface Answer {
  message: string;
  history: { version: number };
  state: ProjectState;
}

const makeProject = async (name: string) => (await ask<{ id: string }>(stage, '/api/projects', { name })).body.id;
const load = async (id: string) => (await ask<Answer>(stage, `/api/projects/${id}/state`)).body;
const send = (id: string, seen: number, changes: unknown[]) =>
  ask<Answer>(stage, `/api/projects/${id}/edits`, {
    seen,
    clientId: crypto.randomUUID(),
    edit: { label: 'Hostile', changes },
  });
const step = (id: string, way: 'undo' | 'redo', seen: number) =>
  ask<Answer>(stage, `/api/projects/${id}/${way}`, { seen, clientId: crypto.randomUUID() });

/** Brings a drawing in, and waits until it is there. */
async function bringIn(project: string, name = 'plan.dxf'): Promise<string> {
  const dxf =
    '  0\nSECTION\n  2\nENTITIES\n  0\nLINE\n  8\nWALLS\n 10\n0\n 20\n0\n 11\n5\n 21\n0\n  0\nENDSEC\n  0\nEOF\n';
  await fetch(`${stage.address}/api/projects/${project}/intakes?name=${name}`, { method: 'POST', body: dxf });
  for (;;) {
    const [drawing] = Object.keys((await load(project)).state.drawing);
    if (drawing) return drawing;
    await new Promise((wait) => setTimeout(wait, 50));
  }
}

test('whatever edit is accepted is undone and redone exactly', async () => {
  const project = await makeProject('Any edit');
  const drawing = await bringIn(project);
  const [ground] = Object.keys((await load(project)).state.level);
  const own = crypto.randomUUID();
  const ids = fc.constantFrom(own, own.toUpperCase(), ground, ground.toUpperCase(), crypto.randomUUID(), 'no id', '');
  const texts = fc.oneof(
    fc.constantFrom(
      '',
      ' ',
      'a\0b',
      '\ud800',
      '\u202eabc',
      'x'.repeat(700),
      "'; drop table edits; --",
      '{"a":1}',
      '\\u0000',
    ),
    fc.string({ unit: 'binary', maxLength: 30 }),
  );
  const numbers = fc.oneof(
    fc.constantFrom(0, -0, 1e308, -1e308, 5e-324, 1e9, -3, 0.1 + 0.2, 2 ** 53 + 2),
    fc.double({ noNaN: true, noDefaultInfinity: true }),
  );
  const level = fc
    .record({ id: ids, name: texts, elevation: numbers, height: numbers })
    .map((row) => ({ table: 'level', id: row.id, row: { ...plainLevel, ...row } }));
  const role = fc
    .record({ layer: texts, drawingId: fc.constantFrom(drawing, drawing.toUpperCase()) })
    .map(({ layer, drawingId }) => ({
      table: 'role',
      id: `${drawingId}/${layer}`,
      row: { id: `${drawingId}/${layer}`, drawingId, layer, role: null, suggested: false, shown: true },
    }));
  const column = fc
    .record({ id: ids, mark: texts, x: numbers, y: numbers, rotation: numbers, diameter: numbers })
    .map(({ id, mark, x, y, rotation, diameter }) => ({
      table: 'element',
      id,
      row: {
        id,
        levelId: ground,
        source: null,
        kind: 'column',
        shape: { position: [x, y], rotation, section: { shape: 'circle', diameter }, mark },
      },
    }));
  const gone = ids.map((id) => ({ table: 'element', id, row: null }));
  const change = fc.oneof(level, role, column, gone);
  let accepted = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(change, { minLength: 1, maxLength: 3 }), async (changes) => {
      const before = await load(project);
      const answer = await send(project, before.history.version, changes);
      expect([200, 400, 409]).toContain(answer.status);
      const after = await load(project);
      if (answer.status !== 200) {
        expect(after).toEqual(before);
        return;
      }
      accepted += 1;
      expect((await step(project, 'undo', after.history.version)).status).toBe(200);
      expect((await load(project)).state).toEqual(before.state);
      expect((await step(project, 'redo', after.history.version + 1)).status).toBe(200);
      expect((await load(project)).state).toEqual(after.state);
    }),
    { numRuns: 150, seed: 11 },
  );
  expect(accepted).toBeGreaterThan(15);
});

test('rows cannot name what is of another project: its levels, drawings, files, walls and elements', async () => {
  const [mine, theirs] = [await makeProject('Mine'), await makeProject('Theirs')];
  const [ownDrawing, drawing] = [await bringIn(mine), await bringIn(theirs, 'secret.dxf')];
  const there = await load(theirs);
  const [level] = Object.keys(there.state.level);
  const wallId = crypto.randomUUID();
  const wall = {
    id: wallId,
    levelId: level,
    source: null,
    kind: 'wall',
    shape: { start: [0, 0], end: [5, 0], thickness: 0.2, height: null, bulge: 0, outer: false },
  };
  expect((await send(theirs, there.history.version, [{ table: 'element', id: wallId, row: wall }])).status).toBe(200);
  const before = await load(mine);
  const [ownLevel] = Object.keys(before.state.level);
  const attempt = async (table: string, row: { id: string }) => {
    const answer = await send(mine, before.history.version, [{ table, id: row.id, row }]);
    expect([400, 409]).toContain(answer.status);
    expect(answer.body.message).toMatch(/another project|not in this project|not in the model/);
  };
  const id = crypto.randomUUID();
  await attempt('element', { ...wall, id } as never);
  await attempt('element', { ...wall, id, levelId: ownLevel, source: { drawing, handles: ['1'] } } as never);
  const opening = { wall: wallId, use: 'door', offset: 1, width: 1, height: 2, sill: 0 };
  await attempt('element', { id, levelId: ownLevel, source: null, kind: 'opening', shape: opening } as never);
  const decided = { drawingId: ownDrawing, key: 'k', verdict: 'accepted', elementId: wallId };
  await attempt('decision', { ...decided, id: `${ownDrawing}/k` } as never);
  await attempt('drawing', { ...before.state.drawing[ownDrawing], levelId: level } as never);
  await attempt('drawing', {
    ...before.state.drawing[ownDrawing],
    revision: 2,
    fileId: there.state.drawing[drawing].fileId,
  } as never);
  expect(await load(mine)).toEqual(before);
  // The foreign file's report stays closed, and the other project deletes its own level as it likes.
  const report = await ask(stage, `/api/projects/${mine}/files/${there.state.drawing[drawing].fileId}/intake.json`);
  expect(report.status).toBe(404);
});

test('an opening is in a wall that exists, and in nothing else', async () => {
  const project = await makeProject('Walls');
  const { state } = await load(project);
  const [level] = Object.keys(state.level);
  const [wall, column, door] = [1, 2, 3].map(() => crypto.randomUUID());
  const at = (id: string, kind: string, shape: object) => ({
    table: 'element',
    id,
    row: { id, levelId: level, source: null, kind, shape },
  });
  const wallShape = { start: [0, 0], end: [5, 0], thickness: 0.2, height: null, bulge: 0, outer: false };
  const columnShape = { position: [9, 9], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: '' };
  const doorIn = (host: string) =>
    at(door, 'opening', { wall: host, use: 'door', offset: 1, width: 1, height: 2, sill: 0 });
  expect((await send(project, 0, [doorIn(wall)])).status).toBe(409);
  const both = [at(wall, 'wall', wallShape), at(column, 'column', columnShape)];
  expect((await send(project, 0, both)).status).toBe(200);
  const wrong = await send(project, 1, [doorIn(column)]);
  expect([wrong.status, wrong.body.message]).toEqual([409, expect.stringContaining('no wall')]);
  expect((await send(project, 1, [doorIn(wall)])).status).toBe(200);
  expect((await send(project, 2, [{ table: 'element', id: wall, row: null }])).status).toBe(409);
  expect((await send(project, 2, [at(wall, 'column', columnShape)])).status).toBe(409);
  const all = [wall, door].map((id) => ({ table: 'element', id, row: null }));
  expect((await send(project, 2, all)).status).toBe(200);
});

test('a long list of nothing is refused by its length, and nobody waits for it', async () => {
  const project = await makeProject('Long lists');
  const body = `{"seen":0,"clientId":"${crypto.randomUUID()}","edit":{"label":"x","changes":[${'{},'.repeat(999_999)}{}]}}`;
  const post = (content: string | ReadableStream) =>
    fetch(`${stage.address}/api/projects/${project}/edits`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: content,
      ...(typeof content === 'string' ? {} : { duplex: 'half' }),
    } as RequestInit);
  const sent = post(body);
  // Meanwhile others are answered: each of these while the long one is on its way.
  const others = await Promise.all(Array.from({ length: 10 }, () => fetch(`${stage.address}/api/projects`)));
  expect(others.map(({ status }) => status)).toEqual(Array(10).fill(200));
  const answer = await sent;
  expect(answer.status).toBe(400);
  expect(((await answer.json()) as Answer).message).toContain('at most 50000 rows');
  // Sixty megabytes of nothing are refused too, and the server lives on.
  const huge = `{"seen":0,"edit":[${'{},'.repeat(20_000_000)}{}]}`;
  expect([400, 413, 503]).toContain((await post(huge)).status);
  expect((await fetch(`${stage.address}/api/projects`)).status).toBe(200);
  expect((await load(project)).history.version).toBe(0);
  // One without a length, in pieces, ends at the limit too.
  const piece = new TextEncoder().encode(' '.repeat(1 << 20));
  let pieces = 0;
  const endless = new ReadableStream({
    pull: (controller) => {
      pieces += 1;
      if (pieces > 80) controller.close();
      else controller.enqueue(piece);
    },
  });
  const large = await post(endless).then(
    ({ status }) => status,
    () => 413,
  );
  expect(large).toBe(413);
  expect((await load(project)).history.version).toBe(0);
});

test('what is asked wrongly is answered as such', async () => {
  const project = await makeProject('Answers');
  const status = async (path: string, init?: RequestInit) => {
    const response = await fetch(stage.address + path, init);
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
    return response.status;
  };
  expect(await status(`/api/projects/${project}/edits?since=1.5`)).toBe(400);
  expect(await status(`/api/projects/${project}/edits?since=-1`)).toBe(400);
  expect(await status(`/api/projects/${project}/edits?since=x`)).toBe(400);
  expect(await status(`/api/projects/no-id/state`)).toBe(404);
  const nowhere = crypto.randomUUID();
  // Not by fetch, which has no such methods.
  const { hostname, port } = new URL(stage.address);
  for (const [method, path] of [
    ['TRACE', '/api/projects'],
    ['TRACE', '/'],
    ['PATCH', '/api/projects'],
  ]) {
    const answered = new Promise<number | undefined>((done) => {
      httpRequest({ hostname, port, path, method }, (response) => done(response.resume().statusCode)).end();
    });
    expect(await answered).toBe(405);
  }
  expect(await status(`/api/projects/${nowhere}/state`)).toBe(404);
  expect(await status(`/api/projects/${nowhere}/edits?since=0`)).toBe(404);
  expect(await status(`/api/projects/${nowhere}/intakes`)).toBe(404);
  expect(await status(`/api/projects/${nowhere}/events`)).toBe(404);
  expect(await status(`/api/projects/${nowhere}`, { method: 'DELETE' })).toBe(404);
  expect(await status(`/api/projects/${project}/files/${nowhere}/columns`)).toBe(404);
});
