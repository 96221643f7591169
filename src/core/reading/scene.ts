import { metresPerDrawn, place, type Placement } from '@/core/datum/placement';
import { handleOf, type Drawing } from '@/core/drawing/drawing';
import type { Point } from '@/core/geometry/vector';
import { PathFlag, pathCount, type Primitives } from '@/core/underlay/primitives';
import { centreOfText } from '@/core/underlay/textBox';
import { classify } from '@/core/sorting/classify';
import type { Role } from '@/core/sorting/roles';

/** A path of the drawing, placed: vertices in metres in the project. */
export interface PlacedPath {
  points: Point[];
  bulges: number[];
  closed: boolean;
  circle: boolean;
  entity: number;
  layer: number;
  handle: string;
}

export interface PlacedText { text: string; at: Point; height: number; /** Radians, counter-clockwise. */ angle: number; handle: string; layer: number }

/** What reading looks at: one drawing, placed, with the role of each layer. */
export class Scene {
  /** What paths on mixed layers look like; made when the first is asked for. */
  private looks: ReturnType<typeof classify> | null = null;

  constructor(readonly drawing: Drawing, readonly primitives: Primitives, readonly placement: Placement, readonly roleOfLayer: readonly (Role | null)[]) {}

  private roleOf(path: number): Role | null {
    const role = this.roleOfLayer[this.primitives.layer[path]];
    if (role !== 'mixed') return role;
    this.looks ??= classify(this.drawing, this.primitives, metresPerDrawn(this.placement));
    return this.looks[path]?.role ?? null;
  }

  /** The paths whose layer has the role. */
  paths(role: Role): PlacedPath[] {
    const { start, xy, bulge, flags, layer, entity, top, origin } = this.primitives;
    const found: PlacedPath[] = [];
    for (let p = 0; p < pathCount(this.primitives); p += 1) {
      if (this.roleOf(p) !== role) continue;
      const points: Point[] = [];
      const bulges: number[] = [];
      for (let v = start[p]; v < start[p + 1]; v += 1) {
        points.push(place(this.placement, [xy[2 * v] + origin[0], xy[2 * v + 1] + origin[1]]));
        bulges.push(bulge[v]);
      }
      found.push({ points, bulges, closed: (flags[p] & PathFlag.closed) !== 0, circle: (flags[p] & PathFlag.circle) !== 0, entity: entity[p], layer: layer[p], handle: handleOf(this.drawing, top[p]) });
    }
    return found;
  }

  /** The texts whose layer has one of the roles. */
  texts(...wanted: Role[]): PlacedText[] {
    const { texts, origin } = this.primitives;
    const unit = Math.hypot(...subtractPoints(place(this.placement, [1, 0]), place(this.placement, [0, 0])));
    // A text on a mixed layer may belong to anything.
    return texts.filter((text) => this.roleOfLayer[text.layer] === 'mixed' || wanted.includes(this.roleOfLayer[text.layer] ?? 'ignore')).map((text) => {
      const [x, y] = centreOfText(text);
      return { text: text.text.trim(), at: place(this.placement, [x + origin[0], y + origin[1]]), height: text.height * unit, angle: this.placement.turning + (this.placement.mirrored ? Math.PI - text.angle : text.angle), handle: handleOf(this.drawing, text.top), layer: text.layer };
    });
  }
}

const subtractPoints = (a: Point, b: Point): [number, number] => [a[0] - b[0], a[1] - b[1]];
