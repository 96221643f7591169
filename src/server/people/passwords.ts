import { hash, verify } from '@node-rs/argon2';
import * as v from 'valibot';

/** A password: long enough that trying does not lead anywhere, and short enough that hashing it is no burden. */
export const password = v.pipe(
  v.string(),
  v.minLength(12, 'A password has at least 12 characters.'),
  v.maxLength(200, 'A password has at most 200 characters.'),
);

/** As Argon2id with the library's memory, passes and salt (RFC 9106, second recommendation's order). */
export const passwordHash = (text: string): Promise<string> => hash(text);

/** What is compared where there is no such person, so that the answer takes as long. */
let nobody: Promise<string> | null = null;

/** Whether a password is right; the same time for a person who is not there. */
export async function isRight(stored: string | null, text: string): Promise<boolean> {
  nobody ??= hash('nobody has this password');
  const right = await verify(stored ?? (await nobody), text);
  return right && stored !== null;
}
