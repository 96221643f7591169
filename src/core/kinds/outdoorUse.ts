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
