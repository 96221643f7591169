import type { ElementKind, ElementOf, ElementRow } from '@/core/kinds/element';
import { Buckets } from './buckets';
import type { Change } from './edits';
import { ModelIndex } from './modelIndex';
import { emptyState, tableNames, type DecisionRow, type ProjectState, type Rows, type TableName } from './state';

/** A row before and after a change; null where there is none. */
export type RowDiff = {
  [T in TableName]: { table: T; id: string; before: Rows[T] | null; after: Rows[T] | null };
}[TableName];

/** What one edit changed, for those who show it. */
export interface Diff {
  rows: readonly RowDiff[];
  tables: ReadonlySet<TableName>;
  /** The levels of the elements that came, went or changed; null stands for elements of no level. */
  levels: ReadonlySet<string | null>;
}

type Listener = (diff: Diff) => void;
type Tables = { -readonly [T in TableName]: Record<string, Rows[T]> };

/**
 * The rows of one project, changed in place by edits. It keeps a version per table and per level, indices that follow
 * every edit, and tells whoever subscribes what each edit changed. A model stands wherever a state is asked for; what
 * it
 * gives out is not to be changed by others.
 */
export class Model implements ProjectState {
  readonly project: Tables['project'] = {};
  readonly level: Tables['level'] = {};
  readonly library: Tables['library'] = {};
  readonly drawing: Tables['drawing'] = {};
  readonly placement: Tables['placement'] = {};
  readonly recipe: Tables['recipe'] = {};
  readonly display: Tables['display'] = {};
  readonly role: Tables['role'] = {};
  readonly pick: Tables['pick'] = {};
  readonly decision: Tables['decision'] = {};
  readonly element: Tables['element'] = {};
  readonly view: Tables['view'] = {};
  readonly acceptance: Tables['acceptance'] = {};

  #versions = Object.fromEntries(tableNames.map((table) => [table, 0])) as Record<TableName, number>;
  #counts = Object.fromEntries(tableNames.map((table) => [table, 0])) as Record<TableName, number>;
  #levelVersions = new Map<string | null, number>();
  #decisions = new Buckets<string, DecisionRow>();
  #index = new ModelIndex();
  #listeners = new Set<Listener>();

  constructor(rows: ProjectState = emptyState) {
    for (const table of tableNames) {
      Object.assign(this[table], rows[table]);
      this.#counts[table] = Object.keys(rows[table]).length;
    }
    for (const row of Object.values(this.decision)) if (row.elementId !== null) this.#decisions.add(row.elementId, row);
    this.#index.load(Object.values(this.element));
  }

  /** How often a table has changed. */
  version(table: TableName): number {
    return this.#versions[table];
  }

  /** How often the elements of a level have changed; null stands for elements of no level. */
  levelVersion(levelId: string | null): number {
    return this.#levelVersions.get(levelId) ?? 0;
  }

  /** How many rows a table has. */
  count(table: TableName): number {
    return this.#counts[table];
  }

  /** What is asked of elements by where they stand, what they hang on and what they are made of. */
  get index(): ModelIndex {
    return this.#index;
  }

  /** The elements of one kind, on all levels. */
  ofKind<K extends ElementKind>(kind: K): Iterable<ElementOf<K>> {
    return this.#index.ofKind(kind);
  }

  /** The decisions that made an element. */
  decisionsOf(elementId: string): Iterable<DecisionRow> {
    return this.#decisions.of(elementId);
  }

  /** Hears of every edit, once. @returns the way to stop */
  subscribe(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => {
      this.#listeners.delete(listener);
    };
  }

  /**
   * Applies changes in their order and tells the listeners once.
   * @returns the changes that lead back, in the order in which they do
   */
  apply(changes: readonly Change[]): Change[] {
    const diffs = changes.map((change) => this.#put(change));
    const elements = diffs.flatMap((diff) => (diff.table === 'element' ? [diff] : []));
    this.#index.follow(elements);
    this.#tell(diffs, elements);
    return diffs.map(({ table, id, before }) => ({ table, id, row: before }) as Change).reverse();
  }

  #put(change: Change): RowDiff {
    const { table, id, row } = change;
    const rows = this[table] as Record<string, Rows[TableName]>;
    const before = rows[id] ?? null;
    if (row === null) delete rows[id];
    else rows[id] = row;
    this.#counts[table] += Number(row !== null) - Number(before !== null);
    const diff = { table, id, before, after: row } as RowDiff;
    if (diff.table === 'decision') this.#followDecision(diff.before, diff.after);
    return diff;
  }

  #followDecision(before: DecisionRow | null, after: DecisionRow | null): void {
    if (before !== null && before.elementId !== null) this.#decisions.remove(before.elementId, before.id);
    if (after !== null && after.elementId !== null) this.#decisions.add(after.elementId, after);
  }

  #tell(rows: readonly RowDiff[], elements: readonly { before: ElementRow | null; after: ElementRow | null }[]): void {
    const tables = new Set(rows.map(({ table }) => table));
    const levels = new Set<string | null>();
    for (const { before, after } of elements)
      for (const element of [before, after]) if (element !== null) levels.add(element.levelId);
    for (const table of tables) this.#versions[table] += 1;
    for (const level of levels) this.#levelVersions.set(level, this.levelVersion(level) + 1);
    for (const listener of this.#listeners) listener({ rows, tables, levels });
  }
}

/**
 * A model with changes applied to it, beside the state that it was made of, which stays as it is.
 * @returns the model, and the changes that lead back
 */
export function applyChanges(state: ProjectState, changes: readonly Change[]): { state: Model; inverse: Change[] } {
  const model = new Model(state);
  return { inverse: model.apply(changes), state: model };
}
