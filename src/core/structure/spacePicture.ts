import type { Carried } from './carried';
import { deflectionSteps } from './deflection';
import {
  along,
  displacedPoints,
  enlarged,
  farthest,
  forceAt,
  kilo,
  leastWritten,
  sideOf,
  type Force,
  type Pictured,
} from './picture';
import { plus, times, type V3 } from './vector3';
import { shownSteps, type ShownMember, type ShownResult, type StructureView } from './view';

/** Lines and values to be seen in space, metres in the project; the greatest values come first. */
export interface SpacePicture {
  pieces: [V3, V3][];
  labels: { at: V3; text: string; size: number }[];
}

/** What is drawn in space, and of what. */
export interface SpaceTask {
  view: StructureView;
  result: ShownResult;
  /** The other side of an envelope; left out of a single result. */
  other?: ShownResult;
  what: Pictured;
  carried: readonly Carried[] | null;
  /** Whether an element is seen. */
  shows: (element: string) => boolean;
  /** How much of the displacement. */
  scale: number;
}

/** Supports are drawn as a line down to this far, metres, for the greatest of them. */
const longestSupport = 1.5;

/** What of a trial is seen in space: diagrams stand on their members, in the plane in which they act. */
export function spacePictureOf(task: SpaceTask): SpacePicture {
  const picture: SpacePicture = { pieces: [], labels: [] };
  const { what, view, shows } = task;
  const members = view.members.flatMap((member, m) => (shows(member.element) ? [{ member, m }] : []));
  if (what === 'model') for (const { member } of members) picture.pieces.push([member.start, member.end]);
  else if (what === 'moved') movedIn(picture, task, members);
  else if (what === 'supports') supportsIn(picture, task);
  else if (what === 'tributary') tributaryIn(picture, task);
  else if (what === 'loads') loadsIn(picture, task, members);
  else if (what !== 'none') forcesIn(picture, task, members, what);
  picture.labels.sort((a, b) => b.size - a.size);
  return picture;
}

type Members = readonly { member: ShownMember; m: number }[];

function forcesIn(picture: SpacePicture, { result, other }: SpaceTask, members: Members, force: Force): void {
  const sound = members.filter(({ member }) => member.sound);
  const rows = [result, ...(other === undefined ? [] : [other])].flatMap((one) =>
    sound.map(({ member, m }) => ({
      member,
      side: sideOf(member, force),
      values: Array.from({ length: shownSteps + 1 }, (_, k) => forceAt(one, m, k, force)),
    })),
  );
  diagrams(picture, rows);
}

function loadsIn(picture: SpacePicture, { result: { loads } }: SpaceTask, members: Members): void {
  diagrams(
    picture,
    members.map(({ member, m }) => ({
      member,
      side: [0, 0, -1],
      values: Array.from(loads.spread.subarray(m * (shownSteps + 1), (m + 1) * (shownSteps + 1))),
    })),
  );
  const greatest = loads.places.reduce((most, { force }) => Math.max(most, Math.hypot(...force)), 0);
  for (const { at, force } of loads.places) {
    const size = Math.hypot(...force);
    if (size < leastWritten * greatest) continue;
    picture.pieces.push([at, plus(at, times(force, -farthest / size))]);
    picture.labels.push({ at, text: `${kilo(size)} kN`, size });
  }
}

/** Values along members, as shapes that stand on them. */
function diagrams(
  picture: SpacePicture,
  rows: readonly { member: ShownMember; side: V3; values: readonly number[] }[],
): void {
  let most = 0;
  for (const { values } of rows) for (const value of values) most = Math.max(most, Math.abs(value));
  if (most === 0) return;
  for (const { member, side, values } of rows) {
    const feet = values.map((_, k) => along(member, k / shownSteps));
    const tips = feet.map((foot, k) => plus(foot, times(side, (values[k] * farthest) / most)));
    const size = Math.max(...values.map(Math.abs));
    if (size < leastWritten * most) continue;
    tips.forEach((tip, k) => {
      picture.pieces.push([feet[k], tip]);
      if (k > 0) picture.pieces.push([tips[k - 1], tip]);
    });
    const greatest = values.findIndex((value) => Math.abs(value) === size);
    picture.labels.push({ at: tips[greatest], text: kilo(values[greatest]), size });
  }
}

function movedIn(picture: SpacePicture, { result, scale }: SpaceTask, members: Members): void {
  const factor = enlarged(result, scale);
  for (const { member, m } of members) {
    if (!member.sound) continue;
    const points = displacedPoints(member, m, result, factor);
    for (let k = 1; k <= deflectionSteps; k += 1) picture.pieces.push([points[k - 1], points[k]]);
  }
}

function supportsIn(picture: SpacePicture, { view, result: { supports } }: SpaceTask): void {
  const most = supports.reduce((greatest, { value }) => Math.max(greatest, Math.abs(value[2])), 0);
  if (most === 0) return;
  for (const { node, value } of supports) {
    const at = view.nodes[node].position;
    const foot = plus(at, [0, 0, (-longestSupport * Math.abs(value[2])) / most]);
    picture.pieces.push([at, foot]);
    picture.labels.push({ at: foot, text: kilo(value[2]), size: Math.abs(value[2]) });
  }
}

function tributaryIn(picture: SpacePicture, { carried, shows }: SpaceTask): void {
  for (const { element, border, at, area } of carried ?? []) {
    if (!shows(element)) continue;
    for (const [x1, y1, x2, y2] of border)
      picture.pieces.push([
        [x1, y1, at[2]],
        [x2, y2, at[2]],
      ]);
    picture.labels.push({ at, text: `${area.toFixed(1)} m\u00b2`, size: area });
  }
}
