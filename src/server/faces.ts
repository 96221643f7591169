import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import * as v from 'valibot';
import { lazily } from '@/core/lazily';

const resolved = (file: string): string =>
  createRequire(`${process.cwd()}/package.json`).resolve(`@fontsource/${file}`);

/** The families that ship with the program, the first that has a sign counts: the program's own, Japanese, pictures. */
const families = ['overpass', 'noto-sans-jp', 'noto-emoji'] as const;

type Weight = 400 | 700;

/** A file of a family: some of its signs, in a weight. */
export interface Face {
  name: string;
  path: (weight: Weight) => string;
}

/** The signs that a file of a family has, by its name: "U+0000-00FF,U+0131". */
const ranges = v.record(v.string(), v.string());

/** A run of signs that a face has, by their numbers in Unicode. */
interface Reach {
  from: number;
  to: number;
  face: Face;
}

const reaches = lazily((): Reach[] =>
  families.flatMap((family) => {
    const listed = readFileSync(resolved(`${family}/unicode.json`), 'utf8');
    return Object.entries(v.parse(ranges, JSON.parse(listed))).flatMap(([part, list]) => {
      const face = faceOf(family, part.replace(/[[\]]/g, ''));
      return list.split(',').map((range): Reach => {
        const [from, to = from] = range
          .replace('U+', '')
          .split('-')
          .map((figures) => parseInt(figures, 16));
        return { from, to, face };
      });
    });
  }),
);

const faceOf = (family: string, part: string): Face => ({
  name: `${family} ${part}`,
  path: (weight) => resolved(`${family}/files/${family}-${part}-${weight}-normal.woff`),
});

/** What every sign is written in that no face has: it shows a box there. */
const plain = faceOf('overpass', 'latin');

const faceBySign = new Map<string, Face>();

function faceFor(sign: string): Face {
  const known = faceBySign.get(sign);
  if (known !== undefined) return known;
  const code = sign.codePointAt(0) ?? 0;
  const face = reaches().find(({ from, to }) => code >= from && code <= to)?.face ?? plain;
  faceBySign.set(sign, face);
  return face;
}

/** A text in runs of one face each, by the signs that faces have. */
export function runsOf(text: string): { face: Face; text: string }[] {
  const runs: { face: Face; text: string }[] = [];
  for (const sign of text) {
    const face = faceFor(sign);
    const last = runs.at(-1);
    if (last !== undefined && last.face.name === face.name) last.text += sign;
    else runs.push({ face, text: sign });
  }
  return runs;
}

/** The program's own face, WOFF2 in base 64, to be held by sheets; null where it is not there. */
export async function faceThatShips(): Promise<string | null> {
  try {
    return (await readFile(resolved('overpass/files/overpass-latin-400-normal.woff2'))).toString('base64');
  } catch {
    return null;
  }
}
