import type { BentPath } from '@/core/geometry/offsetPath';
import type { Point } from '@/core/geometry/vector';
import type { ElementKind, ElementRow, Shaped } from '@/core/kinds/element';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import type { Result } from '@/core/result';
import type { EndlessLine } from '@/core/tracing/reach';
import type { UprightPlane } from '@/core/tracing/upright/plane';
import type { LengthStyle } from '@/core/units/length';
import type { useTracing } from '@/project/tracing';
import type { TypingAxes } from './typedPoint';

/** A point that was clicked, and what lies under it. */
export interface Placed {
  at: Point;
  /** The element that was clicked, where the way asks for one. */
  element: ElementRow | null;
  /** The straight line that was clicked, of the model or of a drawing. */
  line: EndlessLine | null;
}

/** All that a way makes something of. */
export interface Given {
  model: Model;
  /** The plane that the points lie in; null in a plan. */
  plane: UprightPlane | null;
  levelId: string | null;
  axes: TypingAxes;
  points: readonly Placed[];
  /** One a side, zero where it is straight. */
  bulges: readonly number[];
  closed: boolean;
  selected: ReadonlySet<string>;
  settings: ReturnType<typeof useTracing.getState>;
  newId: () => string;
  /** How lengths are shown, and what a number without a unit is in. */
  lengths: LengthStyle;
}

/**
 * What is looked for under the cursor: points to hold on to, a place by itself that holds on to nothing because what
 * lies about it counts, elements of some kinds, or straight lines.
 */
export type Seeks = 'points' | 'place' | { elements: readonly ElementKind[] | 'any' } | 'line';

/** A gap through which a region is open, metres. */
export interface Leak {
  from: Point;
  to: Point;
  width: number;
}

/** How something is made or changed: how many points it takes, and what becomes of them. */
export interface Way {
  /** Whether it works in the plane of a section that is seen face on, and not in the plan. */
  upright?: true;
  /** What is asked for next. @param count how many points there are */
  prompt: (count: number) => string;
  seeks: (count: number) => Seeks;
  /** How many points it takes: at least, and at most; null where Enter ends it. */
  points: { least: number; most: number | null };
  /** Whether a click on the first point closes it, and whether its sides can be bent. */
  closes?: boolean;
  bends?: boolean;
  /** Whether a drag makes a box, which stands for two points. */
  box?: boolean;
  /** Whether it waits for something to be selected. */
  selection?: boolean;
  /** A length to be typed for the next point in place of the point's own. */
  length?: string;
  /** Whether all points are measured from the first, such as about a centre, and not each from the one before. */
  about?: boolean;
  /** Where a click on an element is taken to be, such as at the node of a wall that lies nearer. */
  settle?: (placed: Placed) => Point;
  /** Where what lies about the place is open, to be shown there; null where it is not. */
  leak?: (given: Given) => Leak | null;
  /** What the board shows before it is done. */
  preview: (given: Given) => Shaped[];
  /** What is done to the model. */
  edit: (given: Given) => Result<Edit>;
}

/** The points that were clicked. */
export const pointsOf = ({ points }: Given): Point[] => points.map(({ at }) => at);

/** The points and bends as a path. */
export const pathOf = (given: Given): BentPath => ({ points: pointsOf(given), bulges: [...given.bulges] });
