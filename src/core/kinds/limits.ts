import * as v from 'valibot';
import { isStorable } from '@/core/storable';

/** Limits of what comes from outside: metres, within a thousand kilometres of zero. */
export const finite = v.pipe(v.number(), v.finite());
export const coordinate = v.pipe(finite, v.minValue(-1e9), v.maxValue(1e9));
export const point = v.strictTuple([coordinate, coordinate]);
export const positive = v.pipe(finite, v.gtValue(0), v.maxValue(1e6));
export const size = v.pipe(finite, v.minValue(0), v.maxValue(1e6));
/** A text of so many characters at most, none of which a database or a file cannot hold. */
export const textUpTo = (most: number) =>
  v.pipe(
    v.string(),
    v.maxLength(most, `A text has more than ${most} characters.`),
    v.check(isStorable, 'A text holds a character that is none, such as NUL. Take it out and repeat the step.'),
  );
export const label = textUpTo(400);
/** A text that rows are found by: short enough for an index, whatever its characters. */
export const key = v.pipe(textUpTo(2000), v.minLength(1), v.maxBytes(2400, 'A key has more than 2400 bytes.'));
/** What a layer or a block is called in a drawing, as the reader gives it. */
export const drawnName = v.pipe(textUpTo(600), v.minLength(1));
/** The handle of a line, or of one within a block. */
export const handle = textUpTo(200);
/** The tangent of a quarter of an arc's angle; an arc that is nearly whole has a large one. */
export const bulge = v.pipe(finite, v.minValue(-1e6), v.maxValue(1e6));
/** A turn, within a hundred whole ones: in degrees, and in radians. */
export const inDegrees = v.pipe(finite, v.minValue(-36_000), v.maxValue(36_000));
export const inRadians = v.pipe(finite, v.minValue(-630), v.maxValue(630));
/** Easting, northing or height in a survey, metres: no net of the earth goes further. */
export const surveyed = v.pipe(finite, v.minValue(-1e8), v.maxValue(1e8));
/** A coordinate of a drawing, in its own units. */
export const drawnCoordinate = v.pipe(finite, v.minValue(-1e15), v.maxValue(1e15));
export const outline = v.pipe(v.array(point), v.minLength(3), v.maxLength(10_000));
export const holes = v.pipe(v.array(outline), v.maxLength(1000));
/** How far above its level something lies, metres. */
export const rise = v.pipe(finite, v.minValue(-1000), v.maxValue(1000));
/** How far the top of a beam may lie from the top of its storey. */
export const drop = v.pipe(finite, v.minValue(-100), v.maxValue(100));

/** An id, in the one form in which equal ids are equal texts. */
export const uuid = v.pipe(
  v.string(),
  v.regex(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/, 'An id is a UUID in small letters.'),
);

/** What a person calls something. */
export const name = v.pipe(
  textUpTo(1000),
  v.trim(),
  v.minLength(1, 'A name needs at least one character.'),
  v.maxLength(120, 'A name has at most 120 characters.'),
);
