import { randomUUID } from 'node:crypto';
import { zip, type AsyncZippable } from 'fflate';
import { sql, type RawBuilder } from 'kysely';
import { groupBy } from '@/core/groupBy';
import type { JobRequest, JobState, JobView } from '@/core/jobs';
import { database } from '../database/connection';
import { notFound } from '../problem';
import { expectProject } from '../projects';

/**
 * Begins a job, unless the same is under way or done for the project as it is: then that one is it. What came of the
 * same trial for an older project is forgotten.
 * @param person who asks; null where nobody signs in
 */
export async function beginJob(project: string, request: JobRequest, person: string | null = null): Promise<JobView> {
  await expectProject(project);
  const wish = JSON.stringify(request);
  const same = sql<boolean>`project_id = ${project} and wish = ${wish}::jsonb`;
  const id = await database()
    .transaction()
    .execute(async (tx) => {
      // One at a time for each project, so that two windows that ask at once get the same job.
      const { version, updated_at } = await tx
        .selectFrom('projects')
        .select(['version', 'updated_at'])
        .where('id', '=', project)
        .forUpdate()
        .executeTakeFirstOrThrow();
      const there = await tx
        .selectFrom('jobs')
        .select('id')
        .where(same)
        .where(
          sql<boolean>`(
            state = 'waiting' or state = 'running' and created_at >= ${updated_at}
            or state = 'done' and version = ${version}
          )`,
        )
        .executeTakeFirst();
      if (there) return there.id;
      // Of trials only the last counts; what was handed over stays told.
      const past: JobState[] = request.kind === 'delivery' ? ['failed'] : ['done', 'failed'];
      await tx.deleteFrom('jobs').where(same).where('state', 'in', past).execute();
      const made = randomUUID();
      await tx
        .insertInto('jobs')
        .values({ id: made, project_id: project, kind: request.kind, wish, state: 'waiting', person_id: person })
        .execute();
      await tellJob(project, made).execute(tx);
      return made;
    });
  return jobOf(project, id);
}

/** Tells those who work that there is something to do. */
const tellJob = (project: string, job: string) => sql`select pg_notify('zircon', ${JSON.stringify({ project, job })})`;

/** One job, as windows see it. */
export async function jobOf(project: string, id: string): Promise<JobView> {
  const [job] = await views(project, sql<boolean>`id = ${id}`);
  if (job === undefined) throw notFound('This calculation');
  return job;
}

/** What was handed over of a project, and what is being, the last first. */
export async function deliveriesOf(project: string): Promise<JobView[]> {
  await expectProject(project);
  return views(project, sql<boolean>`kind = 'delivery'`);
}

async function views(project: string, which: RawBuilder<boolean>): Promise<JobView[]> {
  const db = database();
  const rows = await db
    .selectFrom('jobs')
    .select(['id', 'wish', 'state', 'done', 'message', 'version', 'created_at'])
    .where('project_id', '=', project)
    .where(which)
    .orderBy('created_at', 'desc')
    .execute();
  if (rows.length === 0) return [];
  const ids = rows.map(({ id }) => id);
  const files = await db
    .selectFrom('job_files')
    .select(['id', 'job_id', 'name', 'type', 'size', 'sha256'])
    .where('job_id', 'in', ids)
    .orderBy('name')
    .execute();
  const own = groupBy(files, ({ job_id }) => job_id);
  return rows.map(({ wish, created_at, ...rest }) => ({
    ...rest,
    request: wish,
    createdAt: created_at.toISOString(),
    files: (own.get(rest.id) ?? []).map(({ job_id: _, ...file }) => file),
  }));
}

/** Ends a job, or forgets one that is done; nothing of it stays. */
export async function endJob(project: string, id: string): Promise<void> {
  await database().deleteFrom('jobs').where('id', '=', id).where('project_id', '=', project).execute();
}

/** A file that came of a job. */
export async function jobFile(project: string, job: string, id: string) {
  const file = await database()
    .selectFrom('job_files')
    .innerJoin('jobs', 'jobs.id', 'job_files.job_id')
    .select(['job_files.name', 'job_files.type', 'job_files.bytes'])
    .where('job_files.id', '=', id)
    .where('job_files.job_id', '=', job)
    .where('jobs.project_id', '=', project)
    .executeTakeFirst();
  if (!file) throw notFound('This file');
  return file;
}

/** All files of a delivery in one, zipped. */
export async function zipOf(project: string, id: string): Promise<{ name: string; content: Uint8Array }> {
  const { request } = await jobOf(project, id);
  const files = await database().selectFrom('job_files').select(['name', 'bytes']).where('job_id', '=', id).execute();
  if (files.length === 0) throw notFound('This delivery');
  const zipped = await packed(Object.fromEntries(files.map(({ name, bytes }) => [name, new Uint8Array(bytes)])));
  return { name: `${request.kind === 'delivery' ? request.wish.name : request.kind}.zip`, content: zipped };
}

const packed = (files: AsyncZippable): Promise<Uint8Array> =>
  new Promise((resolve, reject) => {
    zip(files, (error, bytes) => (error === null ? resolve(bytes) : reject(error)));
  });
