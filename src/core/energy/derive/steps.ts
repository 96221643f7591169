import { area } from '@/core/geometry/polygon';
import type { Region } from '@/core/geometry/clipping';
import { cross, distance, dot, pointAlong, subtract, type Point } from '@/core/geometry/vector';

/** A part of a room's ceiling: where it lies in plan, and how high it is there. */
export interface CeilingPart {
  region: Region;
  height: (p: Point) => number;
}

/** An upright surface between two parts of a ceiling that meet at different heights. */
export interface Step<P extends CeilingPart> {
  /** The part that is higher there. */
  higher: P;
  /** Square metres. */
  area: number;
  /** Away from under the higher part, of length one. */
  outward: Point;
  /** Its middle. */
  at: [number, number, number];
  /** Its corners, seen from outside counter-clockwise. */
  corners: [number, number, number][];
}

/** Borders that lie beside one another within this are one, metres. */
const beside = 1e-3;
/** Smaller steps are rounding, square metres. */
const least = 1e-6;

interface Edge {
  a: Point;
  b: Point;
}

/** The edges of a region, its inside to their left. */
const edgesOf = (region: Region): Edge[] =>
  region.flatMap(({ outline, holes }) => [
    ...ringEdges(area(outline) > 0 ? outline : [...outline].reverse()),
    ...holes.flatMap((hole) => ringEdges(area(hole) < 0 ? hole : [...hole].reverse())),
  ]);

const ringEdges = (ring: readonly Point[]): Edge[] => ring.map((a, i) => ({ a, b: ring[(i + 1) % ring.length] }));

/** The stretch that two edges share, running the way of the first; null where they lie apart. */
function shared({ a, b }: Edge, { a: c, b: d }: Edge): Edge | null {
  const length = distance(a, b);
  if (length < beside) return null;
  const along = subtract(b, a);
  const off = (p: Point): number => Math.abs(cross(along, subtract(p, a))) / length;
  if (off(c) > beside || off(d) > beside) return null;
  const share = (p: Point): number => dot(along, subtract(p, a)) / length ** 2;
  const [from, to] = [share(c), share(d)].sort((one, other) => one - other);
  const [begin, end] = [Math.max(0, from), Math.min(1, to)];
  return (end - begin) * length > beside ? { a: pointAlong(a, b, begin), b: pointAlong(a, b, end) } : null;
}

/** The upright surfaces that close a room between the parts of its ceiling. */
export function stepsBetween<P extends CeilingPart>(parts: readonly P[]): Step<P>[] {
  const edges = parts.map(({ region }) => edgesOf(region));
  return parts.flatMap((one, i) =>
    parts.slice(i + 1).flatMap((other, k) =>
      edges[i].flatMap((edge) =>
        edges[i + 1 + k].flatMap((opposite) => {
          const border = shared(edge, opposite);
          return border === null ? [] : stepsAlong(border, one, other);
        }),
      ),
    ),
  );
}

/** The steps along a border that has one part to its left and the other to its right: two where they cross. */
function stepsAlong<P extends CeilingPart>({ a, b }: Edge, left: P, right: P): Step<P>[] {
  const [x, y] = subtract(b, a);
  const length = distance(a, b);
  const over = (p: Point): number => left.height(p) - right.height(p);
  const [begin, end] = [over(a), over(b)];
  const turn = begin * end < 0 ? begin / (begin - end) : null;
  const pieces: [number, number][] =
    turn === null
      ? [[0, 1]]
      : [
          [0, turn],
          [turn, 1],
        ];
  return pieces.flatMap(([from, to]) => {
    const middle = pointAlong(a, b, (from + to) / 2);
    // Both rise evenly along the border.
    const height = over(middle);
    const size = Math.abs(height) * (to - from) * length;
    if (size < least) return [];
    const side = height > 0 ? 1 : -1;
    return [
      {
        higher: height > 0 ? left : right,
        area: size,
        outward: [(side * y) / length, (side * -x) / length] as const,
        at: [...middle, (left.height(middle) + right.height(middle)) / 2] as [number, number, number],
        corners: cornersOf(pointAlong(a, b, from), pointAlong(a, b, to), left, right),
      },
    ];
  });
}

/** A step from one place of a border to another: a triangle where its parts meet at an end. */
function cornersOf(a: Point, b: Point, left: CeilingPart, right: CeilingPart): [number, number, number][] {
  const [start, end] = [a, b].map((p) => [left.height(p), right.height(p)].sort((one, other) => one - other));
  const rising = left.height(pointAlong(a, b, 0.5)) > right.height(pointAlong(a, b, 0.5));
  const corners: [number, number, number][] = [
    [...a, start[0]],
    [...b, end[0]],
    ...(end[1] - end[0] > least ? [[...b, end[1]] as [number, number, number]] : []),
    ...(start[1] - start[0] > least ? [[...a, start[1]] as [number, number, number]] : []),
  ];
  return rising ? corners : corners.reverse();
}
