import { randomUUID } from 'node:crypto';
import { sql } from 'kysely';
import { database } from '../database/connection';
import { sweepFiles } from '../files';
import { cutOff, tellIntake } from '../intakes/told';

/** A process says that it lives this often, milliseconds. */
const beatEvery = 2000;
/** One that has not said so for this long is gone. The database's clock counts. */
const goneAfter = '8 seconds';
/** Others get so many beats to say that they live before a process calls any of them gone: all of them may have been
 * without the database. */
const beatsBefore = 4;
/** A file whose reading so many processes went away in the middle of is not begun again by itself. */
const mostDeaths = 10;

interface Process {
  id: string;
  beats: number;
  timer: NodeJS.Timeout | null;
}

const shared = globalThis as { zirconProcess?: Process };

const own = (): Process => (shared.zirconProcess ??= { id: randomUUID(), beats: 0, timer: null });

/** The name under which this process runs jobs and takes uploads. */
export const processId = (): string => own().id;

/** Says from now on that this process lives, and sees to what those that are gone left behind. */
export async function startBeating(): Promise<void> {
  const process = own();
  if (process.timer !== null) return;
  process.timer = setInterval(() => void beat(process), beatEvery);
  process.timer.unref();
  await beat(process);
}

/** Says no more that this process lives: what it leaves undone is taken up by others at once. */
export async function stopBeating(): Promise<void> {
  const process = own();
  if (process.timer !== null) clearInterval(process.timer);
  process.timer = null;
  await database().deleteFrom('processes').where('id', '=', process.id).execute();
}

async function beat(process: Process): Promise<void> {
  try {
    await sql`
      insert into processes (id, beat_at) values (${process.id}, now())
      on conflict (id) do update set beat_at = excluded.beat_at
    `.execute(database());
    process.beats += 1;
    if (process.beats > beatsBefore) await database().deleteFrom('processes').where(isGone).execute();
    await takeUp();
  } catch {
    // The database is away: whoever asks it for something says so. What others do meanwhile has to be waited for again.
    process.beats = 0;
  }
}

const isGone = sql<boolean>`beat_at < now() - ${sql.lit(goneAfter)}::interval`;

const ofNobody = sql<boolean>`process is not null and process not in (select id from processes)`;

/** What processes that are gone left behind. */
async function takeUp(): Promise<void> {
  await takeUpJobs();
  await takeUpIntakes();
}

/** Jobs wait again; one that so many processes went away with is not begun again. */
async function takeUpJobs(): Promise<void> {
  await database()
    .updateTable('jobs')
    .set({
      process: null,
      done: 0,
      deaths: sql`deaths + 1`,
      state: sql`case when deaths + 1 >= ${sql.lit(mostDeaths)} then 'failed' else 'waiting' end`,
      message: sql`case when deaths + 1 >= ${sql.lit(mostDeaths)} then ${alwaysGone('This work', 'hand over fewer levels at once')} end`,
    })
    .where('state', '=', 'running')
    .where(ofNobody)
    .execute();
}

/** Files wait to be read again; of uploads nothing stays but a sentence. */
async function takeUpIntakes(): Promise<void> {
  const left = await database()
    .selectFrom('intakes')
    .select(['id', 'project_id', 'file_name', 'state', 'deaths'])
    .where('state', 'in', ['receiving', 'reading'])
    .where(ofNobody)
    .execute();
  for (const intake of left) {
    const dead = { process: null, updated_at: sql<Date>`now()` };
    let values;
    if (intake.state === 'receiving')
      values = { ...dead, state: 'failed' as const, file_id: null, message: cutOff(intake.file_name).message };
    else if (intake.deaths + 1 >= mostDeaths)
      values = {
        ...dead,
        state: 'failed' as const,
        deaths: intake.deaths + 1,
        message: alwaysGone(intake.file_name, 'cut the drawing into parts'),
      };
    else values = { ...dead, state: 'waiting' as const, deaths: intake.deaths + 1, done: 0 };
    const done = await database()
      .updateTable('intakes')
      .set(values)
      .where('id', '=', intake.id)
      .where('state', '=', intake.state)
      .where(ofNobody)
      .returning('id')
      .executeTakeFirst();
    if (done) await tellIntake(database(), intake.project_id, intake.id);
  }
  if (left.length > 0) await sweepFiles(database());
}

const alwaysGone = (what: string, remedy: string): string =>
  `${what}: the server ended ${mostDeaths} times while it was under way, and it is set aside. ` +
  `If the machine is at rest now, try again; else ${remedy}.`;
