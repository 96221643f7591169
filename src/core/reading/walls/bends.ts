import { chordCount } from '@/core/geometry/bulge';
import { direction, distance, type Point } from '@/core/geometry/vector';
import type { From } from '../scene';
import type { CurvedFace } from './faces';
import type { Across } from './strips';

/** A curved wall by its centre line: counter-clockwise from `start` by `sweep`, radians. */
export interface Bend { centre: Point; radius: number; start: number; sweep: number; thickness: number; sources: From[] }

/** Middles of arcs closer than this are one, metres. */
const oneCentre = 0.02;

/** Pairs of arcs about one centre, at a wall's distance. */
export function pairArcs(arcs: readonly CurvedFace[], across: Across): Bend[] {
  const bends: Bend[] = [];
  const sorted = [...arcs].sort((a, b) => a.radius - b.radius);
  const taken = new Set<CurvedFace>();
  for (const [i, inner] of sorted.entries()) {
    if (taken.has(inner)) continue;
    const outer = sorted.slice(i + 1).find((other) => !taken.has(other) && other.radius - inner.radius >= across.least && other.radius - inner.radius <= across.most && distance(other.centre, inner.centre) < oneCentre && Math.abs(between(inner.start, other.start)) * inner.radius < 1 && other.sweep > 0.5 * inner.sweep);
    if (!outer) continue;
    taken.add(inner);
    taken.add(outer);
    const [from, to] = [Math.max(0, between(inner.start, outer.start)), Math.min(inner.sweep, between(inner.start, outer.start) + outer.sweep)];
    bends.push({ centre: inner.centre, radius: (inner.radius + outer.radius) / 2, start: inner.start + from, sweep: to - from, thickness: outer.radius - inner.radius, sources: [inner.source, outer.source] });
  }
  return bends;
}

/** The smaller turn from one direction to another, radians. */
export const between = (from: number, to: number): number => Math.atan2(Math.sin(to - from), Math.cos(to - from));

/** The point of a bend's circle in a direction. */
export const onBend = ({ centre, radius }: Bend, angle: number): Point => { const [c, s] = direction(angle); return [centre[0] + radius * c, centre[1] + radius * s]; };

/** Its two ends. */
export const bendEnds = (bend: Bend): [Point, Point] => [onBend(bend, bend.start), onBend(bend, bend.start + bend.sweep)];

/** The bend between two points near its ends, as far round as those lie. */
export function bendBetween(bend: Bend, start: Point, end: Point): Bend {
  const angleOf = ([x, y]: Point) => Math.atan2(y - bend.centre[1], x - bend.centre[0]);
  const [before, after] = [between(bend.start, angleOf(start)), between(bend.start + bend.sweep, angleOf(end))];
  return { ...bend, start: bend.start + before, sweep: bend.sweep - before + after };
}

/** How far a chord of a polyline in place of a bend may lie off it, metres. */
const sagitta = 0.003;

/** The corners of a polyline in place of a bend, between and without its ends. */
export function cornersOf(bend: Bend): Point[] {
  const pieces = Math.max(2, chordCount(bend.radius, bend.sweep, sagitta));
  return Array.from({ length: pieces - 1 }, (_, i) => onBend(bend, bend.start + (bend.sweep * (i + 1)) / pieces));
}
