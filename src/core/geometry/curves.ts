import type { Point } from './vector';

/** A spline by its knots and control points (as x y), with weights where it is rational, or by the points it passes. */
export interface SplineData {
  degree: number;
  closed: boolean;
  knots: number[];
  controls: number[];
  weights: number[];
  fits: number[];
}

type Curve = (t: number) => Point;

/** A curve is halved at most this often between two of its breaks. */
const deepest = 9;

/**
 * Points along a curve so that no chord leaves it by more than the sagitta, the first left out and the last given.
 * Each part between two breaks is halved until its points at a quarter, a half and three quarters lie within the
 * sagitta.
 * @param breaks parameters in their order, at which the curve may bend sharply
 */
export function alongCurve(curve: Curve, breaks: readonly number[], sagitta: number, visit: (p: Point) => void): void {
  const part = (a: number, pa: Point, b: number, pb: Point, depth: number) => {
    const middle = (a + b) / 2;
    if (depth < deepest) {
      const far = [0.25, 0.5, 0.75].some((t) => away(curve(a + (b - a) * t), pa, pb) > sagitta);
      if (far) {
        const pm = curve(middle);
        part(a, pa, middle, pm, depth + 1);
        part(middle, pm, b, pb, depth + 1);
        return;
      }
    }
    visit(pb);
  };
  for (let i = 0; i + 1 < breaks.length; i += 1)
    part(breaks[i], curve(breaks[i]), breaks[i + 1], curve(breaks[i + 1]), 0);
}

function away(p: Point, a: Point, b: Point): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.min(1, Math.max(0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / square));
  return Math.hypot(p[0] - a[0] - t * dx, p[1] - a[1] - t * dy);
}

/** Quarter turns between two angles, for `alongCurve`. */
export function quarters(start: number, end: number): number[] {
  const count = Math.max(1, Math.ceil(Math.abs(end - start) / (Math.PI / 2) - 1e-9));
  return Array.from({ length: count + 1 }, (_, i) => start + ((end - start) * i) / count);
}

/**
 * A spline as a curve with its breaks: by its control points (de Boor's algorithm, rational where it has weights; Piegl
 * and
 * Tiller, The NURBS Book, 1997, chapter 4), else through its fit points as a natural cubic spline over their chord
 * lengths.
 */
export function splineCurve(data: SplineData): { curve: Curve; breaks: number[] } | null {
  return data.controls.length > 0 ? byControls(data) : throughPoints(data.fits, data.closed);
}

function byControls({ degree, knots, controls, weights }: SplineData): { curve: Curve; breaks: number[] } | null {
  const count = controls.length / 2;
  const [low, high] = [knots[degree], knots[count]];
  if (!(high > low)) return null;
  for (let i = 1; i < knots.length; i += 1) if (!(knots[i] >= knots[i - 1])) return null;
  const d = new Float64Array((degree + 1) * 3);
  const curve = (t: number): Point => {
    let span = degree;
    while (span < count - 1 && t >= knots[span + 1]) span += 1;
    for (let j = 0; j <= degree; j += 1) {
      const i = span - degree + j;
      const w = weights.length > 0 ? weights[i] : 1;
      d[3 * j] = controls[2 * i] * w;
      d[3 * j + 1] = controls[2 * i + 1] * w;
      d[3 * j + 2] = w;
    }
    for (let r = 1; r <= degree; r += 1) {
      for (let j = degree; j >= r; j -= 1) {
        const i = span - degree + j;
        const width = knots[i + degree - r + 1] - knots[i];
        const share = width === 0 ? 0 : (t - knots[i]) / width;
        for (let k = 0; k < 3; k += 1) d[3 * j + k] = (1 - share) * d[3 * (j - 1) + k] + share * d[3 * j + k];
      }
    }
    const w = d[3 * degree + 2];
    return [d[3 * degree] / w, d[3 * degree + 1] / w];
  };
  const breaks = [...new Set(knots.slice(degree, count + 1))];
  // Halved once: a symmetrical wave would otherwise look straight at all points tried.
  return { curve, breaks: breaks.flatMap((t, i) => (i === 0 ? [t] : [(breaks[i - 1] + t) / 2, t])) };
}

function throughPoints(fits: readonly number[], closed: boolean): { curve: Curve; breaks: number[] } | null {
  const points: Point[] = [];
  for (let i = 0; i < fits.length; i += 2) {
    const last = points[points.length - 1];
    if (!last || last[0] !== fits[i] || last[1] !== fits[i + 1]) points.push([fits[i], fits[i + 1]]);
  }
  if (closed && points.length > 2) points.push(points[0]);
  if (points.length < 2) return null;
  const breaks = [0];
  for (let i = 1; i < points.length; i += 1)
    breaks.push(breaks[i - 1] + Math.hypot(points[i][0] - points[i - 1][0], points[i][1] - points[i - 1][1]));
  const second = [0, 1].map((axis) =>
    naturalSecondDerivatives(
      breaks,
      points.map((p) => p[axis]),
    ),
  );
  const curve = (t: number): Point => {
    let i = 0;
    while (i < points.length - 2 && t > breaks[i + 1]) i += 1;
    const h = breaks[i + 1] - breaks[i];
    const [a, b] = [(breaks[i + 1] - t) / h, (t - breaks[i]) / h];
    const value = (axis: 0 | 1) =>
      a * points[i][axis] +
      b * points[i + 1][axis] +
      (((a ** 3 - a) * second[axis][i] + (b ** 3 - b) * second[axis][i + 1]) * h * h) / 6;
    return [value(0), value(1)];
  };
  return { curve, breaks };
}

/**
 * Second derivatives of the natural cubic spline through values at places (Thomas's algorithm on its tridiagonal
 * system).
 */
function naturalSecondDerivatives(at: readonly number[], values: readonly number[]): number[] {
  const n = at.length;
  const [upper, right, second] = [
    new Array<number>(n).fill(0),
    new Array<number>(n).fill(0),
    new Array<number>(n).fill(0),
  ];
  for (let i = 1; i < n - 1; i += 1) {
    const [h0, h1] = [at[i] - at[i - 1], at[i + 1] - at[i]];
    const pivot = 2 * (h0 + h1) - h0 * upper[i - 1];
    upper[i] = h1 / pivot;
    right[i] = (6 * ((values[i + 1] - values[i]) / h1 - (values[i] - values[i - 1]) / h0) - h0 * right[i - 1]) / pivot;
  }
  for (let i = n - 2; i > 0; i -= 1) second[i] = right[i] - upper[i] * second[i + 1];
  return second;
}
