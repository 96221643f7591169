import type { Point } from '@/core/geometry/vector';

/**
 * Lengths to a tenth of a micrometre and angles to a billionth of a degree: the noise of the last digits goes, the
 * number stays.
 */
export const tidy = (value: number): number => Number(value.toFixed(9)) + 0;

export const pair = ([x, y]: readonly [number, number]): [number, number] => [tidy(x), tidy(y)];
export const ring = (points: readonly Point[]): [number, number][] => points.map(pair);

/** Where in a drawing something came from, if it came from one. */
export type SourceField = { source?: { drawing: string; handles: string[] } };
