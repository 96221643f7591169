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
    const pieces = this.over(room, a, b);
    // Under one plane the head rises evenly: half between its ends is its mean.
    return pieces.reduce((sum, { from, to, ends }) => sum + ((ends[0] + ends[1]) / 2) * (to - from), 0);
  }

  /** The underside over a line, in pieces under one plane each: shares along it, and the heights at their ends. */
  over(room: Room, a: Point, b: Point): { from: number; to: number; ends: [number, number] }[] {
    const planes = this.of(room);
    if (planes.length === 0) return [{ from: 0, to: 1, ends: [room.high, room.high] }];
    const cuts = planes.flatMap(({ outline }) =>
      outline.flatMap((p, i) => {
        const met = lineCrossing(a, b, p, outline[(i + 1) % outline.length]);
        return met !== null && met.t > 0 && met.t < 1 && met.u >= 0 && met.u <= 1 ? [met.t] : [];
      }),
    );
    const shares = [0, ...cuts.sort((one, other) => one - other), 1];
    return shares.slice(1).map((to, i) => {
      const from = shares[i];
      const middle = towards(pointAlong(a, b, (from + to) / 2), room);
      const plane = planes.find(({ outline }) => contains(outline, middle));
      const height = ([x, y]: Point): number => (plane === undefined ? room.high : plane.a * x + plane.b * y + plane.c);
      return { from, to, ends: [height(pointAlong(a, b, from)), height(pointAlong(a, b, to))] };
    });
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
