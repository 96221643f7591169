import * as v from 'valibot';
import { direction as unit, degrees, dot, radians, type Point } from '@/core/geometry/vector';
import { areaChecks, areaOf, areaParts } from './areas';
import { length, number } from './fields';
import { metres, squareMetres } from './figures';
import type { Kind } from './kind';
import { finite, inDegrees, outline, positive, rise } from './limits';

/**
 * A roof plane over an outline in plan. Its underside lies `eaves` metres above its level where the outline is lowest,
 * and rises from there with a slope in the direction, both in degrees, the direction counter-clockwise from +x.
 */
export interface Roof {
  outline: Point[];
  eaves: number;
  slope: number;
  direction: number;
  thickness: number;
}

/** Steeper is a wall, degrees. */
const steepest = 85;

/** How far a point lies up the slope of a plane from the lowest corner of its outline, metres in plan. */
function upSlope({ outline: corners, direction }: Roof, p: Point): number {
  const up = unit(radians(direction));
  return dot(p, up) - Math.min(...corners.map((corner) => dot(corner, up)));
}

/** How high the underside of a plane lies above its level at a point in plan, metres; beyond its outline it goes on. */
export const roofHeightAt = (roof: Roof, p: Point): number =>
  roof.eaves + Math.tan(radians(roof.slope)) * upSlope(roof, p);

/** How far a plane runs from its eaves to its ridge, metres in plan. */
const runOf = (roof: Roof): number => Math.max(...roof.outline.map((corner) => upSlope(roof, corner)));

/** How high the underside of a plane lies above its level where it is highest, metres. */
export const ridgeOf = (roof: Roof): number => roof.eaves + Math.tan(radians(roof.slope)) * runOf(roof);

/** The plane with its ridge at another height: the slope follows. */
function withRidge(roof: Roof, ridge: number): Roof {
  const run = runOf(roof);
  return run > 0 && ridge >= roof.eaves ? { ...roof, slope: degrees(Math.atan2(ridge - roof.eaves, run)) } : roof;
}

export const roof: Kind<'roof'> = {
  ...areaParts,
  kind: 'roof',
  names: ['roof plane', 'roof planes'],
  schema: v.strictObject({
    outline,
    eaves: rise,
    slope: v.pipe(finite, v.minValue(0), v.maxValue(steepest)),
    direction: inDegrees,
    thickness: positive,
  }),
  roles: { own: [], from: [] },
  style: { area: true, place: 1.5 },
  standsBack: 11.6,
  move: (shape, { ring, turned, factor }) => ({
    outline: ring(shape.outline),
    eaves: shape.eaves * factor,
    slope: shape.slope,
    direction: turned(shape.direction),
    thickness: shape.thickness * factor,
  }),
  name: () => '',
  size: (shape) => `${Number(shape.slope.toFixed(1))}\u00b0, ${squareMetres(areaOf(shape))} in plan`,
  facts(shape) {
    const { slope, eaves } = shape;
    const size = squareMetres(areaOf(shape) / Math.cos(radians(slope)));
    const heights = `eaves ${metres(eaves)} and ridge ${metres(ridgeOf(shape))} above its level`;
    return `${Number(slope.toFixed(1))}\u00b0 steep, ${heights}, ${size}`;
  },
  fields: ({ eaves }) => [
    length<'roof'>('Eaves above its level', 'eaves', -Infinity),
    number<'roof'>('Slope', 'slope', { unit: '\u00b0', least: 0, most: steepest }),
    {
      label: 'Ridge above its level',
      end: true,
      kind: 'length',
      least: eaves,
      get: (shape) => (shape.outline.length === 0 ? null : ridgeOf(shape)),
      set: withRidge,
    },
    { ...number<'roof'>('Rises towards', 'direction', { unit: '\u00b0', least: -36_000, most: 36_000 }), end: true },
    length<'roof'>('Thickness', 'thickness', 0.01),
  ],
  checks: areaChecks,
};
