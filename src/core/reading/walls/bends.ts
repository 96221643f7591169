import { leastOf, mostOf } from '@/core/lists';
import type { From } from '@/core/placed/placed';
import { chordCount } from '@/core/geometry/bulge';
import { direction, distance, type Point } from '@/core/geometry/vector';
import type { CurvedFace } from '@/core/patterns/faces';
import { openingWidth, type Gap, type Mark } from './runs';
import type { Across } from '@/core/patterns/strips';

/** A curved wall by its centre line: counter-clockwise from `start` by `sweep`, radians. */
export interface Bend {
  centre: Point;
  radius: number;
  start: number;
  sweep: number;
  thickness: number;
  sources: From[];
  /** Its openings, along its centre line from the start. */ gaps: Gap[];
}

/** Middles of arcs closer than this are one, metres. */
const oneCentre = 0.02;

/** Pairs of arcs about one centre, at a wall's distance. */
export function pairArcs(arcs: readonly CurvedFace[], across: Across): Bend[] {
  const bends: Bend[] = [];
  const sorted = [...arcs].sort((a, b) => a.radius - b.radius);
  const taken = new Set<CurvedFace>();
  for (const [i, inner] of sorted.entries()) {
    if (taken.has(inner)) continue;
    const outer = sorted
      .slice(i + 1)
      .find(
        (other) =>
          !taken.has(other) &&
          other.radius - inner.radius >= across.least &&
          other.radius - inner.radius <= across.most &&
          distance(other.centre, inner.centre) < oneCentre &&
          Math.abs(between(inner.start, other.start)) * inner.radius < 1 &&
          other.sweep > 0.5 * inner.sweep,
      );
    if (!outer) continue;
    taken.add(inner);
    taken.add(outer);
    const [from, to] = [
      Math.max(0, between(inner.start, outer.start)),
      Math.min(inner.sweep, between(inner.start, outer.start) + outer.sweep),
    ];
    bends.push({
      centre: inner.centre,
      radius: (inner.radius + outer.radius) / 2,
      start: inner.start + from,
      sweep: to - from,
      thickness: outer.radius - inner.radius,
      sources: [inner.source, outer.source],
      gaps: [],
    });
  }
  return bends;
}

/** Bends of one circle and thickness lie within this, metres. */
const oneBend = 0.012;

/**
 * Joins bends of one circle that follow one another across what is drawn as a door or a window, and where they touch.
 */
export function joinBends(bends: readonly Bend[], marks: readonly Mark[]): Bend[] {
  const left = [...bends].sort((a, b) => a.start - b.start);
  const joined: Bend[] = [];
  while (left.length > 0) {
    let bend = left.shift()!;
    for (let i = 0; i < left.length;) {
      const gap = gapTo(bend, left[i], marks);
      if (gap === null) {
        i += 1;
        continue;
      }
      const [next] = left.splice(i, 1);
      const shift = gap.to;
      bend = {
        ...bend,
        sweep: (shift + next.sweep * next.radius) / bend.radius,
        sources: [...bend.sources, ...next.sources],
        gaps: [
          ...bend.gaps,
          ...(gap.sources.length > 0 ? [gap] : []),
          ...next.gaps.map((other) => ({ ...other, from: other.from + shift, to: other.to + shift })),
        ],
      };
      i = 0;
    }
    joined.push(bend);
  }
  return joined;
}

/**
 * What lies between the end of a bend and the beginning of another on its circle, along its centre line; null where
 * they are two walls.
 */
function gapTo(bend: Bend, next: Bend, marks: readonly Mark[]): Gap | null {
  if (
    distance(bend.centre, next.centre) > oneCentre ||
    Math.abs(bend.radius - next.radius) > oneBend ||
    Math.abs(bend.thickness - next.thickness) > oneBend
  )
    return null;
  const end = bend.start + bend.sweep;
  const turn = between(end, next.start);
  const [from, width] = [bend.sweep * bend.radius, turn * bend.radius];
  if (Math.abs(width) <= 0.025) return { from, to: from + width, kind: 'opening', sources: [] };
  if (width < openingWidth.least || width > openingWidth.most) return null;
  const inside = marks.filter(({ points }) => {
    const polar = points.map(([x, y]) => ({
      along: between(end, Math.atan2(y - bend.centre[1], x - bend.centre[0])) * bend.radius,
      off: Math.hypot(x - bend.centre[0], y - bend.centre[1]) - bend.radius,
    }));
    const [low, high] = [leastOf(polar.map(({ along }) => along)), mostOf(polar.map(({ along }) => along))];
    const overlap = Math.min(high, width) - Math.max(low, 0);
    const half = bend.thickness / 2 + 0.06;
    return (
      overlap > 0.5 * (high - low) &&
      overlap > 0.3 * width &&
      leastOf(polar.map(({ off }) => off)) <= half &&
      mostOf(polar.map(({ off }) => off)) >= -half
    );
  });
  const doors = inside.filter(({ kind }) => kind === 'door');
  const shown = doors.length > 0 ? doors : inside;
  return shown.length === 0
    ? null
    : {
        from,
        to: from + width,
        kind: doors.length > 0 ? 'door' : 'window',
        sources: [...new Set(shown.map(({ source }) => source))],
      };
}

/** The smaller turn from one direction to another, radians. */
export const between = (from: number, to: number): number => Math.atan2(Math.sin(to - from), Math.cos(to - from));

/** The point of a bend's circle in a direction. */
export const onBend = ({ centre, radius }: Bend, angle: number): Point => {
  const [c, s] = direction(angle);
  return [centre[0] + radius * c, centre[1] + radius * s];
};

/** Its two ends. */
export const bendEnds = (bend: Bend): [Point, Point] => [
  onBend(bend, bend.start),
  onBend(bend, bend.start + bend.sweep),
];

/** The bend between two points near its ends, as far round as those lie. */
export function bendBetween(bend: Bend, start: Point, end: Point): Bend {
  const angleOf = ([x, y]: Point) => Math.atan2(y - bend.centre[1], x - bend.centre[0]);
  const [before, after] = [between(bend.start, angleOf(start)), between(bend.start + bend.sweep, angleOf(end))];
  const by = -before * bend.radius;
  return {
    ...bend,
    start: bend.start + before,
    sweep: bend.sweep - before + after,
    gaps: bend.gaps.map((gap) => ({ ...gap, from: gap.from + by, to: gap.to + by })),
  };
}

/** How far a chord of a polyline in place of a bend may lie off it, metres. */
const sagitta = 0.003;

/** The corners of a polyline in place of a bend, between and without its ends. */
export function cornersOf(bend: Bend): Point[] {
  const pieces = Math.max(2, chordCount(bend.radius, bend.sweep, sagitta));
  return Array.from({ length: pieces - 1 }, (_, i) => onBend(bend, bend.start + (bend.sweep * (i + 1)) / pieces));
}
