import type { Candidate } from './candidate';

/** From the weight of evidence to a probability: its log-odds are `base` + `slope` times the weight. */
export interface Calibration {
  base: number;
  slope: number;
}

/** Fitted by `./run bench calibrate`; slabs, outdoor surfaces, luminaires and contours are in none of its plans. */
export const calibrations: Record<Candidate['kind'], Calibration> = {
  grid: { base: -0.513, slope: 1.729 },
  column: { base: -2.194, slope: 2 },
  beam: { base: 1.453, slope: 2 },
  wall: { base: -1.141, slope: 2 },
  opening: { base: 3.285, slope: 0.5 },
  slab: { base: 0, slope: 1 },
  zone: { base: -3.392, slope: 2 },
  outdoor: { base: 0, slope: 1 },
  luminaire: { base: 0, slope: 1 },
  contour: { base: 0, slope: 1 },
};
