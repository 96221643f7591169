import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';

/** Where the face that ships with the program lies. */
export const facePath = (weight: 400 | 700, form: 'woff' | 'woff2' = 'woff'): string =>
  createRequire(`${process.cwd()}/package.json`).resolve(
    `@fontsource/overpass/files/overpass-latin-${weight}-normal.${form}`,
  );

/** The face that ships with the program, WOFF2 in base 64, to be held by sheets; null where it is not there. */
export async function faceThatShips(): Promise<string | null> {
  try {
    return (await readFile(facePath(400, 'woff2'))).toString('base64');
  } catch {
    return null;
  }
}
