'use client';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

export const stationNames = ['intake', 'datum', 'sorting', 'reading', 'tracing', 'proof', 'handover'] as const;
export const intakeParts = ['report', 'recipe', 'plans', 'display', 'revisions'] as const;
export type IntakePart = (typeof intakeParts)[number];
export const datumParts = ['unit', 'place', 'fit', 'levels', 'measure', 'project'] as const;
export type DatumPart = (typeof datumParts)[number];
export const sortingParts = ['layers', 'blocks', 'picked', 'maps'] as const;
export type SortingPart = (typeof sortingParts)[number];
export const readingParts = ['review', 'library', 'numbering', 'settings'] as const;
export type ReadingPart = (typeof readingParts)[number];
export const tracingParts = ['make', 'change', 'tidy', 'history'] as const;
export const proofParts = ['findings', 'drawings', 'structure', 'heat', 'light'] as const;
export const handoverParts = ['deliveries', 'files'] as const;
export type HandoverPart = (typeof handoverParts)[number];
export type ProofPart = (typeof proofParts)[number];
export type TracingPart = (typeof tracingParts)[number];
export type StationName = (typeof stationNames)[number];

/** The stations of who may only look. */
export const stationsToLook: readonly StationName[] = ['intake', 'proof', 'handover'];

/** What one person looks at; kept in the browser, per project, across reloads. */
interface View {
  project: string;
  station: StationName;
  drawingId: string | null;
  levelId: string | null;
  benchFolded: boolean;
  /** Whether the board shows the model in space. */
  inSpace: boolean;
  /** Where the model in space is looked at from: `board/space/orbit` says what the numbers are. */
  orbit: { turn: number; tilt: number; x: number; y: number; z: number; metresPerPixel: number } | null;
  /** What of it is seen: one level alone, nothing above a height, through faces, axes instead of bodies. */
  space: { alone: boolean; cut: number | null; through: boolean; axes: boolean };
  /** Which part of the Intake bench is open. */
  intakePart: IntakePart;
  datumPart: DatumPart;
  sortingPart: SortingPart;
  readingPart: ReadingPart;
  tracingPart: TracingPart;
  proofPart: ProofPart;
  handoverPart: HandoverPart;
  /** Whether the structural trial was calculated: after a reload it is again. */
  calculated: boolean;
  /** Metres that an element may lie off the lines it was made of. */
  driftTolerance: number;
  /** The upright drawing that is seen face on, in place of the plan. */
  faceOn: string | null;
  /** The drawings that are seen, by a view that has a name; null is all of the level. */
  only: string[] | null;
  /**
   * The drawing in the second view, whether it follows the selected mark, where it is looked at, and the text that it
   * was opened for.
   */
  beside: { drawingId: string; follows: boolean; camera: View['camera']; find?: string } | null;
  /** The working axes that this person works along, by their id. */
  axesId: string | null;
  /** Layers shown alone, by the drawing's id. */
  isolated: Record<string, string[]>;
  camera: { x: number; y: number; metresPerPixel: number } | null;
  set(part: Partial<Omit<View, 'set'>>): void;
}

const fresh = {
  station: 'intake' as StationName,
  drawingId: null,
  levelId: null,
  benchFolded: false,
  inSpace: false,
  orbit: null,
  space: { alone: false, cut: null, through: false, axes: false },
  intakePart: 'report' as IntakePart,
  datumPart: 'unit' as DatumPart,
  sortingPart: 'layers' as SortingPart,
  readingPart: 'review' as ReadingPart,
  tracingPart: 'make' as TracingPart,
  proofPart: 'findings' as ProofPart,
  handoverPart: 'deliveries' as HandoverPart,
  calculated: false,
  driftTolerance: 0.01,
  faceOn: null,
  only: null,
  beside: null,
  axesId: null,
  isolated: {},
  camera: null,
};

export const useView = create<View>()(
  persist((set) => ({ project: '', ...fresh, set: (part) => set(part) }), {
    name: 'zircon-view',
    skipHydration: true,
    partialize: ({ set: _set, ...rest }) => rest,
  }),
);

/** Opens the view kept for a project, or a fresh one. */
export async function openView(project: string): Promise<void> {
  const name = `zircon-view-${project}`;
  useView.persist.setOptions({ name });
  // Setting a state writes it: what is kept has to be read before.
  if (localStorage.getItem(name) !== null) await useView.persist.rehydrate();
  else useView.setState({ ...fresh, project });
}
