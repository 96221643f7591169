import type { Placement } from '@/core/datum/placement';
import type { WorkingAxes } from '@/core/datum/survey';
import type { Transform } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import type { Model } from '@/core/model/model';
import type { LevelRow } from '@/core/model/state';
import type { Candidate } from '@/core/reading/candidate';
import type { Picture } from '@/core/structure/picture';
import type { Display } from '@/core/underlay/display';
import type { UprightPlane } from '@/core/tracing/upright/plane';
import type { LengthStyle } from '@/core/units/length';
import type { Overlay } from '@/project/overlay';
import type { Underlay } from '@/project/underlays';
import type { Tokens } from '@/ui/tokens';

/** A drawing as the board shows it. */
export interface BoardDrawing {
  id: string;
  name: string;
  underlay: Underlay;
  placement: Placement;
  /** From the underlay's own coordinates to the project. */
  transform: Transform;
  /** 1 for each layer that is not shown. */
  hidden: Uint8Array;
  /** 1 for each layer that shows the building; frame and title block are none, and decide no view. */
  building: Uint8Array;
  display: Display;
}

/** What somebody else has in hand: what they selected, by their ids, and outlines of what they draw or drag. */
export interface OtherHand {
  name: string;
  /** What they are told apart by. */
  place: number;
  selected: readonly string[];
  draft: readonly (readonly Point[])[];
}

/** A section or an elevation in the plan: the line it stands on. */
export interface Trace {
  name: string;
  from: Point;
  to: Point;
}

/** What was read of a drawing; of it the board shows what nobody has decided on. */
export interface ReadCandidates {
  drawingId: string;
  candidates: readonly Candidate[];
}

/**
 * Everything the board shows beside the rows of the model, which it follows by itself; handed over whenever something
 * of
 * it changes.
 */
export interface BoardScene {
  tokens: Tokens;
  dark: boolean;
  unit: LengthStyle;
  drawings: BoardDrawing[];
  model: Model;
  /** The level whose elements are shown, with those of no level. */
  levelId: string | null;
  candidates: readonly ReadCandidates[];
  pointed: string | null;
  chosen: ReadonlySet<string>;
  /** Elements that are selected, by their ids. */
  selected: ReadonlySet<string>;
  /** What a bench shows over a drawing for a moment. */
  overlay: Overlay | null;
  /** What of a calculation lies over the board. */
  picture: Picture | null;
  traces: Trace[];
  /** The levels of the project where an upright drawing is seen face on; null in a plan. */
  heights: LevelRow[] | null;
  /**
   * The plane of the upright drawing that is seen face on, and the model that is worked on: `model` is what of it is
   * seen in the plane, as shapes in the plane's own coordinates. Null in a plan.
   */
  plane: { of: UprightPlane; model: Model } | null;
  /** Other people who look at the same, with what they have in hand. */
  others: readonly OtherHand[];
  /** The axes worked along, or null for the project's. */
  axes: WorkingAxes | null;
  /** Whether the local axes of members are drawn. */
  axesShown: boolean;
}
