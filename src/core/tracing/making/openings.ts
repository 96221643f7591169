import type { Point } from '@/core/geometry/vector';
import type { ElementOf } from '@/core/kinds/element';
import { alongWall, type Opening } from '@/core/kinds/opening';
import { wallLength } from '@/core/kinds/wall';
import { fail, ok, type Result } from '@/core/result';

type WallElement = ElementOf<'wall'>;

/** Lengths are put back to a wall's end within this, metres. */
const rounding = 1e-9;

function within(host: WallElement, opening: Opening): Result<Opening> {
  const most = wallLength(host.shape) - opening.width;
  if (most < -rounding)
    return fail(
      `The ${opening.use} is ${opening.width.toFixed(2)} m wide, its wall ${wallLength(host.shape).toFixed(2)} m long. Make it narrower.`,
    );
  return ok({ ...opening, wall: host.id, offset: Math.min(Math.max(0, most), Math.max(0, opening.offset)) });
}

/** An opening with its middle at the foot of a point, as far as the wall goes. */
export const openingAt = (host: WallElement, p: Point, like: Opening): Result<Opening> =>
  within(host, { ...like, offset: alongWall(host.shape, p) - like.width / 2 });

/**
 * An opening whose near edge is so far from the wall's node that lies nearer to a point.
 * @param away metres along the wall
 */
export function openingFrom(host: WallElement, near: Point, away: number, like: Opening): Result<Opening> {
  const whole = wallLength(host.shape);
  if (away < 0 || away + like.width > whole + rounding)
    return fail(
      `${away.toFixed(3)} m from the node the ${like.use} of ${like.width.toFixed(2)} m does ` +
        `not fit: its wall is ${whole.toFixed(3)} m long.`,
    );
  const fromStart = alongWall(host.shape, near) < whole / 2;
  return within(host, { ...like, offset: fromStart ? away : whole - away - like.width });
}

/** So many openings in a wall with equal lengths of wall between them and at its ends. */
export function openingsSpaced(host: WallElement, count: number, like: Opening): Result<Opening[]> {
  const whole = wallLength(host.shape);
  const gap = (whole - count * like.width) / (count + 1);
  if (gap < -rounding)
    return fail(
      `${count} of ${like.width.toFixed(2)} m do not fit into a wall ${whole.toFixed(2)} m long. Take fewer or narrower ones.`,
    );
  return ok(
    Array.from({ length: count }, (_, i) => ({
      ...like,
      wall: host.id,
      offset: Math.max(0, gap + i * (gap + like.width)),
    })),
  );
}
