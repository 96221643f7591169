import { withoutPaths } from '@/core/underlay/recipe/edit';
import { pathCount, type Primitives } from '@/core/underlay/primitives';

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
  const reach = away.slice().sort()[most - 1];
  const gone: number[] = [];
  for (let path = 0; path < count; path += 1) if (away[path] > reach) gone.push(path);
  return withoutPaths(p, gone);
}

const median = (values: Float64Array): number => values.slice().sort()[values.length >> 1];
