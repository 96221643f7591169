import { radians } from '@/core/geometry/vector';
import { intensityAt, type Direction } from './intensity';
import type { Photometry } from './readIes';

/** Angles are looked at in steps of so many degrees. */
const step = 0.5;

/**
 * How wide the beam is in a plane, degrees: between the angles on both sides at which the intensity has fallen to half
 * of the greatest in that plane (CIE 121); null where it has not on one of them, or there is no light.
 * @param plane degrees, counter-clockwise from the 0 degree half-plane
 */
export function beamAngle(photometry: Photometry, plane: number): number | null {
  const at = (angle: number): number => {
    const [out, up] = [Math.sin(radians(angle)), -Math.cos(radians(angle))];
    const direction: Direction = [out * Math.cos(radians(plane)), out * Math.sin(radians(plane)), up];
    return intensityAt(photometry, direction);
  };
  let [peak, most] = [0, 0];
  for (let angle = -180; angle < 180; angle += step) {
    const value = at(angle);
    if (value > most * (1 + 1e-9)) [peak, most] = [angle, value];
  }
  if (most === 0) return null;
  const sides = [-1, 1].map((way) => {
    for (let away = step; away < 180; away += step) {
      const [before, here] = [at(peak + way * (away - step)), at(peak + way * away)];
      if (here < most / 2) return away - step + (step * (before - most / 2)) / (before - here);
    }
    return null;
  });
  const [left, right] = sides;
  return left === null || right === null ? null : left + right;
}
