import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { lineCrossing, type Point } from '@/core/geometry/vector';
import { alongLine, lengthOfLine } from '@/core/kinds/lines';

/** A height and how it is known. */
export interface Known {
  /** Metres above the project's zero. */
  height: number;
  /** In words; `drawn` where the line lies at it. */
  why: string;
  weight: number;
}

interface Line {
  points: Point[];
  known: Known | null;
}

/** So far across a slope the next line that has a height is looked for, metres. */
const across = 200;
/** Heights between lines are told to the millimetre. */
const tidy = (height: number): number => Number(height.toFixed(3));

/**
 * Lines without a height between two that have one of their own: only every fifth is written in many drawings. They
 * share what lies between the two evenly.
 */
export function countedBetween(lines: readonly Line[]): void {
  const index = new BoxIndex(lines, ({ points }) => boxOf(points));
  const found = lines.flatMap((line) => {
    if (line.known !== null) return [];
    const { point, direction: d } = alongLine(line.points, lengthOfLine(line.points) / 2);
    const [one, other] = [1, -1].map((side) =>
      firstKnown(line, point, [point[0] - d[1] * across * side, point[1] + d[0] * across * side], index),
    );
    if (one === null || other === null || one.known.height === other.known.height) return [];
    const share = one.steps / (one.steps + other.steps);
    const height = tidy(one.known.height + (other.known.height - one.known.height) * share);
    const [low, high] = [one.known.height, other.known.height].sort((a, b) => a - b);
    const why = `counted between ${low.toFixed(2)} and ${high.toFixed(2)}`;
    return [{ line, known: { height, why, weight: 1 } }];
  });
  for (const { line, known } of found) line.known = known;
}

/** The first line across a slope that has a height of its own, and the how many-th it is. */
function firstKnown(own: Line, from: Point, to: Point, index: BoxIndex<Line>): { known: Known; steps: number } | null {
  const met = index
    .touching(boxOf([from, to]))
    .filter((line) => line !== own)
    .flatMap((line) => {
      const crossings = line.points.slice(1).flatMap((p, i) => {
        const at = lineCrossing(from, to, line.points[i], p);
        return at !== null && at.t > 0 && at.t <= 1 && at.u >= 0 && at.u <= 1 ? [at.t] : [];
      });
      return crossings.length === 0 ? [] : [{ line, at: Math.min(...crossings) }];
    })
    .sort((a, b) => a.at - b.at);
  const place = met.findIndex(({ line }) => line.known !== null);
  const known = place < 0 ? null : met[place].line.known;
  return known === null ? null : { known, steps: place + 1 };
}
