'use client';
import { decisionId } from '@/core/decisions/decide';
import { wallsAround } from '@/core/decisions/wallsAround';
import { noWallsAround } from '@/core/reading/walls/bearing';
import { roleId } from '@/core/model/roles';
import { create } from 'zustand';
import type { Placement } from '@/core/datum/placement';
import type { Model } from '@/core/model/model';
import type { DrawingRow, ProjectState } from '@/core/model/state';
import type { ElementKind, Shapes } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import type { Candidate } from '@/core/reading/candidate';
import type { ReadingResult, ReadingStage } from '@/core/reading/read';
import { defaultSettings, type ReadingSettings } from '@/core/patterns/settings';
import type { Role } from '@/core/sorting/roles';
import { activeDrawings, projectRowOf } from './projectRow';
import { readInWorker, underlayOf, useUnderlays, type ReadingOrder, type Underlay } from './underlays';

/** Where a reading is. */
type Stage = Omit<ReadingStage, 'soFar'>;

/**
 * What was read of a drawing, for one set of roles, settings and one placement; `running` is where a reading under way
 * is.
 */
export interface DrawingReading {
  basis: string;
  running: Stage | null;
  result: ReadingResult | null;
  problem: string | null;
}

interface ReadingStore {
  readings: Record<string, DrawingReading>;
  /** Reads a drawing again where its roles, its placement, the settings or the accepted grid changed. */
  refresh(state: Model, drawing: DrawingRow, underlay: Underlay): void;
  /** Forgets what was read of a drawing, so that it is read again. */
  again(drawingId: string): void;
  /** The candidate that bench and board point at. */
  pointed: string | null;
  point(key: string | null): void;
  /** The kind that the bench lists; pointing at a candidate turns to its kind. */
  kind: Candidate['kind'];
  list(kind: Candidate['kind']): void;
  /** Candidates chosen for a common decision, by key. */
  chosen: ReadonlySet<string>;
  choose(keys: Iterable<string>): void;
}

export const useReadings = create<ReadingStore>()((set, get) => ({
  readings: {},
  pointed: null,
  chosen: new Set<string>(),
  kind: 'grid',
  point(pointed) {
    if (pointed !== get().pointed)
      set({
        pointed,
        ...(pointed === null ? {} : { kind: pointed.slice(0, pointed.indexOf(':')) as Candidate['kind'] }),
      });
  },
  list(kind) {
    set({ kind, chosen: new Set() });
  },
  choose(keys) {
    set({ chosen: new Set(keys) });
  },
  again(drawingId) {
    set({ readings: Object.fromEntries(Object.entries(get().readings).filter(([id]) => id !== drawingId)) });
  },
  refresh(state, drawing, underlay) {
    const placement = state.placement[drawing.id];
    if (!placement) return;
    const order = {
      ...readingOrder(state, drawing.id, underlay, placement as Placement),
      around: wallsAround(state, drawing),
    };
    // Walls beside count by their number: each of their edits would have the drawing read anew.
    const { below, structural } = order.around;
    const { entries } = useUnderlays.getState();
    const sheets = order.sheets.map(({ drawingId, name }) => [name, underlayOf(entries, drawingId)?.basis]);
    const told = { ...order, sheets, around: [below?.length, structural?.length] };
    const basis = JSON.stringify([underlay.basis, told]);
    const before = get().readings[drawing.id];
    if (before?.basis === basis) return;
    const put = (reading: DrawingReading) => set({ readings: { ...get().readings, [drawing.id]: reading } });
    const earlier = before?.result ?? null;
    put({ basis, running: { doing: 'waiting', done: 0, of: 1 }, result: earlier, problem: null });
    // Where it is comes by another channel than the result, and may come after it.
    let ended = false;
    const still = () => get().readings[drawing.id]?.basis === basis;
    readInWorker(drawing.id, order, (running) => {
      if (!ended && still()) put({ basis, running, result: earlier, problem: null });
    }).then(
      (result) => {
        ended = true;
        if (still())
          put({ basis, running: null, result: { ...result, candidates: inOrder(result.candidates) }, problem: null });
      },
      (error: Error) => {
        ended = true;
        if (still()) put({ basis, running: null, result: null, problem: error.message });
      },
    );
  },
}));

/** Forgets everything that was read, when a project is left. */
export const closeReadings = (): void =>
  useReadings.setState({ readings: {}, pointed: null, chosen: new Set<string>() });

/** What a drawing is read with. */
export function readingOrder(state: Model, drawingId: string, underlay: Underlay, placement: Placement): ReadingOrder {
  const rows = underlay.layers.map(({ name }) => state.role[roleId(drawingId, name)]);
  const picks = Object.values(state.pick).filter((pick) => pick.drawingId === drawingId);
  return {
    placement,
    roles: rows.map((row) => row?.role ?? null),
    meanings: rows.map((row) => (row?.libraryId ? (state.library[row.libraryId] ?? null) : null)),
    picked: {
      blocks: picks.flatMap((pick) => (pick.kind === 'block' ? [[pick.name, pick.role]] : [])),
      lines: picks.flatMap((pick) =>
        pick.kind === 'lines' ? pick.handles.map((handle): [string, Role] => [handle, pick.role]) : [],
      ),
      alike: picks.flatMap((pick) => (pick.kind === 'alike' ? [{ like: pick.like, role: pick.role }] : [])),
    },
    // Grid lines of other drawings are crossings too; this drawing's own are read again.
    accepted: [...state.ofKind('grid')].filter(({ source }) => source?.drawing !== drawingId).map(({ shape }) => shape),
    settings: settingsOf(state),
    zero: projectRowOf(state).survey?.elevation ?? 0,
    around: noWallsAround,
    sheets: sheetsBeside(state, drawingId),
    answers: picks.flatMap((pick) => (pick.kind === 'answer' ? [pick.answer] : [])),
  };
}

/** The other drawings of the project that are open and hold schedules. */
function sheetsBeside(state: Model, drawingId: string): ReadingOrder['sheets'] {
  const { entries } = useUnderlays.getState();
  return activeDrawings(state).flatMap(({ id, name }) =>
    id !== drawingId && underlayOf(entries, id)?.schedules === true ? [{ drawingId: id, name }] : [],
  );
}

/** What reading takes for granted in this project. */
export const settingsOf = (state: ProjectState): ReadingSettings =>
  Object.values(state.project)[0]?.reading ?? defaultSettings;

/** A column further than this from every crossing stands off the grid, metres. */
const offGrid = 1;

/** What a candidate is called in lists: its label, its crossing, its mark, its name, or how long it is. */
export function nameOfCandidate(candidate: Candidate): string {
  if (candidate.kind !== 'column')
    return nameOfKind(candidate.kind, candidate.element) || unnamed[candidate.kind] || '';
  const { crossing } = candidate;
  return crossing !== null && crossing.distance < offGrid ? crossing.name : 'off grid';
}

const nameOfKind = <K extends ElementKind>(kind: K, shape: Shapes[K]): string => kinds[kind].name(shape);

/** What stands in place of a name that is not there. */
const unnamed: Partial<Record<ElementKind, string>> = { beam: 'beam', zone: 'no name', outdoor: 'surface' };

/** Made once: a comparison that makes its own collator takes ten times as long. */
const names = new Intl.Collator('en', { numeric: true });

/** By kind, and within a kind by name, each name looked up once. */
const inOrder = (candidates: readonly Candidate[]): Candidate[] =>
  candidates
    .map((candidate) => ({ candidate, name: nameOfCandidate(candidate) }))
    .sort((a, b) => names.compare(a.candidate.kind, b.candidate.kind) || names.compare(a.name, b.name))
    .map(({ candidate }) => candidate);

export type Verdict = 'open' | 'accepted' | 'rejected';

/** What was decided about a candidate. */
export const verdictOf = (state: ProjectState, drawingId: string, key: string): Verdict =>
  state.decision[decisionId(drawingId, key)]?.verdict ?? 'open';
