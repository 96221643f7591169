import { judgeUnit } from '@/core/datum/evidence/judge';
import { flatten } from '@/core/underlay/flatten';
import { buildIndex, openIndex } from '@/core/underlay/pieces';
import { applyRecipe } from '@/core/underlay/recipe/apply';
import { snapsNear } from '@/core/underlay/snap';
import { DxfReader } from '@/core/drawing/reader';
import { makePlan } from './makePlan';
import { seeded } from './mutate';

/**
 * What follows reading, on one plan: flattening, the index, the verdict on the unit, snapping, and a whole recipe;
 * prints seconds and milliseconds a query.
 */
const entities = Number(process.argv[2]);
const reader = new DxfReader();
reader.push(new TextEncoder().encode(makePlan(entities)));
const result = reader.finish();
if (!result.ok) throw new Error(result.message);
const { drawing } = result.value;

function timed<T>(work: () => T): [T, number] {
  const start = process.hrtime.bigint();
  const value = work();
  return [value, Number(process.hrtime.bigint() - start) / 1e9];
}

const [primitives, flattened] = timed(() => flatten(drawing));
const [index, indexed] = timed(() => openIndex(buildIndex(primitives)));
const [, judged] = timed(() => judgeUnit(drawing, primitives));
const names = drawing.layers.map((layer) => layer.name);
const random = seeded(7);
// A cursor reaches 12 pixels at a scale where a room fills the board: 150 mm.
const queries = Array.from({ length: 3000 }, () => {
  const v = Math.floor(random() * (primitives.xy.length / 2));
  const at: [number, number] = [
    primitives.xy[2 * v] + (random() - 0.5) * 200,
    primitives.xy[2 * v + 1] + (random() - 0.5) * 200,
  ];
  // The best of three: what the collector of garbage does in between is not the query's.
  return Math.min(
    ...[0, 1, 2].map(() => timed(() => snapsNear(primitives, index, names, at, 150, () => true))[1] * 1000),
  );
})
  .slice(500)
  .sort((a, b) => a - b);
const recipe = [
  { kind: 'strays' },
  { kind: 'duplicates', tolerance: 0.001 },
  { kind: 'straighten', angle: 0.3 },
  { kind: 'closeGaps', tolerance: 0.01 },
] as const;
const [, cleaned] = timed(() =>
  applyRecipe(
    { drawing, raw: primitives, metresPerUnit: 0.001 },
    recipe.map((step, i) => ({ id: String(i), on: true, step })),
  ),
);
console.log(
  JSON.stringify({
    flattened,
    indexed,
    judged,
    median: queries[queries.length >> 1],
    worst: queries[queries.length - 1],
    cleaned,
  }),
);
