import type { PlacedPath, PlacedText } from '@/core/placed/placed';
import { loopsOf, type LooseSide } from '@/core/patterns/loops';
import { pathPoints } from '@/core/patterns/outlines';
import { leastOf, mostOf } from '@/core/lists';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { centroid, contains, leastRectangle } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';

/** The ring at the end of a grid line that carries its label. */
export interface Bubble {
  centre: Point;
  radius: number;
  label: string | null;
  /** Whether the ring is as deep as it is wide, and its corners lie about on a circle. */
  even: boolean;
  /** The layer of a text that stands there alone; null where there is a ring. */
  alone: number | null;
  handles: string[];
}

/** Radii that a bubble can have, in metres at full size: 3 to 15 mm on paper at 1:20 to 1:200. */
const radii = { least: 0.06, most: 3 };

/** A line runs through a bubble where it passes its middle within this share of the radius. */
const onLine = 0.2;

/** How far about a label without a ring its line may end, as a share of the text's height. */
const aboutText = 2.5;

/** Labels that stand without a ring: one or two letters, a short number, or both. */
const bareLabel = /^(?:\p{L}{1,2}|\p{L}{0,2}[-.]?\d{1,3}(?:[.-]\d{1,2})?\p{Ll}?)['\u2032]?$/u;

/** Label length above which a text in a ring is a note, not a grid label. */
const longestLabel = 6;

/** A closed shape of a bubble's size; without an outline it is a circle. */
interface Ring {
  centre: Point;
  radius: number;
  even: boolean;
  outline: readonly Point[] | null;
  handles: string[];
}

/**
 * Tells bubbles from the other paths on the grid's layers, with the text inside each: circles, small closed shapes,
 * and, where a text stands in them, polygons of loose lines.
 * @param gap how far the ends of loose lines may lie apart, metres
 */
export function findBubbles(
  paths: readonly PlacedPath[],
  texts: readonly PlacedText[],
  gap: number,
): { bubbles: Bubble[]; bare: Bubble[]; rest: PlacedPath[] } {
  const written = new BoxIndex(texts, ({ at }) => boxOf([at]));
  const bubbleOf = ({ centre, radius, even, outline, handles }: Ring): Bubble => {
    const [text] = written
      .around(centre, radius)
      .filter(
        ({ text: words, at }) =>
          words.length > 0 &&
          words.length <= longestLabel &&
          distance(at, centre) <= radius &&
          (outline === null || contains(outline, at)),
      )
      .sort((a, b) => distance(a.at, centre) - distance(b.at, centre));
    const label = text?.text ?? null;
    const all = [...new Set([...handles, ...(text ? [text.handle] : [])])];
    return { centre, radius, even, label, alone: null, handles: all };
  };
  const bubbles: Bubble[] = [];
  const open: PlacedPath[] = [];
  for (const path of paths) {
    const ring = ringOf(path);
    if (ring === null) open.push(path);
    else bubbles.push(bubbleOf(ring));
  }
  const loose = looseRings(open, gap)
    .map((ring) => ({ ring, bubble: bubbleOf(ring) }))
    .filter(({ bubble }) => bubble.label !== null);
  const used = new Set(loose.flatMap(({ ring }) => ring.handles));
  const all = [...bubbles, ...loose.map(({ bubble }) => bubble)];
  return {
    bubbles: all,
    bare: bareLabels(texts, all),
    rest: open.filter((path) => !(isShort(path) && used.has(path.handle))),
  };
}

/** Texts that are labels by their words and stand in no ring, as if a ring were about them. */
function bareLabels(texts: readonly PlacedText[], bubbles: readonly Bubble[]): Bubble[] {
  const inside = new Set(bubbles.flatMap(({ handles }) => handles));
  return texts
    .filter(({ text, handle }) => bareLabel.test(text) && !inside.has(handle))
    .map(({ text, at, height, handle, layer }) => ({
      centre: at,
      radius: aboutText * height,
      even: true,
      label: text,
      alone: layer,
      handles: [handle],
    }));
}

/** Whether a path is a side that a bubble may have, or some of them. */
function isShort({ points, closed }: PlacedPath): boolean {
  const [x0, y0, x1, y1] = boxOf(points);
  return !closed && Math.hypot(x1 - x0, y1 - y0) <= radii.most;
}

/** Polygons of a bubble's size that loose lines and arcs close. */
function looseRings(paths: readonly PlacedPath[], gap: number): Ring[] {
  const sides = paths
    .filter(isShort)
    .flatMap(({ points, bulges, handle, entity, layer }) =>
      points.slice(1).map((b, i): LooseSide => ({ a: points[i], b, bulge: bulges[i], handle, entity, layer })),
    );
  return loopsOf(sides, gap, true).loops.flatMap(({ points, handles }) => {
    const ring = sizedRing(points);
    return ring === null ? [] : [{ ...ring, outline: points, handles }];
  });
}

/** Corners of an even ring are at least this share of the farthest from its middle; its depth is, of its width. */
const leastEven = 0.8;

/** The middle and the reach of an outline, where it has a bubble's size. */
function sizedRing(points: readonly Point[]): { centre: Point; radius: number; even: boolean } | null {
  if (points.length < 3) return null;
  const centre = centroid(points);
  const reaches = points.map((p) => distance(p, centre));
  const radius = mostOf(reaches);
  if (radius < radii.least || radius > radii.most) return null;
  const box = leastRectangle(points);
  const square = box !== null && Math.min(box.width, box.depth) >= leastEven * Math.max(box.width, box.depth);
  return { centre, radius, even: square && leastOf(reaches) >= leastEven * radius };
}

function ringOf(path: PlacedPath): Ring | null {
  if (!path.closed) return null;
  if (path.circle) {
    const radius = distance(path.points[0], path.points[1]) / 2;
    const centre: Point = [(path.points[0][0] + path.points[1][0]) / 2, (path.points[0][1] + path.points[1][1]) / 2];
    return radius >= radii.least && radius <= radii.most
      ? { centre, radius, even: true, outline: null, handles: [path.handle] }
      : null;
  }
  // A circle may be a polyline of two arcs.
  const outline = pathPoints(path);
  const ring = sizedRing(outline);
  return ring === null ? null : { ...ring, outline, handles: [path.handle] };
}

/** How near to a ring an end is that runs into it, as shares of the ring's radius, and metres. */
export interface Nearness {
  /** Beside the ring's middle. */
  across: number;
  /** From the middle on: inside it, and short of it. */
  least: number;
  most: number;
  more: number;
}

/** On layers of the grid a line may stop short of its bubble, or run on into it. */
const loosely: Nearness = { across: 0.4, least: -1.1, most: 1.6, more: 0.3 };
/** Among everything that is drawn a line ends on a ring, or on the side of a square. */
export const strictly: Nearness = { across: 0.2, least: 0.6, most: 1.25, more: 0.05 };

/** The bubble that an end of a line runs into: its centre on the line's run, its ring about at the end. */
export function bubbleAt(end: Point, outward: Point, bubbles: BoxIndex<Bubble>, near = loosely): Bubble | null {
  let best: { bubble: Bubble; away: number } | null = null;
  for (const bubble of bubbles.around(end, near.most * radii.most + near.more)) {
    const [dx, dy] = [bubble.centre[0] - end[0], bubble.centre[1] - end[1]];
    const along = dx * outward[0] + dy * outward[1];
    const across = Math.abs(dx * outward[1] - dy * outward[0]);
    const { radius } = bubble;
    if (across > near.across * radius || along < near.least * radius || along > near.most * radius + near.more)
      continue;
    const away = Math.abs(along - radius) + across;
    if (best === null || away < best.away) best = { bubble, away };
  }
  return best?.bubble ?? null;
}

/** The bubble that a line runs on through towards one of its ends: the last one before it, and how far along it is. */
export function bubbleOn(
  start: Point,
  end: Point,
  bubbles: BoxIndex<Bubble>,
): { bubble: Bubble; along: number } | null {
  const length = distance(start, end);
  const u: Point = [(end[0] - start[0]) / length, (end[1] - start[1]) / length];
  let best: { bubble: Bubble; along: number } | null = null;
  for (const bubble of bubbles.touching(boxOf([start, end], onLine * radii.most))) {
    const [dx, dy] = [bubble.centre[0] - start[0], bubble.centre[1] - start[1]];
    const along = dx * u[0] + dy * u[1];
    const across = Math.abs(dx * u[1] - dy * u[0]);
    if (along < length / 2 || along > length || across > bubble.radius * onLine) continue;
    if (best === null || along > best.along) best = { bubble, along };
  }
  return best;
}
