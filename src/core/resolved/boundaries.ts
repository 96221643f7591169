import { leastOf, mostOf } from '@/core/lists';
import type { ElementRow } from '@/core/kinds/element';
import type { Opening } from '@/core/kinds/opening';
import { type Wall, wallLine } from '@/core/kinds/wall';
import type { Zone } from '@/core/kinds/zone';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { arcContains, arcOfBulge } from '@/core/geometry/bulge';
import { contains } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';

/** A stretch of a wall that bounds a zone: how long it is, what lies on its other side, and the openings in it. */
export interface Boundary {
  wall: string;
  length: number;
  /** The zone beyond, or null for the outside or what is no zone. */ beyond: string | null;
  openings: string[];
}

/** A side of a zone lies on a wall's face within this, metres. */
const onFace = 0.03;
/** Sides shorter than this along a wall are corners, metres. */
const shortest = 0.05;

interface Side {
  a: Point;
  b: Point;
}

/**
 * The walls that bound each zone, from the elements of one level: sides of the zone's outline and holes that run along
 * a wall's face. What lies beyond is the
 * zone on the other side of the wall, at the middle of the stretch.
 */
export function boundariesOf(elements: readonly ElementRow[]): Map<string, Boundary[]> {
  const walls = elements.flatMap((element) =>
    element.kind === 'wall' ? [{ id: element.id, wall: element.shape }] : [],
  );
  const zones = elements.flatMap((element) =>
    element.kind === 'zone' ? [{ id: element.id, zone: element.shape }] : [],
  );
  const openings = new Map<string, { id: string; opening: Opening }[]>();
  for (const element of elements)
    if (element.kind === 'opening') {
      const list = openings.get(element.shape.wall);
      if (list) list.push({ id: element.id, opening: element.shape });
      else openings.set(element.shape.wall, [{ id: element.id, opening: element.shape }]);
    }
  const curved = new Set(walls.filter(({ wall }) => wall.bulge !== 0).map(({ id }) => id));
  const wallIndex = new BoxIndex(walls, ({ wall }) => boxOf(wallLine(wall), wall.thickness / 2 + onFace));
  const zoneIndex = new BoxIndex(zones, ({ zone }) => boxOf(zone.outline));
  /** The openings of a wall whose middle lies between two places along it. */
  const openingsIn = (wallId: string, from: number, to: number): string[] =>
    (openings.get(wallId) ?? [])
      .filter(({ opening }) => {
        const at = opening.offset + opening.width / 2;
        return at > from && at <= to;
      })
      .map(({ id }) => id);
  const zoneAt = (p: Point): string | null => zoneIndex.around(p).find(({ zone }) => holds(zone, p))?.id ?? null;
  return new Map(
    zones.map(({ id, zone }) => [
      id,
      inOne(
        sidesOf(zone).flatMap((side) =>
          wallIndex.touching(boxOf([side.a, side.b])).flatMap(({ id: wallId, wall }): Boundary[] => {
            if (wall.bulge !== 0)
              return alongBend(side, wall).map(({ length, across, from, to }): Boundary => ({
                wall: wallId,
                length,
                beyond: zoneAt(across),
                openings: openingsIn(wallId, from, to),
              }));
            const stretch = alongWall(side, wall);
            if (stretch === null) return [];
            const { from, to, away } = stretch;
            const length = distance(wall.start, wall.end);
            const [ux, uy] = [(wall.end[0] - wall.start[0]) / length, (wall.end[1] - wall.start[1]) / length];
            // Beyond the other face, on the side away from the zone.
            const across = -Math.sign(away) * (wall.thickness / 2 + 0.05);
            const middle = (from + to) / 2;
            const beyond = zoneAt([
              wall.start[0] + ux * middle - uy * across,
              wall.start[1] + uy * middle + ux * across,
            ]);
            return [{ wall: wallId, length: to - from, beyond, openings: openingsIn(wallId, from, to) }];
          }),
        ),
        curved,
      ),
    ]),
  );
}

/** The chords along one curved wall that have the same beyond it are one stretch. */
function inOne(sides: readonly Boundary[], curved: ReadonlySet<string>): Boundary[] {
  const merged: Boundary[] = [];
  for (const side of sides) {
    const same = curved.has(side.wall)
      ? merged.find(({ wall, beyond }) => wall === side.wall && beyond === side.beyond)
      : undefined;
    if (same) {
      same.length += side.length;
      same.openings = [...same.openings, ...side.openings];
    } else merged.push({ ...side });
  }
  return merged;
}

/**
 * The length of a side that is a chord along a curved wall's face, from where to where along the wall it runs, and the
 * point beyond the wall's other face; empty where it is none.
 */
function alongBend({ a, b }: Side, wall: Wall): { length: number; across: Point; from: number; to: number }[] {
  const arc = arcOfBulge(wall.start, wall.end, wall.bulge);
  const [from, to] = [distance(arc.centre, a), distance(arc.centre, b)];
  const face = Math.sign(from - arc.radius) * (wall.thickness / 2);
  if ([from, to].some((away) => Math.abs(away - arc.radius - face) > onFace)) return [];
  const middle = Math.atan2((a[1] + b[1]) / 2 - arc.centre[1], (a[0] + b[0]) / 2 - arc.centre[0]);
  if (!arcContains(arc, middle)) return [];
  const out = arc.radius - face - Math.sign(face) * 0.05;
  const places = [a, b].map((p) => {
    const turn = Math.atan2(p[1] - arc.centre[1], p[0] - arc.centre[0]) - arc.start;
    const along = arc.sweep >= 0 ? turn : -turn;
    return arc.radius * (along - 2 * Math.PI * Math.floor((along + 0.05) / (2 * Math.PI)));
  });
  return [
    {
      length: distance(a, b),
      from: leastOf(places),
      to: mostOf(places),
      across: [arc.centre[0] + out * Math.cos(middle), arc.centre[1] + out * Math.sin(middle)],
    },
  ];
}

const holds = ({ outline, holes }: Zone, p: Point): boolean =>
  contains(outline, p) && !holes.some((hole) => contains(hole, p));

const sidesOf = ({ outline, holes }: Zone): Side[] =>
  [outline, ...holes].flatMap((ring) => ring.map((a, i) => ({ a, b: ring[(i + 1) % ring.length] })));

/** Where a side runs along a wall's face: from and to along the wall, and how far to the left of its centre line. */
function alongWall({ a, b }: Side, { start, end, thickness }: Wall): { from: number; to: number; away: number } | null {
  const length = distance(start, end);
  const [ux, uy] = [(end[0] - start[0]) / length, (end[1] - start[1]) / length];
  const local = ([x, y]: Point): Point => [
    (x - start[0]) * ux + (y - start[1]) * uy,
    (y - start[1]) * ux - (x - start[0]) * uy,
  ];
  const [p, q] = [local(a), local(b)];
  if (
    Math.abs(Math.abs(p[1]) - thickness / 2) > onFace ||
    Math.abs(Math.abs(q[1]) - thickness / 2) > onFace ||
    Math.sign(p[1]) !== Math.sign(q[1])
  )
    return null;
  const [from, to] = [Math.max(0, Math.min(p[0], q[0])), Math.min(length, Math.max(p[0], q[0]))];
  return to - from > shortest ? { from, to, away: p[1] } : null;
}
