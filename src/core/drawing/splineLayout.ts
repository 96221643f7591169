import type { SplineData } from '@/core/geometry/curves';

/*
 * A spline among a row's numbers, as a SPLINE entity and a hatch's edge have it:
 *
 *   degree closed knots controls rational fits   how many of each
 *   then the knots, the control points as x y, the weights where rational, the fit points as x y
 */
/** The numbers of a spline; null where it has neither enough control points with their knots nor two fit points. */
export function splineNumbers({ degree, closed, knots, controls, weights, fits }: SplineData): number[] | null {
  const count = controls.length / 2;
  const byControls = degree >= 1 && degree <= 25 && count > degree && knots.length >= count + degree + 1;
  if (!byControls && fits.length < 4) return null;
  if (!byControls) return [3, closed ? 1 : 0, 0, 0, 0, fits.length / 2, ...fits];
  const rational =
    weights.length === count &&
    weights.every((weight) => weight > 0) &&
    weights.some((weight) => weight !== weights[0]);
  const used = knots.slice(0, count + degree + 1);
  return [
    degree,
    closed ? 1 : 0,
    used.length,
    count,
    rational ? 1 : 0,
    fits.length / 2,
    ...used,
    ...controls,
    ...(rational ? weights : []),
    ...fits,
  ];
}

/** Reads the spline at a place among numbers. @returns it and where its numbers end */
export function splineAt(numbers: Float64Array, at: number): { spline: SplineData; end: number } {
  const [degree, closed, knots, controls, rational, fits] = numbers.subarray(at, at + 6);
  let next = at + 6;
  const take = (n: number) => {
    next += n;
    return Array.from(numbers.subarray(next - n, next));
  };
  const spline: SplineData = {
    degree,
    closed: closed === 1,
    knots: take(knots),
    controls: take(2 * controls),
    weights: rational === 1 ? take(controls) : [],
    fits: take(2 * fits),
  };
  return { spline, end: next };
}
