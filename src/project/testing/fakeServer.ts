import type { Change, Edit } from '@/core/model/edits';
import { Model } from '@/core/model/model';
import type { ProjectState } from '@/core/model/state';
import type { History } from '../told';

interface Logged {
  seq: number;
  label: string;
  clientId: string;
  changes: Change[];
  inverse: Change[];
  undoes: number | null;
  previousUndo: number | null;
  previousRedo: number | null;
}

type Asked = { seen: number; clientId: string; edit?: Edit; target?: number | null };

const json = (body: unknown, status = 200): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });

/**
 * A server for tests of sessions: it keeps a log as the real one does (src/server/edits), refuses an edit of rows that
 * were changed since its window looked, counts a repeated step once, and can be told to be silent.
 */
export class FakeServer {
  readonly model: Model;
  readonly log: Logged[] = [];
  /** Requests that came, without those it was silent to. */
  readonly asked: { path: string; body: Asked | null }[] = [];
  /** What it does before it answers; a test may wait here, or throw, as a cut line does. */
  before: (path: string) => Promise<void> | void = () => undefined;
  private undoTop: number | null = null;
  private redoTop: number | null = null;

  constructor(readonly first: ProjectState) {
    this.model = new Model(first);
  }

  get history(): History {
    const labelOf = (seq: number | null) => (seq === null ? null : this.log[seq - 1].label.replace(/^Undo: /, ''));
    return {
      version: this.log.length,
      undo: labelOf(this.undoTop),
      redo: labelOf(this.redoTop),
      undoSeq: this.undoTop,
      redoSeq: this.redoTop,
      savedAt: null,
      held: null,
    };
  }

  readonly fetch = async (path: string, init?: { body?: string }): Promise<Response> => {
    await this.before(path);
    const body = init?.body ? (JSON.parse(init.body) as Asked) : null;
    this.asked.push({ path, body });
    const url = new URL(path, 'http://test');
    const way = url.pathname.split('/').at(-1)!;
    if (way === 'state') return json({ state: rowsOf(this.model), history: this.history, intakes: [] });
    if (way === 'intakes') return json({ intakes: [] });
    if (body === null) return json(this.since(Number(url.searchParams.get('since')), null));
    return this.step(way, body);
  };

  private since(version: number, knows: string | null) {
    const edits = this.log.slice(version).map(({ seq, label, clientId, changes }) => ({
      seq,
      label,
      clientId,
      changes: clientId === knows ? null : changes,
    }));
    return { edits, history: this.history };
  }

  /** Whether a step was decided on what is not so any more. */
  private stale(way: string, { seen, edit, target }: Asked): boolean {
    if (seen === this.log.length) return false;
    if (edit === undefined) return target !== (way === 'undo' ? this.undoTop : this.redoTop);
    const touched = new Set(this.log.slice(seen).flatMap(({ changes }) => changes.map(({ id }) => id)));
    return edit.changes.some(({ id }) => touched.has(id));
  }

  private step(way: string, asked: Asked): Response {
    const { seen, clientId, edit } = asked;
    if (!this.log.some((logged) => logged.clientId === clientId)) {
      if (this.stale(way, asked)) return json({ message: 'Not applied: stale.', version: this.log.length }, 409);
      if (edit) this.append({ clientId, label: edit.label, changes: edit.changes, undoes: null, previousRedo: null });
      else if ((way === 'undo' ? this.undoTop : this.redoTop) === null)
        return json({ message: `There is nothing to ${way}.`, version: this.log.length }, 409);
      else this.back(way, clientId);
    }
    return json(this.since(seen, edit ? clientId : null));
  }

  private append(entry: Omit<Logged, 'seq' | 'inverse' | 'previousUndo'>): void {
    const inverse = this.model.apply(entry.changes);
    this.log.push({ ...entry, seq: this.log.length + 1, inverse, previousUndo: this.undoTop });
    this.undoTop = this.log.length;
    this.redoTop = null;
  }

  private back(way: string, clientId: string): void {
    const target = this.log[(way === 'undo' ? this.undoTop! : this.redoTop!) - 1];
    const inverse = this.model.apply(target.inverse);
    const label = way === 'undo' ? `Undo: ${target.label}` : target.label.replace(/^Undo: /, 'Redo: ');
    const seq = this.log.length + 1;
    const { previousUndo } = target;
    const previousRedo = this.redoTop;
    const changes = target.inverse;
    this.log.push({ clientId, label, changes, inverse, undoes: target.seq, previousUndo, previousRedo, seq });
    [this.undoTop, this.redoTop] = way === 'undo' ? [previousUndo, seq] : [target.undoes, target.previousRedo];
  }

  /** Somebody else's edit. */
  other(label: string, changes: Change[]): void {
    this.append({ clientId: crypto.randomUUID(), label, changes, undoes: null, previousRedo: null });
  }
}

/** The rows of a model, as plain tables. */
export const rowsOf = (model: Model): ProjectState => JSON.parse(JSON.stringify(model)) as ProjectState;
