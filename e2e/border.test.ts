import { groundFloor } from '../demo/ground';
import { upperFloor } from '../demo/upper';
import type { ProjectState } from '@/core/model/state';
import type { Recipe } from '@/core/underlay/recipe/steps';
import { ask, openStage, type Stage } from './harness';

/** What the server takes and refuses of recipes, displays and revisions, asked as a program would. */
let stage: Stage;
beforeAll(async () => {
  stage = await openStage();
}, 60_000);
afterAll(async () => stage.close());

const project = async (name: string) => (await ask<{ id: string }>(stage, '/api/projects', { name })).body.id;
const stateOf = async (id: string) =>
  (await ask<{ state: ProjectState; history: { version: number } }>(stage, `/api/projects/${id}/state`)).body;

/** Sends a file and waits until it is read. */
async function send(id: string, name: string, content: string, query = ''): Promise<number> {
  const response = await fetch(`${stage.address}/api/projects/${id}/intakes?name=${name}${query}`, {
    method: 'POST',
    body: content,
  });
  for (let i = 0; i < 100; i += 1) {
    const { intakes } = (await ask<{ intakes: { state: string }[] }>(stage, `/api/projects/${id}/intakes`)).body;
    if (intakes.every(({ state }) => state === 'failed')) break;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  return response.status;
}

let client = 0;
const uuid = () => `00000000-0000-4000-8000-${String((client += 1)).padStart(12, '0')}`;
const edit = async (id: string, changes: unknown[], seen?: number) =>
  ask<{ message?: string }>(stage, `/api/projects/${id}/edits`, {
    seen: seen ?? (await stateOf(id)).history.version,
    clientId: uuid(),
    edit: { label: 'By a program', changes },
  });
const undo = async (id: string) =>
  ask(stage, `/api/projects/${id}/undo`, { seen: (await stateOf(id)).history.version, clientId: uuid() });

test('recipes are kept by name, replaced by the same name, without regions, and refused where they are none', async () => {
  const steps: Recipe = [
    {
      id: '1',
      on: true,
      step: {
        kind: 'region',
        keep: 'inside',
        polygon: [
          [0, 0],
          [1, 0],
          [1, 1],
        ],
      },
    },
    { id: '2', on: true, step: { kind: 'strays' } },
  ];
  const first = await ask<{ id: string }>(stage, '/api/recipes', { name: ' North ', steps });
  const second = await ask<{ id: string }>(stage, '/api/recipes', {
    name: 'North',
    steps: [...steps, { id: '3', on: true, step: { kind: 'flattenHeights' } }],
  });
  expect(second.body.id).toBe(first.body.id);
  const listed = (await ask<{ recipes: { name: string; steps: Recipe }[] }>(stage, '/api/recipes')).body.recipes;
  expect(listed.map(({ name, steps: kept }) => [name, kept.map(({ step }) => step.kind)])).toEqual([
    ['North', ['strays', 'flattenHeights']],
  ]);
  expect((await ask(stage, '/api/recipes', { name: '', steps })).status).toBe(400);
  expect(
    (await ask(stage, '/api/recipes', { name: 'x', steps: [{ id: '1', on: true, step: { kind: 'strays', more: 1 } }] }))
      .status,
  ).toBe(400);
  const other = await fetch(`${stage.address}/api/recipes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: 'http://elsewhere.example' },
    body: JSON.stringify({ name: 'x', steps }),
  });
  expect(other.status).toBe(403);
  expect((await ask(stage, `/api/recipes/${first.body.id}`, undefined, 'DELETE')).status).toBe(200);
  expect((await ask(stage, `/api/recipes/${first.body.id}`, undefined, 'DELETE')).status).toBe(404);
});

test('a file revises only a drawing of its own project; a broken one changes nothing', async () => {
  const [mine, yours] = [await project('Mine'), await project('Yours')];
  await send(mine, 'a.dxf', groundFloor().dxf);
  const [drawing] = Object.values((await stateOf(mine)).state.drawing);
  expect(await send(yours, 'b.dxf', upperFloor().dxf, `&revises=${drawing.id}`)).toBe(404);
  expect(await send(mine, 'b.dxf', 'not a drawing at all', `&revises=${drawing.id}`)).toBe(415);
  expect((await stateOf(mine)).state.drawing[drawing.id]).toEqual(drawing);
  expect(await send(mine, 'b.dxf', groundFloor({ revision: 'B' }).dxf, `&revises=${drawing.id}`)).toBe(200);
  const after = await stateOf(mine);
  expect(after.state.drawing[drawing.id]).toMatchObject({ revision: 2, fileName: 'b.dxf' });
  const list = (
    await ask<{ revisions: { number: number; fileName: string }[] }>(
      stage,
      `/api/projects/${mine}/drawings/${drawing.id}/revisions`,
    )
  ).body.revisions;
  expect(list.map(({ number, fileName }) => `${number} ${fileName}`)).toEqual(['2 b.dxf', '1 a.dxf']);
  expect((await ask(stage, `/api/projects/${yours}/drawings/${drawing.id}/revisions`)).status).toBe(404);
  // Undo goes back to the first file; the second stays to go on to, under its number, and the next one is the third.
  await undo(mine);
  expect((await stateOf(mine)).state.drawing[drawing.id]).toMatchObject({ revision: 1, fileName: 'a.dxf' });
  await send(mine, 'c.dxf', groundFloor().dxf, `&revises=${drawing.id}`);
  expect((await stateOf(mine)).state.drawing[drawing.id]).toMatchObject({ revision: 3, fileName: 'c.dxf' });
});

test('bringing a drawing in can be undone and done again, with its placement, roles and file', async () => {
  const id = await project('Undo');
  await send(id, 'a.dxf', groundFloor().dxf);
  const before = (await stateOf(id)).state;
  await undo(id);
  const gone = (await stateOf(id)).state;
  expect([
    Object.values(gone.drawing).filter(({ discarded }) => !discarded),
    Object.keys(gone.placement),
    Object.keys(gone.role),
  ]).toEqual([[], [], []]);
  expect(
    (await ask(stage, `/api/projects/${id}/redo`, { seen: (await stateOf(id)).history.version, clientId: uuid() }))
      .status,
  ).toBe(200);
  expect((await stateOf(id)).state).toEqual(before);
  const [drawing] = Object.values(before.drawing);
  expect((await ask(stage, `/api/projects/${id}/files/${drawing.fileId}/intake.json`)).status).toBe(200);
});

test('recipe and display of a drawing are rows like any other: checked, versioned, undone, and not of another project', async () => {
  const [mine, yours] = [await project('Rows'), await project('Other rows')];
  await send(mine, 'a.dxf', groundFloor().dxf);
  const [drawing] = Object.values((await stateOf(mine)).state.drawing);
  const recipe = {
    table: 'recipe',
    id: drawing.id,
    row: { id: drawing.id, steps: [{ id: '1', on: true, step: { kind: 'strays' } }] },
  };
  expect((await edit(yours, [recipe])).status).toBe(400);
  expect(
    (
      await edit(mine, [
        { ...recipe, row: { id: drawing.id, steps: [{ id: '1', on: true, step: { kind: 'curves', sagitta: 0 } }] } },
      ])
    ).status,
  ).toBe(400);
  const { version } = (await stateOf(mine)).history;
  expect((await edit(mine, [recipe], version)).status).toBe(200);
  const stale = await edit(mine, [{ ...recipe, row: { id: drawing.id, steps: [] } }], version);
  expect([stale.status, stale.body.message]).toEqual([409, expect.stringContaining('changed in another window')]);
  expect((await stateOf(mine)).state.recipe[drawing.id].steps).toHaveLength(1);
  await undo(mine);
  expect((await stateOf(mine)).state.recipe[drawing.id]).toBeUndefined();
  const copy = (await ask<{ id: string }>(stage, `/api/projects/${mine}/duplicate`, {})).body.id;
  expect(Object.values((await stateOf(copy)).state.drawing)).toHaveLength(1);
});

test('the library and picked roles are rows like any other, of their own project only, copied with it and gone with it', async () => {
  const [mine, yours] = [await project('Shelf'), await project('Other shelf')];
  await send(mine, 'a.dxf', groundFloor().dxf);
  await send(yours, 'a.dxf', groundFloor().dxf);
  const [[drawing], [other]] = await Promise.all(
    [mine, yours].map(async (id) => Object.values((await stateOf(id)).state.drawing)),
  );
  const entry = {
    id: uuid(),
    name: '400x400',
    kind: 'section',
    section: { shape: 'rectangle', width: 0.4, depth: 0.4 },
  };
  const element = {
    id: uuid(),
    levelId: null,
    source: null,
    libraryId: entry.id,
    kind: 'column',
    shape: { position: [0, 0], rotation: 0, section: entry.section, mark: '' },
  };
  const pick = { id: uuid(), drawingId: drawing.id, kind: 'lines', name: 'Posts', role: 'column', handles: ['2F'] };
  const row = (table: string, value: (Record<string, unknown> & { id: string }) | null, id = value?.id) => ({
    table,
    id,
    row: value,
  });
  expect((await edit(mine, [row('library', entry), row('element', element), row('pick', pick)])).status).toBe(200);
  // What is another project's cannot be named, taken or changed.
  const role = Object.values((await stateOf(yours)).state.role)[0];
  for (const change of [
    row('element', { ...element, id: uuid() }),
    row('role', { ...role, libraryId: entry.id }),
    row('library', entry),
    row('pick', { ...pick, id: uuid() }),
    row('pick', { ...pick, drawingId: other.id }),
  ])
    expect([400, 409]).toContain((await edit(yours, [change])).status);
  expect((await edit(mine, [row('library', null, entry.id)])).status).toBeGreaterThanOrEqual(400);
  expect(
    (await edit(mine, [row('library', { ...entry, section: { shape: 'rectangle', width: -1, depth: 1 } })])).status,
  ).toBe(400);
  const copy = (await ask<{ id: string }>(stage, `/api/projects/${mine}/duplicate`, {})).body.id;
  const { state } = await stateOf(copy);
  const [[entryOf], [elementOf], [pickOf]] = [
    Object.values(state.library),
    Object.values(state.element),
    Object.values(state.pick),
  ];
  expect([
    entryOf.name,
    elementOf.libraryId === entryOf.id,
    entryOf.id !== entry.id,
    pickOf.drawingId === Object.keys(state.drawing)[0],
  ]).toEqual(['400x400', true, true, true]);
  await undo(mine);
  expect(Object.keys((await stateOf(mine)).state.library)).toEqual([]);
  await fetch(`${stage.address}/api/projects/${copy}`, { method: 'DELETE' });
  expect((await fetch(`${stage.address}/api/projects/${copy}?forever`, { method: 'DELETE' })).status).toBeLessThan(300);
  expect(await stage.sql('select count(*)::int as n from library where project_id = $1', [copy])).toEqual([{ n: 0 }]);
});

test('limits on entities are settings of the server, told with the number found', async () => {
  const small = await openStage({ ZIRCON_MAX_ENTITIES: '100' });
  try {
    const id = (await ask<{ id: string }>(small, '/api/projects', { name: 'Small' })).body.id;
    await fetch(`${small.address}/api/projects/${id}/intakes?name=a.dxf`, { method: 'POST', body: groundFloor().dxf });
    let message = '';
    for (let i = 0; i < 100 && message === ''; i += 1) {
      await new Promise((resolve) => setTimeout(resolve, 100));
      message =
        (await ask<{ intakes: { message: string | null }[] }>(small, `/api/projects/${id}/intakes`)).body.intakes[0]
          ?.message ?? '';
    }
    expect(message).toMatch(/a\.dxf: The file holds more than 100 entities, the limit set for reading/);
  } finally {
    await small.close();
  }
});

test('what an older reader made is made again when it is asked for: the report as well as the columns', async () => {
  const id = await project('Older');
  await send(id, 'a.dxf', groundFloor().dxf);
  const [drawing] = Object.values((await stateOf(id)).state.drawing);
  const address = `/api/projects/${id}/files/${drawing.fileId}`;
  const before = (await ask(stage, `${address}/intake.json`)).body;
  await stage.sql("update file_reports set reader_version = 1, intake = '{}'::jsonb where file_id = $1", [
    drawing.fileId,
  ]);
  expect((await ask(stage, `${address}/intake.json`)).body).toEqual(before);
  await stage.sql('update file_reports set reader_version = 1 where file_id = $1', [drawing.fileId]);
  const columns = await fetch(`${stage.address}${address}/columns?reader=2`);
  expect([columns.status, (await columns.arrayBuffer()).byteLength > 10_000]).toEqual([200, true]);
  const csv = await (await fetch(`${stage.address}${address}/intake.csv`)).text();
  expect(csv.split('\r\n')[0]).toBe('what,kind,layer,block,entities,primitives,reason,remedy');
});
