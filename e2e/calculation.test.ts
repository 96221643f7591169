import type { HeatView } from '@/core/energy/file';
import type { JobView } from '@/core/jobs';
import { largeModel } from '@/project/calculation';
import { unpack } from '@/core/packed';
import { ask, openFinished, part, problems, station, type Stage } from './harness';

let stage: Stage;
let project: string;

beforeAll(async () => {
  ({ stage, project } = await openFinished());
  // Grid lines far away: none of them matters to the heat, but they make the model a large one.
  await stage.sql(
    `insert into elements (id, project_id, level_id, kind, shape)
     select gen_random_uuid(), $1, null, 'grid', jsonb_build_object('label', 'X' || i, 'kind', 'line',
       'start', jsonb_build_array(1000 + i, 0), 'end', jsonb_build_array(1000 + i, 20))
     from generate_series(1, $2::int) as i`,
    [project, largeModel],
  );
}, 90_000);
afterAll(async () => stage.close());

const jobs = () => stage.sql<{ kind: string; state: string; deaths: number }>('select kind, state, deaths from jobs');
const begin = async (kind: string) => (await ask<JobView>(stage, `/api/projects/${project}/jobs`, { kind })).body;
const look = async ({ id }: JobView) => ask<JobView>(stage, `/api/projects/${project}/jobs/${id}`);

/** Waits until a job has come to an end. */
async function ended(job: JobView): Promise<JobView> {
  for (let i = 0; i < 600; i += 1) {
    const { body } = await look(job);
    if (body.state === 'done' || body.state === 'failed') return body;
    await new Promise((wait) => setTimeout(wait, 100));
  }
  throw new Error(`Never done: ${JSON.stringify(await jobs())}`);
}

test('the trial of a large model is done on the server, once, and is there again after a reload', async () => {
  const { page, context } = await stage.person();
  await page.goto(`${stage.address}/projects/${project}`);
  await page.getByText(/[\d,]+ lines, [\d,]+ elements/).waitFor();
  await station(page, 'Proof');
  await part(page, 'Heat');
  const building = page.locator('dl[aria-label="The building"]');
  await building.waitFor();
  const shown = await building.innerText();
  expect(await jobs()).toEqual([{ kind: 'heat', state: 'done', deaths: 0 }]);
  await page.reload();
  await building.waitFor();
  expect(await building.innerText()).toBe(shown);
  expect(await jobs()).toHaveLength(1);
  // What the server made is what the window shows.
  const job = await begin('heat');
  const file = await fetch(`${stage.address}/api/projects/${project}/jobs/${job.id}/files/${job.files[0].id}`);
  const view = unpack(await file.arrayBuffer()) as HeatView;
  expect(shown).toContain(`${(view.building.designLoad / 1000).toFixed(2)} kW`);
  await context.close();
});

test('a job that is cancelled leaves nothing, and one whose server is killed is done by the next', async () => {
  const light = await begin('light');
  await ask(stage, `/api/projects/${project}/jobs/${light.id}`, undefined, 'DELETE');
  expect((await look(light)).status).toBe(404);
  const structure = await begin('structure');
  await stage.kill();
  await stage.sql("update jobs set state = 'running', process = gen_random_uuid() where id = $1", [structure.id]);
  await stage.sql('delete from job_files where job_id = $1', [structure.id]);
  await stage.restart();
  const done = await ended(structure);
  expect(done.state).toBe('done');
  expect(done.files.map(({ name }) => name)).toEqual(['view']);
  expect((await jobs()).find(({ kind }) => kind === 'structure')).toEqual({
    kind: 'structure',
    state: 'done',
    deaths: 1,
  });
  // Of the cancelled one nothing came later.
  expect((await jobs()).some(({ kind }) => kind === 'light')).toBe(false);
});

test('only what there is can be asked for', async () => {
  const odd = await ask<{ message: string }>(stage, `/api/projects/${project}/jobs`, { kind: 'weather' });
  expect(odd.status).toBe(400);
  expect((await ask(stage, `/api/projects/${crypto.randomUUID()}/jobs`, { kind: 'heat' })).status).toBe(404);
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
