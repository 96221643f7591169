import type { From, PlacedPath } from '@/core/placed/placed';
import { distance, type Point } from '@/core/geometry/vector';
import { defaultTolerance } from '@/core/tolerance';
import { pathCount, PathFlag, type Primitives, type TextPrimitive } from '@/core/underlay/primitives';
import { centreOfText } from '@/core/underlay/textBox';

/** A path as its own source. */
export function pathSource(path: number): From & { source: From } {
  const source = { entity: path, layer: 0, handle: String(path) };
  return { ...source, source };
}

/** The paths of a drawing in metres about the origin; each is made once, for every stage asks for most of them. */
export class Drawn {
  private readonly made: PlacedPath[] = [];

  /** @param k true metres of one drawing unit */
  constructor(
    readonly p: Primitives,
    readonly k: number,
  ) {}

  get count(): number {
    return pathCount(this.p);
  }

  vertex(v: number): Point {
    return [this.p.xy[2 * v] * this.k, this.p.xy[2 * v + 1] * this.k];
  }

  /** The middle of a text. */
  middleOf(text: TextPrimitive): Point {
    const [x, y] = centreOfText(text);
    return [x * this.k, y * this.k];
  }

  private pointsOf(path: number): Point[] {
    const { start } = this.p;
    return Array.from({ length: start[path + 1] - start[path] }, (_, i) => this.vertex(start[path] + i));
  }

  /** A path as it is drawn. */
  placed(path: number): PlacedPath {
    const { start, bulge, flags } = this.p;
    this.made[path] ??= {
      points: this.pointsOf(path),
      bulges: Array.from(bulge.subarray(start[path], start[path + 1])),
      closed: (flags[path] & PathFlag.closed) !== 0,
      circle: (flags[path] & PathFlag.circle) !== 0,
      ...pathSource(path),
    };
    return this.made[path];
  }

  /** The corners of a path that closes, by its flag or because it ends where it began; null where it does not. */
  corners(path: number): Point[] | null {
    const { start, flags } = this.p;
    if ((flags[path] & PathFlag.closed) !== 0) return this.placed(path).points;
    // Most paths are single lines.
    if (start[path + 1] - start[path] < 4) return null;
    const { points } = this.placed(path);
    return distance(points[0], points[points.length - 1]) <= defaultTolerance.coincidence ? points.slice(0, -1) : null;
  }

  /** The block in the model space through which a path is there. */
  outermost(path: number): number {
    const { chains, chain } = this.p;
    let c = chain[path];
    while (c > 0 && chains[c].parent > 0) c = chains[c].parent;
    return chains[c].block;
  }
}
