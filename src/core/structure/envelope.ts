import { zero } from './vector3';
import type { ShownResult, StructureView } from './view';

/** What the envelope is called among cases and combinations. */
export const envelopeName = 'Envelope';

/** The greatest and the least of all combinations, and of both what is further from zero. */
export interface Envelope {
  most: ShownResult;
  least: ShownResult;
  governing: ShownResult;
}

type Choose = (a: number, b: number) => number;

/** Of two values the one further from zero. */
const further: Choose = (a, b) => (Math.abs(b) > Math.abs(a) ? b : a);

function folded(results: readonly ShownResult[], choose: Choose): ShownResult {
  const [first, ...others] = results;
  const inner = Float64Array.from(first.inner);
  const spread = Float64Array.from(first.loads.spread);
  for (const other of others) {
    other.inner.forEach((value, i) => (inner[i] = choose(inner[i], value)));
    other.loads.spread.forEach((value, i) => (spread[i] = choose(spread[i], value)));
  }
  return {
    id: envelopeName,
    applied: zero,
    reactions: zero,
    supports: first.supports.map(({ node, value }, s) => ({
      node,
      value: value.map((own, i) => others.reduce((best, other) => choose(best, other.supports[s].value[i]), own)),
    })),
    inner,
    // Displacements do not belong together when each is of another combination.
    moved: new Float64Array(first.moved.length),
    loads: { spread, places: [] },
    drift: first.drift.map(({ level, across }, d) => ({
      level,
      across: others.reduce((best, other) => Math.max(best, other.drift[d].across), across),
    })),
    lines: [],
  };
}

/** The envelope over the combinations of a trial; null where there are fewer than two. */
export function envelopeOf({ results, combinations }: StructureView): Envelope | null {
  const own = results.filter(({ id }) => combinations.includes(id));
  if (own.length < 2) return null;
  return { most: folded(own, Math.max), least: folded(own, Math.min), governing: folded(own, further) };
}
