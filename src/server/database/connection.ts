import { Kysely, PostgresDialect, type Transaction } from 'kysely';
import pg from 'pg';
import { settings } from '../settings';
import type { Database } from './schema';

// Sizes, versions and sequence numbers stay far below 2^53: plain numbers, not strings.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

export type Db = Kysely<Database> | Transaction<Database>;

interface Connections {
  pool: pg.Pool;
  db: Kysely<Database>;
}

function open(): Connections {
  const pool = (max: number) => {
    const made = new pg.Pool({ connectionString: settings.databaseUrl, max, connectionTimeoutMillis: 10_000 });
    // A connection lost while idle is replaced at the next query; without a handler it would end the process.
    const lost = (error: Error) => console.error(`Database connection lost: ${error.message}`);
    made.on('error', lost);
    made.on('connect', (client) => {
      client.on('error', lost);
    });
    return made;
  };
  const main = pool(12);
  return { pool: main, db: new Kysely<Database>({ dialect: new PostgresDialect({ pool: main }) }) };
}

const shared = globalThis as { zirconConnections?: Connections };

/** The process's connections. */
export function connections(): Connections {
  return (shared.zirconConnections ??= open());
}

export const database = (): Kysely<Database> => connections().db;

export async function closeConnections(): Promise<void> {
  const open = shared.zirconConnections;
  shared.zirconConnections = undefined;
  if (!open) return;
  await open.db.destroy();
}
