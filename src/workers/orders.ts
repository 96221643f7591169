import type { Point } from '@/core/geometry/vector';
import type { ReadKind } from '@/core/kinds/element';
import type { GridLine } from '@/core/kinds/grid';
import type { Placement } from '@/core/datum/placement';
import type { MirrorVerdict } from '@/core/datum/evidence/mirrorWise';
import type { Lesson } from '@/core/model/picks';
import type { ReadingSettings } from '@/core/patterns/settings';
import type { Meaning } from '@/core/reading/meanings';
import type { WallsAround } from '@/core/reading/walls/bearing';
import type { LayerChange, RevisionReport } from '@/core/revision/compare';
import type { Likeness } from '@/core/sorting/alike';
import type { Answer } from '@/core/sorting/answers';
import type { Role } from '@/core/sorting/roles';
import type { Box } from '@/core/underlay/mainContent';
import type { PieceIndexData } from '@/core/underlay/pieces';
import type { Primitives } from '@/core/underlay/primitives';
import type { StepCount } from '@/core/underlay/recipe/apply';
import type { Recipe } from '@/core/underlay/recipe/steps';
import type { SegmentStore } from '@/core/underlay/segments';

/** What a window and its worker on drawings say to one another: orders, and what comes of them. */

/** What the board needs of a drawing. */
export interface UnderlayData {
  layers: { name: string; hidden: boolean; empty: boolean }[];
  blocks: { name: string; unused: boolean }[];
  primitives: Primitives;
  index: PieceIndexData;
  segments: SegmentStore;
  /** How many of its texts read mirror-wise. */
  mirror: MirrorVerdict;
  /** What each step of the recipe touched, by its id. */
  counts: Record<string, StepCount>;
  /** Whether it holds schedules. */
  schedules: boolean;
}

/** A drawing to be opened: its file, where that is fetched, and how it is cleaned. */
export interface Order {
  drawingId: string;
  fileId: string;
  url: string;
  recipe: Recipe;
  metresPerUnit: number;
  dashed: boolean;
}

/** Lines that a step would touch, as x1 y1 x2 y2 each about `origin`, and how much. */
export interface Preview {
  origin: [number, number];
  lines: Float32Array;
  count: StepCount;
}

/** A plan found on a sheet: its box in the drawing's coordinates, and a small picture of it. */
export interface FoundPlan {
  box: Box;
  paths: number;
  lines: Float32Array;
}

/** A likeness and everything of a drawing that it fits, by its numbers among the primitives. */
export interface AlikeFound {
  like: Likeness;
  paths: number[];
  texts: number[];
}

/** What a revision changed, with pictures of it in the coordinates of each drawing. */
export interface RevisionPicture {
  layers: LayerChange[];
  total: RevisionReport['total'];
  origin: [number, number];
  came: Float32Array;
  went: Float32Array;
}

/**
 * What a drawing is to be read with; roles and meanings by the numbers of layers, picked roles as pairs of a handle or
 * a block's name and the role.
 */
export interface ReadingOrder {
  placement: Placement;
  roles: (Role | null)[];
  picked: { lines: [string, Role][]; blocks: [string, Role][]; alike: Lesson[] };
  meanings: (Meaning | null)[];
  accepted: GridLine[];
  settings: ReadingSettings;
  /** The elevation of the project's zero in the survey, metres. */
  zero: number;
  around: WallsAround;
  /** Other drawings of the project that hold schedules. */
  sheets: { drawingId: string; name: string }[];
  /** What was said of things that the drawing does not decide. */
  answers: Answer[];
}

/** What is pointed at to be taken: a kind, and the lines about a place. */
export interface TakeOrder {
  kind: ReadKind;
  /** The lines looked at, by their numbers, and the box that texts are taken from, about the drawing's origin. */
  paths: Uint32Array;
  box: [number, number, number, number];
  /** The line pointed at; null where there is none. */
  path: number | null;
  /** The place in the project, and how far from it something still counts, metres. */
  at: Point;
  reach: number;
  /** A box of the project that all of its like are taken in; null for the one at the place. */
  within: [number, number, number, number] | null;
  /** Whether the roles that lines have are one way to read them. */
  own: boolean;
  /** Whether the first way that gives something is enough. */
  first: boolean;
}
