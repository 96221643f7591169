'use client';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { Comparison } from '@/core/comparison/compare';
import { findingsOf, levelFindings } from '@/core/comparison/findings';
import { levelsBeside, type LevelsBeside } from '@/core/comparison/heights';
import { revisionFindings, unitFindings } from '@/core/comparison/sources';
import { sourceChanges, type SourceChange } from '@/core/decisions/revise';
import { wallsAround } from '@/core/decisions/wallsAround';
import { levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import type { DrawingRow } from '@/core/model/state';
import type { Placement } from '@/core/datum/placement';
import type { Finding } from '@/core/proof/finding';
import type { Candidate } from '@/core/reading/candidate';
import { activeDrawings } from './projectRow';
import { readingOrder } from './readings';
import {
  besideModel,
  heightsIn,
  openedUnderlay,
  readInWorker,
  underlayOf,
  useUnderlays,
  type ReadingOrder,
  type Underlay,
} from './underlays';
import type { Session } from './session';
import { useMoment } from './useSession';
import { useView } from './view';

/** A drawing beside the model: a plan beside its storey, a section beside the ladder. */
export interface DrawingBeside {
  /** What it was made from; another basis makes it anew. */
  basis: string;
  plan: Comparison | null;
  levels: LevelsBeside | null;
  /** Why it could not be compared. */
  problem: string | null;
  findings: Finding[];
}

interface ComparisonStore {
  /** By the drawing's id. */
  made: Record<string, DrawingBeside>;
  /** The drawing that is being compared; null while none is. */
  running: string | null;
}

/** What the drawings of this window come to beside the model. */
export const useComparisons = create<ComparisonStore>()(() => ({ made: {}, running: null }));

/** Forgets what was compared, when a project is left. */
export function closeComparisons(): void {
  readBefore.clear();
  useComparisons.setState({ made: {}, running: null });
}

/** Drawings are compared again when nobody has changed anything for so long, at Proof and elsewhere, milliseconds. */
const [rest, calm] = [400, 4000];

/** What a comparison of a drawing depends on. */
function basisOf(model: Model, drawing: DrawingRow, underlay: Underlay, tolerance: number): string {
  const { id, levelId } = drawing;
  const tables = (['role', 'pick', 'level', 'placement', 'project', 'decision'] as const).map((table) =>
    model.version(table),
  );
  const levels = [levelId, null].map((level) => model.levelVersion(level));
  return JSON.stringify([underlay.basis, drawing.name, levelId, tolerance, tables, levels, id]);
}

async function planBeside(model: Model, drawing: DrawingRow, underlay: Underlay, tolerance: number) {
  const { id, name, levelId } = drawing;
  const placement = model.placement[id];
  const order = readingOrder(model, id, underlay, placement as Placement);
  const elements = [...model.index.onLevel(levelId), ...(levelId === null ? [] : model.index.onLevel(null))];
  const plan = await besideModel(id, order, elements, tolerance);
  const elevation = (levelId === null ? null : model.level[levelId]?.elevation) ?? 0;
  const findings = [
    ...unitFindings(drawing, placement, elevation),
    ...revisionFindings(drawing, await changesOf(model, drawing, order), elevation),
    ...findingsOf(plan, { drawing: name, elevation, tolerance }),
  ];
  return { plan, levels: null, findings };
}

/** What a later revision of a drawing shows otherwise than what was accepted from an earlier one. */
async function changesOf(model: Model, drawing: DrawingRow, order: ReadingOrder): Promise<SourceChange[]> {
  if (drawing.revision === 1) return [];
  const asked = JSON.stringify([drawing.fileId, order]);
  const before = readBefore.get(drawing.id);
  const whole = { ...order, around: wallsAround(model, drawing) };
  const candidates =
    before?.asked === asked ? before.candidates : (await readInWorker(drawing.id, whole, () => undefined)).candidates;
  readBefore.set(drawing.id, { asked, candidates });
  return sourceChanges(model, drawing, candidates);
}

/** What was read of later revisions, by the drawing: an edit of an element elsewhere does not change it. */
const readBefore = new Map<string, { asked: string; candidates: readonly Candidate[] }>();

async function sectionBeside(model: Model, drawing: DrawingRow) {
  const { id, name } = drawing;
  const heights = await heightsIn(id);
  if (!heights.ok) throw new Error(heights.message);
  const levels = levelsBeside(heights.value.marks, levelsUp(model));
  const findings = [...unitFindings(drawing, model.placement[id], 0), ...levelFindings(levels, name)];
  return { plan: null, levels, findings };
}

const put = (drawingId: string, beside: DrawingBeside): void =>
  useComparisons.setState({ made: { ...useComparisons.getState().made, [drawingId]: beside } });

/** Compares one drawing, where something of it or of its storey has changed. */
async function compareOne(model: Model, drawing: DrawingRow, tolerance: number, still: () => boolean): Promise<void> {
  const underlay = underlayOf(useUnderlays.getState().entries, drawing.id);
  const placement = model.placement[drawing.id];
  if (underlay === null || placement === undefined) return;
  const basis = basisOf(model, drawing, underlay, tolerance);
  if (useComparisons.getState().made[drawing.id]?.basis === basis) return;
  useComparisons.setState({ running: drawing.id });
  try {
    const made =
      placement.upright === null
        ? await planBeside(model, drawing, underlay, tolerance)
        : await sectionBeside(model, drawing);
    if (still()) put(drawing.id, { basis, ...made, problem: null });
  } catch (error) {
    const problem = error instanceof Error ? error.message : String(error);
    if (still()) put(drawing.id, { basis, plan: null, levels: null, findings: [], problem });
  }
}

/** Opens the drawings of a project and compares them all, for a window without a board. */
export async function compareAll({ id, model }: Session, still: () => boolean): Promise<void> {
  const tolerance = useView.getState().driftTolerance;
  for (const drawing of activeDrawings(model)) {
    if (!still() || model.placement[drawing.id] === undefined) continue;
    try {
      await openedUnderlay(id, model, drawing);
      await compareOne(model, drawing, tolerance, still);
    } catch (error) {
      // What cannot be opened is told in its place.
      put(drawing.id, { basis: '', plan: null, levels: null, findings: [], problem: (error as Error).message });
    }
  }
}

/** Whether some drawing that is open has not been beside the model yet. */
export function useComparing(): boolean {
  const moment = useMoment('drawing', 'placement');
  const entries = useUnderlays((store) => store.entries);
  return useComparisons(
    ({ made, running }) =>
      running !== null ||
      activeDrawings(moment.model).some(
        ({ id }) => made[id] === undefined && moment.model.placement[id] && underlayOf(entries, id) !== null,
      ),
  );
}

/** Keeps the comparisons up to the model and the drawings. @param present whether they are looked at */
export function useComparisonsKept(present: boolean): void {
  const moment = useMoment('element', 'level', 'drawing', 'placement', 'role', 'pick', 'project', 'decision');
  const entries = useUnderlays((store) => store.entries);
  const tolerance = useView((view) => view.driftTolerance);
  useEffect(() => {
    let here = true;
    const all = async () => {
      const drawings = activeDrawings(moment.model);
      const { made } = useComparisons.getState();
      const known = drawings.flatMap(({ id }) => (made[id] === undefined ? [] : [[id, made[id]] as const]));
      useComparisons.setState({ made: Object.fromEntries(known) });
      for (const drawing of drawings) if (here) await compareOne(moment.model, drawing, tolerance, () => here);
      if (here) useComparisons.setState({ running: null });
    };
    const timer = setTimeout(() => void all(), present ? rest : calm);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [present, moment, entries, tolerance]);
}
