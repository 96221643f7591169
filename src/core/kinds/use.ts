/** What floors are used for, by the categories of EN 1991-1-1 tables 6.1, 6.3 and 6.9. */
export const useWords = {
  A: 'homes, bedrooms, wards',
  B: 'offices, laboratories',
  C1: 'tables: mess, reading room, school',
  C2: 'fixed seats: hall, waiting room',
  C3: 'people moving freely: gallery, stair',
  C4: 'bodily activity: gymnasium, stage',
  C5: 'crowds',
  D1: 'shops',
  D2: 'department stores',
  E1: 'storage, plant',
  F: 'vehicles to 30 kN',
  G: 'vehicles to 160 kN',
  H: 'roofs for upkeep only',
} as const;

/** A category of use. */
export type Use = keyof typeof useWords;
export const uses = Object.keys(useWords) as Use[];
