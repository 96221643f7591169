import type { Point } from '@/core/geometry/vector';
import type {
  Beam,
  Column,
  ElementKind,
  GridLine,
  Opening,
  Outdoor,
  Shapes,
  Slab,
  Wall,
  Zone,
} from '@/core/model/elements';
import type { Role } from '@/core/sorting/roles';

/** One observation behind a candidate. A positive weight speaks for it, a negative one against it (log-odds). */
export interface Evidence {
  text: string;
  weight: number;
}

interface CandidateBase {
  /** Made of the source, so that a candidate is known again at the next reading. */
  key: string;
  evidence: Evidence[];
  /** Probability, from the sum of the evidence. */
  confidence: number;
  /** Entity handles in the drawing. */
  handles: string[];
  /** What was read, where a person has put the element right. */
  asRead?: Shapes[ElementKind];
  /** The section or the construction of the library that its layer means. */
  libraryId?: string;
  /** Why it deserves a look, in a few words; null where nothing is unusual. */
  doubt: string | null;
}

export interface GridCandidate extends CandidateBase {
  kind: 'grid';
  element: GridLine;
  proposedLabel: boolean;
}

export interface ColumnCandidate extends CandidateBase {
  kind: 'column';
  element: Column;
  /** As drawn, before rounding, in metres. */
  raw: { width: number; depth: number };
  crossing: (Crossing & { distance: number }) | null;
}

export interface BeamCandidate extends CandidateBase {
  kind: 'beam';
  element: Beam;
}

export interface WallCandidate extends CandidateBase {
  kind: 'wall';
  element: Wall;
  /** As drawn, before rounding, in metres. */
  raw: { thickness: number };
}

/** An opening; its wall is a candidate, by its key, until both are accepted. */
export interface OpeningCandidate extends CandidateBase {
  kind: 'opening';
  element: Opening;
  host: string;
  at: Point;
  outline: Point[];
}

export interface SlabCandidate extends CandidateBase {
  kind: 'slab';
  element: Slab;
}

export interface ZoneCandidate extends CandidateBase {
  kind: 'zone';
  element: Zone;
  /** Square metres by the inner faces, by centre lines and by the outer faces of what bounds it. */
  areas: { inner: number; centre: number; outer: number };
}

export interface OutdoorCandidate extends CandidateBase {
  kind: 'outdoor';
  element: Outdoor;
}

export type Candidate =
  | GridCandidate
  | ColumnCandidate
  | BeamCandidate
  | WallCandidate
  | OpeningCandidate
  | SlabCandidate
  | ZoneCandidate
  | OutdoorCandidate;

/** What a kind is called, one and many. */
export const kindNames: Record<ElementKind, [one: string, many: string]> = {
  grid: ['grid line', 'grid lines'],
  column: ['column', 'columns'],
  beam: ['beam', 'beams'],
  wall: ['wall', 'walls'],
  opening: ['opening', 'openings'],
  slab: ['slab', 'slabs'],
  zone: ['zone', 'zones'],
  outdoor: ['outdoor surface', 'outdoor surfaces'],
};

/** Where two grid lines cross. */
export interface Crossing {
  name: string;
  point: Point;
}

/** What lies on a role and was not understood. */
export interface Unread {
  role: Role;
  entity: number;
  handle: string;
  layer: number;
  why: string;
}

export const confidenceOf = (evidence: readonly Evidence[]): number =>
  1 / (1 + Math.exp(-evidence.reduce((sum, { weight }) => sum + weight, 0)));

export const keyOf = (kind: string, handles: readonly string[]): string =>
  `${kind}:${[...new Set(handles)].sort().join('+')}`;

/** The key of one of several candidates from the same source: with the place that tells it apart, to the decimetre. */
export const keyAt = (kind: string, handles: readonly string[], [x, y]: Point): string =>
  `${keyOf(kind, handles)}@${x.toFixed(1)},${y.toFixed(1)}`;
