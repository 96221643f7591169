import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import { familiesOf } from '@/core/patterns/families';
import type { PlacedPath } from '@/core/placed/placed';
import type { Tolerance } from '@/core/tolerance';
import { bubbleAt, type Bubble, type Nearness } from './bubbles';
import { joinLines, type GridPiece, type JoinedLine, type Stretch } from './joined';
import { leadersOf, ledTo } from './leaders';

/** A straight line put together from its pieces, with the bubbles that its ends run into or are led to. */
export interface EndedLine {
  line: JoinedLine;
  ends: (Bubble | null)[];
  /** The pieces of leaders to those that stand aside. */
  leaders: GridPiece[];
}

export const indexOf = (bubbles: readonly Bubble[]): BoxIndex<Bubble> =>
  new BoxIndex(bubbles, ({ centre }) => boxOf([centre]));

/** The bubbles that the two ends of a straight line run into. */
export function endsOf({ start, end }: Stretch, rings: BoxIndex<Bubble>, near?: Nearness): (Bubble | null)[] {
  const length = distance(start, end);
  const u: Point = [(end[0] - start[0]) / length, (end[1] - start[1]) / length];
  return [bubbleAt(start, [-u[0], -u[1]], rings, near), bubbleAt(end, u, rings, near)];
}

/** The straight sides of paths. */
const piecesOf = (paths: readonly PlacedPath[], coincidence: number): GridPiece[] =>
  paths.flatMap((path) =>
    Array.from({ length: path.points.length - (path.closed ? 0 : 1) }, (_, i) => ({
      a: path.points[i],
      b: path.points[(i + 1) % path.points.length],
      handle: path.handle,
      entity: path.entity,
      layer: path.layer,
      bulge: path.bulges[i],
    })).filter(({ a, b, bulge }) => bulge === 0 && distance(a, b) > coincidence),
  );

/**
 * Straight lines with what stands at their ends: pieces joined across small gaps, and across the building where two
 * stubs have one label; leaders that step aside to a bubble followed.
 * @param bubbles rings with labels
 * @param bare texts that may be labels without a ring
 * @param ledBubbles those of both that leaders lead to
 * @param near how near to a bubble's ring an end is that runs into it
 */
export function endedLines(
  paths: readonly PlacedPath[],
  bubbles: readonly Bubble[],
  bare: readonly Bubble[],
  ledBubbles: readonly Bubble[],
  tolerance: Tolerance,
  near?: Nearness,
): EndedLine[] {
  const [rings, texts] = [indexOf(bubbles), indexOf(bare)];
  const { led, rest: pieces } = leadersOf(piecesOf(paths, tolerance.coincidence), ledBubbles, tolerance.gap);
  if (pieces.length === 0) return [];
  const leaders = new BoxIndex(led, ({ at }) => boxOf([at]));
  /** Two stubs outside the plan: a bubble at an outer end, none between them, and no two labels. */
  const goesOn = (before: Stretch, next: Stretch): boolean => {
    const [[first, inner], [other, last]] = [endsOf(before, rings, near), endsOf(next, rings, near)];
    const [bareFirst, bareLast] = [endsOf(before, texts)[0], endsOf(next, texts)[1]];
    const labels = [first ?? bareFirst, last ?? bareLast].flatMap((bubble) => bubble?.label ?? []);
    return inner === null && other === null && labels.length > 0 && new Set(labels).size === 1;
  };
  return joinLines(familiesOf(pieces, tolerance.offAxis), tolerance.gap, tolerance.gridGap, goesOn).map((line) => {
    const direct = endsOf(line, rings, near);
    const led = [line.start, line.end].map((end, i) => (direct[i] === null ? ledTo(end, line.pieces, leaders) : null));
    return {
      line,
      ends: direct.map((bubble, i) => bubble ?? led[i]?.bubble ?? null),
      leaders: led.flatMap((one) => one?.steps ?? []),
    };
  });
}
