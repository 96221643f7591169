import type { Candidate } from './candidate';

/** From the weight of evidence to a probability: its log-odds are `base` + `slope` times the weight. */
export interface Calibration {
  base: number;
  slope: number;
}

/** Fitted by `./run bench calibrate`; slabs, outdoor surfaces, luminaires and contours are in none of its plans. */
export const calibrations: Record<Candidate['kind'], Calibration> = {
  grid: { base: -0.273, slope: 1.871 },
  column: { base: 0.062, slope: 2 },
  beam: { base: 1.453, slope: 2 },
  wall: { base: -0.553, slope: 2 },
  opening: { base: 3.955, slope: 1.134 },
  slab: { base: 0, slope: 1 },
  zone: { base: -2.391, slope: 2 },
  outdoor: { base: 0, slope: 1 },
  luminaire: { base: 0, slope: 1 },
  contour: { base: 0, slope: 1 },
};
