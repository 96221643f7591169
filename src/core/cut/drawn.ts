import type { Region } from '@/core/geometry/clipping';
import type { Point } from '@/core/geometry/vector';
import type { Measured } from './body';
import { sectionOf, type CutLine } from './section';
import { silhouetteOf } from './silhouette';
import type { PlanStorey } from './storeys';

/** Something is on a floor that reaches above it by more than this, metres. */
const onFloor = 0.02;

/** What a body is on the plan of a storey: cut, or seen from above as a region; null where it is not on it. */
export type Drawn = { cut: CutLine[] } | { seen: Region } | null;

/** How a kind of bodies comes onto plans. */
type Habit = (body: Measured, storey: PlanStorey, storeys: readonly PlanStorey[]) => Drawn;

/** Cut where the plane goes through it, seen from above where it is lower, left out where it is higher. */
const cutOrSeen: Habit = (body, storey) => {
  if (body.low > storey.cut || body.high <= storey.elevation + onFloor) return null;
  if (body.high <= storey.cut) return seen(body);
  return { cut: body.shells().flatMap((shell) => sectionOf(shell, storey.cut)) };
};

/** Cut alone: rooms, and what fills openings. */
const cutAlone: Habit = (body, storey, storeys) => {
  const drawn = cutOrSeen(body, storey, storeys);
  return drawn !== null && 'cut' in drawn ? drawn : null;
};

/** A floor: on the plan of the storey that its upper side is next to, as what it covers. */
const floor: Habit = (body, storey, storeys) => {
  const away = ({ elevation }: PlanStorey): number => Math.abs(body.high - elevation);
  const next = storeys.reduce((best, one) => (away(one) < away(best) ? one : best));
  return next === storey && body.high <= storey.cut ? seen(body) : null;
};

/** A beam: on the plan of the storey that it is in, whether below the cut or above it, as what it covers. */
const beam: Habit = (body, storey, storeys) => {
  const middle = (body.low + body.high) / 2;
  const own = storeys.findLast(({ elevation }) => elevation <= middle) ?? storeys[0];
  return own === storey ? seen(body) : null;
};

function seen({ shells }: Measured): Drawn {
  const region = silhouetteOf(shells());
  return region.length === 0 ? null : { seen: region };
}

/** Kinds that come onto plans by habits of their own. */
const habits: Partial<Record<string, Habit>> = {
  SLAB: floor,
  ROOF: floor,
  FOUNDATION: floor,
  SITE: floor,
  BEAM: beam,
  MEMBER: beam,
  ROOM: cutAlone,
  OPENING: cutAlone,
};

/** What of a body is seen on a storey's plan. */
export const drawnOn: Habit = (body, storey, storeys) => (habits[body.kind] ?? cutOrSeen)(body, storey, storeys);

/** The lines of what is drawn: holes of regions apart from their outlines. */
export function linesOf(drawn: NonNullable<Drawn>): { lines: CutLine[]; holes: Point[][] } {
  if ('cut' in drawn) return { lines: drawn.cut, holes: [] };
  return {
    lines: drawn.seen.map(({ outline }) => ({ points: outline, closed: true })),
    holes: drawn.seen.flatMap(({ holes }) => holes),
  };
}
