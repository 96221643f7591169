import { Kysely, PostgresDialect, type Transaction } from 'kysely';
import pg from 'pg';
import { log } from '../log';
import { settings } from '../settings';
import type { Database } from './schema';

// Sizes, versions and sequence numbers stay far below 2^53: plain numbers, not strings.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

export type Db = Kysely<Database> | Transaction<Database>;

interface Connections {
  pool: pg.Pool;
  db: Kysely<Database>;
}

/** @param options of the server for each connection */
function open(max: number, options?: string): Connections {
  const pool = new pg.Pool({ connectionString: settings.databaseUrl, max, connectionTimeoutMillis: 10_000, options });
  // A connection lost while idle is replaced at the next query; without a handler it would end the process.
  const lost = (error: Error) => log.problem(`Database connection lost: ${error.message}`);
  pool.on('error', lost);
  pool.on('connect', (client) => {
    client.on('error', lost);
  });
  return { pool, db: new Kysely<Database>({ dialect: new PostgresDialect({ pool }) }) };
}

/** Connections to another schema of the same database; whoever opens them ends them by `destroy`. */
export const inSchema = (schema: string): Kysely<Database> => open(2, `-c search_path=${schema}`).db;

const connectionsAtMost = 12;

const shared = globalThis as { zirconConnections?: Connections };

/** The process's connections. */
export function connections(): Connections {
  return (shared.zirconConnections ??= open(connectionsAtMost));
}

export const database = (): Kysely<Database> => connections().db;

export async function closeConnections(): Promise<void> {
  const open = shared.zirconConnections;
  shared.zirconConnections = undefined;
  if (!open) return;
  await open.db.destroy();
}
