import type { Point } from '@/core/geometry/vector';

/**
 * Something measured in a drawing: how long, in drawing units, and where, in the drawing's coordinates; in which block,
 * and its other side, where
 * these matter.
 */
export interface Observation {
  value: number;
  at: Point;
  block?: number;
  other?: number;
}

/** Observations of one kind, and how long such things are in buildings. */
export interface SizeCue {
  cue: string;
  observations: Observation[];
  /** Usual length in metres, and the spread of its natural logarithm. */
  usual: number;
  spread: number;
}

/**
 * A share of what looks like a door, a wall or a stair is something else, of any size: this much, over some five powers
 * of ten.
 */
const mistaken = 0.04;

/**
 * The logarithm of how likely a length is for a thing of usual size: log-normal, with a floor for what was mistaken for
 * it.
 * @param metres the length, if the unit were the one tried
 */
export function logLikelihood(metres: number, usual: number, spread: number): number {
  const z = Math.log(metres / usual) / spread;
  return Math.log(
    ((1 - mistaken) * Math.exp((-z * z) / 2)) / (spread * Math.sqrt(2 * Math.PI)) + mistaken / Math.log(1e5),
  );
}

/** Observations of one kind mostly repeat one another: ten of them count like three. */
export const effectiveCount = (n: number): number => Math.sqrt(Math.min(n, 16));

/** The middle of some numbers; NaN of none. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted.length === 0 ? NaN : sorted[sorted.length >> 1];
}
