import type { Primitives } from './primitives';

/** Lower left and upper right corner, in drawing units. */
export type Box = [[number, number], [number, number]];

/**
 * The box round the main content: of the vertices within eight interquartile ranges of the middle half, on each
 * axis, so that strays far away do not count (Tukey's fences, wide).
 */
export function mainContent(primitives: Pick<Primitives, 'xy' | 'origin'>): Box | null {
  const { xy, origin } = primitives;
  if (xy.length === 0) return null;
  const axis = (offset: number): [number, number] => {
    const step = Math.max(1, Math.floor(xy.length / 2 / 20_000));
    const sample: number[] = [];
    for (let i = offset; i < xy.length; i += 2 * step) sample.push(xy[i]);
    sample.sort((a, b) => a - b);
    const [low, high] = [sample[Math.floor(sample.length * 0.25)], sample[Math.floor(sample.length * 0.75)]];
    const fence = 8 * Math.max(high - low, 1e-9);
    let [min, max] = [Infinity, -Infinity];
    for (let i = offset; i < xy.length; i += 2) {
      if (xy[i] < low - fence || xy[i] > high + fence) continue;
      min = Math.min(min, xy[i]);
      max = Math.max(max, xy[i]);
    }
    return [min + origin[offset], max + origin[offset]];
  };
  const [x, y] = [axis(0), axis(1)];
  return [
    [x[0], y[0]],
    [x[1], y[1]],
  ];
}

/**
 * The box round the main content of some layers, such as those that show the building and not its frame and title
 * block; of all layers where there is nothing on them.
 * @param counts 1 for each layer that counts
 */
export function mainContentOf(
  primitives: Pick<Primitives, 'xy' | 'origin' | 'start' | 'layer'>,
  counts: Uint8Array,
): Box | null {
  const { xy, origin, start, layer } = primitives;
  const kept: number[] = [];
  for (let path = 0; path < layer.length; path += 1)
    if (counts[layer[path]] === 1) for (let v = 2 * start[path]; v < 2 * start[path + 1]; v += 1) kept.push(xy[v]);
  return mainContent({ xy: kept.length > 0 ? Float64Array.from(kept) : xy, origin });
}
