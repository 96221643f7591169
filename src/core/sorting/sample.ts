import { Paths } from '@/core/underlay/paths';
import { copyPath } from '@/core/underlay/recipe/edit';
import { pathCount, type Primitives } from '@/core/underlay/primitives';

/** A path of a plan has so many vertices at most, on average; where they have more, fewer paths are looked at. */
const usualVertices = 6;

/**
 * The paths about the middle of a large drawing, whole and side by side, so that what is recognised by what stands
 * beside it is recognised there too.
 * @param most so many paths at most; a drawing with fewer is taken whole
 */
export function middlePart(p: Primitives, most: number): Primitives {
  const count = pathCount(p);
  if (count <= most) return p;
  const [xs, ys] = [startsOf(p, 0), startsOf(p, 1)];
  const [x, y] = [median(xs), median(ys)];
  const away = new Float64Array(count);
  for (let path = 0; path < count; path += 1) away[path] = Math.max(Math.abs(xs[path] - x), Math.abs(ys[path] - y));
  const furthest = away.slice().sort()[most - 1];
  const outwards: number[] = [];
  for (let path = 0; path < count; path += 1) if (away[path] <= furthest) outwards.push(path);
  outwards.sort((a, b) => away[a] - away[b]);
  let [taken, vertices] = [0, 0];
  for (; taken < most && vertices < usualVertices * most; taken += 1) {
    const path = outwards[taken];
    vertices += p.start[path + 1] - p.start[path];
  }
  const kept = new Paths();
  for (const path of Uint32Array.from(outwards.slice(0, taken)).sort()) copyPath(kept, p, path);
  return { ...p, ...kept.finish() };
}

/** One coordinate of where each path starts. */
function startsOf(p: Primitives, axis: 0 | 1): Float64Array {
  const found = new Float64Array(pathCount(p));
  for (let path = 0; path < found.length; path += 1) found[path] = p.xy[2 * p.start[path] + axis];
  return found;
}

const median = (values: Float64Array): number => values.slice().sort()[values.length >> 1];
