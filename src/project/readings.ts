'use client';
import { create } from 'zustand';
import type { Placement } from '@/core/datum/placement';
import { decisionId, roleId } from '@/core/model/commands';
import type { GridLine } from '@/core/model/elements';
import type { DrawingRow, ProjectState } from '@/core/model/state';
import type { Candidate } from '@/core/reading/candidate';
import type { ReadingResult } from '@/core/reading/read';
import { readInWorker, type Underlay } from './underlays';

/** What was read of a drawing, for one set of roles and one placement. */
export interface DrawingReading { basis: string; running: boolean; result: ReadingResult | null; problem: string | null }

interface ReadingStore {
  readings: Record<string, DrawingReading>;
  /** Reads a drawing again where its roles, its placement or the accepted grid changed. */
  refresh(state: ProjectState, drawing: DrawingRow, underlay: Underlay): void;
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
  readings: {}, pointed: null, chosen: new Set<string>(), kind: 'grid',
  point(pointed) { if (pointed !== get().pointed) set({ pointed, ...(pointed === null ? {} : { kind: pointed.slice(0, pointed.indexOf(':')) as Candidate['kind'] }) }); },
  list(kind) { set({ kind, chosen: new Set() }); },
  choose(keys) { set({ chosen: new Set(keys) }); },
  refresh(state, drawing, underlay) {
    const placement = state.placement[drawing.id];
    if (!placement) return;
    const roles = underlay.layers.map(({ name }) => state.role[roleId(drawing.id, name)]?.role ?? null);
    // Grid lines of other drawings are crossings too; this drawing's own are read again.
    const accepted = Object.values(state.element).flatMap((element) => (element.kind === 'grid' && element.source?.drawing !== drawing.id ? [element.shape as GridLine] : []));
    const basis = JSON.stringify([underlay.basis, placement, roles, accepted]);
    const before = get().readings[drawing.id];
    if (before?.basis === basis) return;
    const put = (reading: DrawingReading) => set({ readings: { ...get().readings, [drawing.id]: reading } });
    put({ basis, running: true, result: before?.result ?? null, problem: null });
    const still = () => get().readings[drawing.id]?.basis === basis;
    readInWorker(drawing.id, placement as Placement, roles, accepted).then(
      (result) => { if (still()) put({ basis, running: false, result: { ...result, candidates: inOrder(result.candidates) }, problem: null }); },
      (error: Error) => { if (still()) put({ basis, running: false, result: null, problem: error.message }); },
    );
  },
}));

/** A column further than this from every crossing stands off the grid, metres. */
const offGrid = 1;

/** What a candidate is called in lists: its label, its crossing, its mark, its name, or how long it is. */
export function nameOfCandidate(candidate: Candidate): string {
  switch (candidate.kind) {
    case 'grid': return candidate.element.label;
    case 'column': return candidate.crossing !== null && candidate.crossing.distance < offGrid ? candidate.crossing.name : 'off grid';
    case 'beam': return candidate.element.mark || 'beam';
    case 'wall': return candidate.element.outer ? 'outer' : 'inner';
    case 'opening': return candidate.element.use;
    case 'slab': return 'slab';
    case 'zone': return candidate.element.number || candidate.element.name || 'no name';
    default: return candidate.element.name || 'surface';
  }
}

const inOrder = (candidates: Candidate[]) => [...candidates].sort((a, b) => a.kind.localeCompare(b.kind) || nameOfCandidate(a).localeCompare(nameOfCandidate(b), 'en', { numeric: true }));

export type Verdict = 'open' | 'accepted' | 'rejected';

/** What was decided about a candidate. */
export const verdictOf = (state: ProjectState, drawingId: string, key: string): Verdict => state.decision[decisionId(drawingId, key)]?.verdict ?? 'open';
