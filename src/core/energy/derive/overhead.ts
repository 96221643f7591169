import { common, regionArea, regionCentre, without, type Region } from '@/core/geometry/clipping';
import { degrees, lineCrossing, pointAlong, type Point } from '@/core/geometry/vector';
import { contains } from '@/core/geometry/polygon';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { Room } from '@/core/rooms/rooms';

type RoofPlane = NonNullable<ReadModel['roofs']>[number];

/** A roof plane as a room sees it from beneath: z = a x + b y + c. */
interface Plane {
  roof: RoofPlane;
  outline: Point[];
  a: number;
  b: number;
  c: number;
}

/** A part of a room's ceiling under one roof plane. */
export interface Slope {
  roof: RoofPlane;
  /** Square metres in plan, and as it slopes. */
  plan: number;
  area: number;
  /** Degrees. */
  tilt: number;
  /** The way it falls, of length one in plan; nothing where it is level. */
  falls: Point;
  at: [number, number, number];
  region: Region;
  height: (p: Point) => number;
}

/** The roof planes over rooms that reach up to them. */
export class Overhead {
  private readonly planes: ReadonlyMap<string, Plane>;

  constructor({ roofs = [] }: ReadModel) {
    this.planes = new Map(roofs.flatMap((roof) => planeOf(roof) ?? []).map((plane) => [plane.roof.id, plane]));
  }

  private of({ zone }: Room): Plane[] {
    return (zone.roofs ?? []).flatMap((id) => this.planes.get(id) ?? []);
  }

  /** A plane by its id: its outline in plan, and the height of its underside. */
  plane(id: string): { outline: Point[]; thickness: number; height: (p: Point) => number } | null {
    const plane = this.planes.get(id);
    if (plane === undefined) return null;
    const { outline, roof, a, b, c } = plane;
    return { outline, thickness: roof.thickness, height: ([x, y]) => a * x + b * y + c };
  }

  /** What of a room lies under which plane, and what under none. */
  slopes(room: Room): { slopes: Slope[]; bare: Region } {
    let bare: Region = [{ outline: room.rings[0], holes: room.rings.slice(1) }];
    const slopes = this.of(room).flatMap((plane): Slope[] => {
      const shared = common(bare, [{ outline: plane.outline, holes: [] }]);
      const plan = regionArea(shared);
      if (plan < leastPart) return [];
      bare = without(bare, shared);
      const rise = Math.hypot(plane.a, plane.b);
      const [x, y] = regionCentre(shared);
      const falls: Point = rise === 0 ? [0, 0] : [-plane.a / rise, -plane.b / rise];
      const height = (p: Point): number => plane.a * p[0] + plane.b * p[1] + plane.c;
      return [
        {
          roof: plane.roof,
          plan,
          area: plan * Math.hypot(1, rise),
          tilt: degrees(Math.atan(rise)),
          falls,
          at: [x, y, height([x, y])],
          region: shared,
          height,
        },
      ];
    });
    return { slopes, bare: regionArea(bare) < leastPart ? [] : bare };
  }

  /** The mean height of the underside over a line; of what lies under no plane the room's ceiling. */
  meanOver(room: Room, a: Point, b: Point): number {
    const planes = this.of(room);
    if (planes.length === 0) return room.high;
    const cuts = planes.flatMap(({ outline }) =>
      outline.flatMap((p, i) => {
        const met = lineCrossing(a, b, p, outline[(i + 1) % outline.length]);
        return met !== null && met.t > 0 && met.t < 1 && met.u >= 0 && met.u <= 1 ? [met.t] : [];
      }),
    );
    const shares = [0, ...cuts.sort((one, other) => one - other), 1];
    // Between two cuts a plane rises evenly: its height amid them is the mean.
    return shares.slice(1).reduce((sum, to, i) => {
      const middle = pointAlong(a, b, (shares[i] + to) / 2);
      const plane = planes.find(({ outline }) => contains(outline, towards(middle, room)));
      const z = plane === undefined ? room.high : plane.a * middle[0] + plane.b * middle[1] + plane.c;
      return sum + z * (to - shares[i]);
    }, 0);
  }
}

/** Smaller parts are rounding, square metres. */
const leastPart = 0.02;
/** A side of a room is asked a little inside it: roofs may end on it. */
const inward = 1e-4;

function towards(p: Point, { rings: [outline] }: Room): Point {
  const [x, y] = regionCentre([{ outline: [...outline], holes: [] }]);
  return pointAlong(p, [x, y], inward);
}

function planeOf(roof: RoofPlane): Plane | null {
  const [p, ...others] = roof.outline;
  if (p === undefined || others.length < 2) return null;
  // The pair of sides from the first corner that spans the most.
  let best: { det: number; a: number; b: number } | null = null;
  for (let i = 1; i < others.length; i += 1) {
    const [u, v] = [others[i - 1], others[i]].map((q) => [q[0] - p[0], q[1] - p[1], q[2] - p[2]]);
    const det = u[0] * v[1] - u[1] * v[0];
    if (best !== null && Math.abs(det) <= Math.abs(best.det)) continue;
    best = { det, a: (u[2] * v[1] - v[2] * u[1]) / det, b: (u[0] * v[2] - v[0] * u[2]) / det };
  }
  if (best === null || best.det === 0) return null;
  const { a, b } = best;
  const outline = roof.outline.map(([x, y]): Point => [x, y]);
  return { roof, outline, a, b, c: p[2] - a * p[0] - b * p[1] };
}
