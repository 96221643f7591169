import { groupBy } from '@/core/groupBy';
import type { ReadModel } from '@/core/handover/model/readModel';
import { freedoms } from '@/core/kinds/support';
import type { Frame, FrameMember, FrameNode } from '../frame';
import { between, minus, shareNearest, size3, type V3 } from '../vector3';
import { standsAt, type Axis } from './axes';
import { Joints, nearMiss, tolerance } from './joints';
import type { Report } from '@/core/proof/report';

/** Where a place of an axis is in the frame. */
export interface PlaceOnMember {
  member: number;
  /** Metres from the member's start. */
  at: number;
}

/** A frame with what its members and nodes came from. */
export interface Skeleton {
  axes: readonly Axis[];
  frame: Frame;
  /** The members of each axis, from its start to its end, and how far along the axis each begins, metres. */
  pieces: { member: number; from: number; to: number }[][];
  /** The element of each node's support; null where it was assumed, undefined where there is none. */
  supportOf: (string | null | undefined)[];
}

type Support = NonNullable<ReadModel['supports']>[number];

/** What holds a column on the lowest level: pinned, and held about its own axis. */
const pinned = ['x', 'y', 'z', 'rz'];
/** What holds a wall along its foot, in axes that run along it: all but turning about its own line. */
const alongFoot = ['x', 'y', 'z', 'ry', 'rz'];

const fixedOf = (names: readonly string[]): boolean[] => freedoms.map((name) => names.includes(name));

/**
 * Joins axes to a frame: nodes where they meet, members between, and what holds them.
 * @param granted whether feet on the lowest level are held where no support is said at all
 */
export function skeletonOf(model: ReadModel, axes: readonly Axis[], report: Report, granted = true): Skeleton {
  const joints = new Joints(axes);
  const said = hooksOfSupports(model.supports ?? [], joints, report);
  const nodeOf = new Map<number, number>();
  const nodes: FrameNode[] = [];
  const supportOf: Skeleton['supportOf'] = [];
  const rank = ({ kind }: Axis): number => ['column', 'wall', 'beam'].indexOf(kind);
  const best = new Map<number, number>();
  joints.hooks.forEach(({ axis }, h) => {
    const joint = joints.jointOf(h);
    const before = best.get(joint);
    if (before === undefined || rank(axes[axis]) < rank(axes[joints.hooks[before].axis])) best.set(joint, h);
  });
  for (const [joint, h] of best) {
    const { axis, at } = joints.hooks[h];
    const support = said.get(joint);
    nodeOf.set(joint, nodes.length);
    supportOf.push(support?.id);
    nodes.push({
      position: support === undefined ? joints.placeOf(axis, at) : support.position,
      fixed: fixedOf(support?.fixed ?? []),
      turn: 0,
    });
  }
  const frame: Frame = { nodes, members: [], diaphragms: [] };
  const pieces = axes.map((axis, i) => piecesOf(axis, i, joints, nodeOf, frame));
  const skeleton: Skeleton = { axes, frame, pieces, supportOf };
  if (granted) holdFeet(model, skeleton, report);
  tellJoints(joints, report);
  return skeleton;
}

/** The members of an axis, between its joints. */
function piecesOf(axis: Axis, i: number, joints: Joints, nodeOf: ReadonlyMap<number, number>, frame: Frame) {
  const hooks = joints.along(i);
  return hooks.slice(1).map((hook, k) => {
    const [from, to] = [joints.hooks[hooks[k]].at, joints.hooks[hook].at];
    const last = k + 2 === hooks.length;
    const released = axis.released.map((is, f) => is && (f < 6 ? k === 0 : last));
    const member: FrameMember = {
      element: axis.element,
      nodes: [nodeOf.get(joints.jointOf(hooks[k]))!, nodeOf.get(joints.jointOf(hook))!],
      ends: [joints.placeOf(i, from), joints.placeOf(i, to)],
      axes: axis.axes,
      rigidity: axis.rigidity,
      released,
    };
    return { member: frame.members.push(member) - 1, from, to };
  });
}

/** Hooks for the supports that are said, by joint; several at one joint hold together. */
function hooksOfSupports(supports: readonly Support[], joints: Joints, report: Report) {
  const found: { hook: number; support: Support }[] = [];
  for (const support of supports) {
    const hook = hookAt(support.position, joints);
    if (hook === null) {
      report.find('support', 'error', [support.id], support.position, [
        'A support holds nothing: no member passes within 25 mm, and no column or wall stands there.',
        'Move it onto what it holds, or delete it.',
      ]);
    } else found.push({ hook, support });
  }
  const by = new Map<number, { id: string; position: V3; fixed: string[] }>();
  for (const { hook, support } of found) {
    const joint = joints.jointOf(hook);
    const before = by.get(joint);
    const fixed = [...(before?.fixed ?? []), ...support.fixed];
    by.set(joint, { id: support.id, position: before?.position ?? support.position, fixed });
  }
  return by;
}

/** The hook on what a support holds: the nearest axis within the tolerance, else what stands there. */
function hookAt(position: V3, joints: Joints): number | null {
  const [x, y] = position;
  let nearest: { hook: number; away: number } | null = null;
  let standing: number | null = null;
  for (const i of joints.near([x, y, x, y])) {
    const { start, end, length } = joints.axes[i];
    const share = shareNearest(start, end, position);
    const away = size3(minus(position, between(start, end, share)));
    if (away <= tolerance && (nearest === null || away < nearest.away))
      nearest = { hook: joints.hook(i, share * length), away };
    else if (standsAt(joints.axes[i], position, tolerance)) standing ??= joints.hook(i, share * length);
  }
  return nearest?.hook ?? standing;
}

/** The lower end of what stands, and the node there. */
function footOf({ axes, frame, pieces }: Skeleton, i: number): { node: number; z: number } {
  const own = pieces[i];
  const upside = axes[i].start[2] <= axes[i].end[2];
  const { nodes } = frame.members[own[upside ? 0 : own.length - 1].member];
  return { node: nodes[upside ? 0 : 1], z: Math.min(axes[i].start[2], axes[i].end[2]) };
}

/** Holds what stands on the lowest level where no support is said at all; other feet on nothing are told. */
function holdFeet(model: ReadModel, skeleton: Skeleton, report: Report): void {
  const { axes, frame, supportOf } = skeleton;
  const elevations = new Map(model.levels.map(({ id, elevation }) => [id, elevation]));
  const heightOf = ({ level, start }: Axis): number => elevations.get(level) ?? start[2];
  const standing = [...axes.keys()].filter((i) => axes[i].kind !== 'beam');
  const lowest = standing.reduce((least, i) => Math.min(least, heightOf(axes[i])), Infinity);
  const none = (model.supports ?? []).length === 0;
  for (const [node, feet] of feetOnNothing(skeleton)) {
    if (supportOf[node] !== undefined) continue;
    if (none && feet.some((i) => heightOf(axes[i]) <= lowest)) {
      frame.nodes[node] = { ...frame.nodes[node], ...heldFoot(feet.map((i) => axes[i])) };
      supportOf[node] = null;
      for (const i of feet)
        report.assumeOfEach(
          axes[i].kind === 'column'
            ? 'No support is said: columns on the lowest level are pinned, and held about their own axis'
            : 'No support is said: walls on the lowest level are held along their foot',
        );
    } else for (const i of feet) tellFoot(axes[i], report);
  }
}

/** Nodes in which nothing but feet end, with the axes of the columns and walls that stand there. */
export function feetOnNothing(skeleton: Skeleton): Map<number, number[]> {
  const { axes, frame } = skeleton;
  const standing = [...axes.keys()].filter((i) => axes[i].kind !== 'beam');
  const ends = new Int32Array(frame.nodes.length);
  for (const { nodes } of frame.members) for (const node of nodes) ends[node] += 1;
  const feet = groupBy(standing, (i) => footOf(skeleton, i).node);
  return new Map([...feet].filter(([node, own]) => ends[node] === own.length));
}

function tellFoot(axis: Axis, report: Report): void {
  const z = Math.min(axis.start[2], axis.end[2]);
  report.find(
    'nothing beneath',
    'error',
    [axis.element],
    [axis.start[0], axis.start[1], z],
    [
      `Nothing carries the foot of this ${axis.kind} at ${z.toFixed(3)} m: no member meets it, and no support is said.`,
      'Draw what carries it, move it onto that, or say a support there.',
    ],
  );
}

/** Walls that lean by less than this against one another run along one line, radians: 3 degrees. */
const oneLine = 0.05;

/** How feet in one node are held: a column as a pin, a wall along its line, walls of two directions against all. */
function heldFoot(feet: readonly Axis[]): Pick<FrameNode, 'fixed' | 'turn'> {
  const angles = feet.flatMap(({ line }) =>
    line === null ? [] : [Math.atan2(line[1][1] - line[0][1], line[1][0] - line[0][0])],
  );
  if (angles.length === 0) return { fixed: fixedOf(pinned), turn: 0 };
  const aligned = angles.every((angle) => Math.abs(Math.sin(angle - angles[0])) < oneLine);
  return aligned ? { fixed: fixedOf(alongFoot), turn: angles[0] } : { fixed: fixedOf(freedoms), turn: 0 };
}

/** Tells of arms, and of axes that pass one another closely without a joint. */
function tellJoints(joints: Joints, report: Report): void {
  const { column, wall } = joints.arms;
  if (column > 0) report.assume(`${column} ends lie in a column beside its axis, and are joined to it by rigid arms`);
  if (wall > 0) report.assume(`${wall} ends lie in or on a wall, and are joined to its axis by rigid arms`);
  for (const { axes, away, at } of joints.misses) {
    if (joints.areJoined(...axes)) continue;
    const [a, b] = axes.map((i) => joints.axes[i]);
    report.find('near miss', 'warning', [a.element, b.element], at, [
      `The axes of a ${a.kind} and a ${b.kind} pass ${Math.round(away * 1000)} mm from one another and do not meet: they ` +
        `meet within ${tolerance * 1000} mm, and up to ${nearMiss * 1000} mm it may be meant.`,
      'Move one end onto the other axis, or leave it where they are not joined.',
    ]);
  }
}
