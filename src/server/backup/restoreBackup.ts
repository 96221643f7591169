import { randomUUID } from 'node:crypto';
import { sql, type Transaction } from 'kysely';
import { database } from '../database/connection';
import { appliedMigration, isKnown } from '../database/migrate';
import type { Database } from '../database/schema';
import { Problem } from '../problem';
import type { Head } from './format';
import { readBackup, type BackupRow } from './readBackup';
import { renewed } from './renewed';
import { RowWriter, shelves } from './rowWriter';

type Tx = Transaction<Database>;

/** Tables whose rows have an id of their own that others name. */
const withId = new Set([
  'projects',
  'levels',
  'library',
  'files',
  'drawings',
  'picks',
  'elements',
  'views',
  'acceptances',
]);
const longestName = 120;

/** What was put back: the projects under the names that they have now. */
export interface Restored {
  projects: { id: string; name: string }[];
  rows: number;
}

/**
 * Puts projects of a backup back beside what is there: each as a copy with ids of its own, its history with it. All of
 * it, or, where something goes wrong, nothing.
 * @param project only this one, by its id or its name in the backup; null is everything
 * @throws Problem that says what is wrong with the file
 */
export async function restoreBackup(path: string, project: string | null): Promise<Restored> {
  const ids = new Map<string, string>();
  const wanted = new Wanted();
  // The file is read once before anything is done: its check sum has to be right, and all ids are known then.
  const { head } = await readBackup(path, ({ table, row }) => {
    wanted.see(table, row);
    if (withId.has(table)) ids.set(String(row.id), randomUUID());
  });
  if (head.schema !== (await appliedMigration(database()))) return restoreRenewed(path, head, project);
  const projects = chosen(head, project);
  const keeps = wanted.test(new Set(projects.map(({ id }) => id)), project === null);
  return database()
    .transaction()
    .execute(async (tx) => {
      await sql`set constraints all deferred`.execute(tx);
      const names = await namesFor(tx, projects);
      const writer = new RowWriter(tx, ids);
      await readBackup(path, async ({ table, row }) => {
        if (keeps(table, row)) await writer.take(table, table === 'projects' ? asCopy(row, names) : row);
      });
      await writer.flush();
      return {
        projects: projects.map(({ id }) => ({ id: ids.get(id)!, name: names.get(id)! })),
        rows: writer.rows,
      };
    });
}

/** A backup of an earlier version is brought up to date first. */
async function restoreRenewed(path: string, head: Head, project: string | null): Promise<Restored> {
  if (!isKnown(head.schema))
    throw new Problem(
      409,
      `${path} was made by a later version of the program (its database was at ${head.schema}). ` +
        'Restore it with that version, or bring this installation up to date first.',
    );
  const { path: now, clear } = await renewed(path, head.schema);
  try {
    return await restoreBackup(now, project);
  } finally {
    await clear();
  }
}

function chosen(head: Head, project: string | null): Head['projects'] {
  if (project === null) return head.projects;
  const found = head.projects.filter(({ id, name }) => id === project || name === project);
  if (found.length > 0) return found;
  const names = head.projects.map(({ name }) => name).join(', ');
  throw new Problem(404, `The backup holds no project ${project}. It holds: ${names || 'none'}.`);
}

/** What belongs to which project, as the rows of a backup say it one after another. */
class Wanted {
  private readonly projectOf = new Map<string, string>();
  private readonly filesOf = new Map<string, Set<string>>();
  private readonly originalOf = new Map<string, string>();

  see(table: string, row: BackupRow['row']): void {
    if (table === 'drawings') this.projectOf.set(String(row.id), String(row.project_id));
    if (table === 'revisions') {
      const project = this.projectOf.get(String(row.drawing_id)) ?? '';
      const files = this.filesOf.get(project) ?? new Set();
      this.filesOf.set(project, files.add(String(row.file_id)));
    }
    if (table === 'file_origins') this.originalOf.set(String(row.file_id), String(row.original_id));
  }

  /** Whether a row belongs to some projects. */
  test(projects: ReadonlySet<string>, all: boolean): (table: string, row: BackupRow['row']) => boolean {
    const shown = [...projects].flatMap((project) => [...(this.filesOf.get(project) ?? [])]);
    const files = new Set([...shown, ...shown.flatMap((file) => this.originalOf.get(file) ?? [])]);
    return (table, row) => {
      if (shelves.has(table)) return all;
      if (table === 'projects') return projects.has(String(row.id));
      if (table === 'files') return files.has(String(row.id));
      if (table.startsWith('file_')) return files.has(String(row.file_id));
      if (row.project_id !== undefined) return projects.has(String(row.project_id));
      return projects.has(this.projectOf.get(String(row.drawing_id)) ?? '');
    };
  }
}

/** A copy has a name of its own, and is not held where its original was. */
const asCopy = (row: BackupRow['row'], names: ReadonlyMap<string, string>): BackupRow['row'] => ({
  ...row,
  name: names.get(String(row.id)),
  held_at: null,
  held_by: null,
});

/** Names that no project has yet: "Harbour (restored)", "Harbour (restored 2)". */
async function namesFor(tx: Tx, projects: Head['projects']): Promise<Map<string, string>> {
  const taken = new Set((await tx.selectFrom('projects').select('name').execute()).map(({ name }) => name));
  const names = new Map<string, string>();
  for (const { id, name } of projects) {
    let own = name;
    for (let n = 1; taken.has(own); n += 1) {
      const mark = n === 1 ? ' (restored)' : ` (restored ${n})`;
      own = name.slice(0, longestName - mark.length) + mark;
    }
    taken.add(own);
    names.set(id, own);
  }
  return names;
}
