import { fail, ok, type Result } from '@/core/result';

/** Length units a drawing or a project can be in. */
export const lengthUnits = ['mm', 'cm', 'm', 'in', 'ft'] as const;
export type LengthUnit = (typeof lengthUnits)[number];

/** Units a length can be shown in: a drawing unit, or feet and inches with fractions. */
export const displayUnits = [...lengthUnits, 'ft-in'] as const;
export type DisplayUnit = (typeof displayUnits)[number];

/** Metres in one unit. The inch is exactly 25.4 mm (international yard and pound agreement, 1959). */
export const metresPer: Record<LengthUnit, number> = { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, ft: 0.3048 };

export const unitNames: Record<DisplayUnit, string> = {
  mm: 'millimetres',
  cm: 'centimetres',
  m: 'metres',
  in: 'inches',
  ft: 'feet',
  'ft-in': 'feet and inches',
};

/** How lengths are shown: in which unit, and how finely. */
export interface LengthStyle {
  unit: DisplayUnit;
  /**
   * Decimal places, or for feet and inches the power of two of the smallest fraction (4 is sixteenths); null is what
   * suits the unit.
   */
  places: number | null;
}

const styleFrom = (shown: DisplayUnit | LengthStyle): LengthStyle =>
  typeof shown === 'string' ? { unit: shown, places: null } : shown;

const words: Record<string, LengthUnit> = {
  mm: 'mm',
  millimetre: 'mm',
  millimetres: 'mm',
  millimeter: 'mm',
  millimeters: 'mm',
  cm: 'cm',
  centimetre: 'cm',
  centimetres: 'cm',
  centimeter: 'cm',
  centimeters: 'cm',
  m: 'm',
  metre: 'm',
  metres: 'm',
  meter: 'm',
  meters: 'm',
  in: 'in',
  inch: 'in',
  inches: 'in',
  '"': 'in',
  '\u2033': 'in',
  "''": 'in',
  ft: 'ft',
  foot: 'ft',
  feet: 'ft',
  "'": 'ft',
  '\u2032': 'ft',
};

/**
 * Header unit of a DXF (`$INSUNITS`), or null where it names none that a building is drawn in.
 * Codes 1 inches, 2 feet, 4 millimetres, 5 centimetres, 6 metres (DXF reference, header variables).
 */
export function unitOfHeader(code: number | null): LengthUnit | null {
  return ({ 1: 'in', 2: 'ft', 4: 'mm', 5: 'cm', 6: 'm' } as Record<number, LengthUnit>)[code ?? 0] ?? null;
}

/** The `$INSUNITS` code of a unit. */
export const headerCodeOf: Record<LengthUnit, number> = { in: 1, ft: 2, mm: 4, cm: 5, m: 6 };

/** One part of a typed length: a fraction with perhaps a whole before it, or a decimal; then perhaps a unit. */
const term =
  /^\s*(?:(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)|(\d+(?:[.,]\d+)?|[.,]\d+))\s*-?\s*([a-z]+|''|["'\u2032\u2033])?\s*-?/i;

/**
 * Reads a typed length such as `3.75 m`, `450mm`, `12' 6 1/2"`, `-0,5` or `7/8 in`.
 * @param text what the person typed
 * @param shown the unit of a bare number
 * @returns metres
 */
export function parseLength(text: string, shown: DisplayUnit | LengthStyle): Result<number> {
  const { unit } = styleFrom(shown);
  const bad = (why: string) =>
    fail(
      `"${text.trim()}" is not a length: ${why}. Type a number with an optional unit, for example 3.75 m or 12' 6 1/2".`,
    );
  // Thousands are written apart by narrow spaces; what is shown can be typed.
  let rest = text.trim().replace(/(?<=\d)[\u202f\u00a0](?=\d{3}(?!\d))/g, '');
  if (rest === '') return bad('nothing was typed');
  const negative = /^[-\u2212]/.test(rest);
  rest = rest.replace(/^[-+\u2212]\s*/, '');
  const bare: LengthUnit = unit === 'ft-in' ? 'ft' : unit;
  let metres = 0;
  let previous: LengthUnit | null = null;
  while (rest !== '') {
    const match = term.exec(rest);
    if (!match) return bad(`"${rest}" was not understood`);
    if (match[3] !== undefined && Number(match[3]) === 0) return bad('a fraction has a zero below its line');
    const amount =
      match[4] === undefined
        ? Number(match[1] ?? 0) + Number(match[2]) / Number(match[3])
        : Number(match[4].replace(',', '.'));
    const named: LengthUnit | undefined = match[5] === undefined ? undefined : words[match[5].toLowerCase()];
    if (match[5] !== undefined && named === undefined) return bad(`"${match[5]}" is not a unit of length`);
    if (named === undefined && rest.length > match[0].length) return bad('a part before the last has no unit');
    const termUnit: LengthUnit = named ?? (previous === 'ft' ? 'in' : bare);
    if (previous !== null && metresPer[termUnit] >= metresPer[previous])
      return bad('its parts do not go from the larger unit to the smaller');
    metres += amount * metresPer[termUnit];
    previous = termUnit;
    rest = rest.slice(match[0].length).trim();
  }
  return Number.isFinite(metres) ? ok(negative ? -metres : metres) : bad('it is too large');
}

/** Places that go down to about a millimetre; sixteenths of an inch. */
export const usualPlaces: Record<DisplayUnit, number> = { mm: 0, cm: 1, m: 3, in: 2, ft: 3, 'ft-in': 4 };

/**
 * Writes a length for people, with its unit.
 * @param metres the length
 * @param shown how to show it
 * @param places decimal places where they are to be others than the style's
 */
export function formatLength(metres: number, shown: DisplayUnit | LengthStyle, places?: number): string {
  if (!Number.isFinite(metres)) return '\u2013';
  const { unit, places: asked } = styleFrom(shown);
  const fine = places ?? asked ?? usualPlaces[unit];
  if (unit === 'ft-in') return feetAndInches(metres, 2 ** fine);
  return `${formatNumber(metres / metresPer[unit], fine)} ${unit}`;
}

/** Writes an area for people: square metres of a metric style, square feet of an imperial one. */
export function formatArea(squareMetres: number, shown: DisplayUnit | LengthStyle): string {
  const { unit } = styleFrom(shown);
  return unit === 'in' || unit === 'ft' || unit === 'ft-in'
    ? `${formatNumber(squareMetres / metresPer.ft ** 2, 1)} ft\u00b2`
    : `${formatNumber(squareMetres, 2)} m\u00b2`;
}

/** Writes a number with a fixed count of decimals, narrow no-break spaces between thousands and a true minus sign. */
export function formatNumber(value: number, places: number): string {
  const [whole, fraction] = Math.abs(value).toFixed(places).split('.');
  const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, '\u202f') : whole;
  const sign = value < 0 && Number(value.toFixed(places)) !== 0 ? '\u2212' : '';
  return sign + (fraction === undefined ? grouped : `${grouped}.${fraction}`);
}

/** Feet and inches to the nearest fraction, for example 12' 6 1/2". */
function feetAndInches(metres: number, parts: number): string {
  const count = Math.round((Math.abs(metres) / metresPer.in) * parts);
  const feet = Math.floor(count / (12 * parts));
  const inches = Math.floor((count % (12 * parts)) / parts);
  let [numerator, denominator] = [count % parts, parts];
  while (numerator > 0 && numerator % 2 === 0) [numerator, denominator] = [numerator / 2, denominator / 2];
  const fraction = numerator === 0 ? '' : ` ${numerator}/${denominator}`;
  const sign = metres < 0 && count > 0 ? '\u2212' : '';
  return `${sign}${feet}' ${inches}${fraction}"`;
}
