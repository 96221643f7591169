/** What is written beside an opening about it, metres. */
export interface WrittenSizes {
  height?: number;
  sill?: number;
  head?: number;
}

const number = '(\\d+(?:[.,]\\d+)?)\\s*(mm|cm|m)?(?!\\d|[.,]\\d)';
const sillWords = new RegExp(
  `(?:\\bsill|\\bbrh|\\bbr\\u00fcstung\\w*|\\bbruestung\\w*|\\ball[e\\u00e8]ge|\\bparapet)\\W{0,4}${number}`,
  'i',
);
const headWords = new RegExp(`(?:\\bhead|\\bsturz|\\blintel|\\blinteau)\\W{0,4}${number}`, 'i');
const heightWords = new RegExp(
  `(?:\\bheight|\\bh\\u00f6he|\\bhoehe|\\bhauteur|\\bht|\\bh)\\s*[=:.]?\\s*${number}`,
  'i',
);
const sides = /(\d+(?:[.,]\d+)?)\s*[x\u00d7/]\s*(\d+(?:[.,]\d+)?)/i;

/** No sill is higher and no opening taller, metres. */
const most = { sill: 2.5, height: 6 };

/**
 * A written number as metres: in its own unit, else in the one that gives a likely size, metres before centimetres
 * before millimetres.
 */
function metresOf(value: string, unit: string | undefined, limit: number): number | undefined {
  const size = Number(value.replace(',', '.'));
  const factor = { m: 1, cm: 0.01, mm: 0.001 };
  if (unit) {
    const metres = size * factor[unit.toLowerCase() as keyof typeof factor];
    return metres <= limit ? metres : undefined;
  }
  return size < 10 && size <= limit ? size : [size * 0.01, size * 0.001].find((metres) => metres <= limit);
}

/**
 * Sill, head and height from words such as "SILL 900", "BRH 0.90", "H=2100", and from "900 x 2100" where the first is
 * the opening's width.
 * @param width of the opening, metres
 */
export function writtenSizes(text: string, width: number): WrittenSizes {
  const [sill, head, height, both] = [
    sillWords.exec(text),
    headWords.exec(text),
    heightWords.exec(text),
    sides.exec(text),
  ];
  const written: WrittenSizes = {};
  const put = (key: keyof WrittenSizes, value: number | undefined) => {
    if (value !== undefined) written[key] = Number(value.toFixed(6));
  };
  if (sill) put('sill', metresOf(sill[1], sill[2], most.sill));
  if (head) put('head', metresOf(head[1], head[2], most.height));
  if (height) put('height', metresOf(height[1], height[2], most.height));
  else if (both) {
    const [wide, high] = [both[1], both[2]].map((value) => Number(value.replace(',', '.')));
    const factor = [1, 0.01, 0.001].find((metres) => Math.abs(wide * metres - width) < 0.15 * width);
    if (factor !== undefined && high * factor <= most.height) put('height', high * factor);
  }
  return written;
}
