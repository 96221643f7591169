import { randomUUID } from 'node:crypto';
import { sql, type Transaction } from 'kysely';
import { database } from '../database/connection';
import { appliedMigration } from '../database/migrate';
import type { Database } from '../database/schema';
import { Problem } from '../problem';
import type { Head } from './format';
import { readBackup, type BackupRow } from './readBackup';
import { backedUp } from './tables';

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
/** What a whole installation shares; a name that is there already stays as it is. */
const shelves = new Set(['named_recipes', 'role_maps']);
const anyUuid = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g;
/** Rows are put back in groups of this many, or of this many characters. */
const group = { rows: 500, characters: 8_000_000 };
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
  const here = await appliedMigration(database());
  if (head.schema !== here)
    throw new Problem(
      409,
      `${path} was made by another version of the program (its database was at ${head.schema}, ` +
        `this one is at ${here}). Restore it with that version, and let this one bring that ` +
        'database up to date.',
    );
  const projects = chosen(head, project);
  const keeps = wanted.test(new Set(projects.map(({ id }) => id)), project === null);
  return database()
    .transaction()
    .execute(async (tx) => {
      await sql`set constraints all deferred`.execute(tx);
      const names = await namesFor(tx, projects);
      const writer = new Writer(tx, ids);
      await readBackup(path, async ({ table, row }) => {
        if (keeps(table, row))
          await writer.take(table, table === 'projects' ? { ...row, name: names.get(String(row.id)) } : row);
      });
      await writer.flush();
      return {
        projects: projects.map(({ id }) => ({ id: ids.get(id)!, name: names.get(id)! })),
        rows: writer.rows,
      };
    });
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

  see(table: string, row: BackupRow['row']): void {
    if (table === 'drawings') this.projectOf.set(String(row.id), String(row.project_id));
    if (table === 'revisions') {
      const project = this.projectOf.get(String(row.drawing_id)) ?? '';
      const files = this.filesOf.get(project) ?? new Set();
      this.filesOf.set(project, files.add(String(row.file_id)));
    }
  }

  /** Whether a row belongs to some projects. */
  test(projects: ReadonlySet<string>, all: boolean): (table: string, row: BackupRow['row']) => boolean {
    const files = new Set([...projects].flatMap((project) => [...(this.filesOf.get(project) ?? [])]));
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

/** Puts rows into their tables, a group at a time, every id in them replaced. */
class Writer {
  rows = 0;
  private table = '';
  private waiting: string[] = [];
  private characters = 0;
  private readonly columns = new Map<string, string[]>();

  constructor(
    private readonly tx: Tx,
    private readonly ids: ReadonlyMap<string, string>,
  ) {}

  async take(table: string, row: BackupRow['row']): Promise<void> {
    if (!backedUp.some(({ name }) => name === table)) throw new Problem(400, `The backup holds a table ${table}.`);
    if (table !== this.table) await this.flush();
    this.table = table;
    const text = this.withOwnIds(table, row);
    this.waiting.push(text);
    this.characters += text.length;
    this.rows += 1;
    if (this.waiting.length >= group.rows || this.characters > group.characters) await this.flush();
  }

  /** A file's bytes hold no ids; everything else may, also in the middle of texts. */
  private withOwnIds(table: string, row: BackupRow['row']): string {
    if (shelves.has(table)) return JSON.stringify({ ...row, id: randomUUID() });
    if (table.startsWith('file_')) return JSON.stringify({ ...row, file_id: this.ids.get(String(row.file_id)) });
    return JSON.stringify(row).replace(anyUuid, (id) => this.ids.get(id) ?? id);
  }

  async flush(): Promise<void> {
    if (this.waiting.length === 0) return;
    const columns = sql.join((await this.columnsOf(this.table)).map((column) => sql.ref(column)));
    await sql`
      insert into ${sql.table(this.table)} (${columns})
      select ${columns} from json_populate_recordset(null::${sql.table(this.table)}, ${`[${this.waiting.join()}]`}::json)
      ${shelves.has(this.table) ? sql`on conflict (name) do nothing` : sql``}
    `.execute(this.tx);
    this.waiting = [];
    this.characters = 0;
  }

  /** The columns that are written; what the database makes of others it makes again. */
  private async columnsOf(table: string): Promise<string[]> {
    const known = this.columns.get(table);
    if (known) return known;
    const { rows } = await sql<{ name: string }>`
      select column_name as name from information_schema.columns
      where table_schema = current_schema() and table_name = ${table} and is_generated = 'NEVER'
    `.execute(this.tx);
    const names = rows.map(({ name }) => name);
    this.columns.set(table, names);
    return names;
  }
}
