import { freedomCount, type CaseLoads, type Frame, type FrameMember, type FrameNode } from '../frame';
import { cross3, minus, plus, times, zero, type V3 } from '../vector3';
import type { Progress } from '@/core/progress';
import { factorise, type Element, type Factor } from './factor';
import {
  endForces,
  ends,
  inAxes,
  innerForces,
  lengthOfMember,
  noLoads,
  ownLoads,
  stiffnessOf,
  type Inner,
  type OwnLoads,
  type Stiffness,
} from './member';
import { intoNode, outOfNode, unknownsOf, type Unknowns } from './unknowns';

/** A way in which something moves while nothing resists it. */
export interface Motion {
  /** How the nodes move, six numbers a node, in the project's axes; the freedom itself by one. */
  nodes: Float64Array;
  /** Whether some load drives it: then nothing is known of what moves. */
  driven: boolean;
}

/** What comes of one case, in the project's axes. */
export interface CaseResult {
  id: string;
  applied: V3;
  reactions: V3;
  /** Six numbers a node, metres and radians. */
  displacements: Float64Array;
  /** The forces of a support on its node, N and Nm. */
  supports: { node: number; value: number[] }[];
  /** The forces at each member's start, in its own axes, and its loads there. */
  members: { start: Float64Array; loads: OwnLoads }[];
}

export interface Solution {
  cases: CaseResult[];
  motions: Motion[];
  /** Whether what is told of a node or of a member can be relied on: no load drives a motion of it. */
  nodeSound: (node: number) => boolean;
  memberSound: (member: number) => boolean;
  /** Numbers that the factor holds, and unknowns. */
  size: number;
  unknowns: number;
}

/** Forces smaller than this share of the greatest load drive nothing. */
const drivesLeast = 1e-9;
/** Motions smaller than this share of the freedom's own leave what they move at rest. */
const movesLeast = 1e-9;
/** More motions than these are not followed: what holds nothing is said by then. */
const mostMotions = 200;

/** Solves a frame for all its cases at once. Linear, without shear deformation. */
export function solveFrame(frame: Frame, cases: readonly CaseLoads[], progress?: Progress): Solution {
  return new Solver(frame, progress).run(cases);
}

/** A member as the system of equations has it. */
interface Part {
  stiffness: Stiffness;
  unknowns: Int32Array;
  /** The moves and turns of its ends in its own axes by its unknowns, 12 x unknowns. */
  moves: Float64Array;
}

class Solver {
  private readonly unknowns: Unknowns;
  private readonly parts: Part[];
  private readonly factor: Factor;
  private readonly stiff: Uint8Array;

  constructor(
    private readonly frame: Frame,
    progress?: Progress,
  ) {
    this.unknowns = unknownsOf(frame);
    this.parts = frame.members.map((member) => partOf(frame, this.unknowns, member));
    const elements = this.parts.map(elementOf);
    this.stiff = new Uint8Array(this.unknowns.count);
    for (const { unknowns, matrix } of elements)
      unknowns.forEach((unknown, i) => {
        if (matrix[i * unknowns.length + i] !== 0) this.stiff[unknown] = 1;
      });
    this.factor = factorise(elements, this.unknowns.groups, progress);
  }

  run(cases: readonly CaseLoads[]): Solution {
    const driven = new Float64Array(this.factor.loose.length);
    // How all unknowns move with each loose one, worked out once.
    const ways = this.factor.loose.slice(0, mostMotions).map((unknown) => this.factor.motionOf(unknown));
    const basis = squareToOneAnother(ways);
    const results = cases.map((one) => this.solveCase(one, driven, basis));
    const motions = this.motions(ways, driven);
    const nodes = new Uint8Array(this.frame.nodes.length);
    for (const { nodes: moves, driven: drives } of motions)
      if (drives)
        moves.forEach((value, i) => {
          if (Math.abs(value) > movesLeast) nodes[Math.floor(i / freedomCount)] = 1;
        });
    return {
      cases: results,
      motions,
      nodeSound: (node) => nodes[node] === 0,
      memberSound: (member) => this.frame.members[member].nodes.every((node) => nodes[node] === 0),
      size: this.factor.size,
      unknowns: this.unknowns.count,
    };
  }

  private solveCase(
    { id, spread, places, nodes }: CaseLoads,
    driven: Float64Array,
    basis: readonly Float64Array[],
  ): CaseResult {
    const { members } = this.frame;
    const loads = loadsByMember(members, spread, places);
    const right = new Float64Array(this.unknowns.count);
    const atNodes = new Float64Array(this.frame.nodes.length * freedomCount);
    for (const { node, force, moment } of nodes) this.addToNode(atNodes, node, force, moment);
    atNodes.forEach((value, i) => {
      if (value !== 0) for (const { unknown, factor } of this.unknowns.shares[i]) right[unknown] += factor * value;
    });
    const fixed = new Map<number, Float64Array>();
    for (const [m, own] of loads) {
      const part = this.parts[m];
      const f = endForces(members[m], part.stiffness, own);
      fixed.set(m, f);
      const n = part.unknowns.length;
      for (let j = 0; j < n; j += 1)
        for (let i = 0; i < ends; i += 1) right[part.unknowns[j]] += part.moves[i * n + j] * f[i];
    }
    const greatest = right.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
    const held = this.factor.solve(right);
    held.forEach((value, i) => {
      if (Math.abs(value) > drivesLeast * greatest) driven[i] = 1;
    });
    for (const motion of basis) takeOut(right, motion);
    return this.resultOf(id, right, loads, fixed, atNodes, { spread, places, nodes, id });
  }

  /** A force and a moment at a node, in its own axes. */
  private addToNode(into: Float64Array, node: number, force: V3, moment: V3): void {
    const own = this.frame.nodes[node];
    [...intoNode(own, force), ...intoNode(own, moment)].forEach((value, i) => {
      into[node * freedomCount + i] += value;
    });
  }

  private resultOf(
    id: string,
    x: Float64Array,
    loads: Map<number, OwnLoads>,
    fixed: Map<number, Float64Array>,
    atNodes: Float64Array,
    all: CaseLoads,
  ): CaseResult {
    const { members, nodes } = this.frame;
    const forces = atNodes.map((value) => -value);
    const results = members.map((member, m) => {
      const start = this.forcesAtEnds(m, x, fixed.get(m));
      [0, 1].forEach((end) => this.addReaction(forces, member, end, start));
      return { start: start.slice(0, 6), loads: loads.get(m) ?? noLoads };
    });
    const supports = nodes.flatMap((node, i) => {
      if (!node.fixed.some(Boolean)) return [];
      const held = node.fixed.map((is, freedom) => (is ? forces[i * freedomCount + freedom] : 0));
      const value = [...outOfNode(node, [held[0], held[1], held[2]]), ...outOfNode(node, [held[3], held[4], held[5]])];
      return [{ node: i, value }];
    });
    const reactions = supports.reduce((sum, { value: [a, b, c] }) => plus(sum, [a, b, c]), zero);
    return { id, applied: appliedOf(all), reactions, displacements: this.spread(x), supports, members: results };
  }

  /** The forces on a member's ends, in its own axes. */
  private forcesAtEnds(m: number, x: Float64Array, fixed: Float64Array | undefined): Float64Array {
    const { stiffness, unknowns, moves } = this.parts[m];
    const n = unknowns.length;
    const u = new Float64Array(ends);
    for (let i = 0; i < ends; i += 1) for (let j = 0; j < n; j += 1) u[i] += moves[i * n + j] * x[unknowns[j]];
    const q = new Float64Array(ends);
    for (let i = 0; i < ends; i += 1) {
      for (let j = 0; j < ends; j += 1) q[i] += stiffness.k[i * ends + j] * u[j];
      if (fixed !== undefined) q[i] -= fixed[i];
    }
    return q;
  }

  /** What a member's end asks of its node, in the node's own axes. */
  private addReaction(forces: Float64Array, member: FrameMember, end: number, q: Float64Array): void {
    const node = member.nodes[end];
    const [x, y, z] = member.axes;
    const outOf = (at: number): V3 => plus(plus(times(x, q[at]), times(y, q[at + 1])), times(z, q[at + 2]));
    const force = outOf(end * 6);
    const arm = minus(member.ends[end], this.frame.nodes[node].position);
    this.addToNode(forces, node, force, plus(outOf(end * 6 + 3), cross3(arm, force)));
  }

  /** Unknowns as moves of the nodes, in the project's axes. */
  private spread(x: Float64Array): Float64Array {
    const { nodes } = this.frame;
    const moves = new Float64Array(nodes.length * freedomCount);
    nodes.forEach((node, i) => {
      const own = Array.from({ length: freedomCount }, (_, freedom) =>
        this.unknowns.shares[i * freedomCount + freedom].reduce(
          (sum, { unknown, factor }) => sum + factor * x[unknown],
          0,
        ),
      );
      moves.set(outOfNode(node, [own[0], own[1], own[2]]), i * freedomCount);
      moves.set(outOfNode(node, [own[3], own[4], own[5]]), i * freedomCount + 3);
    });
    return moves;
  }

  private motions(ways: readonly Float64Array[], driven: Float64Array): Motion[] {
    return ways.flatMap((way, i): Motion[] => {
      const unknown = this.factor.loose[i];
      // A turn that no member resists at all is nobody's, as long as no moment drives it.
      if (this.stiff[unknown] === 0 && this.unknowns.freedoms[unknown] >= 3 && driven[i] === 0) return [];
      return [{ nodes: this.spread(way), driven: driven[i] === 1 }];
    });
  }
}

/** Motions that nothing resists, square to one another and of length one: of displacements nothing is left of them. */
function squareToOneAnother(ways: readonly Float64Array[]): Float64Array[] {
  const basis: Float64Array[] = [];
  for (const way of ways) {
    const motion = way.slice();
    for (const other of basis) takeOut(motion, other);
    const size = Math.sqrt(motion.reduce((sum, value) => sum + value * value, 0));
    if (size > 0) basis.push(motion.map((value) => value / size));
  }
  return basis;
}

/** Takes the share of a motion of length one out of moves, in place. */
function takeOut(moves: Float64Array, motion: Float64Array): void {
  let share = 0;
  for (let i = 0; i < moves.length; i += 1) share += moves[i] * motion[i];
  for (let i = 0; i < moves.length; i += 1) moves[i] -= share * motion[i];
}

/** A frame's members as equations, and which unknowns belong together: what is factorised. */
export function equationsOf(frame: Frame): { elements: Element[]; groups: number[][]; count: number } {
  const unknowns = unknownsOf(frame);
  const elements = frame.members.map((member) => elementOf(partOf(frame, unknowns, member)));
  return { elements, groups: unknowns.groups, count: unknowns.count };
}

function partOf(frame: Frame, unknowns: Unknowns, member: FrameMember): Part {
  const columns = new Map<number, Float64Array>();
  member.nodes.forEach((node, end) => {
    const at = frame.nodes[node];
    const arm = minus(member.ends[end], at.position);
    for (let freedom = 0; freedom < freedomCount; freedom += 1) {
      const move = moveOf(at, freedom, arm);
      const [u, turn] = [inAxes(member, move.shift), inAxes(member, move.turn)];
      for (const { unknown, factor } of unknowns.shares[node * freedomCount + freedom]) {
        const column = columns.get(unknown) ?? new Float64Array(ends);
        columns.set(unknown, column);
        for (let i = 0; i < 3; i += 1) {
          column[end * 6 + i] += factor * u[i];
          column[end * 6 + 3 + i] += factor * turn[i];
        }
      }
    }
  });
  const own = Int32Array.from(columns.keys());
  const moves = new Float64Array(ends * own.length);
  [...columns.values()].forEach((column, j) => column.forEach((value, i) => (moves[i * own.length + j] = value)));
  return { stiffness: stiffnessOf(member), unknowns: own, moves };
}

/** How a place at the end of an arm moves and turns with a freedom of its node, in the project's axes. */
function moveOf(node: FrameNode, freedom: number, arm: V3): { shift: V3; turn: V3 } {
  const unit: V3 = [Number(freedom % 3 === 0), Number(freedom % 3 === 1), Number(freedom % 3 === 2)];
  const axis = outOfNode(node, unit);
  return freedom < 3 ? { shift: axis, turn: zero } : { shift: cross3(axis, arm), turn: axis };
}

function elementOf({ stiffness, unknowns, moves }: Part): Element {
  const n = unknowns.length;
  const half = new Float64Array(ends * n);
  for (let i = 0; i < ends; i += 1)
    for (let k = 0; k < ends; k += 1) {
      const value = stiffness.k[i * ends + k];
      if (value !== 0) for (let j = 0; j < n; j += 1) half[i * n + j] += value * moves[k * n + j];
    }
  const matrix = new Float64Array(n * n);
  for (let k = 0; k < ends; k += 1)
    for (let i = 0; i < n; i += 1) {
      const value = moves[k * n + i];
      if (value !== 0) for (let j = 0; j < n; j += 1) matrix[i * n + j] += value * half[k * n + j];
    }
  return { unknowns, matrix };
}

function loadsByMember(
  members: readonly FrameMember[],
  spread: CaseLoads['spread'],
  places: CaseLoads['places'],
): Map<number, OwnLoads> {
  const by = new Map<number, { spread: CaseLoads['spread']; places: CaseLoads['places'] }>();
  const of = (member: number) => {
    const own = by.get(member) ?? { spread: [], places: [] };
    by.set(member, own);
    return own;
  };
  for (const load of spread) of(load.member).spread.push(load);
  for (const load of places) of(load.member).places.push(load);
  return new Map([...by].map(([m, own]) => [m, ownLoads(members[m], own.spread, own.places)]));
}

/** All forces of a case. */
function appliedOf({ spread, places, nodes }: CaseLoads): V3 {
  let sum: V3 = zero;
  for (const { from, to, force } of spread) sum = plus(sum, times(plus(...force), (to - from) / 2));
  for (const { force } of places) sum = plus(sum, force);
  for (const { force } of nodes) sum = plus(sum, force);
  return sum;
}

/** The forces inside a member at a place, from 0 to 1. */
export function innerAt(frame: Frame, { members }: CaseResult, member: number, station: number): Inner {
  const { start, loads } = members[member];
  return innerForces(start, loads, station * lengthOfMember(frame.members[member]), station === 1);
}
