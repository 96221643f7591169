import { sql } from 'kysely';
import type { Here } from '@/core/here';
import { database } from './database/connection';

/** PostgreSQL takes notices of less than 8000 bytes. */
const noticeAtMost = 7900;

const tell = async (notice: object): Promise<void> => {
  await sql`select pg_notify('zircon', ${JSON.stringify(notice)})`.execute(database());
};

/**
 * Tells all windows of a project, whichever server they listen to, where one of them is. Nothing of it is kept. What is
 * too much for one notice is told without what is being dragged, then without what is selected.
 */
export async function tellHere(project: string, here: Here): Promise<void> {
  const tries = [here, { ...here, draft: [] }, { ...here, draft: [], selected: [] }];
  const fits = tries.find((one) => Buffer.byteLength(JSON.stringify({ project, here: one })) <= noticeAtMost);
  await tell({ project, here: fits });
}

/** Tells them that a window is gone. */
export const tellLeft = (project: string, left: string): Promise<void> => tell({ project, left });
