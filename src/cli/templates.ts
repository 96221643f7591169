import pg from 'pg';
import { bringUpToDate } from '@/server/bringUpToDate';
import { closeConnections } from '@/server/database/connection';
import { seedFinished } from './seedFinished';

/** The databases that interface tests begin with copies of: one without projects, one with the demo's finished one. */
export const templates = { empty: 'begun_empty', finished: 'begun_finished' } as const;

/** Makes the templates; nobody stays connected to them. @param url of a database of the same server */
export async function makeTemplates(url: string): Promise<void> {
  const admin = new pg.Client({ connectionString: url });
  await admin.connect();
  await admin.query(`create database ${templates.empty}`);
  await inDatabase(url, templates.empty, bringUpToDate);
  await admin.query(`create database ${templates.finished} template ${templates.empty}`);
  await inDatabase(url, templates.finished, seedFinished);
  await admin.end();
}

async function inDatabase(url: string, name: string, run: () => Promise<void>): Promise<void> {
  const own = new URL(url);
  own.pathname = `/${name}`;
  const before = process.env.DATABASE_URL;
  process.env.DATABASE_URL = own.toString();
  try {
    await run();
  } finally {
    await closeConnections();
    if (before === undefined) delete process.env.DATABASE_URL;
    else process.env.DATABASE_URL = before;
  }
}
