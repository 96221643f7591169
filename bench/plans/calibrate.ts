import type { Calibration } from '@/core/reading/calibration';
import type { Judged } from './score';

/** Candidates that were said to be about as sure: the mean of what was said, and the share that was right. */
interface Bin {
  said: number;
  right: number;
  count: number;
}

/** Where bins begin: finer where most candidates are. */
const bounds = [0, 0.5, 0.7, 0.8, 0.9, 0.95, 0.98, 0.995, 1.000001];

/**
 * How what was said compares with what was right. The error is the expected calibration error: the mean difference, by
 * candidates (Naeini, Cooper and Hauskrecht 2015).
 */
export function reliabilityOf(judged: readonly Judged[]): { bins: Bin[]; error: number } {
  const mean = (list: readonly number[]) => list.reduce((sum, value) => sum + value, 0) / list.length;
  const bins = bounds.slice(1).flatMap((to, i): Bin[] => {
    const own = judged.filter(({ confidence }) => confidence >= bounds[i] && confidence < to);
    if (own.length === 0) return [];
    const said = mean(own.map(({ confidence }) => confidence));
    return [{ said, right: mean(own.map(({ right }) => right)), count: own.length }];
  });
  const off = bins.reduce((sum, { said, right, count }) => sum + count * Math.abs(said - right), 0);
  return { bins, error: judged.length === 0 ? 0 : off / judged.length };
}

/**
 * Newton's steps to the fit; how strongly it is held to what was said before, as by so many candidates; and how much
 * less or more than before evidence may count: what these plans do not show is not unlearned from them.
 */
const fitting = { steps: 60, held: 2, slope: { least: 0.5, most: 2 } };

/**
 * Logistic regression of right or wrong on the weight of evidence (Platt 1999), by Newton's method, held a little to
 * the weights as they are so that a kind without errors stays finite.
 */
export function fitted(judged: readonly Judged[]): Calibration {
  const free = newton(judged, { base: 0, slope: 1 }, true);
  const slope = Math.min(fitting.slope.most, Math.max(fitting.slope.least, free.slope));
  const { base } = slope === free.slope ? free : newton(judged, { base: 0, slope }, false);
  return { base: Number(base.toFixed(3)), slope: Number(slope.toFixed(3)) };
}

/** @param both whether the slope is fitted too, or the base alone */
function newton(judged: readonly Judged[], from: Calibration, both: boolean): Calibration {
  let { base, slope } = from;
  for (let step = 0; step < fitting.steps; step += 1) {
    let [g0, g1] = [-fitting.held * base, -fitting.held * (slope - 1)];
    let [h00, h01, h11] = [fitting.held, 0, fitting.held];
    for (const { weight, right } of judged) {
      const p = 1 / (1 + Math.exp(-base - slope * weight));
      const [off, spread] = [right - p, p * (1 - p)];
      g0 += off;
      g1 += off * weight;
      h00 += spread;
      h01 += spread * weight;
      h11 += spread * weight * weight;
    }
    const determinant = h00 * h11 - h01 * h01;
    const d0 = both ? (h11 * g0 - h01 * g1) / determinant : g0 / h00;
    const d1 = both ? (h00 * g1 - h01 * g0) / determinant : 0;
    // A step is never longer than one, so that it cannot overshoot where nearly all are right.
    const share = Math.min(1, 1 / Math.hypot(d0, d1));
    base += share * d0;
    slope += share * d1;
  }
  return { base, slope };
}
