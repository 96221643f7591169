import { degrees } from '@/core/geometry/vector';
import { freedoms } from '@/core/kinds/support';
import type { Finding } from '@/core/proof/finding';
import { combinedCases } from './combine';
import { innerAt, type CaseResult } from './solve/solve';
import { memberName, nodeName, type StructureTrial } from './trial';
import type { V3 } from './vector3';

/** Where along a member its inner forces are told, from 0 to 1. */
export const stations: readonly number[] = Array.from({ length: 11 }, (_, i) => i / 10);

/** The forces inside a member, in the order in which they are worked out. */
export const innerNames = ['n', 'vy', 'vz', 't', 'my', 'mz'] as const;
export type InnerName = (typeof innerNames)[number];

type Named = { node: string; value: number[] };
type OfMember = { member: string; stations: readonly number[] } & Record<InnerName, number[]>;

/** What comes of a case or of a combination of cases; what a driven mechanism moves is left out. */
interface ResultPart {
  applied: V3;
  reactions: V3;
  displacements: Named[];
  supports: Named[];
  members: OfMember[];
}

/** The forces inside a member over all combinations, station by station. */
interface Envelope {
  member: string;
  stations: readonly number[];
  least: Record<InnerName, number[]>;
  greatest: Record<InnerName, number[]>;
}

/** `structure.json`, version 1: newtons, metres and radians. */
export interface StructureFile {
  format: 'zircon-frame-structure';
  version: 1;
  assumed: string[];
  /** What is fixed is so in the project's axes, or in axes turned about z by so many degrees. */
  nodes: { id: string; position: V3; fixed: string[]; turn?: number }[];
  members: { id: string; element: string; start: string; end: string }[];
  /** By case, then by combination where the model says some. */
  results: ({ case: string } & ResultPart)[];
  /** The least and the greatest over the combinations. */
  envelope?: Envelope[];
  findings: Finding[];
}

/** What a trial came to, as a file has it. */
export function structureFile(trial: StructureTrial): StructureFile {
  const { structure, solution, assumed, findings } = trial;
  const { frame } = structure;
  // What is taken for granted is a reader's own to combine.
  const said = structure.combinationsSaid ? combinedCases(structure, solution) : [];
  const results = [...solution.cases, ...said];
  return {
    format: 'zircon-frame-structure',
    version: 1,
    assumed,
    nodes: frame.nodes.map(({ position, fixed, turn }, n) => ({
      id: nodeName(n),
      position,
      fixed: freedoms.filter((_, freedom) => fixed[freedom]),
      ...(turn === 0 ? {} : { turn: degrees(turn) }),
    })),
    members: frame.members.map(({ element, nodes: [start, end] }, m) => ({
      id: memberName(m),
      element,
      start: nodeName(start),
      end: nodeName(end),
    })),
    results: results.map((one) => ({ case: one.id, ...resultPart(trial, one) })),
    ...(said.length === 0 ? {} : { envelope: envelopeOf(said.map((one) => resultPart(trial, one))) }),
    findings,
  };
}

/** No zero has a sign. */
const plain = (value: number): number => value + 0;

function resultPart({ structure: { frame }, solution }: StructureTrial, result: CaseResult): ResultPart {
  const { applied, reactions, displacements, supports } = result;
  const vector = ([x, y, z]: V3): V3 => [plain(x), plain(y), plain(z)];
  return {
    applied: vector(applied),
    reactions: vector(reactions),
    displacements: frame.nodes.flatMap((_, n) =>
      solution.nodeSound(n)
        ? [{ node: nodeName(n), value: Array.from(displacements.slice(6 * n, 6 * n + 6), plain) }]
        : [],
    ),
    supports: supports
      .filter(({ node }) => solution.nodeSound(node))
      .map(({ node, value }) => ({ node: nodeName(node), value: value.map(plain) })),
    members: frame.members.flatMap((_, m): OfMember[] => {
      if (!solution.memberSound(m)) return [];
      const inner = stations.map((station) => innerAt(frame, result, m, station));
      const [n, vy, vz, t, my, mz] = innerNames.map((_name, i) => inner.map((forces) => plain(forces[i])));
      return [{ member: memberName(m), stations, n, vy, vz, t, my, mz }];
    }),
  };
}

function envelopeOf(combinations: readonly ResultPart[]): Envelope[] {
  const over = (m: number, name: InnerName, pick: (...values: number[]) => number): number[] =>
    stations.map((_, k) => pick(...combinations.map(({ members }) => members[m][name][k])));
  const all = (m: number, pick: (...values: number[]) => number): Record<InnerName, number[]> => {
    const [n, vy, vz, t, my, mz] = innerNames.map((name) => over(m, name, pick));
    return { n, vy, vz, t, my, mz };
  };
  return combinations[0].members.map(({ member }, m) => ({
    member,
    stations,
    least: all(m, Math.min),
    greatest: all(m, Math.max),
  }));
}
