import { sql } from 'kysely';
import type { JobRequest } from '@/core/jobs';
import { database } from '../database/connection';
import { processId } from '../jobs/processes';

/** A job that this process has taken. */
export interface Job {
  id: string;
  projectId: string;
  request: JobRequest;
  /** Who asked for it; null where nobody signs in. */
  personId: string | null;
}

/** Takes the job that is next: of the project that has the fewest under way, then the one that waits longest. */
export async function takeJob(): Promise<Job | null> {
  const { rows } = await sql<Job>`
    update jobs set state = 'running', done = 0, process = ${processId()}, updated_at = now()
    where id = (
      select waiting.id from jobs as waiting
      where waiting.state = 'waiting'
      order by
        (select count(*) from jobs as other
          where other.project_id = waiting.project_id and other.state = 'running'),
        waiting.created_at
      for update skip locked
      limit 1
    )
    returning id, project_id as "projectId", wish as "request", person_id as "personId"
  `.execute(database());
  return rows[0] ?? null;
}

/** Whether a job is this process's to do; it is not when it was cancelled. */
export const ownJob = ({ id }: Job) => sql<boolean>`id = ${id} and state = 'running' and process = ${processId()}`;

/** Says how far a job is. @returns whether it is still this process's to do */
export async function stillOurs(job: Job, done: number): Promise<boolean> {
  const row = await database()
    .updateTable('jobs')
    .set({ done, updated_at: sql`now()` })
    .where(ownJob(job))
    .returning('id')
    .executeTakeFirst();
  return row !== undefined;
}
