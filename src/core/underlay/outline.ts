import { textBox } from './textBox';
import { pathCount, type Primitives } from './primitives';
import { buildSegments } from './segments';

/**
 * The straight segments of some paths, and the boxes of some texts, as x1 y1 x2 y2 each, about the primitives' origin.
 */
export function outlineOf(
  p: Primitives,
  paths: Iterable<number>,
  texts: Iterable<number>,
  most = 40_000,
): Float32Array {
  const start: number[] = [0];
  const vertices: number[] = [];
  const chosen: number[] = [];
  for (const path of paths) {
    chosen.push(path);
    for (let v = p.start[path]; v < p.start[path + 1]; v += 1) vertices.push(v);
    start.push(vertices.length);
    if (vertices.length > most) break;
  }
  const part = {
    ...p,
    start: Uint32Array.from(start),
    xy: Float64Array.from(vertices.flatMap((v) => [p.xy[2 * v], p.xy[2 * v + 1]])),
    bulge: Float64Array.from(vertices, (v) => p.bulge[v]),
    layer: Uint16Array.from(chosen, (path) => p.layer[path]),
    colour: Uint32Array.from(chosen, (path) => p.colour[path]),
    flags: Uint8Array.from(chosen, (path) => p.flags[path]),
    pen: Uint16Array.from(chosen, (path) => p.pen[path]),
  };
  const segments = pathCount(part) === 0 ? [] : Array.from(buildSegments(part).xy);
  for (const text of texts) {
    if (segments.length > 4 * most) break;
    const corners = textBox(p.texts[text]);
    corners.forEach(([x, y], i) => {
      const [nx, ny] = corners[(i + 1) % 4];
      segments.push(x, y, nx, ny);
    });
  }
  return Float32Array.from(segments);
}
