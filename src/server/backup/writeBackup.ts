import { createHash } from 'node:crypto';
import { createWriteStream, existsSync } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { sql, type Kysely, type Transaction } from 'kysely';
import { database } from '../database/connection';
import { appliedMigration } from '../database/migrate';
import type { Database } from '../database/schema';
import { Problem } from '../problem';
import type { Head } from './format';
import { readBackup } from './readBackup';
import { backedUp, type BackedUpTable } from './tables';

type Tx = Transaction<Database>;

/** Rows fetched at once; of files, whose rows have a megabyte and more, one. */
const fetched = { many: 500, large: 1 };
const largeRows = new Set(['file_chunks', 'file_columns', 'file_reports', 'edits']);

/** What a backup holds. */
export interface Written {
  projects: { id: string; name: string }[];
  rows: number;
}

/**
 * Writes a backup as of one moment, while everything goes on. The file appears under its name when it is whole and has
 * been read again; when the writing breaks off there is only one that ends in `.part`.
 * @param project only this one, by its id or its name; null is everything
 * @param from the database that it is of
 * @throws Problem where there is no such project, or the file is there already
 */
export async function writeBackup(
  path: string,
  project: string | null,
  from: Kysely<Database> = database(),
): Promise<Written> {
  if (existsSync(path)) throw new Problem(409, `${path} is there already. Choose another name, or move it away.`);
  const part = `${path}.part`;
  try {
    const written = await from
      .transaction()
      .setIsolationLevel('repeatable read')
      .execute(async (tx) => {
        const projects = await chosen(tx, project);
        let rows = 0;
        const lines = backupLines(tx, projects, project === null, () => (rows += 1));
        await pipeline(Readable.from(lines), createGzip({ level: 4 }), createWriteStream(part, { mode: 0o600 }));
        return { projects, rows };
      });
    await onDisk(part);
    const again = await readBackup(part, () => undefined);
    if (again.rows !== written.rows) throw new Problem(500, `${part} does not hold what was written. Check the disk.`);
    await rename(part, path);
    return written;
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  }
}

/** Waits until a file has left the machine's memory. */
async function onDisk(path: string): Promise<void> {
  const file = await open(path, 'r+');
  await file.sync();
  await file.close();
}

async function chosen(tx: Tx, project: string | null): Promise<{ id: string; name: string }[]> {
  const all = await tx.selectFrom('projects').select(['id', 'name']).orderBy('name').execute();
  if (project === null) return all;
  const found = all.filter(({ id, name }) => id === project || name === project);
  if (found.length === 1) return found;
  const what =
    found.length === 0 ? 'There is no project' : `${found.length} projects are called so; give the id of one`;
  throw new Problem(404, `${what}: ${project}.`);
}

async function* backupLines(tx: Tx, projects: Head['projects'], all: boolean, count: () => void) {
  const hash = createHash('sha256');
  let rows = 0;
  const line = (value: unknown): string => {
    const text = `${typeof value === 'string' ? value : JSON.stringify(value)}\n`;
    hash.update(text);
    return text;
  };
  const head: Head = {
    format: 'zircon-backup',
    schema: (await appliedMigration(tx)) ?? '',
    made: new Date().toISOString(),
    projects,
  };
  yield line(head);
  const ids = projects.map(({ id }) => id);
  const there = await tablesOf(tx);
  for (const table of backedUp) {
    // A backup made before an old database is brought up to date has the tables of that time.
    if ((table.of === null && !all) || !there.has(table.name)) continue;
    for await (const row of rowsOf(tx, table, all ? null : ids)) {
      rows += 1;
      count();
      yield line(`{"table":${JSON.stringify(table.name)},"row":${row}}`);
    }
  }
  yield `${JSON.stringify({ end: { rows, sha256: hash.digest('hex') } })}\n`;
}

async function tablesOf(tx: Tx): Promise<Set<string>> {
  const { rows } = await sql<{ name: string }>`
    select table_name as name from information_schema.tables where table_schema = current_schema()
  `.execute(tx);
  return new Set(rows.map(({ name }) => name));
}

/** The rows of a table as JSON texts, a few at a time. @param projects null for those of all */
async function* rowsOf(
  tx: Tx,
  { name, of, order }: BackedUpTable,
  projects: readonly string[] | null,
): AsyncGenerator<string> {
  const condition = of === null || projects === null ? sql`true` : of(projects);
  await sql`
    declare backup_rows no scroll cursor for
    select row_to_json(t)::text as row from ${sql.table(name)} as t where ${condition} order by ${sql.raw(order)}
  `.execute(tx);
  const step = largeRows.has(name) ? fetched.large : fetched.many;
  for (;;) {
    const { rows } = await sql<{ row: string }>`fetch ${sql.lit(step)} from backup_rows`.execute(tx);
    for (const { row } of rows) yield row;
    if (rows.length < step) break;
  }
  await sql`close backup_rows`.execute(tx);
}
