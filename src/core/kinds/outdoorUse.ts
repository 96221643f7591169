/**
 * What a surface outside is, in words; what it asks of the light on it, lux and uniformity (EN 12464-2:2014, table 5.1:
 * walkways, regular traffic up to 40 km/h, places of turning and loading); and the share of the light that it throws
 * back, usual values of asphalt, paving, concrete, grass and boards.
 */
export const outdoorUses = {
  road: { word: 'road', light: { lux: 20, uniformity: 0.4 }, reflectance: 0.1 },
  path: { word: 'path', light: { lux: 5, uniformity: 0.25 }, reflectance: 0.25 },
  apron: { word: 'apron, loading', light: { lux: 50, uniformity: 0.4 }, reflectance: 0.3 },
  grass: { word: 'grass', light: null, reflectance: 0.15 },
  fence: { word: 'fence', light: null, reflectance: 0.3 },
} as const;

export type OutdoorUse = keyof typeof outdoorUses;
export const outdoorUseNames = Object.keys(outdoorUses) as OutdoorUse[];

/** The use that a word names; undefined where it names none. */
export const outdoorUseOf = (name: string | undefined): OutdoorUse | undefined =>
  outdoorUseNames.find((one) => one === name);

/** What a surface says of itself, where it does. */
interface Said {
  use?: string;
  reflectance?: number;
  lux?: number;
}

const usual = ({ use }: Said) => {
  const known = outdoorUseOf(use);
  return known === undefined ? null : outdoorUses[known];
};

/** The light that a surface asks for, lux; null where nothing is asked. */
export const outdoorLux = (surface: Said): number | null => surface.lux ?? usual(surface)?.light?.lux ?? null;

/** The share of the light that a surface throws back; null where it is not known. */
export const outdoorReflectance = (surface: Said): number | null =>
  surface.reflectance ?? usual(surface)?.reflectance ?? null;

/** How even the light on a surface has to be where nothing says it. */
const leastEven = 0.25;

/** What a surface asks of its light; null where nothing is asked. */
export function outdoorTarget(surface: Said): { lux: number; uniformity: number } | null {
  const lux = outdoorLux(surface);
  return lux === null || lux === 0 ? null : { lux, uniformity: usual(surface)?.light?.uniformity ?? leastEven };
}
