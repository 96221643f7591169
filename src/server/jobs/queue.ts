import { sql } from 'kysely';
import { database } from '../database/connection';
import { processId } from './processes';

/** A file to be read. */
export interface ReadingJob {
  id: string;
  projectId: string;
  fileId: string;
  fileName: string;
  levelId: string | null;
  revises: string | null;
  /** Who brought it in; null where nobody signs in. */
  personId: string | null;
}

/** Files up to this size are read within seconds and pass larger ones, bytes. */
export const smallFile = 16 * 1024 * 1024;

/**
 * Takes the file that is next: of the project that has the fewest being read, small ones before large ones, then the
 * one that waits longest.
 * @param smallOnly for a slot that large files cannot hold
 */
export async function takeReading(smallOnly: boolean): Promise<ReadingJob | null> {
  const { rows } = await sql<ReadingJob>`
    update intakes set state = 'reading', done = 0, process = ${processId()}, updated_at = now()
    where id = (
      select waiting.id from intakes as waiting
      where waiting.state = 'waiting' and waiting.file_id is not null
        and (${!smallOnly} or waiting.size <= ${smallFile})
      order by
        (select count(*) from intakes as other
          where other.project_id = waiting.project_id and other.state = 'reading'),
        waiting.size > ${smallFile},
        waiting.created_at
      for update skip locked
      limit 1
    )
    returning id, project_id as "projectId", file_id as "fileId", file_name as "fileName", level_id as "levelId",
      revises, person_id as "personId"
  `.execute(database());
  return rows[0] ?? null;
}

/** Says how far a job is. @returns whether it is still this process's to do */
export async function stillOurs(job: ReadingJob, done: number): Promise<boolean> {
  const row = await database()
    .updateTable('intakes')
    .set({ done, updated_at: sql`now()` })
    .where('id', '=', job.id)
    .where('state', '=', 'reading')
    .where('process', '=', processId())
    .returning('id')
    .executeTakeFirst();
  return row !== undefined;
}
