import type { CaseLoads, Frame, FrameMember, FrameNode, PlaceLoad, Rigidity, SpreadLoad } from '../frame';
import { axesOf, zero, type V3 } from '../vector3';

/** Frames of a few members, as tests and benches draw them. */
export const held = (...names: string[]): boolean[] =>
  ['x', 'y', 'z', 'rx', 'ry', 'rz'].map((name) => names.includes(name));
export const clamped = held('x', 'y', 'z', 'rx', 'ry', 'rz');
export const free = held();

export const node = (position: V3, fixed: boolean[] = free, turn = 0): FrameNode => ({ position, fixed, turn });

/** Steel tubes: E A = 2 GN, E I = 40 and 20 MN m2, G J = 10 MN m2. */
export const plain: Rigidity = { ea: 2e9, eiy: 4e7, eiz: 2e7, eiyz: 0, gj: 1e7 };

const names = ['x', 'y', 'z', 'rx', 'ry', 'rz'];
/** @param released such as "start.ry" */
export function member(
  nodes: readonly FrameNode[],
  start: number,
  end: number,
  more: { rigidity?: Rigidity; angle?: number; released?: string[] } = {},
): FrameMember {
  const ends = [nodes[start].position, nodes[end].position] as const;
  const released = ['start', 'end'].flatMap((at) =>
    names.map((name) => more.released?.includes(`${at}.${name}`) ?? false),
  );
  return {
    element: `${start}-${end}`,
    nodes: [start, end],
    ends,
    axes: axesOf(...ends, more.angle ?? 0),
    rigidity: more.rigidity ?? plain,
    released,
  };
}

export const frameOf = (nodes: FrameNode[], members: FrameMember[]): Frame => ({ nodes, members, diaphragms: [] });

export const noCase = (id = 'Q'): CaseLoads => ({ id, spread: [], places: [], nodes: [] });

/** An even load over a whole member, N/m. */
export const even = (frame: Frame, m: number, q: V3): SpreadLoad => {
  const [a, b] = frame.members[m].ends;
  return {
    member: m,
    from: 0,
    to: Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]),
    force: [q, q],
    moment: [zero, zero],
  };
};

export const placed = (m: number, at: number, force: V3, moment: V3 = zero): PlaceLoad => ({
  member: m,
  at,
  force,
  moment,
});
