import { createHash, randomBytes } from 'node:crypto';

/** Something that nobody guesses, to be given to one person: 256 bits. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** What of a token is stored: who reads the database cannot use it. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');
