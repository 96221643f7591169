import { radians, type Point } from '@/core/geometry/vector';
import { middleOfBeam } from '@/core/kinds/beam';
import { sectionOutlines, sectionSize } from '@/core/kinds/section';
import type { PlacedBeam } from '@/core/resolved/building';
import type { Place, Shell } from './shell';

type Direction = readonly [number, number, number];

const crossed = (a: Direction, b: Direction): Direction => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** Where a member runs: its ends in space, and the directions of its section's width and depth, of length one. */
export interface MemberFrame {
  start: Place;
  end: Place;
  across: Direction;
  upward: Direction;
}

/**
 * The directions of a section's width and depth along a member's axis, of length one: the width lies level and to the
 * left, the depth upward, both turned by an angle in degrees; of an upright member the width lies along x.
 */
export function sectionAxes(x: Direction, angle: number): { level: Direction; across: Direction; upward: Direction } {
  const plan = Math.hypot(x[0], x[1]);
  const level: Direction = plan < 1e-9 ? [1, 0, 0] : [-x[1] / plan, x[0] / plan, 0];
  const steep = crossed(x, level);
  const [c, s] = [Math.cos(radians(angle)), Math.sin(radians(angle))];
  const mixed = (a: number, b: number): Direction => [
    a * level[0] + b * steep[0],
    a * level[1] + b * steep[1],
    a * level[2] + b * steep[2],
  ];
  return { level, across: mixed(c, s), upward: mixed(-s, c) };
}

/**
 * The frame of a member along its axis, which is the line that it is drawn on at the heights of its tops, in the middle
 * of its width. The section's width lies level and to the left, seen from its start, its depth upward, both turned by
 * its angle; of an upright member the width lies along x. Null of one without length.
 */
export function memberFrame({ shape, startTop, endTop }: PlacedBeam): MemberFrame | null {
  const [from, to] = middleOfBeam(shape);
  const start: Place = [from[0], from[1], startTop];
  const end: Place = [to[0], to[1], endTop];
  const along: Direction = [end[0] - start[0], end[1] - start[1], end[2] - start[2]];
  const length = Math.hypot(...along);
  if (length === 0) return null;
  const x: Direction = [along[0] / length, along[1] / length, along[2] / length];
  const { across, upward } = sectionAxes(x, shape.angle ?? 0);
  return { start, end, across, upward };
}

/** A beam's body hangs below its line, a brace's and a truss member's lies about it; the axis is the line. */
export function addMember(shell: Shell, beam: PlacedBeam): void {
  const frame = memberFrame(beam);
  if (frame === null) return;
  const { start, end, across, upward } = frame;
  const below = (beam.shape.use ?? 'beam') === 'beam' ? -sectionSize(beam.shape.section).depth / 2 : 0;
  const around =
    (at: Place) =>
    ([u, v]: Point): Place => [
      at[0] + u * across[0] + (v + below) * upward[0],
      at[1] + u * across[1] + (v + below) * upward[1],
      at[2] + u * across[2] + (v + below) * upward[2],
    ];
  // Left, up and along are a right-handed system.
  shell.sweep(sectionOutlines(beam.shape.section), around(start), around(end));
  shell.axis(start, end);
}
