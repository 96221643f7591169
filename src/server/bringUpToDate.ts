import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { sql } from 'kysely';
import { writeBackup } from './backup/writeBackup';
import { database } from './database/connection';
import { isOld, migrate } from './database/migrate';
import { log } from './log';
import { settings } from './settings';

/** Brings the database's schema up to date. One that holds projects is backed up before it is changed. */
export async function bringUpToDate(): Promise<void> {
  const db = database();
  if ((await isOld(db)) && (await hasProjects())) {
    mkdirSync(settings.backupFolder, { recursive: true });
    const stamp = new Date().toISOString().replace(/[-:]/g, '').slice(0, 15);
    const path = join(settings.backupFolder, `before-upgrade-${stamp}-${process.pid}.zfb`);
    await writeBackup(path, null);
    log.told(`The database is of an earlier version; before it is changed it was backed up to ${path}`);
  }
  await migrate(db);
}

async function hasProjects(): Promise<boolean> {
  const { rows } = await sql`select 1 from projects limit 1`.execute(database());
  return rows.length > 0;
}
