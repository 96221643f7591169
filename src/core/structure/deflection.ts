import type { Frame } from './frame';
import { lengthOfMember } from './solve/member';
import { innerAt, type CaseResult } from './solve/solve';
import { cross3, minus, plus, times, type V3 } from './vector3';

/** Where along a member its displacement is told: so many steps. */
export const deflectionSteps = 12;

/**
 * How a member's axis is displaced along it, in the project's axes, metres: the straight line between its displaced
 * ends, and the bending between, integrated twice from the moments (trapezoids over `deflectionSteps`).
 */
export function deflectionOf(frame: Frame, result: CaseResult, m: number): V3[] {
  const member = frame.members[m];
  const [a, b] = member.nodes.map((node, end): V3 => {
    const [x, y, z, rx, ry, rz] = result.displacements.slice(6 * node, 6 * node + 6);
    return plus([x, y, z], cross3([rx, ry, rz], minus(member.ends[end], frame.nodes[node].position)));
  });
  const { eiy, eiz, eiyz } = member.rigidity;
  const det = eiy * eiz - eiyz * eiyz;
  const step = lengthOfMember(member) / deflectionSteps;
  const bends = Array.from({ length: deflectionSteps + 1 }, (_, k): [v: number, w: number] => {
    const [, , , , my, mz] = innerAt(frame, result, m, k / deflectionSteps);
    // Tension below curves upwards: w'' = My / E I, v'' = Mz / E I, and both of a section whose axes are askew.
    return [(mz * eiy - my * eiyz) / det, (my * eiz - mz * eiyz) / det];
  });
  const [v, w] = [0, 1].map((i) =>
    bent(
      bends.map((bend) => bend[i]),
      step,
    ),
  );
  return v.map((_, k) => {
    const straight = plus(a, times(minus(b, a), k / deflectionSteps));
    return plus(straight, plus(times(member.axes[1], v[k]), times(member.axes[2], w[k])));
  });
}

/** A curve of given curvatures that begins and ends at zero. */
function bent(curvatures: readonly number[], step: number): number[] {
  const values = [0];
  let slope = 0;
  for (let k = 1; k < curvatures.length; k += 1) {
    const [before, now] = [curvatures[k - 1], curvatures[k]];
    // Exact where the curvature runs straight over the step.
    values.push(values[k - 1] + slope * step + ((2 * before + now) * step * step) / 6);
    slope += ((before + now) / 2) * step;
  }
  const last = values[values.length - 1];
  return values.map((value, k) => value - (last * k) / (values.length - 1));
}
