import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { leastOf, mostOf } from '@/core/lists';
import type { From } from '@/core/placed/placed';
import { chordCount } from '@/core/geometry/bulge';
import { PointGrid } from '@/core/geometry/pointGrid';
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
/** Faces and bends of one circle lie within this, metres. */
const oneBend = 0.012;
/** Bends whose ends lie within this along their circle touch, metres. */
const touching = 0.025;

/** Faces of one circle: its centre and radius, and the stretches of it that are free to be paired, in angles. */
interface Ring {
  centre: Point;
  radius: number;
  free: Stretch[];
}

/** A stretch of a circle, counter-clockwise from one angle to another, radians, with what it came from. */
interface Stretch {
  from: number;
  to: number;
  sources: From[];
}

/** A face may be broken so far by a wall that ends on it, while the other goes on, metres. */
const widestEnd = 0.6;
/** Pieces of a pair shorter than this bound no wall, metres. */
const shortestPiece = 0.1;
const wholeTurn = 2 * Math.PI;

/** Pairs of faces about one centre, at a wall's distance, wherever both are drawn. */
export function pairArcs(arcs: readonly CurvedFace[], across: Across): Bend[] {
  return aboutCentres(arcs).flatMap((own) => {
    const rings = ringsOf(own);
    return rings.flatMap((inner, i) =>
      rings.slice(i + 1).flatMap((outer) => {
        const apart = outer.radius - inner.radius;
        return apart >= across.least && apart <= across.most ? pairRings(inner, outer) : [];
      }),
    );
  });
}

/** Faces by the centre that they share. */
function aboutCentres(arcs: readonly CurvedFace[]): CurvedFace[][] {
  const grid = new PointGrid(oneCentre, arcs.length);
  const groups: { centre: Point; arcs: CurvedFace[] }[] = [];
  for (const arc of arcs) {
    const [x, y] = arc.centre;
    let known: CurvedFace[] | null = null;
    grid.near(x, y, (i) => {
      if (known === null && distance(groups[i].centre, arc.centre) < oneCentre) known = groups[i].arcs;
    });
    const group = known as CurvedFace[] | null;
    if (group !== null) group.push(arc);
    else {
      grid.add(groups.length, x, y);
      groups.push({ centre: arc.centre, arcs: [arc] });
    }
  }
  return groups.map(({ arcs: own }) => own);
}

/** The circles that faces about one centre lie on, from the smallest. */
function ringsOf(arcs: readonly CurvedFace[]): Ring[] {
  const rings: Ring[] = [];
  for (const { centre, radius, start, sweep, sources } of [...arcs].sort((a, b) => a.radius - b.radius)) {
    const last = rings[rings.length - 1];
    const stretch = { from: start, to: start + sweep, sources: [...sources] };
    if (last !== undefined && radius - last.radius < oneBend) last.free.push(stretch);
    else rings.push({ centre, radius, free: [stretch] });
  }
  return rings;
}

/** Stretches of one circle, joined where the other circle's faces go on past the break. */
function bridged(own: readonly Stretch[], other: readonly Stretch[], radius: number): Stretch[] {
  const joined: Stretch[] = [];
  for (const stretch of [...own].sort((a, b) => a.from - b.from)) {
    const last = joined[joined.length - 1];
    const goesOn =
      last !== undefined &&
      (stretch.from - last.to) * radius <= widestEnd &&
      other.some(
        ({ from, to }) => turned(from, last.to) <= last.to && turned(from, last.to) + (to - from) >= stretch.from,
      );
    if (goesOn) {
      last.to = Math.max(last.to, stretch.to);
      last.sources.push(...stretch.sources);
    } else joined.push({ ...stretch, sources: [...stretch.sources] });
  }
  return joined;
}

/** An angle turned by whole turns to the last one that is not beyond another. */
const turned = (angle: number, before: number): number => angle + Math.floor((before - angle) / wholeTurn) * wholeTurn;

/** The walls between two circles: where both have faces. What is used of them is free no more. */
function pairRings(inner: Ring, outer: Ring): Bend[] {
  const bends: Bend[] = [];
  const [own, its] = [bridged(inner.free, outer.free, inner.radius), bridged(outer.free, inner.free, outer.radius)];
  for (const p of own)
    for (const q of its) {
      const shift = turned(q.from, p.to) - q.from;
      const [from, to] = [Math.max(p.from, q.from + shift), Math.min(p.to, q.to + shift)];
      if ((to - from) * inner.radius < shortestPiece) continue;
      bends.push({
        centre: inner.centre,
        radius: (inner.radius + outer.radius) / 2,
        start: from,
        sweep: to - from,
        thickness: outer.radius - inner.radius,
        sources: [...p.sources, ...q.sources],
        gaps: [],
      });
    }
  if (bends.length > 0) {
    const used = new Set(bends.flatMap(({ sources }) => sources));
    for (const ring of [inner, outer])
      ring.free = ring.free.filter(({ sources }) => !sources.every((source) => used.has(source)));
  }
  return bends;
}

/**
 * Joins bends of one circle that follow one another across what is drawn as a door or a window, across columns, and
 * where they touch; each with the one that comes next on the circle.
 * @param filled whether columns fill the place between two points
 */
export function joinBends(
  bends: readonly Bend[],
  marks: readonly Mark[],
  filled: (a: Point, b: Point) => boolean,
): Bend[] {
  const about = new BoxIndex(bends, ({ centre }) => boxOf([centre]));
  const left = new Set([...bends].sort((a, b) => a.start - b.start));
  const joined: Bend[] = [];
  for (const first of left) {
    left.delete(first);
    let bend = first;
    for (;;) {
      const next = nextOf(
        bend,
        about.around(bend.centre, oneCentre).filter((other) => left.has(other)),
      );
      const gap = next === null ? null : gapTo(bend, next, marks, filled);
      if (next === null || gap === null) break;
      left.delete(next);
      bend = {
        ...bend,
        sweep: (gap.to + next.sweep * next.radius) / bend.radius,
        sources: [...bend.sources, ...next.sources],
        gaps: [
          ...bend.gaps,
          ...(gap.sources.length > 0 ? [gap] : []),
          ...next.gaps.map((other) => ({ ...other, from: other.from + gap.to, to: other.to + gap.to })),
        ],
      };
    }
    joined.push(bend);
  }
  // One that was begun in the middle of a chain has its beginning among the others.
  return joined.length < bends.length ? joinBends(joined, marks, filled) : joined;
}

/** The bend of the same circle and thickness that comes next after one; null where none does. */
function nextOf(bend: Bend, others: readonly Bend[]): Bend | null {
  const turnTo = (other: Bend): number => between(bend.start + bend.sweep, other.start);
  const following = others.filter(
    (other) =>
      distance(bend.centre, other.centre) <= oneCentre &&
      Math.abs(bend.radius - other.radius) <= oneBend &&
      Math.abs(bend.thickness - other.thickness) <= oneBend &&
      turnTo(other) * bend.radius >= -touching,
  );
  return following.sort((a, b) => turnTo(a) - turnTo(b))[0] ?? null;
}

/**
 * What lies between the end of a bend and the beginning of the next on its circle, along its centre line; null where
 * they are two walls.
 */
function gapTo(bend: Bend, next: Bend, marks: readonly Mark[], filled: (a: Point, b: Point) => boolean): Gap | null {
  const end = bend.start + bend.sweep;
  const turn = between(end, next.start);
  const [from, width] = [bend.sweep * bend.radius, turn * bend.radius];
  if (Math.abs(width) <= touching || filled(onBend(bend, end), onBend(bend, next.start)))
    return { from, to: from + width, kind: 'opening', sources: [] };
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

/** Where a point lies along a bend from its start, or beyond the end that is nearer, and how far outside its circle. */
export function alongBend({ centre, radius, start, sweep }: Bend, [x, y]: Point): [along: number, off: number] {
  const angle = Math.atan2(y - centre[1], x - centre[0]);
  const forward = wholeTurn - ((((start - angle) % wholeTurn) + wholeTurn) % wholeTurn || wholeTurn);
  const along = forward > (sweep + wholeTurn) / 2 ? forward - wholeTurn : forward;
  return [along * radius, Math.hypot(x - centre[0], y - centre[1]) - radius];
}

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

/** A place along a bend where a wall ends on it. */
export interface BendCut {
  /** From its start, radians. */
  turn: number;
  node: Point;
}

/** A bend between its ends, in the parts that walls which end on it make of it. */
export function partsOfBend(
  bend: Bend,
  [start, end]: readonly [Point, Point],
  cuts: readonly BendCut[],
): { bend: Bend; ends: [Point, Point] }[] {
  const whole = bendBetween(bend, start, end);
  const before = between(whole.start, bend.start);
  const inner = cuts
    .map(({ turn, node }) => ({ turn: turn + before, node }))
    .filter(({ turn }) => turn > 0 && turn < whole.sweep)
    .sort((a, b) => a.turn - b.turn);
  const stops = [{ turn: 0, node: start }, ...inner, { turn: whole.sweep, node: end }];
  const apart = stops.filter(({ node }, i) => i === 0 || node !== stops[i - 1].node);
  return apart.slice(1).map(({ turn, node }, i) => {
    const from = apart[i];
    const [low, high] = [from.turn * whole.radius, turn * whole.radius];
    const gaps = whole.gaps
      .filter((gap) => (gap.from + gap.to) / 2 > low && (gap.from + gap.to) / 2 <= high)
      .map((gap) => ({ ...gap, from: gap.from - low, to: gap.to - low }));
    const part = { ...whole, start: whole.start + from.turn, sweep: turn - from.turn, gaps };
    return { bend: part, ends: [from.node, node] };
  });
}

/** How far a chord of a polyline in place of a bend may lie off it, metres. */
const sagitta = 0.003;

/** The corners of a polyline in place of a bend, between and without its ends. */
export function cornersOf(bend: Bend): Point[] {
  const pieces = Math.max(2, chordCount(bend.radius, bend.sweep, sagitta));
  return Array.from({ length: pieces - 1 }, (_, i) => onBend(bend, bend.start + (bend.sweep * (i + 1)) / pieces));
}
