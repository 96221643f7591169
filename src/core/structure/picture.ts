import type { Point } from '@/core/geometry/vector';
import { freedoms } from '@/core/kinds/support';
import type { Carried } from './carried';
import { deflectionSteps } from './deflection';
import type { Envelope } from './envelope';
import { minus, plus, times, type V3 } from './vector3';
import { shownSteps, type ShownMember, type ShownResult, type StructureView } from './view';

/**
 * What of a trial is drawn: the derived model, its tributary areas, its loads, one of the inner forces, the displaced
 * shape, what supports carry, or nothing.
 */
export const pictured = [
  'none',
  'model',
  'tributary',
  'loads',
  'my',
  'vz',
  'n',
  't',
  'mz',
  'vy',
  'moved',
  'supports',
] as const;
export type Pictured = (typeof pictured)[number];

/** Where the inner forces lie among six. */
const places = { n: 0, vy: 1, vz: 2, t: 3, my: 4, mz: 5 } as const;
export type Force = keyof typeof places;

/** How space is seen on a drawing board. */
export interface Seen {
  /** A place of space on the board. */
  at: (place: V3) => Point;
  /** Whether a place belongs to what is seen, such as a level. */
  shows: (member: { element: string; start?: V3; end?: V3 }) => boolean;
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
  /** Filled shapes that tint what lies beneath them, the more the greater their share, from 0 to 1. */
  tints?: { outline: Point[]; holes: Point[][]; share: number }[];
}

/** The greatest value is drawn this far from its member, metres. */
export const farthest = 1;
/** Values below this share of the greatest are not written. */
export const leastWritten = 0.02;
/** Seen shorter than this a member is a point, metres. */
const endOn = 0.01;
/** The greatest displacement is drawn this far, metres; motions too. */
const movedTo = 0.8;

/** Of a motion what moves less than this share of the most stands still. */
const still = 1e-6;

const none = (): Picture => ({ areas: [], lines: [], labels: [] });
/** Newtons as kilonewtons, without a sign. */
export const kilo = (value: number): string => {
  const size = Math.abs(value) / 1000;
  return size >= 10 ? size.toFixed(0) : size.toFixed(1);
};

/** The picture of a result. @param scale 1 as it is; 0 is the still picture */
export function pictureOf(view: StructureView, result: ShownResult, what: Pictured, seen: Seen, scale = 1): Picture {
  // Tributary areas are worked out by themselves: `tributaryPicture`.
  if (what === 'none' || what === 'tributary') return none();
  if (what === 'model') return modelPicture(view, seen);
  if (what === 'loads') return loadPicture(view, result, seen);
  if (what === 'moved') return movedPicture(view, result, seen, scale);
  if (what === 'supports') return supportPicture(view, result, seen);
  return forcePicture(view, [result], what, seen);
}

/** The picture of an envelope: of inner forces the greatest and the least, of the rest what governs. */
export function envelopePicture(view: StructureView, envelope: Envelope, what: Pictured, seen: Seen): Picture {
  const { most, least, governing } = envelope;
  return isForce(what) ? forcePicture(view, [most, least], what, seen) : pictureOf(view, governing, what, seen);
}

export const isForce = (what: Pictured): what is Force => what in places;

/** An inner force of a member at one of the places along it. */
export const forceAt = ({ inner }: ShownResult, m: number, k: number, force: Force): number =>
  inner[(m * (shownSteps + 1) + k) * 6 + places[force]];

/** The place at a share of a member. */
export const along = ({ start, end }: ShownMember, share: number): V3 => plus(start, times(minus(end, start), share));

/** Moments lie on the side in tension, other forces on the side of z or y where they are positive. */
export function sideOf({ y, z }: ShownMember, force: Force): V3 {
  if (force === 'my') return times(z, -1);
  if (force === 'mz') return times(y, -1);
  return force === 'vy' ? y : z;
}

function forcePicture(view: StructureView, results: readonly ShownResult[], force: Force, seen: Seen): Picture {
  const picture = none();
  const members = view.members.flatMap((member, m) => (member.sound && seen.shows(member) ? [{ member, m }] : []));
  const drawn = results.flatMap((result) =>
    members.map(({ member, m }) => ({
      member,
      values: Array.from({ length: shownSteps + 1 }, (_, k) => forceAt(result, m, k, force)),
    })),
  );
  let most = 0;
  for (const { values } of drawn) for (const value of values) most = Math.max(most, Math.abs(value));
  if (most === 0) return picture;
  for (const { member, values } of drawn)
    drawDiagram(picture, member, values, {
      moment: force === 'my' || force === 'mz',
      side: sideOf(member, force),
      alongEndOn: force === 'n',
      seen,
      scale: farthest / most,
      least: leastWritten * most,
    });
  return picture;
}

interface DiagramStyle {
  /** Whether it lies on the side in tension: moments do. */
  moment: boolean;
  side: V3;
  /** Whether of a member seen end on the value is told. */
  alongEndOn: boolean;
  seen: Seen;
  /** Metres a newton. */
  scale: number;
  least: number;
}

function drawDiagram(
  picture: Picture,
  member: ShownMember,
  values: number[],
  { moment, side, alongEndOn, seen, scale, least }: DiagramStyle,
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
    if (alongEndOn) label(a);
    return;
  }
  const aside = ((): Point => {
    if (seen.plan) {
      // From above, what lies below is drawn to the right of start to end.
      const sign = moment ? 1 : -1;
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

/** The derived model: axes, a dot at each node, rings at hinges, and what supports hold. */
function modelPicture(view: StructureView, seen: Seen): Picture {
  const picture = none();
  const nodes = new Set<number>();
  for (const member of view.members) {
    if (!seen.shows(member)) continue;
    picture.lines.push([seen.at(member.start), seen.at(member.end)]);
    for (const n of member.nodes) nodes.add(n);
    member.hinges.forEach((hinged, end) => {
      if (hinged) picture.areas.push(ringAbout(seen.at(along(member, end === 0 ? hingeAt : 1 - hingeAt))));
    });
  }
  view.nodes.forEach(({ position, fixed }, n) => {
    const held = fixed.some(Boolean) && seen.showsNode(position);
    if (!held && !nodes.has(n)) return;
    const at = seen.at(position);
    picture.lines.push([at]);
    if (held) picture.labels.push({ at, text: fixed.flatMap((one, i) => (one ? [freedoms[i]] : [])).join(' ') });
  });
  return picture;
}

/** Hinges are drawn as rings of this radius, metres, at this share of the member from its end. */
const [hingeRadius, hingeAt] = [0.12, 0.04];
const ringCorners = 12;
const ringAbout = ([x, y]: Point): Point[] =>
  Array.from({ length: ringCorners }, (_, i) => {
    const angle = (2 * Math.PI * i) / ringCorners;
    return [x + hingeRadius * Math.cos(angle), y + hingeRadius * Math.sin(angle)];
  });

/** Loads along members as shapes of their size, and at places as dots, both with their values. */
function loadPicture(view: StructureView, { loads }: ShownResult, seen: Seen): Picture {
  const picture = none();
  const members = view.members.flatMap((member, m) => (seen.shows(member) ? [{ member, m }] : []));
  const valuesOf = (m: number): number[] =>
    Array.from({ length: shownSteps + 1 }, (_, k) => loads.spread[m * (shownSteps + 1) + k]);
  const most = Math.max(0, ...members.map(({ m }) => Math.max(...valuesOf(m).map(Math.abs))));
  if (most > 0)
    for (const { member, m } of members)
      drawDiagram(picture, member, valuesOf(m), {
        moment: false,
        // What presses down lies above its member.
        side: [0, 0, -1],
        alongEndOn: false,
        seen,
        scale: farthest / most,
        least: leastWritten * most,
      });
  const greatest = loads.places.reduce((size, { force }) => Math.max(size, Math.hypot(...force)), 0);
  for (const { at, force } of loads.places) {
    if (!seen.showsNode(at) || Math.hypot(...force) < leastWritten * greatest) continue;
    const foot = seen.at(at);
    picture.lines.push([foot]);
    picture.labels.push({ at: foot, text: `${kilo(Math.hypot(...force))} kN` });
  }
  return picture;
}

/** Smaller areas than this are not written, square metres. */
const leastArea = 0.05;

/** Tributary areas: their borders, and how much each element carries. */
export function tributaryPicture(carried: readonly Carried[], seen: Seen): Picture {
  const picture = none();
  for (const one of carried) {
    if (!seen.plan || !seen.shows(one)) continue;
    const z = one.at[2];
    for (const [x1, y1, x2, y2] of one.border) picture.lines.push([seen.at([x1, y1, z]), seen.at([x2, y2, z])]);
    if (one.area >= leastArea) picture.labels.push({ at: seen.at(one.at), text: `${one.area.toFixed(1)} m\u00b2` });
  }
  return picture;
}

/** The greatest displacement of a result in any direction, metres. */
const mostMoved = ({ moved }: ShownResult): number => {
  let most = 0;
  for (const value of moved) most = Math.max(most, Math.abs(value));
  return most;
};

const moveOf = ({ moved }: ShownResult, m: number, k: number): V3 => {
  const at = (m * (deflectionSteps + 1) + k) * 3;
  return [moved[at], moved[at + 1], moved[at + 2]];
};

/** By how much displacements are drawn larger. @param scale 1 draws the greatest so far that it is seen */
export function enlarged(result: ShownResult, scale: number): number {
  const most = mostMoved(result);
  return most === 0 ? 0 : (movedTo / most) * scale;
}

/** The places along a member once it is displaced, so many times as much. */
export const displacedPoints = (member: ShownMember, m: number, result: ShownResult, factor: number): V3[] =>
  Array.from({ length: deflectionSteps + 1 }, (_, k) =>
    plus(along(member, k / deflectionSteps), times(moveOf(result, m, k), factor)),
  );

function movedPicture(view: StructureView, result: ShownResult, seen: Seen, scale: number): Picture {
  const picture = none();
  if (mostMoved(result) === 0) return picture;
  const factor = enlarged(result, scale);
  view.members.forEach((member, m) => {
    if (!member.sound || !seen.shows(member)) return;
    picture.lines.push(displacedPoints(member, m, result, factor).map(seen.at));
    const down = Array.from({ length: deflectionSteps + 1 }, (_, k) => moveOf(result, m, k)[2]);
    const lowest = down.reduce((best, value, k) => (Math.abs(value) > Math.abs(down[best]) ? k : best), 0);
    const millimetres = down[lowest] * 1000;
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
