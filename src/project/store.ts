'use client';
import { create } from 'zustand';
import { applyChanges, type Change, type Edit } from '@/core/model/edits';
import { emptyState, type ProjectState } from '@/core/model/state';
import type { DisplayUnit, LengthStyle } from '@/core/units/length';
import { api, ApiError, Unreachable } from './api';

export interface History {
  version: number;
  undo: string | null;
  redo: string | null;
  savedAt: string | null;
}
export interface IntakeView {
  id: string;
  fileName: string;
  size: number;
  state: 'receiving' | 'waiting' | 'reading' | 'done' | 'failed' | 'cancelled';
  done: number;
  message: string | null;
  drawingId: string | null;
  revises: string | null;
}
interface Snapshot {
  state: ProjectState;
  history: History;
  intakes: IntakeView[];
}
interface Answer {
  edits: { seq: number; label: string; changes: Change[] }[];
  history: History;
}

/** What a person is told in passing. */
export interface Message {
  kind: 'info' | 'problem';
  text: string;
}

interface Step {
  clientId: string;
  path: string;
  body: (seen: number) => object | null;
  done: (applied: boolean) => void;
}

/**
 * The window's copy of one project, fed by the server. Edits go out one after another, each with the version that
 * was seen; what other windows do comes in through server-sent events.
 */
interface ProjectStore {
  id: string;
  state: ProjectState;
  history: History;
  intakes: IntakeView[];
  /** Whether the server answers. Steps wait while it does not. */
  connection: 'ok' | 'away';
  /** Set when the project was deleted elsewhere. */
  gone: string | null;
  /** Steps not yet confirmed. */
  pending: number;
  messages: (Message & { key: number })[];
  open(id: string, snapshot: Snapshot): () => void;
  /** Queues an edit, made from the state at its turn; null does nothing. @returns whether it was applied */
  commit(make: (state: ProjectState) => Edit | null): Promise<boolean>;
  undo(): Promise<boolean>;
  redo(): Promise<boolean>;
  tell(message: Message): void;
  setIntakes(intakes: IntakeView[]): void;
  refreshIntakes(): Promise<void>;
}

const queue: Step[] = [];
let running = false;
let messageKey = 0;

export const useProject = create<ProjectStore>()((set, get) => {
  const base = () => `/api/projects/${get().id}`;

  const take = ({ edits, history }: Answer) => {
    let {
      state,
      history: { version },
    } = get();
    for (const edit of edits) {
      if (edit.seq <= version) continue;
      if (edit.seq !== version + 1) {
        void reload();
        return;
      }
      state = applyChanges(state, edit.changes).state;
      version = edit.seq;
    }
    if (version === history.version) set({ state, history });
    else if (version < history.version) void reload();
    else set({ state });
  };

  const failed = (error: unknown) => {
    if (error instanceof ApiError && error.status === 404) set({ gone: error.message });
    else if (error instanceof Unreachable) set({ connection: 'away' });
    else get().tell({ kind: 'problem', text: (error as Error).message });
  };

  const reload = async () => {
    try {
      const snapshot = await api<Snapshot>(`${base()}/state`);
      set({ ...snapshot, connection: 'ok' });
    } catch (error) {
      failed(error);
    }
  };

  const pull = async () => {
    try {
      take(await api<Answer>(`${base()}/edits?since=${get().history.version}`));
      set({ connection: 'ok' });
    } catch (error) {
      failed(error);
    }
  };

  /** Sends queued steps in order. A step that gets no answer stays and is sent again; its id makes it count once. */
  const work = async () => {
    if (running) return;
    running = true;
    while (queue.length > 0) {
      const step = queue[0];
      const body = step.body(get().history.version);
      let applied = false;
      try {
        if (body !== null) {
          take(
            await api<Answer>(`${base()}/${step.path}`, {
              json: { ...body, seen: get().history.version, clientId: step.clientId },
            }),
          );
          applied = true;
        }
        set({ connection: 'ok' });
      } catch (error) {
        if (error instanceof Unreachable || (error instanceof ApiError && error.status === 503)) {
          set({ connection: 'away' });
          await new Promise((resolve) => setTimeout(resolve, 1500));
          continue;
        }
        failed(error);
        if (error instanceof ApiError && error.status === 409) await pull();
      }
      queue.shift();
      set({ pending: queue.length });
      step.done(applied);
    }
    running = false;
  };

  const enqueue = (path: string, body: Step['body']) =>
    new Promise<boolean>((done) => {
      queue.push({ clientId: crypto.randomUUID(), path, body, done });
      set({ pending: queue.length });
      void work();
    });

  return {
    id: '',
    state: emptyState,
    history: { version: 0, undo: null, redo: null, savedAt: null },
    intakes: [],
    connection: 'ok',
    gone: null,
    pending: 0,
    messages: [],

    open(id, snapshot) {
      set({ id, ...snapshot, connection: 'ok', gone: null, messages: [] });
      const source = new EventSource(`/api/projects/${id}/events`);
      source.onmessage = ({ data }) => {
        const notice = JSON.parse(data as string) as { version?: number; intake?: string; again?: true };
        if (notice.version !== undefined && notice.version !== get().history.version && !running) void pull();
        if (notice.intake !== undefined || notice.again) void get().refreshIntakes();
        if (notice.again) void pull();
      };
      source.onopen = () => {
        void pull();
        void get().refreshIntakes();
      };
      source.onerror = () => set({ connection: 'away' });
      return () => source.close();
    },

    // The edit is made once, at its first turn, so that repeating it after a silence sends the same.
    commit(make) {
      let edit: Edit | null | undefined;
      return enqueue('edits', () => {
        edit ??= make(get().state);
        return edit === null || edit.changes.length === 0 ? null : { edit };
      });
    },
    undo: () => enqueue('undo', () => (get().history.undo === null ? null : {})),
    redo: () => enqueue('redo', () => (get().history.redo === null ? null : {})),

    tell(message) {
      set({ messages: [...get().messages.slice(-20), { ...message, key: (messageKey += 1) }] });
    },
    setIntakes(intakes) {
      set({ intakes });
    },
    async refreshIntakes() {
      try {
        set({ intakes: (await api<{ intakes: IntakeView[] }>(`${base()}/intakes`)).intakes });
      } catch (error) {
        failed(error);
      }
    },
  };
});

/** The drawings that are part of the project, in the order of their names. */
export const activeDrawings = (state: ProjectState) =>
  Object.values(state.drawing)
    .filter((drawing) => !drawing.discarded)
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));

export const projectRowOf = (store: Pick<ProjectStore, 'state' | 'id'>) => store.state.project[store.id];

/** How the project shows lengths. */
export const lengthsOf = (store: Pick<ProjectStore, 'state' | 'id'>): LengthStyle => {
  const row = projectRowOf(store);
  return styleOf(row?.displayUnit ?? 'm', row?.places ?? null);
};

const styles = new Map<string, LengthStyle>();

/** One object for one style, so that what depends on it is not made anew. */
function styleOf(unit: DisplayUnit, places: number | null): LengthStyle {
  const key = `${unit} ${places}`;
  if (!styles.has(key)) styles.set(key, { unit, places });
  return styles.get(key)!;
}
