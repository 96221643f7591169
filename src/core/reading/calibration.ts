import type { Candidate } from './candidate';

/** From the weight of evidence to a probability: its log-odds are `base` + `slope` times the weight. */
export interface Calibration {
  base: number;
  slope: number;
}

/** Fitted by `./run bench calibrate`; slabs, outdoor surfaces, luminaires and contours are in none of its plans. */
export const calibrations: Record<Candidate['kind'], Calibration> = {
  grid: { base: -0.026, slope: 1.655 },
  column: { base: -0.597, slope: 2 },
  beam: { base: 1.442, slope: 2 },
  wall: { base: -0.629, slope: 2 },
  opening: { base: 3.2, slope: 1.368 },
  slab: { base: 0, slope: 1 },
  zone: { base: -2.231, slope: 2 },
  outdoor: { base: 0, slope: 1 },
  luminaire: { base: 0, slope: 1 },
  contour: { base: 0, slope: 1 },
};
