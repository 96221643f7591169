import type { Crossing } from '@/core/kinds/gridCrossings';
import type { Beam } from '@/core/kinds/beam';
import type { Column } from '@/core/kinds/column';
import type { Contour } from '@/core/kinds/contour';
import type { ElementKind, Shaped, Shapes } from '@/core/kinds/element';
import type { GridLine } from '@/core/kinds/grid';
import type { Luminaire } from '@/core/kinds/luminaire';
import type { Opening } from '@/core/kinds/opening';
import type { Outdoor } from '@/core/kinds/outdoor';
import type { Slab } from '@/core/kinds/slab';
import type { Wall } from '@/core/kinds/wall';
import type { Zone } from '@/core/kinds/zone';
import type { Point } from '@/core/geometry/vector';
import type { Asked } from '@/core/sorting/answers';
import type { Role } from '@/core/sorting/roles';
import { calibrations } from './calibration';

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
  /** Which of two ways it was read, where the drawing does not decide; one answer settles all that is alike. */
  asks?: Asked | null;
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
  /** The stretch that was closed to bound it; null where everything about it is drawn. */
  leak: [Point, Point] | null;
}

export interface OutdoorCandidate extends CandidateBase {
  kind: 'outdoor';
  element: Outdoor;
}

export interface LuminaireCandidate extends CandidateBase {
  kind: 'luminaire';
  element: Luminaire;
}

export interface ContourCandidate extends CandidateBase {
  kind: 'contour';
  element: Contour;
}

export type Candidate =
  | GridCandidate
  | ColumnCandidate
  | BeamCandidate
  | WallCandidate
  | OpeningCandidate
  | SlabCandidate
  | ZoneCandidate
  | OutdoorCandidate
  | LuminaireCandidate
  | ContourCandidate;

/** What lies on a role and was not understood. */
export interface Unread {
  role: Role;
  entity: number;
  handle: string;
  layer: number;
  why: string;
  /** What is written, where it is a text. */
  words?: string;
  /** Where what should be closed is open, in the project. */
  leak?: [Point, Point];
}

/** The kind and the shape of a candidate, as the registry of kinds takes them. */
export const shapedOf = ({ kind, element }: Candidate): Shaped => ({ kind, shape: element }) as Shaped;

/** The weight of all evidence together, log-odds before they are calibrated. */
export const weightOf = (evidence: readonly Evidence[]): number =>
  evidence.reduce((sum, { weight }) => sum + weight, 0);

/** How probable a candidate of a kind is by its evidence: of those said to be 0.9 sure nine in ten are right. */
export function confidenceOf(kind: Candidate['kind'], evidence: readonly Evidence[]): number {
  const { base, slope } = calibrations[kind];
  return 1 / (1 + Math.exp(-base - slope * weightOf(evidence)));
}

/** A key has at most so many characters before its place: with a drawing's id it fits an index of the database. */
const longestKey = 1900;

/** What a candidate is known by: its entities; of too many the first, the last and how many there are. */
export function keyOf(kind: string, handles: readonly string[]): string {
  const own = [...new Set(handles)].sort();
  const key = `${kind}:${own.join('+')}`;
  return key.length <= longestKey ? key : `${kind}:${own[0]}+ ${own.length} +${own[own.length - 1]}`;
}

/** The key of one of several candidates from the same source: with the place that tells it apart, to the decimetre. */
export const keyAt = (kind: string, handles: readonly string[], [x, y]: Point): string =>
  `${keyOf(kind, handles)}@${x.toFixed(1)},${y.toFixed(1)}`;
