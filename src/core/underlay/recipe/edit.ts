import { Paths, type PathOwner } from '../paths';
import { pathCount, type Primitives } from '../primitives';

/** What a step did: the new primitives, and which paths and texts of the old ones it took out or changed. */
export interface StepResult {
  primitives: Primitives;
  paths: number[];
  texts: number[];
}

export const untouched = (primitives: Primitives): StepResult => ({ primitives, paths: [], texts: [] });

export const ownerOf = (p: Primitives, path: number): PathOwner => ({
  layer: p.layer[path],
  colour: p.colour[path],
  kind: p.kind[path],
  chain: p.chain[path],
  pen: p.pen[path],
  elevation: p.elevation[path],
  entity: p.entity[path],
  top: p.top[path],
});

/** Takes out the paths and texts that a test picks. */
export function takeOut(
  p: Primitives,
  pathGoes: (path: number) => boolean,
  textGoes: (text: number) => boolean,
): StepResult {
  const paths: number[] = [];
  const texts: number[] = [];
  for (let i = 0; i < pathCount(p); i += 1) if (pathGoes(i)) paths.push(i);
  for (let i = 0; i < p.texts.length; i += 1) if (textGoes(i)) texts.push(i);
  if (paths.length === 0 && texts.length === 0) return untouched(p);
  const gone = new Set(texts);
  return { primitives: { ...withoutPaths(p, paths), texts: p.texts.filter((_, i) => !gone.has(i)) }, paths, texts };
}

/** The primitives without some paths, whose numbers rise. */
export function withoutPaths(p: Primitives, gone: readonly number[]): Primitives {
  if (gone.length === 0) return p;
  const out = new Paths();
  let next = 0;
  for (let path = 0; path < pathCount(p); path += 1) {
    if (next < gone.length && gone[next] === path) {
      next += 1;
      continue;
    }
    copyPath(out, p, path);
  }
  return { ...p, ...out.finish() };
}

/** Appends a path as it is. */
export function copyPath(out: Paths, p: Primitives, path: number): void {
  out.begin(ownerOf(p, path), p.flags[path]);
  for (let v = p.start[path]; v < p.start[path + 1]; v += 1) out.vertex(p.xy[2 * v], p.xy[2 * v + 1], p.bulge[v]);
}

/** A copy whose coordinates and flags may be changed. */
export const loosened = (p: Primitives): Primitives => ({ ...p, xy: p.xy.slice(), flags: p.flags.slice() });
