import { sql } from 'kysely';
import type { Db } from '../database/connection';
import { Problem } from '../problem';

/** Tells the windows of a project that one of its intakes has moved on. */
export const tellIntake = (db: Db, project: string, intake: string) =>
  sql`select pg_notify('zircon', ${JSON.stringify({ project, intake })})`.execute(db);

/** What is said of an upload that broke off. */
export const cutOff = (fileName: string) =>
  new Problem(400, `The upload of ${fileName} was cut off. Nothing was stored; bring it in again.`);
