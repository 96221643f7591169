import type { Point } from '@/core/geometry/vector';
import { deflectionSteps } from './deflection';
import { minus, plus, times, type V3 } from './vector3';
import { shownSteps, type ShownMember, type ShownResult, type StructureView } from './view';

/** What of a result is drawn: one of the inner forces, the displaced shape, what supports carry, or nothing. */
export const pictured = ['none', 'my', 'vz', 'n', 't', 'mz', 'vy', 'moved', 'supports'] as const;
export type Pictured = (typeof pictured)[number];

/** Where the inner forces lie among six. */
const places = { n: 0, vy: 1, vz: 2, t: 3, my: 4, mz: 5 } as const;
type Force = keyof typeof places;

/** How space is seen on a drawing board. */
export interface Seen {
  /** A place of space on the board. */
  at: (place: V3) => Point;
  /** Whether a place belongs to what is seen, such as a level. */
  shows: (member: ShownMember) => boolean;
  showsNode: (place: V3) => boolean;
  /** Seen from above, where what stands upright is a point. */
  plan: boolean;
}

/** Lines and words to lay over the board. */
export interface Picture {
  /** Filled shapes: a diagram against its member. */
  areas: Point[][];
  lines: Point[][];
  labels: { at: Point; text: string }[];
}

/** The greatest value is drawn this far from its member, metres. */
const farthest = 1;
/** Values below this share of the greatest are not written. */
const leastWritten = 0.02;
/** Seen shorter than this a member is a point, metres. */
const endOn = 0.01;
/** The greatest displacement is drawn this far, metres; motions too. */
const movedTo = 0.8;

/** Of a motion what moves less than this share of the most stands still. */
const still = 1e-6;

const none = (): Picture => ({ areas: [], lines: [], labels: [] });
const kilo = (value: number): string => {
  const size = Math.abs(value) / 1000;
  return size >= 10 ? size.toFixed(0) : size.toFixed(1);
};

/** The picture of a result. @param scale 1 as it is; 0 is the still picture */
export function pictureOf(view: StructureView, result: ShownResult, what: Pictured, seen: Seen, scale = 1): Picture {
  if (what === 'none') return none();
  if (what === 'moved') return movedPicture(view, result, seen, scale);
  if (what === 'supports') return supportPicture(view, result, seen);
  return forcePicture(view, result, what, seen);
}

const valueAt = ({ inner }: ShownResult, m: number, k: number, force: Force): number =>
  inner[(m * (shownSteps + 1) + k) * 6 + places[force]];

const along = ({ start, end }: ShownMember, share: number): V3 => plus(start, times(minus(end, start), share));

/** Moments lie on the side in tension, other forces on the side of z or y where they are positive. */
function sideOf({ y, z }: ShownMember, force: Force): V3 {
  if (force === 'my') return times(z, -1);
  if (force === 'mz') return times(y, -1);
  return force === 'vy' ? y : z;
}

function forcePicture(view: StructureView, result: ShownResult, force: Force, seen: Seen): Picture {
  const picture = none();
  const members = view.members.flatMap((member, m) => (member.sound && seen.shows(member) ? [{ member, m }] : []));
  let most = 0;
  for (const { m } of members)
    for (let k = 0; k <= shownSteps; k += 1) most = Math.max(most, Math.abs(valueAt(result, m, k, force)));
  if (most === 0) return picture;
  for (const { member, m } of members) {
    const values = Array.from({ length: shownSteps + 1 }, (_, k) => valueAt(result, m, k, force));
    drawDiagram(picture, member, values, { force, seen, scale: farthest / most, least: leastWritten * most });
  }
  return picture;
}

interface DiagramStyle {
  force: Force;
  seen: Seen;
  /** Metres a newton. */
  scale: number;
  least: number;
}

function drawDiagram(
  picture: Picture,
  member: ShownMember,
  values: number[],
  { force, seen, scale, least }: DiagramStyle,
) {
  const [a, b] = [seen.at(member.start), seen.at(member.end)];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const run = Math.hypot(dx, dy);
  let greatest = 0;
  values.forEach((value, k) => {
    if (Math.abs(value) > Math.abs(values[greatest])) greatest = k;
  });
  const label = (at: Point): void => {
    if (Math.abs(values[greatest]) >= least) picture.labels.push({ at, text: kilo(values[greatest]) });
  };
  // Seen end on it is a point: of what stands only what it carries along is told.
  if (run < endOn) {
    if (force === 'n') label(a);
    return;
  }
  const side = sideOf(member, force);
  const aside = ((): Point => {
    if (seen.plan) {
      // From above, what lies below is drawn to the right of start to end.
      const sign = force === 'my' || force === 'mz' ? 1 : -1;
      return [(dy / run) * sign, (-dx / run) * sign];
    }
    const [p, q] = [seen.at(member.start), seen.at(plus(member.start, side))];
    return [q[0] - p[0], q[1] - p[1]];
  })();
  const points = values.map((value, k): Point => {
    const [x, y] = seen.at(along(member, k / shownSteps));
    return [x + aside[0] * value * scale, y + aside[1] * value * scale];
  });
  picture.areas.push([a, ...points, b]);
  label(points[greatest]);
}

function movedPicture(view: StructureView, { moved }: ShownResult, seen: Seen, scale: number): Picture {
  const picture = none();
  let most = 0;
  for (const value of moved) most = Math.max(most, Math.abs(value));
  if (most === 0) return picture;
  view.members.forEach((member, m) => {
    if (!member.sound || !seen.shows(member)) return;
    const moves = Array.from({ length: deflectionSteps + 1 }, (_, k): V3 => {
      const at = (m * (deflectionSteps + 1) + k) * 3;
      return [moved[at], moved[at + 1], moved[at + 2]];
    });
    const factor = (movedTo / most) * scale;
    picture.lines.push(moves.map((move, k) => seen.at(plus(along(member, k / deflectionSteps), times(move, factor)))));
    const lowest = moves.reduce((best, move, k) => (Math.abs(move[2]) > Math.abs(moves[best][2]) ? k : best), 0);
    const millimetres = moves[lowest][2] * 1000;
    if (member.kind === 'beam' && Math.abs(millimetres) >= 0.05)
      picture.labels.push({
        at: seen.at(along(member, lowest / deflectionSteps)),
        text: `${millimetres.toFixed(1).replace('-', '\u2212')} mm`,
      });
  });
  return picture;
}

function supportPicture(view: StructureView, { supports }: ShownResult, seen: Seen): Picture {
  const picture = none();
  for (const { node, value } of supports) {
    const { position } = view.nodes[node];
    if (!seen.showsNode(position)) continue;
    const at = seen.at(position);
    picture.lines.push([at]);
    picture.labels.push({ at, text: kilo(value[2]) });
  }
  return picture;
}

/** A motion that nothing resists, as it swings. @param phase from -1 to 1 */
export function motionPicture(view: StructureView, motion: Float64Array, seen: Seen, phase: number): Picture {
  const picture = none();
  const moveOf = (n: number): V3 => times([motion[3 * n], motion[3 * n + 1], motion[3 * n + 2]], phase * movedTo);
  for (const member of view.members) {
    if (!seen.shows(member)) continue;
    const [a, b] = member.nodes;
    if ([a, b].every((n) => [0, 1, 2].every((i) => Math.abs(motion[3 * n + i]) < still))) continue;
    picture.lines.push([seen.at(plus(member.start, moveOf(a))), seen.at(plus(member.end, moveOf(b)))]);
  }
  return picture;
}
