import { groupBy } from '@/core/groupBy';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { area, centroid, contains } from '@/core/geometry/polygon';
import { distance, nearestOnPiece, type Point } from '@/core/geometry/vector';
import { shortPiece } from './walls';
import type { Drawn } from './drawn';
import { sidesOf, type AllLooks } from './looks';

/** Rooms are this large at least, square metres, and their outlines have at most so many corners. */
const room = { least: 1.5, mostCorners: 60 };
/** Along this share of a room's outline the faces of walls are drawn too, this near, metres; doors part them. */
const faced = { share: 0.6, near: 0.03 };
/** A room within an outline is smaller than it by this share at least. */
const largest = 0.9;
/** A court is wider than this, as walls drawn as outlines are not: twice its area over its length round, metres. */
const widerThanWalls = 0.6;
/** An outline is looked at this often, metres. */
const every = 0.25;

/** Outlines about something written that lie on the faces of walls, drawn once more: rooms. */
export function roomOutlines(looks: AllLooks, drawn: Drawn): void {
  const open = looks.flatMap((look, path): Outline[] => {
    if (look !== null || drawn.p.chain[path] !== 0) return [];
    const corners = drawn.p.start[path + 1] - drawn.p.start[path] <= room.mostCorners ? drawn.corners(path) : null;
    return corners !== null && Math.abs(area(corners)) >= room.least ? [{ path, corners }] : [];
  });
  if (open.length === 0) return;
  const written = new BoxIndex(
    drawn.p.texts.map((text) => drawn.middleOf(text)),
    (at) => boxOf([at]),
  );
  const sides = looks.flatMap((look, path) =>
    look === null && drawn.p.chain[path] === 0 ? sidesOf(drawn.placed(path)) : [],
  );
  const index = new BoxIndex(sides, ({ a, b }) => boxOf([a, b], faced.near));
  const isFaced = (at: Point, path: number): boolean =>
    index
      .around(at)
      .some((side) => side.path !== path && distance(nearestOnPiece(side.a, side.b, at), at) <= faced.near);
  const isOnWalls = ({ path, corners }: Outline): boolean => {
    const points = along(corners);
    return points.filter((at) => isFaced(at, path)).length >= faced.share * points.length;
  };
  const isWritten = ({ corners }: Outline): boolean =>
    written.touching(boxOf(corners)).some((at) => contains(corners, at));
  const rooms = withoutFloors(open.filter((one) => isWritten(one) && isOnWalls(one)));
  tell(looks, rooms, 'an outline about a text, on the faces of walls');
  // A room that goes round a court has an outline about that too.
  const isWithin = ({ corners }: Outline): boolean =>
    rooms.some((other) => corners.every((corner) => contains(other.corners, corner)));
  const courts = open.filter((one) => isWide(one) && isWithin(one) && !isWritten(one) && isOnWalls(one));
  tell(looks, courts, 'an outline on the faces of walls, within that of a room');
}

/** Walls drawn as outlines have some that are a room's too: of two alike the last is the room's. */
function tell(looks: AllLooks, outlines: readonly Outline[], why: string): void {
  for (const alike of groupBy(outlines, ({ corners }) => placeOf(corners)).values())
    looks[alike[alike.length - 1].path] = { role: 'zone', why };
}

/** A path that closes, by its corners. */
interface Outline {
  path: number;
  corners: Point[];
}

/**
 * Leaves out the walls' own outlines of a whole floor, which go in and out of rooms by the jambs of their doors. One
 * that goes round others without jambs is a room round a core.
 */
function withoutFloors<T extends { corners: Point[] }>(rooms: readonly T[]): T[] {
  const sizes = new Map(rooms.map((one) => [one, Math.abs(area(one.corners))]));
  const index = new BoxIndex(rooms, ({ corners }) => boxOf([centroid(corners)]));
  return rooms.filter((one) => {
    const { corners } = one;
    const inside = index
      .touching(boxOf(corners))
      .filter((other) => sizes.get(other)! < largest * sizes.get(one)! && contains(corners, centroid(other.corners)));
    const jambs = corners.filter((a, i) => distance(a, corners[(i + 1) % corners.length]) <= shortPiece);
    return inside.length < 2 || jambs.length < inside.length;
  });
}

function isWide({ corners }: Outline): boolean {
  const around = corners.reduce((sum, a, i) => sum + distance(a, corners[(i + 1) % corners.length]), 0);
  return Math.abs(area(corners)) > (widerThanWalls * around) / 2;
}

/** Where an outline lies and how large it is, to five centimetres. */
const placeOf = (corners: readonly Point[]): string =>
  [...centroid(corners), Math.sqrt(Math.abs(area(corners)))].map((value) => Math.round(value / 0.05)).join();

/** Points along an outline. */
const along = (corners: readonly Point[]): Point[] =>
  corners.flatMap((a, i) => {
    const b = corners[(i + 1) % corners.length];
    const steps = Math.max(1, Math.round(distance(a, b) / every));
    return Array.from({ length: steps }, (_, s): Point => {
      const t = (s + 0.5) / steps;
      return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
    });
  });
