import { withoutPaths } from '@/core/underlay/recipe/edit';
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
  const [xs, ys] = [0, 1].map((axis) =>
    Float64Array.from({ length: count }, (_, path) => p.xy[2 * p.start[path] + axis]),
  );
  const [x, y] = [median(xs), median(ys)];
  const away = Float64Array.from(xs, (value, path) => Math.max(Math.abs(value - x), Math.abs(ys[path] - y)));
  const outwards = Uint32Array.from(xs, (_, path) => path).sort((a, b) => away[a] - away[b]);
  let [taken, vertices] = [0, 0];
  for (; taken < most && vertices < usualVertices * most; taken += 1) {
    const path = outwards[taken];
    vertices += p.start[path + 1] - p.start[path];
  }
  return withoutPaths(p, outwards.slice(taken).sort());
}

const median = (values: Float64Array): number => values.slice().sort()[values.length >> 1];
