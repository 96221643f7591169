import { directAt, type Lamp } from './luminaires';
import { illuminances } from './radiosity';
import { isFar, type LitRoom, type Patch } from './room';

/** The light that reaches a room's surfaces and that of its luminaires differ by less than this share. */
export const lightAgrees = 0.1;

/** What luminaires give to a room's surfaces. */
export interface RoomLight {
  /** Lumens of the luminaires, and what of them reaches the patches' points directly. */
  flux: number;
  reached: number;
  /** The illuminance of each patch with all that is thrown to and fro, lux. */
  total: Float64Array;
}

/** The light of a room's surfaces. @param exchange between its patches, as `exchanges` has it */
export function lightOf(lit: LitRoom, lamps: readonly Lamp[], exchange: () => Float64Array): RoomLight {
  const { patches } = lit;
  const flux = lamps.reduce((sum, lamp) => sum + lamp.flux, 0);
  if (flux === 0) return { flux, reached: 0, total: new Float64Array(patches.length) };
  const direct = Float64Array.from(patches, (patch) =>
    lamps.reduce((sum, lamp) => sum + onPatch(lamp, patch, lit.sees), 0),
  );
  const reached = patches.reduce((sum, { area }, i) => sum + area * direct[i], 0);
  // Each patch is asked at few points: what they miss is shared out, so that no light is lost.
  const even = reached > 0 && Math.abs(reached / flux - 1) <= lightAgrees ? flux / reached : 1;
  const total = illuminances(
    lit,
    exchange(),
    direct.map((value) => value * even),
  );
  return { flux, reached, total };
}

/** The mean direct illuminance of a patch: at its middle from afar, else at its points. */
function onPatch(lamp: Lamp, patch: Patch, sees: LitRoom['sees']): number {
  const at = isFar(lamp.position, patch) ? [patch.centre] : patch.samples;
  return at.reduce((sum, p) => sum + directAt(lamp, p, patch.normal, sees), 0) / at.length;
}
