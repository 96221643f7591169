import type { Candidate } from './candidate';

/** From the weight of evidence to a probability: its log-odds are `base` + `slope` times the weight. */
export interface Calibration {
  base: number;
  slope: number;
}

/** Fitted by `./run bench calibrate`; slabs, outdoor surfaces, luminaires and contours are in none of its plans. */
export const calibrations: Record<Candidate['kind'], Calibration> = {
  grid: { base: -0.273, slope: 1.871 },
  column: { base: 0.223, slope: 2 },
  beam: { base: 1.453, slope: 2 },
  wall: { base: -0.611, slope: 2 },
  opening: { base: 4.255, slope: 0.823 },
  slab: { base: 0, slope: 1 },
  zone: { base: -2.42, slope: 2 },
  outdoor: { base: 0, slope: 1 },
  luminaire: { base: 0, slope: 1 },
  contour: { base: 0, slope: 1 },
};
