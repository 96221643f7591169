import * as v from 'valibot';

/** Limits of what comes from outside: metres, within a thousand kilometres of zero. */
export const finite = v.pipe(v.number(), v.finite());
export const coordinate = v.pipe(finite, v.minValue(-1e9), v.maxValue(1e9));
export const point = v.strictTuple([coordinate, coordinate]);
export const positive = v.pipe(finite, v.gtValue(0), v.maxValue(1e6));
export const size = v.pipe(finite, v.minValue(0), v.maxValue(1e6));
export const label = v.pipe(v.string(), v.maxLength(400));
export const outline = v.pipe(v.array(point), v.minLength(3), v.maxLength(10_000));
export const holes = v.pipe(v.array(outline), v.maxLength(1000));
/** How far the top of a beam may lie from the top of its storey. */
export const drop = v.pipe(finite, v.minValue(-100), v.maxValue(100));

/** An id, in the one form in which equal ids are equal texts. */
export const uuid = v.pipe(
  v.string(),
  v.regex(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/, 'An id is a UUID in small letters.'),
);

/** What a person calls something. */
export const name = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A name needs at least one character.'),
  v.maxLength(120, 'A name has at most 120 characters.'),
);
