import type { Frame, FrameNode } from '../frame';
import { freedomCount } from '../frame';
import type { V3 } from '../vector3';

/** A share of an unknown in a freedom. */
export interface Share {
  unknown: number;
  factor: number;
}

/** The unknowns of a frame: the moves and turns of its nodes that are not held, and of its diaphragms. */
export interface Unknowns {
  count: number;
  /** Those that belong together. */
  groups: number[][];
  /** Of each freedom of each node, `node x 6 + freedom`, what it is made of; nothing where it is held. */
  shares: readonly (readonly Share[])[];
  /** Which of the six each is; of a diaphragm those of its first node. */
  freedoms: number[];
}

/** The freedoms that a diaphragm shares among its nodes. */
const inPlane = [0, 1, 5];

const joins = ({ fixed, turn }: FrameNode): boolean => turn === 0 && inPlane.every((freedom) => !fixed[freedom]);

/** Diaphragms that have a node in common are one. @returns for each node the number of its diaphragm, or -1 */
function joined({ nodes, diaphragms }: Frame): Int32Array {
  const of = new Int32Array(nodes.length).fill(-1);
  const root = diaphragms.map((_, i) => i);
  const find = (i: number): number => (root[i] === i ? i : (root[i] = find(root[i])));
  diaphragms.forEach((diaphragm, i) => {
    for (const node of diaphragm.nodes) {
      if (!joins(nodes[node])) continue;
      if (of[node] >= 0) root[find(i)] = find(of[node]);
      else of[node] = i;
    }
  });
  return of.map((i) => (i < 0 ? -1 : find(i)));
}

export function unknownsOf(frame: Frame): Unknowns {
  const { nodes } = frame;
  const diaphragmOf = joined(frame);
  const shares: Share[][] = Array.from({ length: nodes.length * freedomCount }, () => []);
  const groups: number[][] = [];
  const freedoms: number[] = [];
  const made = (freedom: number): number => freedoms.push(freedom) - 1;
  const masters = new Map<number, { unknowns: number[]; about: V3 }>();
  nodes.forEach(({ position, fixed }, node) => {
    const own: number[] = [];
    const d = diaphragmOf[node];
    for (let freedom = 0; freedom < freedomCount; freedom += 1) {
      if (fixed[freedom] || (d >= 0 && inPlane.includes(freedom))) continue;
      own.push(made(freedom));
      shares[node * freedomCount + freedom].push({ unknown: own[own.length - 1], factor: 1 });
    }
    groups.push(own);
    if (d < 0) return;
    let master = masters.get(d);
    if (master === undefined) {
      master = { unknowns: inPlane.map(made), about: position };
      masters.set(d, master);
      groups.push(master.unknowns);
    }
    const [x, y, turn] = master.unknowns;
    const at = node * freedomCount;
    shares[at].push({ unknown: x, factor: 1 }, { unknown: turn, factor: master.about[1] - position[1] });
    shares[at + 1].push({ unknown: y, factor: 1 }, { unknown: turn, factor: position[0] - master.about[0] });
    shares[at + 5].push({ unknown: turn, factor: 1 });
  });
  return { count: freedoms.length, groups: groups.filter(({ length }) => length > 0), shares, freedoms };
}

/** A vector of a node's own axes in the project's. */
export function outOfNode({ turn }: FrameNode, [x, y, z]: V3): V3 {
  if (turn === 0) return [x, y, z];
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [x * c - y * s, x * s + y * c, z];
}

/** A vector of the project in a node's own axes. */
export const intoNode = (node: FrameNode, v: V3): V3 => outOfNode({ ...node, turn: -node.turn }, v);
