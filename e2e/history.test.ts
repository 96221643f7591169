import { applyChanges } from '@/core/model/model';
import { type Change } from '@/core/model/edits';
import type { ProjectState } from '@/core/model/state';
import { plainLevel } from '@/core/model/levels';
import { ask, openStage, type Stage } from './harness';

let stage: Stage;
beforeAll(async () => {
  stage = await openStage();
}, 60_000);
afterAll(async () => stage.close());

interface Answer {
  history: { version: number; undo: string | null; redo: string | null };
  edits: { seq: number; label: string; changes: Change[] }[];
  state: ProjectState;
  message: string;
}

async function project(): Promise<string> {
  return (await ask<{ id: string }>(stage, '/api/projects', { name: 'History' })).body.id;
}
const load = async (id: string) => (await ask<Answer>(stage, `/api/projects/${id}/state`)).body;
const edit = (id: string, seen: number, label: string, changes: Change[]) =>
  ask<Answer>(stage, `/api/projects/${id}/edits`, { seen, clientId: crypto.randomUUID(), edit: { label, changes } });
const step = (id: string, seen: number, way: 'undo' | 'redo') =>
  ask<Answer>(stage, `/api/projects/${id}/${way}`, { seen, clientId: crypto.randomUUID() });
const level = (id: string, name: string, elevation: number): Change => ({
  table: 'level',
  id,
  row: { ...plainLevel, id, name, elevation, height: 3 },
});

/** A small generator of numbers, the same at every run. */
function numbers(seed: number) {
  let state = seed;
  return (below: number) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

test('any run of edits, undos and redos gives the states that two stacks give', async () => {
  const id = await project();
  const next = numbers(7);
  const ids = Array.from({ length: 4 }, () => crypto.randomUUID());
  let {
    state,
    history: { version },
  } = await load(id);
  // The reference: a stack of states behind and one ahead.
  const behind: ProjectState[] = [];
  let ahead: ProjectState[] = [];
  for (let i = 0; i < 60; i += 1) {
    const choice = next(10);
    if (choice < 5) {
      const which = ids[next(4)];
      const changes: Change[] =
        next(4) === 0 && state.level[which]
          ? [{ table: 'level', id: which, row: null }]
          : [level(which, `L${i}`, next(100))];
      const answer = await edit(id, version, `Edit ${i}`, changes);
      expect(answer.status).toBe(200);
      behind.push(state);
      ahead = [];
      state = applyChanges(state, changes).state;
      version = answer.body.history.version;
    } else {
      const way = choice < 8 ? 'undo' : 'redo';
      const [from, to] = way === 'undo' ? [behind, ahead] : [ahead, behind];
      const answer = await step(id, version, way);
      if (from.length === 0) {
        expect(answer.status).toBe(409);
        continue;
      }
      expect(answer.status).toBe(200);
      to.push(state);
      state = from.pop()!;
      version = answer.body.history.version;
    }
    if (i % 10 === 9) {
      const now = await load(id);
      expect(now.state.level).toEqual(state.level);
      expect([now.history.undo === null, now.history.redo === null]).toEqual([behind.length === 0, ahead.length === 0]);
    }
  }
  expect((await load(id)).state.level).toEqual(state.level);
});

test('the labels say what undo and redo would do', async () => {
  const id = await project();
  const one = crypto.randomUUID();
  await edit(id, 0, 'Add the deck', [level(one, 'Deck', 4)]);
  expect((await load(id)).history).toMatchObject({ version: 1, undo: 'Add the deck', redo: null });
  await step(id, 1, 'undo');
  expect((await load(id)).history).toMatchObject({ version: 2, undo: null, redo: 'Add the deck' });
  await step(id, 2, 'redo');
  expect((await load(id)).history).toMatchObject({ version: 3, undo: 'Add the deck', redo: null });
  const labels = await stage.sql<{ label: string }>('select label from edits where project_id = $1 order by seq', [id]);
  expect(labels.map((row) => row.label)).toEqual(['Add the deck', 'Undo: Add the deck', 'Redo: Add the deck']);
});

test('the log is append-only, for the database too', async () => {
  const id = await project();
  await edit(id, 0, 'Add', [level(crypto.randomUUID(), 'A', 1)]);
  await expect(stage.sql("update edits set label = 'other' where project_id = $1", [id])).rejects.toThrow(
    'append-only',
  );
});

test('undo at a stale version is refused like any edit', async () => {
  const id = await project();
  await edit(id, 0, 'Mine', [level(crypto.randomUUID(), 'A', 1)]);
  await edit(id, 1, 'Theirs', [level(crypto.randomUUID(), 'B', 2)]);
  const answer = await step(id, 1, 'undo');
  expect(answer.status).toBe(409);
  expect(answer.body.message).toContain('Theirs');
  expect((await load(id)).history.version).toBe(2);
});

test('rows of another project cannot be reached, taken or overwritten', async () => {
  const [mine, theirs] = [await project(), await project()];
  const [row] = Object.values((await load(theirs)).state.level);
  const stolen = await edit(mine, 0, 'Steal', [level(row.id, 'Mine now', 0)]);
  expect(stolen.status).toBe(400);
  expect(stolen.body.message).toContain('belongs to another project');
  await edit(mine, 0, 'Remove', [{ table: 'level', id: row.id, row: null }]);
  expect((await load(theirs)).state.level[row.id]).toEqual(row);
});

test('an edit that breaks a rule of the schema leaves nothing of itself', async () => {
  const id = await project();
  const { state } = await load(id);
  const [ground] = Object.keys(state.level);
  const element = crypto.randomUUID();
  const column: Change = {
    table: 'element',
    id: element,
    row: {
      id: element,
      levelId: ground,
      source: null,
      libraryId: null,
      kind: 'column',
      shape: { position: [0, 0], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: '' },
    },
  };
  expect((await edit(id, 0, 'Add a column', [column])).status).toBe(200);
  const answer = await edit(id, 1, 'Remove its level', [
    level(crypto.randomUUID(), 'New', 5),
    { table: 'level', id: ground, row: null },
  ]);
  expect(answer.status).toBe(409);
  expect(answer.body.message).toContain('still in use');
  expect(Object.keys((await load(id)).state.level)).toEqual([ground]);
  const twice = await edit(id, 1, 'Twice', [level(ground, 'A', 1), level(ground, 'B', 2)]);
  expect([twice.status, twice.body.message]).toEqual([400, 'The edit changes one row twice.']);
});

test('twenty people at once: edits of different rows all land, whatever their editors had seen', async () => {
  const id = await project();
  const answers = await Promise.all(
    Array.from({ length: 20 }, (_, i) => edit(id, 0, `P${i}`, [level(crypto.randomUUID(), `P${i}`, i + 1)])),
  );
  expect(answers.map(({ status }) => status)).toEqual(Array(20).fill(200));
  const { state, history } = await load(id);
  expect(Object.keys(state.level)).toHaveLength(21);
  expect(history.version).toBe(20);
  // What came in between comes with the answer.
  const { edits } = (await ask<Answer>(stage, `/api/projects/${id}/edits?since=0`)).body;
  expect(new Set(edits.map(({ label }) => label))).toEqual(new Set(Array.from({ length: 20 }, (_, i) => `P${i}`)));
});

test('twenty people at one row: the first lands, every other is refused and told by what', async () => {
  const id = await project();
  const [ground] = Object.keys((await load(id)).state.level);
  const answers = await Promise.all(
    Array.from({ length: 20 }, (_, i) => edit(id, 0, `P${i}`, [level(ground, `P${i}`, i + 1)])),
  );
  const refused = answers.filter(({ status }) => status === 409);
  expect(refused).toHaveLength(19);
  const { state } = await load(id);
  expect(state.level[ground].name).toMatch(/^P\d+$/);
  for (const { body } of refused) expect(body.message).toContain(`\u201c${state.level[ground].name}\u201d`);
});

test('a window far behind gets a hundred edits and learns from the version that there are more', async () => {
  const id = await project();
  const row = crypto.randomUUID();
  for (let i = 0; i < 120; i += 1) await edit(id, i, `E${i}`, [level(row, `E${i}`, i)]);
  const { body } = await ask<Answer>(stage, `/api/projects/${id}/edits?since=0`);
  expect(body.edits).toHaveLength(100);
  expect(body.edits[0].seq).toBe(1);
  expect(body.history.version).toBe(120);
});
