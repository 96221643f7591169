import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { sql, type RawBuilder } from 'kysely';
import { emptyState, type TableName } from '@/core/model/state';
import { database, type Db } from './database/connection';
import { historyOf } from './edits/history';
import { notFound } from './problem';
import { decisionId, decisionText } from './rows/decision';
import { elementText } from './rows/element';
import { loadTable } from './rows/rows';

const compress = promisify(gzip);

/** Projects whose packed state is kept, the last ones asked for. */
const kept = 4;
/** The fastest: the state of a large project is sent far more often over loopback or a local net than far away. */
const level = 1;

interface Packed {
  version: number;
  bytes: Promise<Buffer>;
}

const packed = new Map<string, Packed>();

/**
 * A project as it is at one moment: JSON with `state` and `history`, gzip. Kept until the project moves on, so that the
 * second window that opens it need not wait for it to be put together.
 */
export async function packedSnapshot(project: string): Promise<Buffer> {
  const version = await versionOf(project);
  const known = packed.get(project);
  if (known?.version === version) return known.bytes;
  const bytes = snapshotText(project).then((text) => compress(text, { level }));
  packed.delete(project);
  packed.set(project, { version, bytes });
  bytes.catch(() => packed.delete(project));
  for (const oldest of packed.keys()) if (packed.size > kept) packed.delete(oldest);
  return bytes;
}

async function versionOf(project: string): Promise<number> {
  const row = await database()
    .selectFrom('projects')
    .select('version')
    .where('id', '=', project)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!row) throw notFound('This project');
  return row.version;
}

/** All of one moment, as JSON. */
async function snapshotText(project: string): Promise<string> {
  return database()
    .transaction()
    .setIsolationLevel('repeatable read')
    .execute(async (tx) => {
      const history = await historyOf(tx, project);
      const tables: string[] = [];
      for (const table of Object.keys(emptyState) as TableName[])
        tables.push(`${JSON.stringify(table)}:${await tableText(tx, project, table)}`);
      return `{"history":${JSON.stringify(history)},"state":{${tables.join()}}}`;
    });
}

/** A table of the state by id; those that can have tens of thousands of rows are put together by the database. */
async function tableText(db: Db, project: string, table: TableName): Promise<string> {
  if (table === 'element') return largeTable(db, project, 'elements', sql`'"' || id || '"'`, elementText);
  if (table === 'decision') return largeTable(db, project, 'decisions', decisionId, decisionText);
  const rows = await loadTable(db, project, table);
  return JSON.stringify(Object.fromEntries(rows.map((row) => [row.id, row])));
}

/** @param id the text of the JSON of a row's id. @param row of the row itself */
async function largeTable(db: Db, project: string, table: string, id: RawBuilder<string>, row: RawBuilder<string>) {
  const { rows } = await sql<{ text: string | null }>`
    select string_agg(${id} || ':' || ${row}, ',') as text
    from ${sql.table(table)} where project_id = ${project}
  `.execute(db);
  return `{${rows[0].text ?? ''}}`;
}
