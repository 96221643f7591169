import { fail, ok, type Result } from '@/core/result';
import { degrees, radians } from '@/core/geometry/vector';
import { formatNumber } from './length';

/**
 * How the direction of a line is said: counter-clockwise from the project's east, or clockwise from its north as
 * surveyors do.
 */
export const angleConventions = ['east', 'north'] as const;
export type AngleConvention = (typeof angleConventions)[number];

export const conventionWords: Record<AngleConvention, string> = {
  east: 'counter-clockwise from east',
  north: 'clockwise from north',
};

const turned = (value: number) => ((value % 360) + 360) % 360;

/**
 * Writes a direction in degrees.
 * @param angle radians, counter-clockwise from +x
 */
export function formatDirection(angle: number, convention: AngleConvention, places = 2): string {
  const value = turned(convention === 'east' ? degrees(angle) : 90 - degrees(angle));
  // What rounds to a full turn is none.
  return `${formatNumber(Number(value.toFixed(places)) === 360 ? 0 : value, places)}\u00b0`;
}

/** Writes an angle between two lines. @param angle radians */
export const formatAngle = (angle: number, places = 2): string => `${formatNumber(degrees(angle), places)}\u00b0`;

/** Reads a typed direction. @returns radians, counter-clockwise from +x */
export function parseDirection(text: string, convention: AngleConvention): Result<number> {
  const angle = parseAngle(text);
  return angle.ok ? ok(convention === 'east' ? angle.value : Math.PI / 2 - angle.value) : angle;
}

/**
 * Reads a typed angle in degrees, as a decimal or with minutes and seconds: `17`, `-12,5`, `12\u00b0 30' 15"`.
 * @returns radians
 */
export function parseAngle(text: string): Result<number> {
  const match =
    /^([-+\u2212])?(\d+(?:[.,]\d+)?)\s*(?:\u00b0|deg)?\s*(?:(\d+(?:[.,]\d+)?)\s*['\u2032]\s*(?:(\d+(?:[.,]\d+)?)\s*["\u2033])?)?$/.exec(
      text.trim(),
    );
  if (!match)
    return fail(`"${text.trim()}" is not an angle. Type degrees, for example 17, \u221212.5 or 12\u00b0 30'.`);
  const part = (value: string | undefined) => Number((value ?? '0').replace(',', '.'));
  const [minutes, seconds] = [part(match[3]), part(match[4])];
  if (minutes >= 60 || seconds >= 60)
    return fail(`"${text.trim()}" has 60 or more minutes or seconds; type fewer than 60 of each.`);
  const value = part(match[2]) + minutes / 60 + seconds / 3600;
  return ok(radians(match[1] === undefined || match[1] === '+' ? value : -value));
}
