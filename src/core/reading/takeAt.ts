import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { handleOf, type Drawing } from '@/core/drawing/drawing';
import type { ReadKind } from '@/core/kinds/element';
import type { GridLine } from '@/core/kinds/grid';
import { anchorOf, awayFrom } from '@/core/kinds/kinds';
import type { Box } from '@/core/geometry/boxIndex';
import { awayFromLine } from '@/core/kinds/lines';
import type { Placement } from '@/core/datum/placement';
import { toleranceFor, type ReadingSettings } from '@/core/patterns/settings';
import type { Answer } from '@/core/sorting/answers';
import type { Role } from '@/core/sorting/roles';
import type { Primitives } from '@/core/underlay/primitives';
import type { ScheduleSheet } from './beams/schedule';
import { shapedOf, type Candidate } from './candidate';
import { readStages, type ReadingTask } from './read';
import { Scene, type PickedRoles } from './scene';

/** Lines that somebody points at, to be read as one kind. */
export interface TakeTask {
  drawing: Drawing;
  /** The lines about the place, as primitives of their own. */
  primitives: Primitives;
  placement: Placement;
  /** The roles of layers, by their numbers. */
  roles: readonly (Role | null)[];
  picked: PickedRoles;
  accepted: readonly GridLine[];
  settings: ReadingSettings;
  /** The elevation of the project's zero in the survey, metres. */
  zero: number;
  /** Schedules of other sheets. */
  linked: readonly ScheduleSheet[];
  /** What was said of things that the drawing does not decide. */
  answers: readonly Answer[];
  kind: ReadKind;
  /** Whether the roles that lines have are one way to read them. */
  own: boolean;
  /** The line that is pointed at, by its number in the window; null where none is. */
  path: number | null;
}

/** One way to read the lines: all that was read of the kind that was asked for, and the openings in its walls. */
export interface TakeReading {
  candidates: Candidate[];
}

/** The roles that lines of a kind have, the likelier first. */
const rolesOf: Record<ReadKind, readonly Role[]> = {
  grid: ['grid'],
  column: ['column'],
  beam: ['beam'],
  wall: ['wall'],
  opening: ['door', 'window'],
  slab: ['slab'],
  zone: ['zone'],
  outdoor: ['outdoor'],
  luminaire: ['luminaire'],
  contour: ['terrain'],
};

type Roles = Pick<TakeTask, 'roles' | 'picked'>;

/**
 * The ways to look at the lines: as their roles say, the layer pointed at as the kind, those lines alone, by looks.
 * What has the role already is not looked at as that again.
 */
function* waysOf({ drawing, primitives, roles, picked, kind, own, path }: TakeTask): Generator<Roles> {
  if (own) yield { roles, picked };
  if (path !== null) {
    const layer = primitives.layer[path];
    const handle = handleOf(drawing, primitives.top[path]);
    const ofLayer = rolesOf[kind].filter((role) => role !== roles[layer]);
    const ofLine = rolesOf[kind].filter((role) => role !== (picked.lines.get(handle) ?? roles[layer]));
    for (const role of ofLayer) yield { roles: roles.map((before, i) => (i === layer ? role : before)), picked };
    for (const role of ofLine)
      yield { roles, picked: { ...picked, lines: new Map([...picked.lines, [handle, role]]) } };
  }
  yield { roles: roles.map((role) => (role === null || role === 'ignore' ? 'mixed' : role)), picked };
}

/** What the reader makes of the lines in one way; it goes no further than the kind that is asked for. */
function readIn(task: TakeTask, { roles, picked }: Roles, frames: ReadingTask['frames']): Candidate[] {
  const { drawing, primitives, placement, accepted, settings, zero, linked, answers, kind } = task;
  const scene = new Scene(drawing, primitives, placement, roles, picked);
  const tolerance = toleranceFor(placement.unit, settings);
  const reading = readStages({ scene, accepted, settings, zero, tolerance, linked, answers, frames });
  for (;;) {
    const step = reading.next();
    if (step.done || !step.value.soFar.left.includes(kind)) {
      const { candidates } = step.done ? step.value : step.value.soFar;
      return candidates.filter((one) => one.kind === kind || (kind === 'wall' && one.kind === 'opening'));
    }
  }
}

/**
 * What the reader would make of lines, whatever their layer or role, in every way that gives something.
 * @param wanted which of the candidates of a way are meant; ways that give none, or the same again, are left out
 * @param first whether the first that gives something is enough
 */
export function takeReadings(
  task: TakeTask,
  wanted: (candidates: readonly Candidate[]) => Candidate[],
  first = false,
): TakeReading[] {
  const found: TakeReading[] = [];
  const seen = new Set<string>();
  const frames: ReadingTask['frames'] = new Map();
  const ways = [...waysOf(task)];
  // By their looks lines are read only where nothing else is asked: it takes longest.
  for (const way of first && task.path !== null ? ways.slice(0, -1) : ways) {
    const candidates = wanted(readIn(task, way, frames));
    const looks = JSON.stringify(candidates.map(({ kind, element }) => [kind, element]));
    if (candidates.length === 0 || seen.has(looks)) continue;
    seen.add(looks);
    found.push({ candidates });
    if (first) break;
  }
  return found;
}

/** Metres from a point to a candidate; an opening is asked by its outline, since its wall is none yet. */
function awayFromCandidate(candidate: Candidate, p: Point): number {
  if (candidate.kind !== 'opening') return awayFrom(shapedOf(candidate), p, null);
  const { outline } = candidate;
  return contains(outline, p) ? 0 : awayFromLine([...outline, outline[0]], p);
}

/** The candidate of a kind at a point, within a reach, with the openings in it. */
export const candidateAt =
  (kind: ReadKind, p: Point, reach: number) =>
  (candidates: readonly Candidate[]): Candidate[] => {
    const [best] = candidates
      .filter((one) => one.kind === kind)
      .map((candidate) => ({ candidate, away: awayFromCandidate(candidate, p) }))
      .filter(({ away }) => away <= reach)
      .sort((a, b) => a.away - b.away);
    if (best === undefined) return [];
    const within = candidates.filter((one) => one.kind === 'opening' && one.host === best.candidate.key);
    return kind === 'wall' ? [best.candidate, ...within] : [best.candidate];
  };

/** The candidates of a kind whose middles lie in a box, with the openings in them. */
export const candidatesIn =
  (kind: ReadKind, [minX, minY, maxX, maxY]: Box) =>
  (candidates: readonly Candidate[]): Candidate[] => {
    const inside = candidates.filter((one) => {
      const at = one.kind === 'opening' ? one.at : anchorOf(shapedOf(one));
      return one.kind === kind && at !== null && at[0] >= minX && at[0] <= maxX && at[1] >= minY && at[1] <= maxY;
    });
    const keys = new Set(inside.map(({ key }) => key));
    const within = candidates.filter((one) => one.kind === 'opening' && keys.has(one.host));
    return kind === 'opening' ? inside : [...inside, ...within];
  };
