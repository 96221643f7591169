import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'kysely';
import { database, inSchema } from '../database/connection';
import { migrate } from '../database/migrate';
import { readBackup } from './readBackup';
import { RowWriter } from './rowWriter';
import { writeBackup } from './writeBackup';

/** Schemas are named so, then by when they were made, milliseconds. */
const prefix = 'zircon_renewing_';
/** A schema that is older was left by a server that was killed, milliseconds. */
const leftAfter = 24 * 60 * 60 * 1000;

/**
 * A backup of an earlier version as this one would have written it: its rows are put into a schema of their own as they
 * were, that is brought up to date as a database is, and backed up anew.
 * @param migration the newest one of the database that it was made from
 * @returns the new backup, and what takes it away
 */
export async function renewed(path: string, migration: string): Promise<{ path: string; clear: () => Promise<void> }> {
  await dropLeft();
  const folder = await mkdtemp(join(tmpdir(), 'zircon-renewed-'));
  const clear = () => rm(folder, { recursive: true, force: true });
  const schema = `${prefix}${Date.now()}_${process.pid}`;
  const old = inSchema(schema);
  try {
    await sql`create schema ${sql.id(schema)}`.execute(database());
    await migrate(old, migration, schema);
    await old.transaction().execute(async (tx) => {
      await sql`set constraints all deferred`.execute(tx);
      const writer = new RowWriter(tx, new Map());
      await readBackup(path, ({ table, row }) => writer.take(table, row));
      await writer.flush();
    });
    await migrate(old, undefined, schema);
    const made = join(folder, 'backup');
    await writeBackup(made, null, old);
    return { path: made, clear };
  } catch (error) {
    await clear();
    throw error;
  } finally {
    await old.destroy();
    await drop(schema);
  }
}

const drop = (schema: string) => sql`drop schema if exists ${sql.id(schema)} cascade`.execute(database());

async function dropLeft(): Promise<void> {
  const { rows } = await sql<{ name: string }>`
    select nspname as name from pg_namespace where nspname like ${`${prefix}%`}
  `.execute(database());
  for (const { name } of rows) if (Date.now() - parseInt(name.slice(prefix.length), 10) > leftAfter) await drop(name);
}
