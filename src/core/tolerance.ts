/** The named tolerances that travel through the computations. Lengths in metres, angles in radians. */
export interface Tolerance {
  /** Points closer than this are one point. */
  coincidence: number;
  /** Loose line ends closer than this are meant to meet. */
  gap: number;
  /** A direction this close to its family's direction is meant to be parallel. */
  offAxis: number;
  /** Sizes are rounded to a multiple of this. */
  roundingModule: number;
  /** A size further than this from its rounded size keeps its raw value. */
  rounding: number;
  /** Pieces of a broken or dashed grid line are joined across gaps up to this length. */
  gridGap: number;
  /** A column this close to a grid crossing is meant to stand on it. */
  crossing: number;
}

export const defaultTolerance: Tolerance = {
  coincidence: 0.001,
  gap: 0.02,
  offAxis: (0.3 * Math.PI) / 180,
  roundingModule: 0.005,
  rounding: 0.0025,
  gridGap: 1.5,
  crossing: 0.025,
};
