import pg from 'pg';
import { bringUpToDate } from '@/server/bringUpToDate';
import { closeConnections } from '@/server/database/connection';
import { seedFinished } from './seedFinished';

/** The database that interface tests begin with a copy of. */
export const finishedTemplate = 'finished';

/**
 * Makes a database that holds the demo's finished project and nothing else; nobody stays connected to it.
 * @param url of a database of the same server
 */
export async function makeFinishedTemplate(url: string): Promise<void> {
  const admin = new pg.Client({ connectionString: url });
  await admin.connect();
  await admin.query(`create database ${finishedTemplate}`);
  await admin.end();
  const own = new URL(url);
  own.pathname = `/${finishedTemplate}`;
  const before = process.env.DATABASE_URL;
  process.env.DATABASE_URL = own.toString();
  try {
    await bringUpToDate();
    await seedFinished();
  } finally {
    await closeConnections();
    if (before === undefined) delete process.env.DATABASE_URL;
    else process.env.DATABASE_URL = before;
  }
}
