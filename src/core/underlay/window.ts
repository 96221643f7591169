import type { Primitives } from './primitives';

/** Some paths of a drawing, and its texts within a box, as primitives of their own about the same origin. */
export function windowOf(
  primitives: Primitives,
  paths: Uint32Array,
  [minX, minY, maxX, maxY]: readonly [number, number, number, number],
): Primitives {
  const { start, xy, bulge, texts } = primitives;
  const starts = new Uint32Array(paths.length + 1);
  for (const [i, path] of paths.entries()) starts[i + 1] = starts[i] + start[path + 1] - start[path];
  const vertices = starts[paths.length];
  const part = { xy: new Float64Array(2 * vertices), bulge: new Float64Array(vertices) };
  for (const [i, path] of paths.entries()) {
    part.xy.set(xy.subarray(2 * start[path], 2 * start[path + 1]), 2 * starts[i]);
    part.bulge.set(bulge.subarray(start[path], start[path + 1]), starts[i]);
  }
  const inside = texts.filter(({ x, y }) => x >= minX && x <= maxX && y >= minY && y <= maxY);
  return {
    ...primitives,
    ...part,
    start: starts,
    layer: Uint16Array.from(paths, (path) => primitives.layer[path]),
    colour: Uint32Array.from(paths, (path) => primitives.colour[path]),
    flags: Uint8Array.from(paths, (path) => primitives.flags[path]),
    kind: Uint8Array.from(paths, (path) => primitives.kind[path]),
    chain: Uint32Array.from(paths, (path) => primitives.chain[path]),
    pen: Uint16Array.from(paths, (path) => primitives.pen[path]),
    elevation: Float32Array.from(paths, (path) => primitives.elevation[path]),
    entity: Uint32Array.from(paths, (path) => primitives.entity[path]),
    top: Uint32Array.from(paths, (path) => primitives.top[path]),
    texts: inside,
  };
}
