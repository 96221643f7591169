import type { CaseLoads, Frame } from './frame';
import { between, plus, times, type V3 } from './vector3';

/** Loads at places, as they are shown. */
export interface ShownPlace {
  at: V3;
  force: V3;
}

/** What lies on the members of a frame: upwards per metre at places along each, and what acts at one place. */
export interface LoadsAlong {
  /** `steps` + 1 values a member, one after another. N/m. */
  spread: Float64Array;
  places: ShownPlace[];
}

/** What acts with less than this at a place is not shown, newtons. */
const leastPlace = 1;
/** A station at a joint of two pieces of load is asked this far inside its member, shares of it. */
const inside = 1e-6;

const lengthOf = ([a, b]: readonly [V3, V3]): number => Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);

/** The loads of some cases times their factors, along the members of a frame. */
export function loadsAlong(
  { members, nodes }: Frame,
  cases: readonly { loads: CaseLoads; factor: number }[],
  steps: number,
): LoadsAlong {
  const spread = new Float64Array(members.length * (steps + 1));
  const places = new Map<string, ShownPlace>();
  const put = (at: V3, force: V3): void => {
    const key = at.map((value) => value.toFixed(3)).join();
    const before = places.get(key);
    places.set(key, { at, force: before === undefined ? force : plus(before.force, force) });
  };
  for (const { loads, factor } of cases) {
    for (const { member, from, to, force } of loads.spread) {
      const length = lengthOf(members[member].ends);
      for (let k = 0; k <= steps; k += 1) {
        const x = Math.min(1 - inside, Math.max(inside, k / steps)) * length;
        if (x < from || x > to) continue;
        const share = to > from ? (x - from) / (to - from) : 0;
        spread[member * (steps + 1) + k] += factor * (force[0][2] + share * (force[1][2] - force[0][2]));
      }
    }
    for (const { member, at, force } of loads.places) {
      const { ends } = members[member];
      put(between(ends[0], ends[1], at / (lengthOf(ends) || 1)), times(force, factor));
    }
    for (const { node, force } of loads.nodes) put(nodes[node].position, times(force, factor));
  }
  return { spread, places: [...places.values()].filter(({ force }) => Math.hypot(...force) >= leastPlace) };
}
