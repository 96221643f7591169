import { lazily } from '@/core/lazily';

/** A surface of triangles about one solid. */
export interface Shell {
  /** x, y and z of each corner, metres. */
  corners: Float64Array;
  /** Three corners of each triangle. */
  triangles: Uint32Array;
}

/** What a file of a building holds of one thing: a wall, a column, a chair. */
export interface Body {
  /** Its class in words of the file, without a prefix: WALL, COLUMN, FURNITURE. */
  kind: string;
  shells: readonly Shell[];
}

/** A body with what is asked of it for every storey, worked out once. */
export interface Measured {
  kind: string;
  /** Its lowest and its highest, metres. */
  low: number;
  high: number;
  /** Its shells with welded corners. */
  shells: () => readonly Shell[];
}

/** @returns null for a body without a corner */
export function measured({ kind, shells }: Body): Measured | null {
  let [low, high] = [Infinity, -Infinity];
  for (const { corners } of shells)
    for (let i = 2; i < corners.length; i += 3) {
      low = Math.min(low, corners[i]);
      high = Math.max(high, corners[i]);
    }
  return low <= high ? { kind, low, high, shells: lazily(() => shells.map(welded)) } : null;
}

/** Corners closer than this are one, metres: what 32 bits leave of a tenth of a millimetre in a body of 100 m. */
export const oneCorner = 1e-5;

/** The shell with corners at one place made one, and without triangles that thereby have no area. */
function welded({ corners, triangles }: Shell): Shell {
  const known = new Map<string, number>();
  const places: number[] = [];
  const index = Array.from({ length: corners.length / 3 }, (_, i) => {
    const place = [corners[3 * i], corners[3 * i + 1], corners[3 * i + 2]];
    const key = place.map((value) => Math.round(value / oneCorner)).join(' ');
    const found = known.get(key);
    if (found !== undefined) return found;
    known.set(key, known.size);
    places.push(...place);
    return known.size - 1;
  });
  const kept: number[] = [];
  for (let i = 0; i + 2 < triangles.length; i += 3) {
    const [a, b, c] = [index[triangles[i]], index[triangles[i + 1]], index[triangles[i + 2]]];
    if (a !== b && b !== c && c !== a) kept.push(a, b, c);
  }
  return { corners: Float64Array.from(places), triangles: Uint32Array.from(kept) };
}
