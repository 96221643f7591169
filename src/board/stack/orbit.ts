import type { Size } from '../camera';

/**
 * How the stack is looked at: turned about the upright, tilted from above, about a point, at a scale. Angles in
 * radians, lengths in metres.
 */
export interface Orbit {
  turn: number;
  tilt: number;
  x: number;
  y: number;
  z: number;
  metresPerPixel: number;
}

/** From steeply above to almost level. */
const [flattest, steepest] = [0.08, Math.PI / 2];

export function orbitBy(orbit: Orbit, dx: number, dy: number): Orbit {
  return {
    ...orbit,
    turn: orbit.turn - dx * 0.008,
    tilt: Math.min(steepest, Math.max(flattest, orbit.tilt + dy * 0.008)),
  };
}

/** Moves what is seen by pixels. */
export function slideBy(orbit: Orbit, dx: number, dy: number): Orbit {
  const [c, s] = [Math.cos(orbit.turn), Math.sin(orbit.turn)];
  // To the right on the screen is along the turned x axis; up is along the turned y axis as far as it is not
  // foreshortened.
  const [right, up] = [-dx * orbit.metresPerPixel, (dy * orbit.metresPerPixel) / Math.max(0.25, Math.sin(orbit.tilt))];
  return { ...orbit, x: orbit.x + c * right - s * up, y: orbit.y + s * right + c * up };
}

export const nearerBy = (orbit: Orbit, factor: number): Orbit => ({
  ...orbit,
  metresPerPixel: Math.min(1e4, Math.max(1e-4, orbit.metresPerPixel / factor)),
});

/**
 * The parallel projection: screen x and y, both from -1 to 1, are these four numbers times x, y, z, 1 of a point.
 * The screen's axes are right = (cos t, sin t, 0) and up = (-sin t sin e, cos t sin e, cos e) for the turn t and the
 * tilt e.
 */
export function projectionOf(
  { turn, tilt, x, y, z, metresPerPixel }: Orbit,
  { width, height }: Size,
): { toX: [number, number, number, number]; toY: [number, number, number, number] } {
  const [kx, ky] = [2 / (width * metresPerPixel), 2 / (height * metresPerPixel)];
  const right = [Math.cos(turn), Math.sin(turn), 0];
  const up = [-Math.sin(turn) * Math.sin(tilt), Math.cos(turn) * Math.sin(tilt), Math.cos(tilt)];
  const row = (axis: number[], k: number): [number, number, number, number] => [
    axis[0] * k,
    axis[1] * k,
    axis[2] * k,
    -(axis[0] * x + axis[1] * y + axis[2] * z) * k,
  ];
  return { toX: row(right, kx), toY: row(up, ky) };
}

/** The look that shows a box from above at an angle. @param box minX, minY, minZ, maxX, maxY, maxZ */
export function lookAtBox(box: readonly [number, number, number, number, number, number], size: Size): Orbit {
  const orbit: Orbit = {
    turn: 0.5,
    tilt: 0.55,
    x: (box[0] + box[3]) / 2,
    y: (box[1] + box[4]) / 2,
    z: (box[2] + box[5]) / 2,
    metresPerPixel: 1,
  };
  const { toX, toY } = projectionOf(orbit, size);
  let reach = 0;
  for (let corner = 0; corner < 8; corner += 1) {
    const [px, py, pz] = [box[corner & 1 ? 3 : 0], box[corner & 2 ? 4 : 1], box[corner & 4 ? 5 : 2]];
    for (const row of [toX, toY]) reach = Math.max(reach, Math.abs(row[0] * px + row[1] * py + row[2] * pz + row[3]));
  }
  return { ...orbit, metresPerPixel: Math.max(1e-4, reach * 1.12) };
}
