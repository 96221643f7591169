import { fail, ok, type Result } from '@/core/result';

/** A photometric file as it is used: intensities over a sphere, candela, and what is said of the luminaire. */
export interface Photometry {
  name: string;
  /** C: about the downward axis; B: about the lateral axis, of floodlights. */
  type: 'C' | 'B';
  /** Degrees, rising. */
  vertical: number[];
  horizontal: number[];
  /** Candela, by the horizontal angle, then by the vertical one; all factors are in. */
  intensity: Float64Array;
  /** Of the lamps, lumens; null where the file is absolute. */
  lampLumens: number | null;
  /** Watts. */
  power: number;
  /** The luminous opening, metres: along the 0 degree half-plane, across it, and upwards. */
  length: number;
  width: number;
  height: number;
  /** What was strange about the file and did no harm. */
  warnings: string[];
}

/** A file with more numbers than this is none that a luminaire needs. */
const mostNumbers = 500_000;
/** Angles of one kind; half a degree all around are 721. */
const mostAngles = 2000;
const feet = 0.3048;
/** Keywords that the versions since 1991 ask for. */
const askedFor = ['TEST', 'MANUFAC'];

interface Head {
  version: string | null;
  keywords: Map<string, string>;
  tilt: string;
  /** The numbers after the tilt's line. */
  rest: string;
}

function headOf(text: string): Head | null {
  const lines = text.split(/\r\n|\r|\n/);
  const at = lines.findIndex((line) => /^\s*TILT\s*=/i.test(line));
  if (at < 0) return null;
  const keywords = new Map<string, string>();
  for (const line of lines.slice(0, at)) {
    const found = /^\s*\[([^\]]+)\]\s*(.*)$/.exec(line);
    if (found !== null) keywords.set(found[1].toUpperCase(), found[2].trim());
  }
  const first = lines[0].replace(/^\uFEFF/, '').trim();
  const version = /^IES(NA)?:?\s*(91|LM-63-\d{4})/i.exec(first)?.[2]?.toUpperCase() ?? null;
  const tilt = lines[at]
    .replace(/^\s*TILT\s*=/i, '')
    .trim()
    .toUpperCase();
  return { version, keywords, tilt, rest: lines.slice(at + 1).join(' ') };
}

/** Numbers in free form: parted by blanks or commas. */
function numbersOf(rest: string): Result<number[]> {
  const words = rest.split(/[\s,]+/).filter((word) => word !== '');
  if (words.length > mostNumbers)
    return fail(`The file holds ${words.length} numbers; at most ${mostNumbers} were expected. Ask for a coarser one.`);
  const numbers = words.map(Number);
  const wrong = numbers.findIndex((value) => !Number.isFinite(value));
  return wrong < 0
    ? ok(numbers)
    : fail(`"${words[wrong].slice(0, 20)}" stands where a number was expected, after ${wrong} numbers.`);
}

const rises = (angles: readonly number[]): boolean => angles.every((angle, i) => i === 0 || angle > angles[i - 1]);

/** Reads a photometric file of IES LM-63: 1986 (without a version line), 1991, 1995, 2002 and 2019. */
export function readIes(text: string, fallbackName = ''): Result<Photometry> {
  const head = headOf(text);
  if (head === null)
    return fail('The file has no line that begins with TILT=: it is no photometric file of IES LM-63, or it is cut.');
  const { version, keywords, tilt, rest } = head;
  const read = numbersOf(rest);
  if (!read.ok) return read;
  const numbers = read.value;
  let at = 0;
  const take = (count: number): number[] => numbers.slice(at, (at += count));
  if (tilt === 'INCLUDE') {
    const [, pairs = 0] = take(2);
    if (!(pairs >= 0 && pairs <= mostAngles))
      return fail(`The tilt has ${pairs} angles; at most ${mostAngles} were expected.`);
    // How the lamp's light hangs on its own tilt: a luminaire is mounted as it was measured.
    take(2 * pairs);
  } else if (tilt !== 'NONE')
    return fail(`The tilt is in another file, ${tilt.slice(0, 60)}. Ask for a file with TILT=NONE or TILT=INCLUDE.`);
  const [lamps, lumens, multiplier, verticals, horizontals, type, units, width, length, height] = take(10);
  const [ballast, ballastLamp, power] = take(3);
  if (power === undefined)
    return fail(`The file ends after ${numbers.length} numbers: its head is not whole. It may be cut.`);
  if (type === 3)
    return fail('It is photometry of type A, of vehicles; types C and B were expected. Ask for a file of type C.');
  if (type !== 1 && type !== 2) return fail(`The photometric type is ${type}; 1 (C) or 2 (B) was expected.`);
  if (![verticals, horizontals].every((count) => Number.isInteger(count) && count >= 1 && count <= mostAngles))
    return fail(`The file names ${verticals} by ${horizontals} angles; 1 to ${mostAngles} of each were expected.`);
  const [vertical, horizontal] = [take(verticals), take(horizontals)];
  const values = take(verticals * horizontals);
  if (values.length < verticals * horizontals)
    return fail(
      `${values.length} of ${verticals * horizontals} intensities are there: the file is cut. Ask for it again.`,
    );
  if (!rises(vertical) || !rises(horizontal))
    return fail('The angles do not rise. The file is damaged; ask for it again.');
  const negative = values.filter((value) => value < 0).length;
  if (negative > 0) return fail(`${negative} intensities are negative; none may be. The file is damaged.`);
  // Since 2019 the third factor says how the file came about instead.
  const third = version === 'LM-63-2019' ? 1 : ballastLamp;
  const factor = multiplier * ballast * third;
  const scale = units === 1 ? feet : 1;
  const warnings =
    version === null
      ? []
      : askedFor.filter((key) => !keywords.has(key)).map((key) => `The keyword [${key}] is missing.`);
  if (numbers.length > at)
    warnings.push(`${numbers.length - at} numbers follow the last intensity; they are left out.`);
  return ok({
    name: keywords.get('LUMINAIRE') ?? keywords.get('LUMCAT') ?? fallbackName,
    type: type === 1 ? 'C' : 'B',
    vertical,
    horizontal,
    intensity: Float64Array.from(values, (value) => value * factor),
    lampLumens: lumens < 0 ? null : lamps * lumens,
    power,
    // A round opening is told by negative sizes.
    length: Math.abs(length) * scale,
    width: Math.abs(width) * scale,
    height: Math.abs(height) * scale,
    warnings,
  });
}
