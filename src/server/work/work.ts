import { randomUUID } from 'node:crypto';
import { sql } from 'kysely';
import type { JobRequest, JobView } from '@/core/jobs';
import { database } from '../database/connection';
import { notFound } from '../problem';
import { expectProject } from '../projects';

/**
 * Begins a job, unless the same is under way or done for the project as it is: then that one is it. What came of the
 * same for an older project is forgotten.
 */
export async function beginJob(project: string, request: JobRequest): Promise<JobView> {
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
      await tx.deleteFrom('jobs').where(same).where('state', 'in', ['done', 'failed']).execute();
      const made = randomUUID();
      await tx
        .insertInto('jobs')
        .values({ id: made, project_id: project, kind: request.kind, wish, state: 'waiting' })
        .execute();
      await tellJob(project, made).execute(tx);
      return made;
    });
  return jobOf(project, id);
}

/** Tells those who work that there is something to do. */
const tellJob = (project: string, job: string) => sql`select pg_notify('zircon', ${JSON.stringify({ project, job })})`;

export async function jobOf(project: string, id: string): Promise<JobView> {
  const job = await database()
    .selectFrom('jobs')
    .select(['id', 'state', 'done', 'message', 'version', 'created_at'])
    .where('id', '=', id)
    .where('project_id', '=', project)
    .executeTakeFirst();
  if (!job) throw notFound('This calculation');
  const files = await database()
    .selectFrom('job_files')
    .select(['id', 'name', 'type', 'size', 'sha256'])
    .where('job_id', '=', id)
    .orderBy('name')
    .execute();
  const { created_at: createdAt, ...rest } = job;
  return { ...rest, createdAt: createdAt.toISOString(), files };
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
