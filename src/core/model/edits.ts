import * as v from 'valibot';
import { chosenBy } from '@/core/chosenBy';
import { textUpTo } from '@/core/kinds/limits';
import { idSchema, tableNames, tableSchemas, type Rows, type TableName } from './state';

/** Puts a row in place of the one with its id, or takes the row with that id away (null). */
export type Change = { [T in TableName]: { table: T; id: string; row: Rows[T] | null } }[TableName];

/** What a person did, in words, and the rows it changes. */
export interface Edit {
  label: string;
  changes: Change[];
}

const changeOf = (table: TableName) =>
  v.strictObject({
    table: v.literal(table),
    id: idSchema(table),
    row: v.nullable(tableSchemas[table] as v.GenericSchema),
  }) as v.GenericSchema<unknown, Change>;

const changeSchema = chosenBy<Change>('table', Object.fromEntries(tableNames.map((table) => [table, changeOf(table)])));

/** Changes as they are kept in the log, with defaults for what rows got later. */
export const changesSchema = v.array(changeSchema);

/** An edit of so many changes takes long to apply: what shows it renders in a turn of its own. */
export const largeEdit = 2000;

/** Changes that one edit may hold. */
const mostChanges = 50_000;

/** An edit from outside: its length is asked before its content, each row is within its limits and under its own id. */
export const editSchema = v.strictObject({
  label: v.pipe(textUpTo(200), v.minLength(1)),
  changes: v.pipe(
    v.array(v.unknown()),
    v.minLength(1, 'The edit changes nothing.'),
    v.maxLength(mostChanges, `An edit changes at most ${mostChanges} rows.`),
    v.array(
      v.pipe(
        changeSchema,
        v.check(
          (change) => change.row === null || change.row.id === change.id,
          'A row stands under another id than its own.',
        ),
      ),
    ),
  ),
});

/** A change that puts a row. */
export const put = <T extends TableName>(table: T, row: Rows[T]): Change => ({ table, id: row.id, row }) as Change;

/** A change that takes a row away. */
export const remove = (table: TableName, id: string): Change => ({ table, id, row: null }) as Change;
