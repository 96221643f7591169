import type { Ray } from '@/core/bodies/ray';
import type { Size } from '../camera';

/**
 * How the model is looked at in space: turned about the upright, tilted from above, about a point, at a scale. Angles
 * in radians, lengths in metres.
 */
export interface Orbit {
  turn: number;
  tilt: number;
  x: number;
  y: number;
  z: number;
  metresPerPixel: number;
}

type Row = [number, number, number, number];
type Direction = [number, number, number];

/** From straight above to level. */
const [flattest, steepest] = [0, Math.PI / 2];
/** A pixel of a drag turns by this much, radians. */
const turnPerPixel = 0.008;

/** Looks that have a name. North is up in the plan: from the south one looks along y. */
export const standardViews = {
  above: { words: 'From above', turn: 0, tilt: steepest },
  south: { words: 'From the south', turn: 0, tilt: 0 },
  east: { words: 'From the east', turn: Math.PI / 2, tilt: 0 },
  north: { words: 'From the north', turn: Math.PI, tilt: 0 },
  west: { words: 'From the west', turn: -Math.PI / 2, tilt: 0 },
  askew: { words: 'At an angle', turn: 0.5, tilt: 0.55 },
} as const;
export type StandardView = keyof typeof standardViews;
export const standardViewNames = Object.keys(standardViews) as StandardView[];

export function orbitBy(orbit: Orbit, dx: number, dy: number): Orbit {
  return {
    ...orbit,
    turn: orbit.turn - dx * turnPerPixel,
    tilt: Math.min(steepest, Math.max(flattest, orbit.tilt + dy * turnPerPixel)),
  };
}

/** The screen's directions in space: to the right, up, and towards who looks. */
function directions({ turn, tilt }: Orbit): { right: Direction; up: Direction; towards: Direction } {
  const [c, s, ce, se] = [Math.cos(turn), Math.sin(turn), Math.cos(tilt), Math.sin(tilt)];
  return { right: [c, s, 0], up: [-s * se, c * se, ce], towards: [s * ce, -c * ce, se] };
}

/** Moves what is seen by pixels. */
export function slideBy(orbit: Orbit, dx: number, dy: number): Orbit {
  const { right, up } = directions(orbit);
  const [across, along] = [-dx * orbit.metresPerPixel, dy * orbit.metresPerPixel];
  const moved = (axis: number): number => right[axis] * across + up[axis] * along;
  return { ...orbit, x: orbit.x + moved(0), y: orbit.y + moved(1), z: orbit.z + moved(2) };
}

export const nearerBy = (orbit: Orbit, factor: number): Orbit => ({
  ...orbit,
  metresPerPixel: Math.min(1e4, Math.max(1e-4, orbit.metresPerPixel / factor)),
});

/** A look in parallel projection: screen x, y and depth are these four numbers times x, y, z, 1 of a point. */
export interface Projection {
  toX: Row;
  toY: Row;
  toZ: Row;
}

/**
 * The parallel projection of a look: screen x and y from -1 to 1, depth from -1, near, to 1.
 * @param reach how far from the point that is looked at something may be, metres
 */
export function projectionOf(orbit: Orbit, { width, height }: Size, reach: number): Projection {
  const { x, y, z, metresPerPixel } = orbit;
  const { right, up, towards } = directions(orbit);
  const row = (axis: Direction, k: number): Row => [
    axis[0] * k,
    axis[1] * k,
    axis[2] * k,
    -(axis[0] * x + axis[1] * y + axis[2] * z) * k,
  ];
  return {
    toX: row(right, 2 / (width * metresPerPixel)),
    toY: row(up, 2 / (height * metresPerPixel)),
    toZ: row(towards, -1 / reach),
  };
}

/** The straight look through a pixel, from well before everything within reach. */
export function rayThrough(
  orbit: Orbit,
  { width, height }: Size,
  [px, py]: readonly [number, number],
  reach: number,
): Ray {
  const { right, up, towards } = directions(orbit);
  const [across, along] = [(px - width / 2) * orbit.metresPerPixel, (height / 2 - py) * orbit.metresPerPixel];
  const { x, y, z } = orbit;
  const at = (axis: number, middle: number): number =>
    middle + right[axis] * across + up[axis] * along + towards[axis] * reach;
  return { from: [at(0, x), at(1, y), at(2, z)], along: [-towards[0], -towards[1], -towards[2]] };
}

/** The space that a box takes: minX, minY, minZ, maxX, maxY, maxZ. */
export type SpaceBox = readonly [number, number, number, number, number, number];

/** The look in a direction that shows a box whole. */
export function lookAtBox(box: SpaceBox, size: Size, { turn, tilt }: Pick<Orbit, 'turn' | 'tilt'>): Orbit {
  const orbit: Orbit = {
    turn,
    tilt,
    x: (box[0] + box[3]) / 2,
    y: (box[1] + box[4]) / 2,
    z: (box[2] + box[5]) / 2,
    metresPerPixel: 1,
  };
  const { toX, toY } = projectionOf(orbit, size, 1);
  let reach = 0;
  for (let corner = 0; corner < 8; corner += 1) {
    const [px, py, pz] = [box[corner & 1 ? 3 : 0], box[corner & 2 ? 4 : 1], box[corner & 4 ? 5 : 2]];
    for (const row of [toX, toY]) reach = Math.max(reach, Math.abs(row[0] * px + row[1] * py + row[2] * pz + row[3]));
  }
  return { ...orbit, metresPerPixel: Math.max(1e-4, reach * 1.12) };
}
