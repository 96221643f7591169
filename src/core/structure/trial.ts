import type { Finding } from '@/core/proof/finding';
import type { ReadModel } from '@/core/handover/model/readModel';
import { deriveStructure, type Structure } from './derive/derive';
import type { Progress } from '@/core/progress';
import { solveFrame, type Motion, type Solution } from './solve/solve';
import { zero, type V3 } from './vector3';

/** A structure, what came of it, and what was found on the way. */
export interface StructureTrial {
  structure: Structure;
  solution: Solution;
  assumed: string[];
  findings: Finding[];
}

/** Derives the structure of a model and solves it for all its cases. */
export function tryStructure(model: ReadModel, progress?: Progress): StructureTrial {
  const structure = deriveStructure(model);
  const solution = solveFrame(structure.frame, structure.loads, progress);
  const { report } = structure;
  if (structure.frame.members.length === 0)
    report.find(
      'no members',
      'error',
      [],
      [...zero],
      [
        'The model has no column, no beam and no wall that carries.',
        'Read or draw what carries, and say of walls that carry that they do.',
      ],
    );
  const findings = [...report.findings, ...solution.motions.map((motion) => ofMotion(structure, motion))];
  return { structure, solution, assumed: structure.assumed, findings: findings.filter(isNew()) };
}

/** Two cases find the same. */
const isNew = () => {
  const known = new Set<string>();
  return (finding: Finding): boolean => {
    const key = JSON.stringify(finding);
    if (known.has(key)) return false;
    known.add(key);
    return true;
  };
};

const ways = ['move along x', 'move along y', 'move along z', 'turn about x', 'turn about y', 'turn about z'];
/** Nodes that move by less than this share of the most are at rest. */
const atRest = 1e-6;
/** More elements than these are not named one by one. */
const mostNamed = 50;

/** The name of a node in files and findings. */
export const nodeName = (node: number): string => `N${node + 1}`;
export const memberName = (member: number): string => `M${member + 1}`;

const place = ([x, y, z]: V3): string => `(${x.toFixed(2)}, ${y.toFixed(2)}, ${z.toFixed(2)})`;

/** The node and the freedom that a motion moves most: a way along, where anything goes along at all. */
function mostMoved(nodes: Float64Array): { node: number; freedom: number } {
  const greatest = (from: number): number => {
    let [best, most] = [from, 0];
    for (let i = 0; i < nodes.length; i += 1)
      if (Math.floor((i % 6) / 3) === from && Math.abs(nodes[i]) > most * (1 + 1e-9))
        [best, most] = [i, Math.abs(nodes[i])];
    return best;
  };
  const [along, about] = [greatest(0), greatest(1)];
  const i = Math.abs(nodes[along]) > atRest * Math.abs(nodes[about]) ? along : about;
  return { node: Math.floor(i / 6), freedom: i % 6 };
}

function ofMotion({ frame }: Structure, { nodes, driven }: Motion): Finding {
  const most = nodes.reduce((greatest, value) => Math.max(greatest, Math.abs(value)), 0);
  const moves = frame.nodes.map((_, n) =>
    nodes.slice(6 * n, 6 * n + 6).some((value) => Math.abs(value) > atRest * most),
  );
  const moved = moves.filter(Boolean).length;
  const elements = new Set(
    frame.members.filter((own) => own.nodes.some((n) => moves[n])).map(({ element }) => element),
  );
  const { node, freedom } = mostMoved(nodes);
  const { position } = frame.nodes[node];
  const along = moved > 1 ? `, and ${moved - 1} other ${moved === 2 ? 'node goes' : 'nodes go'} along` : '';
  const so = driven ? 'Loads drive it, so that nothing is known of what moves.' : 'No load drives it.';
  return {
    rule: 'mechanism',
    severity: 'error',
    elements: [...elements].slice(0, mostNamed),
    position: [...position],
    message: `Node ${nodeName(node)} at ${place(position)} can ${ways[freedom]} freely: nothing holds it${along}. ${so}`,
    remedy: 'Say a support, join what ends there with what stands beside it, or take a release away.',
  };
}
