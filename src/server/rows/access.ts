import { sql, type Kysely, type Transaction } from 'kysely';
import type { Rows as StateRows, TableName } from '@/core/model/state';
import type { Db } from '../database/connection';
import type { Database } from '../database/schema';
import { Problem } from '../problem';

export type Tx = Transaction<Database> | Kysely<Database>;

/**
 * How the rows of one table of a project's state lie in the database. `ids` null means all. That what a row names by
 * its id is of the same project is the database's own rule, by keys of project and id together.
 */
export interface TableAccess<T extends TableName> {
  load(db: Db, project: string, ids: string[] | null): Promise<StateRows[T][]>;
  put(tx: Tx, project: string, rows: StateRows[T][]): Promise<void>;
  remove(tx: Tx, project: string, ids: string[]): Promise<void>;
}

/** The drawing's id and the rest of an id that is made of both. */
export const split = (id: string): [string, string] => [id.slice(0, 36), id.slice(37)];

/** `(a, b) in (...)` for ids of the form drawing/rest. */
export function pairIn(first: string, second: string, ids: string[]) {
  const pairs = ids.map(split);
  const [drawings, rests] = [pairs.map(([drawing]) => drawing), pairs.map(([, rest]) => rest)];
  return sql<boolean>`(${sql.ref(first)}, ${sql.ref(second)}) in (
    select * from unnest(${drawings}::uuid[], ${rests}::text[])
  )`;
}

export const foreign = () =>
  new Problem(400, 'The edit names something that belongs to another project. Reload the page and repeat the step.');

/** A row that is there already under an id, but in another project, is not among those that were put. */
export function expectAll(found: readonly unknown[], wanted: readonly unknown[]): void {
  if (found.length !== wanted.length) throw foreign();
}

/** Rows that are kept under a drawing's own id: the drawing has to be of the project. */
export async function expectDrawings(tx: Tx, projectId: string, ids: string[]): Promise<void> {
  const wanted = [...new Set(ids)];
  if (wanted.length === 0) return;
  const found = await tx
    .selectFrom('drawings')
    .select('id')
    .where('project_id', '=', projectId)
    .where('id', 'in', wanted)
    .execute();
  expectAll(found, wanted);
}
