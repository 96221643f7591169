import { randomUUID } from 'node:crypto';
import { sql, type Transaction } from 'kysely';
import type { Database } from '../database/schema';
import { Problem } from '../problem';
import type { BackupRow } from './readBackup';
import { backedUp } from './tables';

type Tx = Transaction<Database>;

/** What a whole installation shares; a name that is there already stays as it is. */
export const shelves = new Set(['named_recipes', 'role_maps']);
/** Tables whose rows are long and hold no id but their file's. */
const ofBytes = new Set(['file_chunks', 'file_columns', 'file_reports', 'file_origin_chunks']);
const anyUuid = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g;
/** Rows are put back in groups of this many, or of this many characters. */
const group = { rows: 500, characters: 8_000_000 };

/** Puts rows into their tables, a group at a time, every id in them replaced that has another. */
export class RowWriter {
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

  private readonly own = (id: unknown): string => this.ids.get(String(id)) ?? String(id);

  /** A file's bytes hold no ids; everything else may, also in the middle of texts. */
  private withOwnIds(table: string, row: BackupRow['row']): string {
    if (shelves.has(table)) return JSON.stringify({ ...row, id: randomUUID() });
    if (ofBytes.has(table)) return JSON.stringify({ ...row, file_id: this.own(row.file_id) });
    return JSON.stringify(row).replace(anyUuid, this.own);
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
