'use client';
import * as v from 'valibot';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { editSchema, largeEdit, type Change, type Edit } from '@/core/model/edits';
import { Model } from '@/core/model/model';
import { changesTo, replay, type Pending } from '@/core/model/replay';
import { api, ApiError, Unreachable } from './api';
import { Draft } from './draft';
import { hearNews } from './news';
import { Others } from './others';
import type { Answer, History, IntakeView, LoggedEdit, Notice, Snapshot } from './told';
import { turn } from './turn';
import { contentOf, writtenAtOnce } from './writeOut';

/** What a person is told in passing. */
export interface Message {
  kind: 'info' | 'problem';
  text: string;
}

/** What is known of an opened project beside its rows. */
export interface Facts {
  history: History;
  intakes: IntakeView[];
  /** Whether the server answers. Steps wait while it does not. */
  connection: 'ok' | 'away';
  /** Set when the project was deleted elsewhere. */
  gone: string | null;
  /** Steps not yet confirmed. */
  pending: number;
  messages: (Message & { key: number })[];
}

/** A step on its way to the server, in the order of steps. One with changes is applied in this window already. */
interface Step extends Pending {
  clientId: string;
  path: 'edits' | 'undo' | 'redo' | 'past';
  label: string;
  /** The edit that an undo or a redo means, where that is known; that of a way back is to be the last one. */
  target: number | null;
  applied: boolean;
  settle: (confirmed: boolean) => void;
}

/** A step that gets no answer is sent again after this long, milliseconds. */
const sentAgainAfter = 1500;
/** The way back is known for this many of the last steps; further back undo waits for the server's word. */
const stepsRemembered = 50;
/** Messages kept, the last ones. */
const messagesKept = 20;

const contradicts = (label: string): string =>
  `\u201c${label}\u201d was not applied: somebody changed the same in another window. It ` +
  'is shown here as it is now; look, and do the step again if it still makes sense.';

/**
 * One opened project in this window: its rows, its own queue and its own requests. Edits apply here at once and go out
 * one after another; what others did comes in between, and only what really contradicts it is refused, with a sentence.
 */
export class Session {
  readonly model: Model;
  /** Whether who is here may change anything. */
  readonly mayEdit: boolean;
  /** Elements in the middle of a gesture. */
  readonly draft = new Draft();
  /** Who else is here. */
  readonly others: Others;
  readonly facts: StoreApi<Facts>;
  private readonly queue: Step[] = [];
  private readonly inverses = new Map<number, Change[]>();
  private sending = false;
  /** The newest version that the server has told of. */
  private heard = 0;
  private pulling: Promise<void> | null = null;
  private pullingNext: Promise<void> | null = null;
  private messageKey = 0;
  /** As the server last told it, without the steps on their way. */
  private confirmed: History;
  /** What the others know this opening of the project by. */
  private readonly here = crypto.randomUUID();

  constructor(
    readonly id: string,
    snapshot: Snapshot,
    /** The window's id, by which the list of edits tells whose they are. */
    private readonly window: string = crypto.randomUUID(),
  ) {
    this.model = new Model(snapshot.state);
    this.mayEdit = snapshot.right !== 'reader';
    this.confirmed = snapshot.history;
    this.others = new Others(this.here, (here) => api(`${this.base}/here`, { json: here }));
    this.facts = createStore<Facts>(() => ({
      history: snapshot.history,
      intakes: snapshot.intakes,
      connection: 'ok',
      gone: null,
      pending: 0,
      messages: [],
    }));
  }

  private get base(): string {
    return `/api/projects/${this.id}`;
  }

  /** Listens to what others do. @returns the way to stop; steps on their way still go out */
  listen(): () => void {
    const stop = this.others.begin();
    const close = hearNews(`${this.base}/events?here=${this.here}`, {
      hear: (notice) => this.hear(notice),
      opened: () => {
        void this.pull();
        void this.refreshIntakes();
        this.others.announce();
      },
      away: () => this.facts.setState({ connection: 'away' }),
      refused: () => {
        // Whether the project is gone is asked.
        void this.pull();
        return this.facts.getState().gone === null;
      },
    });
    return () => {
      stop();
      close();
    };
  }

  private hear(notice: Notice): void {
    if (notice.here !== undefined) return this.others.hear(notice.here);
    if (notice.left !== undefined) return this.others.left(notice.left);
    this.heard = Math.max(this.heard, notice.version ?? 0);
    // A version below zero tells that the project was deleted or put back: what is so is asked.
    if (notice.again || (notice.version ?? 0) < 0) void this.pull();
    else this.follow();
    if (notice.intake !== undefined || notice.again) void this.refreshIntakes();
  }

  /** Asks for what was heard of; the answer to a step on its way brings most of it, and is waited for. */
  private follow(): void {
    if (this.heard > this.confirmed.version && !this.sending) void this.pull();
  }

  /** Applies an edit here and sends it; null does nothing. @returns whether the server confirmed it */
  commit(make: (model: Model) => Edit | null): Promise<boolean> {
    return this.begin(make) ?? Promise.resolve(false);
  }

  /** Does the same. @returns whether it is applied here, for who goes on at once: the server may be away */
  apply(make: (model: Model) => Edit | null): boolean {
    return this.begin(make) !== null;
  }

  private begin(make: (model: Model) => Edit | null): Promise<boolean> | null {
    const edit = this.checked(make(this.model));
    if (edit === null) return null;
    const again = (model: Model): Change[] | null => this.checked(make(model))?.changes ?? null;
    return this.enqueue({ path: 'edits', label: edit.label, changes: edit.changes, again, target: null });
  }

  /** An edit as the server will take it; null where it does nothing, or where the server would not, which is told. */
  private checked(edit: Edit | null): Edit | null {
    if (edit === null || edit.changes.length === 0) return null;
    // Large ones are made by the program.
    if (edit.changes.length > writtenAtOnce) return edit;
    const result = v.safeParse(editSchema, edit);
    if (result.success) return result.output;
    this.tell({ kind: 'problem', text: result.issues[0].message });
    return null;
  }

  undo = (): Promise<boolean> => this.step('undo');

  redo = (): Promise<boolean> => this.step('redo');

  /** Puts the project as it was after an edit of the log, as a new edit. @returns whether the server confirmed it */
  goBack(seq: number, label: string): Promise<boolean> {
    return this.enqueue({ path: 'past', label, changes: null, again: null, target: seq }) ?? Promise.resolve(false);
  }

  /** Where the way back is known and nothing is on its way, it is taken at once; else the server says what it is. */
  private step(way: 'undo' | 'redo'): Promise<boolean> {
    const { history } = this.facts.getState();
    const label = history[way];
    if (label === null) return Promise.resolve(false);
    const seq = way === 'undo' ? this.confirmed.undoSeq : this.confirmed.redoSeq;
    const target = this.queue.length === 0 ? seq : null;
    const known = target === null ? undefined : this.inverses.get(target);
    return this.enqueue({ path: way, label, changes: known ?? null, again: null, target }) ?? Promise.resolve(false);
  }

  /** Why nothing can be changed; null where it can. */
  private refusal(): string | null {
    if (!this.mayEdit) return 'You may look at this project and not change it.';
    if (this.confirmed.held === null) return null;
    return 'This project is held as it is, for a handover. Let it go at Handover to change it.';
  }

  /**
   * @param asked a step; without changes it is one that only the server knows how to do
   * @returns whether the server confirmed it; null where nothing may be changed, which is told
   */
  private enqueue(
    asked: Pick<Step, 'path' | 'label' | 'again' | 'target'> & { changes: Change[] | null },
  ): Promise<boolean> | null {
    const refusal = this.refusal();
    if (refusal !== null) {
      this.tell({ kind: 'problem', text: refusal });
      return null;
    }
    return new Promise<boolean>((settle) => {
      const { changes } = asked;
      const inverse = changes === null ? [] : this.model.apply(changes);
      const clientId = crypto.randomUUID();
      this.queue.push({ ...asked, clientId, changes: changes ?? [], inverse, applied: changes !== null, settle });
      if ((changes?.length ?? 0) < largeEdit) this.publish();
      else void turn().then(() => this.publish());
      void this.send();
    });
  }

  /** Sends queued steps in order. A step that gets no answer stays and is sent again; its id makes it count once. */
  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    while (this.queue.length > 0) {
      const step = this.queue[0];
      // What is on its way is what the server may take: news in between do not make it anew.
      const { again } = step;
      step.again = null;
      try {
        const answer = await api<Answer>(
          `${this.base}/${step.path}`,
          await contentOf(step, this.confirmed.version, this.window),
        );
        this.facts.setState({ connection: 'ok' });
        await this.take(answer, step);
        this.settle(step, true);
      } catch (error) {
        step.again = again;
        await this.notTaken(step, error);
      }
    }
    this.sending = false;
    this.follow();
  }

  /** What becomes of a step that the server has not taken. */
  private async notTaken(step: Step, error: unknown): Promise<void> {
    if (error instanceof Unreachable || (error instanceof ApiError && error.status === 503)) {
      this.facts.setState({ connection: 'away' });
      await new Promise((resolve) => setTimeout(resolve, sentAgainAfter));
      return;
    }
    const version = error instanceof ApiError && error.status === 409 ? error.details.version : undefined;
    const newer = typeof version === 'number' && version > this.confirmed.version;
    if (newer) await this.pull();
    // An edit goes again on top of what the others did; what undo would take back now is another step.
    if (newer && step.path === 'edits') return;
    if (!this.queue.includes(step)) return;
    this.failed(error);
    this.drop(step);
  }

  /** Takes a refused step out, and the rows back to what they are without it. */
  private drop(step: Step): void {
    const applied = this.queue.filter((other) => other.applied);
    if (step.applied) this.leaveOut(replay(this.model, [], applied, step).left.filter((other) => other !== step));
    this.settle(step, false);
  }

  /** Steps that contradict what others did are told and forgotten. */
  private leaveOut(steps: readonly Step[]): void {
    for (const step of steps) {
      this.tell({ kind: 'problem', text: contradicts(step.label) });
      this.settle(step, false);
    }
  }

  private settle(step: Step, confirmed: boolean): void {
    const at = this.queue.indexOf(step);
    if (at < 0) return;
    this.queue.splice(at, 1);
    step.settle(confirmed);
    this.publish();
  }

  /**
   * Takes over what the server has. Own edits come back as they went and change nothing here.
   * @param answered the step that this is the answer to
   */
  private async take({ edits, history }: Answer, answered: Step | null = null): Promise<void> {
    const fresh = edits.filter(({ seq }) => seq > this.confirmed.version);
    if (fresh.length === 0 && history.version <= this.confirmed.version) {
      if (history.version === this.confirmed.version) this.hold(history.held);
      return;
    }
    // The log was too long for one answer, or the project was put back: it is loaded as it is.
    if (fresh[0]?.seq !== this.confirmed.version + 1 || fresh[fresh.length - 1].seq < history.version) {
      await this.reload(answered);
      return;
    }
    const steps = fresh.map(({ clientId }) => this.queue.find((step) => step.clientId === clientId) ?? null);
    const inOrder = steps.every((step, i) => step !== null && step.applied && step === this.queue[i]);
    if (inOrder) {
      for (const [i, step] of steps.entries()) this.remember(fresh[i].seq, step!.inverse);
    } else this.takeOthers(fresh, steps);
    this.confirmed = history;
    for (const step of steps) if (step !== null) this.settle(step, true);
    this.publish();
  }

  /** Holding and letting go are no edits: they are told beside them. */
  private hold(held: History['held']): void {
    if (held?.at === this.confirmed.held?.at) return;
    this.confirmed = { ...this.confirmed, held };
    this.publish();
  }

  /** What others did goes before the steps that are still on their way. */
  private takeOthers(edits: readonly LoggedEdit[], own: readonly (Step | null)[]): void {
    const done = edits.map(({ changes }, i) => changes ?? own[i]?.changes ?? []);
    const applied = this.queue.filter((step) => step.applied);
    const confirmed = new Set(own);
    // Steps that the server has are among what is done: here they are taken back and not done again.
    const waiting = applied.filter((step) => !confirmed.has(step));
    const back = applied
      .filter((step) => confirmed.has(step))
      .toReversed()
      .flatMap(({ inverse }) => inverse);
    const { left, inverses } = replay(this.model, back.length > 0 ? [back, ...done] : done, waiting);
    for (const [i, inverse] of inverses.slice(-done.length).entries()) this.remember(edits[i].seq, inverse);
    this.leaveOut(left);
  }

  private remember(seq: number, inverse: Change[]): void {
    this.inverses.set(seq, inverse);
    this.inverses.delete(seq - stepsRemembered);
  }

  /** Asks for what others did since; while an answer is on its way, which may be from before, once more after it. */
  pull(): Promise<void> {
    if (this.pulling === null) {
      this.pulling = this.ask().finally(() => {
        this.pulling = null;
        this.pullingNext = null;
      });
      return this.pulling;
    }
    this.pullingNext ??= this.pulling.then(() => this.pull());
    return this.pullingNext;
  }

  private async ask(): Promise<void> {
    try {
      const answer = await api<Answer>(`${this.base}/edits?since=${this.confirmed.version}`);
      this.facts.setState({ connection: 'ok' });
      await this.take(answer);
    } catch (error) {
      this.failed(error);
    }
  }

  /** Loads the project as the server has it, with the steps on their way on top. @param had a step that it has */
  private async reload(had: Step | null): Promise<void> {
    try {
      const { state, history } = await api<Omit<Snapshot, 'intakes'>>(`${this.base}/state`);
      const applied = this.queue.filter((step) => step.applied && step !== had);
      const { left } = replay(this.model, [changesTo(this.model, state, applied)], applied);
      this.confirmed = history;
      this.inverses.clear();
      this.leaveOut(left);
      this.facts.setState({ connection: 'ok' });
      this.publish();
      await this.refreshIntakes();
    } catch (error) {
      this.failed(error);
    }
  }

  private failed(error: unknown): void {
    if (error instanceof ApiError && error.status === 404) this.facts.setState({ gone: error.message });
    else if (error instanceof Unreachable) this.facts.setState({ connection: 'away' });
    else this.tell({ kind: 'problem', text: error instanceof Error ? error.message : String(error) });
  }

  /** Tells how far things are, with the last step on its way as what undo would take back. */
  private publish(): void {
    const last = this.queue.findLast(({ path }) => path === 'edits');
    const history = last === undefined ? this.confirmed : { ...this.confirmed, undo: last.label, redo: null };
    this.facts.setState({ history, pending: this.queue.length });
  }

  tell = (message: Message): void => {
    const { messages } = this.facts.getState();
    this.messageKey += 1;
    this.facts.setState({ messages: [...messages.slice(-messagesKept), { ...message, key: this.messageKey }] });
  };

  refreshIntakes = async (): Promise<void> => {
    try {
      const { intakes } = await api<{ intakes: IntakeView[] }>(`${this.base}/intakes`);
      this.facts.setState({ intakes });
    } catch (error) {
      this.failed(error);
    }
  };
}
