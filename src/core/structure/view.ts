import type { Finding } from '@/core/proof/finding';
import type { ReadModel } from '@/core/handover/model/readModel';
import { combinedCases } from './combine';
import type { Structure } from './derive/derive';
import type { CaseLoads } from './frame';
import { loadsAlong, type LoadsAlong } from './loadsAlong';
import { deflectionOf, deflectionSteps } from './deflection';
import { innerAt, type CaseResult } from './solve/solve';
import { takingDown, type ColumnLine } from './takeDown';
import { nodeName, type StructureTrial } from './trial';
import type { V3 } from './vector3';

/** Where along a member its inner forces are shown: so many steps. */
export const shownSteps = 20;

/** A member as it is shown. */
export interface ShownMember {
  element: string;
  kind: 'column' | 'beam' | 'wall';
  nodes: readonly [start: number, end: number];
  start: V3;
  end: V3;
  /** Its y and z, for diagrams in space. */
  y: V3;
  z: V3;
  /** Whether its start and its end pass no bending on. */
  hinges: readonly [start: boolean, end: boolean];
  /** Whether its results can be relied on. */
  sound: boolean;
}

/** What comes of a case or a combination, as it is shown. */
export interface ShownResult {
  id: string;
  applied: V3;
  reactions: V3;
  supports: { node: number; value: number[] }[];
  /** N, Vy, Vz, T, My, Mz at `shownSteps` + 1 places of every member, one after another. N and Nm. */
  inner: Float64Array;
  /** Displacements at `deflectionSteps` + 1 places of every member, three numbers each, metres. */
  moved: Float64Array;
  /** What lies on the members, at `shownSteps` + 1 places of each. N/m and N. */
  loads: LoadsAlong;
  /** The greatest displacement across of each level, metres. */
  drift: { level: string; across: number }[];
  lines: ColumnLine[];
}

/** A trial as a window shows it: plain data that goes from a worker to it. */
export interface StructureView {
  assumed: string[];
  findings: Finding[];
  nodes: { name: string; position: V3; fixed: boolean[]; support: string | null | undefined }[];
  members: ShownMember[];
  /** The cases, then the combinations. */
  results: ShownResult[];
  /** The names of the combinations. */
  combinations: string[];
  /** Ways in which something moves freely: how the nodes move, three numbers each, the most by one. */
  motions: Float64Array[];
}

/** What a window shows of a trial. */
export function viewOf(trial: StructureTrial, model: ReadModel): StructureView {
  const { structure, solution, assumed, findings } = trial;
  const { frame, skeleton } = structure;
  const down = takingDown(trial, model);
  const kinds = new Map(skeleton.axes.map(({ element, kind }) => [element, kind]));
  return {
    assumed,
    findings,
    nodes: frame.nodes.map(({ position, fixed }, n) => ({
      name: nodeName(n),
      position,
      fixed: [...fixed],
      support: skeleton.supportOf[n],
    })),
    members: frame.members.map(({ element, nodes, ends: [start, end], axes: [, y, z], released }, m) => ({
      element,
      kind: kinds.get(element)!,
      nodes,
      start,
      end,
      y,
      z,
      hinges: [released[4] && released[5], released[10] && released[11]],
      sound: solution.memberSound(m),
    })),
    results: [...solution.cases, ...combinedCases(structure, solution)].map((one) =>
      shown(trial, one, model, down(one)),
    ),
    combinations: structure.combinations.map(({ id }) => id),
    motions: solution.motions.map(({ nodes }) => alongOnly(nodes)),
  };
}

function shown(trial: StructureTrial, result: CaseResult, model: ReadModel, lines: ColumnLine[]): ShownResult {
  const { frame } = trial.structure;
  const inner = new Float64Array(frame.members.length * (shownSteps + 1) * 6);
  const moved = new Float64Array(frame.members.length * (deflectionSteps + 1) * 3);
  frame.members.forEach((_, m) => {
    if (!trial.solution.memberSound(m)) return;
    for (let k = 0; k <= shownSteps; k += 1)
      inner.set(innerAt(frame, result, m, k / shownSteps), (m * (shownSteps + 1) + k) * 6);
    deflectionOf(frame, result, m).forEach((move, k) => moved.set(move, (m * (deflectionSteps + 1) + k) * 3));
  });
  const { id, applied, reactions, supports } = result;
  const sound = supports.filter(({ node }) => trial.solution.nodeSound(node));
  return {
    id,
    applied,
    reactions,
    supports: sound,
    inner,
    moved,
    loads: loadsAlong(frame, casesIn(trial.structure, id), shownSteps),
    drift: driftOf(trial, result, model),
    lines,
  };
}

/** The cases that a result is made of, with their factors: itself, or those of its combination. */
function casesIn({ loads, combinations }: Structure, id: string): { loads: CaseLoads; factor: number }[] {
  const factors = combinations.find((one) => one.id === id)?.factors ?? { [id]: 1 };
  return loads.flatMap((own) => (factors[own.id] ? [{ loads: own, factor: factors[own.id] }] : []));
}

/** Nodes belong to a level's floor where they lie this close to it, metres. */
const onFloor = 0.6;

function driftOf({ structure: { frame }, solution }: StructureTrial, { displacements }: CaseResult, model: ReadModel) {
  return [...model.levels]
    .sort((a, b) => b.elevation - a.elevation)
    .flatMap(({ id, elevation }) => {
      let across = -1;
      frame.nodes.forEach(({ position, fixed }, n) => {
        if (Math.abs(position[2] - elevation) > onFloor || !solution.nodeSound(n) || fixed[0]) return;
        across = Math.max(across, Math.hypot(displacements[6 * n], displacements[6 * n + 1]));
      });
      return across < 0 ? [] : [{ level: id, across }];
    });
}

/** How nodes move along in a motion, scaled so that the most moves by one; turns alone stay as they are. */
function alongOnly(nodes: Float64Array): Float64Array {
  const count = nodes.length / 6;
  const moves = new Float64Array(count * 3);
  let most = 0;
  for (let n = 0; n < count; n += 1)
    for (let i = 0; i < 3; i += 1) {
      moves[3 * n + i] = nodes[6 * n + i];
      most = Math.max(most, Math.abs(nodes[6 * n + i]));
    }
  return most > 0 ? moves.map((value) => value / most) : moves;
}

/** The buffers of a view, to be handed over without a copy. */
export const buffersOf = ({ results, motions }: StructureView): ArrayBufferLike[] => [
  ...results.flatMap(({ inner, moved, loads }) => [inner.buffer, moved.buffer, loads.spread.buffer]),
  ...motions.map(({ buffer }) => buffer),
];
