import type { PlacedPath, PlacedText } from '@/core/placed/placed';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { centroid, contains } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';

/** The ring at the end of a grid line that carries its label. */
export interface Bubble {
  centre: Point;
  radius: number;
  label: string | null;
  handles: string[];
}

/** Radii that a bubble can have, in metres at full size: 3 to 15 mm on paper at 1:20 to 1:200. */
const radii = { least: 0.06, most: 3 };

/** Label length above which a text in a ring is a note, not a grid label. */
const longestLabel = 6;

/**
 * Tells bubbles (circles and small closed shapes) from the other paths on the grid's layers, with the text inside each.
 */
export function findBubbles(
  paths: readonly PlacedPath[],
  texts: readonly PlacedText[],
): { bubbles: Bubble[]; rest: PlacedPath[] } {
  const written = new BoxIndex(texts, ({ at }) => boxOf([at]));
  const bubbles: Bubble[] = [];
  const rest: PlacedPath[] = [];
  for (const path of paths) {
    const ring = ringOf(path);
    if (ring === null) {
      rest.push(path);
      continue;
    }
    const inside = written
      .around(ring.centre, ring.radius)
      .filter(
        (text) =>
          text.text.length > 0 &&
          text.text.length <= longestLabel &&
          distance(text.at, ring.centre) <= ring.radius &&
          (path.circle || contains(path.points, text.at)),
      );
    const text = inside.sort((a, b) => distance(a.at, ring.centre) - distance(b.at, ring.centre))[0];
    bubbles.push({
      ...ring,
      label: text?.text ?? null,
      handles: [...new Set([path.handle, ...(text ? [text.handle] : [])])],
    });
  }
  return { bubbles, rest };
}

function ringOf(path: PlacedPath): { centre: Point; radius: number } | null {
  if (!path.closed) return null;
  if (path.circle) {
    const radius = distance(path.points[0], path.points[1]) / 2;
    const centre: Point = [(path.points[0][0] + path.points[1][0]) / 2, (path.points[0][1] + path.points[1][1]) / 2];
    return radius >= radii.least && radius <= radii.most ? { centre, radius } : null;
  }
  if (path.points.length < 3) return null;
  const centre = centroid(path.points);
  const radius = Math.max(...path.points.map((p) => distance(p, centre)));
  return radius >= radii.least && radius <= radii.most ? { centre, radius } : null;
}

/** The bubble that an end of a line runs into: its centre on the line's run, its ring about at the end. */
export function bubbleAt(end: Point, outward: Point, bubbles: BoxIndex<Bubble>): Bubble | null {
  let best: { bubble: Bubble; away: number } | null = null;
  for (const bubble of bubbles.around(end, 1.6 * radii.most + 0.3)) {
    const [dx, dy] = [bubble.centre[0] - end[0], bubble.centre[1] - end[1]];
    const along = dx * outward[0] + dy * outward[1];
    const across = Math.abs(dx * outward[1] - dy * outward[0]);
    if (across > bubble.radius * 0.4 || along < -bubble.radius * 1.1 || along > bubble.radius * 1.6 + 0.3) continue;
    const away = Math.abs(along - bubble.radius) + across;
    if (best === null || away < best.away) best = { bubble, away };
  }
  return best?.bubble ?? null;
}
