const powers = Float64Array.from({ length: 23 }, (_, i) => 10 ** i);

/**
 * Parses the decimal number in bytes[start, end) without making a string.
 * Exact for up to 15 digits and powers of ten to 22 (Clinger, 1990, "How to read floating point numbers accurately");
 * longer mantissas are put together from two exact halves, off by at most one unit in the last place.
 * @returns NaN where the bytes are not a number
 */
export function parseFloatBytes(bytes: Uint8Array, start: number, end: number): number {
  let i = start;
  while (i < end && bytes[i] <= 32) i += 1;
  let stop = end;
  while (stop > i && bytes[stop - 1] <= 32) stop -= 1;
  if (i === stop) return NaN;
  let negative = false;
  if (bytes[i] === 45) {
    negative = true;
    i += 1;
  } else if (bytes[i] === 43) i += 1;
  let high = 0;
  let low = 0;
  let digits = 0;
  let lowDigits = 0;
  let exponent = 0;
  let any = false;
  let point = false;
  for (; i < stop; i += 1) {
    const d = bytes[i] - 48;
    if (d >= 0 && d <= 9) {
      any = true;
      if (digits < 15) {
        high = high * 10 + d;
        if (high !== 0) digits += 1;
        if (point) exponent -= 1;
      } else if (lowDigits < 15) {
        low = low * 10 + d;
        lowDigits += 1;
        if (point) exponent -= 1;
      } else if (!point) exponent += 1;
    } else if (d === -2 && !point) point = true;
    else break;
  }
  if (!any) return NaN;
  if (i < stop) {
    const c = bytes[i];
    // e, E, and the D of old Fortran-minded writers.
    if (c !== 101 && c !== 69 && c !== 100 && c !== 68) return NaN;
    i += 1;
    let sign = 1;
    if (bytes[i] === 45) {
      sign = -1;
      i += 1;
    } else if (bytes[i] === 43) i += 1;
    if (i >= stop) return NaN;
    let e = 0;
    for (; i < stop; i += 1) {
      const d = bytes[i] - 48;
      if (d < 0 || d > 9) return NaN;
      if (e < 10000) e = e * 10 + d;
    }
    exponent += sign * e;
  }
  let value = lowDigits === 0 ? tens(high, exponent) : tens(high, exponent + lowDigits) + tens(low, exponent);
  if (negative) value = -value;
  return value;
}

function tens(value: number, exponent: number): number {
  if (exponent === 0 || value === 0) return value;
  if (exponent < 0 && exponent >= -22) return value / powers[-exponent];
  if (exponent > 0 && exponent <= 22) return value * powers[exponent];
  return Number(`${value}e${exponent}`);
}

/** Parses the integer in bytes[start, end). @returns NaN where the bytes are not an integer */
export function parseIntBytes(bytes: Uint8Array, start: number, end: number): number {
  let i = start;
  while (i < end && bytes[i] <= 32) i += 1;
  let stop = end;
  while (stop > i && bytes[stop - 1] <= 32) stop -= 1;
  let negative = false;
  if (bytes[i] === 45 && i < stop) {
    negative = true;
    i += 1;
  } else if (bytes[i] === 43 && i < stop) i += 1;
  if (i === stop) return NaN;
  let value = 0;
  for (; i < stop; i += 1) {
    const d = bytes[i] - 48;
    if (d < 0 || d > 9) return NaN;
    value = value * 10 + d;
  }
  return negative ? -value : value;
}

/** Parses the hexadecimal number in bytes[start, end), its lower 32 bits. @returns 0 where the bytes are not one */
export function parseHexBytes(bytes: Uint8Array, start: number, end: number): number {
  let value = 0;
  for (let i = start; i < end; i += 1) {
    const c = bytes[i];
    let d;
    if (c >= 48 && c <= 57) d = c - 48;
    else if (c >= 65 && c <= 70) d = c - 55;
    else if (c >= 97 && c <= 102) d = c - 87;
    else d = -1;

    if (d < 0) {
      if (c <= 32) continue;
      return 0;
    }
    value = ((value << 4) | d) >>> 0;
  }
  return value;
}
