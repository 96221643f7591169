import { radians } from '@/core/geometry/vector';

/**
 * The monthly climate of an invented place on a northern coast: means of the air, degrees Celsius, 9 over the year, and
 * the sun on a level surface and on walls to south, to east or west, and to north, W/m2, of about 54 degrees north.
 */
export const climate = {
  name: 'Marram Point, an invented place',
  annual: 9,
  air: [1.5, 1.9, 4.4, 7.8, 11.8, 15, 17.1, 16.9, 13.8, 9.6, 5.5, 2.7],
  level: [25, 50, 95, 155, 200, 215, 205, 170, 120, 68, 32, 20],
  south: [45, 75, 100, 120, 120, 115, 117, 122, 115, 92, 55, 40],
  aside: [17, 33, 60, 90, 112, 118, 114, 98, 72, 43, 21, 13],
  north: [10, 20, 34, 50, 66, 75, 70, 56, 40, 25, 13, 9],
} as const;

/** What the months of a place are like: means of the air, degrees, and the sun on surfaces that look so, W/m2. */
export interface Climate {
  air: readonly number[];
  level: readonly number[];
  south: readonly number[];
  aside: readonly number[];
  north: readonly number[];
}

/** The months of a place: its own values where they are said, else those of the invented one, as warm as the place. */
export function climateOf(said: Partial<Climate> | undefined, annual: number): Climate {
  const own = (key: keyof Climate): readonly number[] | null => (said?.[key]?.length === 12 ? said[key] : null);
  return {
    air: own('air') ?? climate.air.map((value) => value + annual - climate.annual),
    level: own('level') ?? climate.level,
    south: own('south') ?? climate.south,
    aside: own('aside') ?? climate.aside,
    north: own('north') ?? climate.north,
  };
}

/** Hours of the months of a year. */
export const monthHours: readonly number[] = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31].map((days) => 24 * days);

/**
 * The sun on a surface in a month, W/m2: on walls between the four ways by the square of the cosine, on slopes between
 * level and upright by the tilt.
 * @param orientation degrees clockwise from north
 * @param tilt degrees: 0 looks up, 90 stands; what looks down gets what falls on the north
 */
export function sunOn(of: Climate, month: number, orientation: number, tilt: number): number {
  if (tilt > 90) return of.north[month] / 2;
  const towards = Math.cos(radians(orientation));
  const main = towards < 0 ? of.south[month] : of.north[month];
  const upright = towards ** 2 * main + (1 - towards ** 2) * of.aside[month];
  return of.level[month] + (tilt / 90) * (upright - of.level[month]);
}
