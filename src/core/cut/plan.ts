import { withArcs } from '@/core/geometry/arcsOfChords';
import { area, pointWithin } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { measured, type Body, type Shell } from './body';
import { drawnOn, linesOf, type Drawn } from './drawn';
import { leavesOf, type Filling } from './fillings';
import type { PlanStorey } from './storeys';

/** What a plan is drawn of, on layers, metres. Angles in degrees, counter-clockwise. */
export type Mark =
  | { layer: string; shape: 'line'; points: Point[]; closed: boolean; bulges?: number[] }
  | { layer: string; shape: 'arc'; centre: Point; radius: number; from: number; to: number }
  | { layer: string; shape: 'circle'; centre: Point; radius: number }
  | { layer: string; shape: 'text'; at: Point; height: number; text: string };

/** A storey's plan as far as it is drawn. */
export interface Plan {
  storey: PlanStorey;
  marks: Mark[];
}

/** Openings of slabs are on a layer of their own, for they mean something else. */
const holesLayer = 'SLAB OPENING';

/** Texts are so high, metres: 2.5 mm at 1:100. */
export const textHeight = 0.25;

/** Draws bodies onto the plans of storeys, one after another, so that none has to be kept. */
export class Plans {
  readonly plans: readonly Plan[];
  /** Of all bodies so far, metres. */
  highest = -Infinity;

  constructor(private readonly storeys: readonly PlanStorey[]) {
    this.plans = storeys.map((storey) => ({ storey, marks: [] }));
  }

  /** @returns on how many plans the body is */
  add(body: Body): number {
    const inner = body.kind === 'SLAB' ? holesLayer : body.kind;
    return this.draw(body, (drawn, marks) => {
      const { lines, holes } = linesOf(drawn);
      for (const { points, closed } of lines) marks.push(roundOr(body.kind, points, closed));
      for (const hole of holes) marks.push(roundOr(inner, hole, true));
      return lines.length > 0;
    });
  }

  /** A room with its number and its name, one below the other in its middle. @returns on how many plans it is */
  addRoom(shells: readonly Shell[], texts: readonly string[]): number {
    return this.draw({ kind: 'ROOM', shells }, (drawn, marks) => {
      const { lines } = linesOf(drawn);
      for (const { points, closed } of lines) marks.push({ layer: 'ROOM', shape: 'line', points, closed });
      const size = (ring: readonly Point[]): number => Math.abs(area(ring));
      const rings = lines.flatMap(({ points, closed }) => (closed ? [points] : [])).sort((a, b) => size(b) - size(a));
      if (rings.length > 0) marks.push(...namesAt(pointWithin(rings), texts));
      return lines.length > 0;
    });
  }

  /** A door or a window as its sign in the opening. @returns on how many plans it is */
  addFilling({ kind, opening, swing }: Filling): number {
    return this.draw({ kind: 'OPENING', shells: opening }, (drawn, marks) => {
      const outlines = linesOf(drawn).lines.filter(({ closed }) => closed);
      for (const { points } of outlines) marks.push(...signOf(kind, points, swing));
      return outlines.length > 0;
    });
  }

  /** Marks that are on every plan. @returns on how many that is */
  mark(marks: readonly Mark[]): number {
    return this.each((plan) => {
      plan.marks.push(...marks);
      return true;
    });
  }

  private each(draw: (plan: Plan) => boolean): number {
    return this.plans.filter(draw).length;
  }

  /** @param draw draws what of the body is on a plan, and says whether that is anything */
  private draw(body: Body, draw: (drawn: NonNullable<Drawn>, marks: Mark[]) => boolean): number {
    const known = measured(body);
    if (known === null) return 0;
    this.highest = Math.max(this.highest, known.high);
    return this.each(({ storey, marks }) => {
      const drawn = drawnOn(known, storey, this.storeys);
      return drawn !== null && draw(drawn, marks);
    });
  }
}

/** The lines of a text, one below the other about a place. */
const namesAt = ([x, y]: Point, texts: readonly string[]): Mark[] =>
  texts.map((text, i) => ({
    layer: 'ROOM TEXT',
    shape: 'text',
    at: [x, y + ((texts.length - 1) / 2 - i) * textHeight * lineFeed],
    height: textHeight,
    text,
  }));

/** A door's leaves, where it is known how they hang; else the outline of the opening. */
function signOf(layer: Filling['kind'], points: Point[], swing: Filling['swing']): Mark[] {
  if (layer === 'WINDOW' || swing === null) return [{ layer, shape: 'line', points, closed: true }];
  return leavesOf(points, swing).flatMap(({ hinge, end, radius, from, to }): Mark[] => [
    { layer, shape: 'line', points: [hinge, end], closed: false },
    { layer, shape: 'arc', centre: hinge, radius, from, to },
  ]);
}

/** From one line of a text to the next, of its height. */
const lineFeed = 1.6;

/** Corners of a circle of chords are equally far from its middle within this, metres. */
const oneRadius = 2e-5;
/** Chords were points of their arc before 32 bits rounded them; a body's are as coarse as its writer made them. */
const exact = { onCircle: oneRadius, sagitta: Infinity };
/** A circle has at least so many chords. */
const fewestChords = 16;

/** A circle where a ring of chords is one, else its line, with arcs where runs of chords are. */
function roundOr(layer: string, points: Point[], closed: boolean): Mark {
  const line: Mark = { layer, shape: 'line', ...withArcs(points, closed, exact), closed };
  if (!closed || points.length < fewestChords) return line;
  const sum = points.reduce(([x, y], p) => [x + p[0], y + p[1]], [0, 0]);
  const centre: Point = [sum[0] / points.length, sum[1] / points.length];
  const radii = points.map(([x, y]) => Math.hypot(x - centre[0], y - centre[1]));
  const [least, most] = [Math.min(...radii), Math.max(...radii)];
  return most - least > oneRadius ? line : { layer, shape: 'circle', centre, radius: most };
}
