'use client';
import type { Comparison } from '@/core/comparison/compare';
import type { Questions } from '@/core/comparison/questions';
import type { ElementRow } from '@/core/kinds/element';
import type { GridLine } from '@/core/kinds/grid';
import { proxy, type Remote } from 'comlink';
import { create } from 'zustand';
import { readerVersion } from '@/core/drawing/packDrawing';
import type { UnitVerdict } from '@/core/datum/evidence/judge';
import type { DimensionCheck } from '@/core/datum/dimensionCheck';
import type { MirrorVerdict } from '@/core/datum/evidence/mirrorWise';
import type { MixedBlock } from '@/core/datum/evidence/mixedBlocks';
import { metresPerDrawn } from '@/core/datum/placement';
import type { PatternFit } from '@/core/datum/pattern';
import type { SectionHeights } from '@/core/datum/sectionHeights';
import type { Result } from '@/core/result';
import type { DrawingRow, ProjectState } from '@/core/model/state';
import type { ReadingResult, ReadingStage } from '@/core/reading/read';
import type { TakeReading } from '@/core/reading/takeAt';
import type { Tidied } from '@/core/tracing/tidy/tidy';
import type { TidyOrder } from '@/core/tracing/tidy/workpiece';
import { openIndex, type PieceIndex } from '@/core/underlay/pieces';
import type { Primitives } from '@/core/underlay/primitives';
import type { StepCount } from '@/core/underlay/recipe/apply';
import type { SegmentStore } from '@/core/underlay/segments';
import type { BlockUse } from '@/core/underlay/smallPictures';
import type { AlikeFound, FoundPlan, Order, Preview, ReadingOrder, RevisionPicture, TakeOrder } from '@/workers/orders';
import type { MarkPlace } from '@/core/reading/beams/markPlaces';
import type { UnderlayWorker } from '@/workers/underlay.worker';
import type { Likeness, Pointed } from '@/core/sorting/alike';
import type { Step } from '@/core/underlay/recipe/steps';
import type { Suggestion } from '@/core/underlay/recipe/suggest';
import { pieces } from '@/core/stepwise';
import { askThread, threadOf, type Thread } from './thread';
import { turn } from './turn';

export type { FoundPlan, Preview, ReadingOrder, RevisionPicture, Suggestion, TakeOrder };

/** A drawing opened in this window. */
export interface Underlay {
  fileId: string;
  /** What it was made from; another basis makes another underlay. */
  basis: string;
  layers: { name: string; hidden: boolean; empty: boolean }[];
  blocks: { name: string; unused: boolean }[];
  primitives: Primitives;
  index: PieceIndex;
  segments: SegmentStore;
  mirror: MirrorVerdict;
  counts: Record<string, StepCount>;
  /** Whether it holds schedules. */
  schedules: boolean;
}

/** A drawing's underlay while it is made, or made anew: the one before stays until the next is there. */
interface Entry {
  basis: string;
  opening: boolean;
  underlay: Underlay | null;
  problem: string | null;
}

interface UnderlayStore {
  /** By the drawing's id. */
  entries: Record<string, Entry>;
  /** Files of earlier revisions that are looked at in place of the drawings' own, by the drawing's id. */
  looked: Record<string, string>;
  look(drawingId: string, fileId: string | null): void;
  /** Opens drawings, and makes anew what their file, recipe or unit has changed. */
  open(project: string, state: ProjectState, drawings: readonly DrawingRow[]): void;
  retry(drawingId: string): void;
}

let worker: Thread<UnderlayWorker> | null = null;

const thread = (): Thread<UnderlayWorker> =>
  (worker ??= threadOf(
    new Worker(new URL('../workers/underlay.worker.ts', import.meta.url), { type: 'module' }),
    () => {
      worker = null;
    },
  ));
const remote = (): Remote<UnderlayWorker> => thread().remote;

/** Where the derived columns of a file are. */
const columnsAddress = (project: string, fileId: string) =>
  `${location.origin}/api/projects/${project}/files/${fileId}/columns?reader=${readerVersion}`;

export const useUnderlays = create<UnderlayStore>()((set, get) => {
  const put = (drawingId: string, entry: Entry) => set({ entries: { ...get().entries, [drawingId]: entry } });
  const openOne = async (order: Order, basis: string) => {
    const { drawingId, fileId } = order;
    const before = get().entries[drawingId]?.underlay ?? null;
    put(drawingId, { basis, opening: true, underlay: before, problem: null });
    const still = () => get().entries[drawingId]?.basis === basis;
    try {
      const { index, ...opened } = await askThread(thread, (remote) => remote.open(order));
      if (still())
        put(drawingId, {
          basis,
          opening: false,
          problem: null,
          underlay: {
            ...opened,
            fileId,
            basis,
            index: openIndex(index),
          },
        });
    } catch (error) {
      if (still()) put(drawingId, { basis, opening: false, underlay: null, problem: (error as Error).message });
    }
  };
  return {
    entries: {},
    looked: {},
    look(drawingId, fileId) {
      const { [drawingId]: _, ...rest } = get().looked;
      set({ looked: fileId === null ? rest : { ...rest, [drawingId]: fileId } });
    },
    open(project, state, drawings) {
      for (const drawing of drawings) {
        const placement = state.placement[drawing.id];
        if (!placement) continue;
        const fileId = get().looked[drawing.id] ?? drawing.fileId;
        const recipe = state.recipe[drawing.id]?.steps ?? [];
        const metresPerUnit = metresPerDrawn(placement);
        const dashed = state.display[drawing.id]?.lineTypes ?? false;
        const basis = JSON.stringify([fileId, recipe, metresPerUnit, dashed]);
        if (get().entries[drawing.id]?.basis !== basis)
          void openOne(
            { drawingId: drawing.id, fileId, url: columnsAddress(project, fileId), recipe, metresPerUnit, dashed },
            basis,
          );
      }
    },
    retry(drawingId) {
      set({ entries: Object.fromEntries(Object.entries(get().entries).filter(([id]) => id !== drawingId)) });
    },
  };
});

/** Forgets all underlays and ends the worker with the files it holds, when a project is left. */
export function closeUnderlays(): void {
  worker?.end();
  worker = null;
  useUnderlays.setState({ entries: {}, looked: {} });
}

/** A drawing's underlay, opened and waited for. @throws with the reason where it cannot be opened */
export function openedUnderlay(project: string, state: ProjectState, drawing: DrawingRow): Promise<Underlay> {
  return new Promise((found, failed) => {
    const look = (): boolean => {
      const entry = useUnderlays.getState().entries[drawing.id];
      if (entry === undefined || entry.opening) return false;
      if (entry.underlay !== null) found(entry.underlay);
      else failed(new Error(entry.problem ?? 'The drawing could not be opened.'));
      return true;
    };
    const stop = useUnderlays.subscribe(() => {
      if (look()) stop();
    });
    useUnderlays.getState().open(project, state, [drawing]);
    if (look()) stop();
  });
}

/** The underlay of a drawing where it is open. */
export const underlayOf = (entries: Record<string, Entry>, drawingId: string | undefined): Underlay | null =>
  drawingId === undefined ? null : (entries[drawingId]?.underlay ?? null);

/** Reads candidates in the worker. @param watch hears where it is */
export const readInWorker = (
  drawingId: string,
  order: ReadingOrder,
  watch: (stage: Omit<ReadingStage, 'soFar'>) => void,
): Promise<ReadingResult> => remote().read(drawingId, order, proxy(watch));

/** What the reader makes of the lines about a place. */
export const takeInWorker = (drawingId: string, order: ReadingOrder, what: TakeOrder): Promise<TakeReading[]> =>
  remote().take(drawingId, order, what);

/** What a tidy-up of elements would change, found in the worker. */
export const tidyInWorker = (rows: ElementRow[], order: Omit<TidyOrder, 'newId'>): Promise<Tidied> =>
  remote().tidy(rows, order);

/** Reads grid lines alone. */
export const gridInWorker = (drawingId: string, order: ReadingOrder): Promise<GridLine[]> =>
  remote().grid(drawingId, order);

/** The handles of what lies on a layer, by its name. */
export const handlesIn = (drawingId: string, layer: string): Promise<string[]> => remote().handlesOn(drawingId, layer);

/** Small pictures of what lies on each layer, by its number, and of the blocks in use. */
export const picturesOf = (drawingId: string): Promise<Pictures> => remote().pictures(drawingId);
export interface Pictures {
  layers: Float32Array[];
  blocks: BlockUse[];
}

/** The handles that paths came by, and the paths that came by handles. */
export const handlesOf = (drawingId: string, paths: number[]): Promise<string[]> => remote().handles(drawingId, paths);
export const pathsOf = (drawingId: string, handles: string[]): Promise<number[]> =>
  remote().pathsOf(drawingId, handles);

/** What something of a drawing is like and all that is alike, or what is alike to a likeness. @param metres per unit */
export const alikeIn = (drawingId: string, what: Pointed | Likeness, metres: number): Promise<AlikeFound> =>
  remote().alike(drawingId, what, metres);

/** Where a mark, and what its rows in schedules lead to, stand on some drawings. */
export const marksIn = (mark: string, drawingIds: readonly string[]): Promise<MarkPlace[]> =>
  remote().marks(mark, drawingIds);

/** Ends a reading with what it has. */
export const stopReading = (drawingId: string): Promise<void> => remote().stopReading(drawingId);

/** What a step would touch. @param at its place in the recipe, or null for one that is to come last */
export const previewStep = (drawingId: string, step: Step, at: number | null): Promise<Preview> =>
  remote().preview(drawingId, step, at);

/** What a drawing's own content says about its unit. */
export const unitOf = (drawingId: string): Promise<UnitVerdict> => remote().unit(drawingId);

/** Reads a file in this window while it is being sent. @param key of the upload */
export const readWhileSent = (key: number, file: File): Promise<void> => remote().ahead(key, file);

/** Says which file an upload has become; null where it came to nothing. */
export const uploadBecame = (key: number, fileId: string | null): Promise<void> => remote().sent(key, fileId);

/** Blocks whose content is of another unit than the drawing. */
export const mixedIn = (drawingId: string): Promise<MixedBlock[]> => remote().mixed(drawingId);

/** All dimensions of a drawing against what they span. */
export const dimensionsOf = (drawingId: string): Promise<DimensionCheck> => remote().dimensions(drawingId);

/** Fits one grid onto another, in the worker. */
export const fitGrids = (way: 'labels' | 'spacings', from: GridLine[], to: GridLine[]): Promise<Result<PatternFit>> =>
  remote().fit(way, from, to);

/** Storey heights of a section or an elevation. */
export const heightsIn = (drawingId: string): Promise<Result<SectionHeights>> => remote().section(drawingId);

/** Comparisons asked for so far. */
let compared = 0;

/** A plan beside the elements of its storey, which go to the worker some at a time. */
export async function besideModel(
  drawingId: string,
  order: ReadingOrder,
  elements: readonly ElementRow[],
  tolerance: number,
): Promise<Comparison> {
  const number = (compared += 1);
  for (const piece of pieces(elements)) {
    void remote().bring(number, piece);
    await turn();
  }
  return remote().beside(drawingId, order, number, tolerance);
}

/** What there is to ask the author of a drawing; and the drawing with its questions, as the text of a DXF. */
export const questionsIn = (drawingId: string, order: ReadingOrder): Promise<Questions> =>
  remote().questions(drawingId, order);
export const markedUpIn = (drawingId: string, order: ReadingOrder): Promise<string> =>
  remote().markedUp(drawingId, order);

export const suggestSteps = (drawingId: string): Promise<Suggestion[]> => remote().suggest(drawingId);

export const plansOnSheet = (drawingId: string): Promise<FoundPlan[]> => remote().plans(drawingId);

export const compareRevisions = (project: string, earlier: string, later: string): Promise<RevisionPicture> =>
  remote().compare(
    { fileId: earlier, url: columnsAddress(project, earlier) },
    { fileId: later, url: columnsAddress(project, later) },
  );
