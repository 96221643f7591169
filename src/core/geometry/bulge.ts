import type { Point } from './vector';

/**
 * A circular arc between two points by its bulge, the tangent of a quarter of its included angle,
 * positive where it runs counter-clockwise (DXF reference, LWPOLYLINE group 42).
 */
export interface Arc {
  centre: Point;
  radius: number;
  /** Direction from the centre to the start, radians. */
  start: number;
  /** Included angle in radians, negative where it runs clockwise. */
  sweep: number;
}

/** No chord of a building part leaves the arc that it stands for by more than this, metres. */
export const arcSagitta = 0.001;

/** The arc from a to b with a bulge other than zero. */
export function arcOfBulge(a: Point, b: Point, bulge: number): Arc {
  const sweep = 4 * Math.atan(bulge);
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  // The centre lies on the chord's bisector, at (1 - bulge^2) / (4 bulge) chord lengths to its left.
  const offset = (1 - bulge * bulge) / (4 * bulge);
  const centre: Point = [(a[0] + b[0]) / 2 - dy * offset, (a[1] + b[1]) / 2 + dx * offset];
  const radius = (Math.hypot(dx, dy) * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
  return { centre, radius, start: Math.atan2(a[1] - centre[1], a[0] - centre[0]), sweep };
}

/** The bulge of an arc with an included angle in radians. */
export const bulgeOfSweep = (sweep: number): number => Math.tan(sweep / 4);

export const pointOnArc = (arc: Arc, t: number): Point => {
  const angle = arc.start + arc.sweep * t;
  return [arc.centre[0] + arc.radius * Math.cos(angle), arc.centre[1] + arc.radius * Math.sin(angle)];
};

/** Whether a direction from the centre (radians) falls within the arc. */
export function arcContains(arc: Arc, angle: number): boolean {
  const turn = arc.sweep >= 0 ? angle - arc.start : arc.start - angle;
  const along = turn - Math.floor(turn / (2 * Math.PI)) * 2 * Math.PI;
  return along <= Math.abs(arc.sweep) + 1e-12;
}

/**
 * In how many chords an arc is drawn so that no chord leaves it by more than the sagitta.
 * s = r (1 - cos(step / 2)) solved for the step.
 */
export function chordCount(radius: number, sweep: number, sagitta: number): number {
  if (!(radius > 0) || !(sagitta > 0)) return 1;
  const step = sagitta >= radius ? Math.PI / 2 : 2 * Math.acos(1 - sagitta / radius);
  return Math.min(720, Math.max(1, Math.ceil(Math.abs(sweep) / Math.min(step, Math.PI / 4))));
}
