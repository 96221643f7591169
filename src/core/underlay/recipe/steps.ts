import * as v from 'valibot';
import { isStorable } from '@/core/storable';
import { Kind } from '@/core/drawing/drawing';

/**
 * A recipe is the ordered list of clean-up steps of a drawing. It changes what is seen and read, never the stored
 * file, and is applied again to the next revision. Lengths in metres, angles in degrees, regions in drawing units.
 */
export const entityGroups = {
  dimensions: { words: 'dimensions', one: 'dimension', kinds: [Kind.dimension] },
  hatches: { words: 'hatches and fills', one: 'hatch or fill', kinds: [Kind.hatch, Kind.solid, Kind.trace] },
  texts: {
    words: 'texts',
    one: 'text',
    kinds: [Kind.text, Kind.multilineText, Kind.attribute, Kind.attributeDefinition],
  },
  leaders: { words: 'leaders', one: 'leader', kinds: [Kind.leader, Kind.multiLeader, Kind.multiLeaderText] },
  points: { words: 'points', one: 'point', kinds: [Kind.point] },
  images: {
    words: 'pictures and cover-ups',
    one: 'picture or cover-up',
    kinds: [Kind.image, Kind.wipeout, Kind.viewport],
  },
  tables: { words: 'tables', one: 'table', kinds: [Kind.table] },
  construction: { words: 'endless lines', one: 'endless line', kinds: [Kind.construction, Kind.ray] },
} as const;
export type EntityGroup = keyof typeof entityGroups;
export const entityGroupNames = Object.keys(entityGroups) as EntityGroup[];

const finite = v.pipe(v.number(), v.finite());
const length = v.pipe(
  finite,
  v.gtValue(0, 'A length is more than zero.'),
  v.maxValue(1000, 'A tolerance is at most a kilometre.'),
);
const angle = v.pipe(
  finite,
  v.gtValue(0, 'An angle is more than zero.'),
  v.maxValue(45, 'An angle is at most 45 degrees.'),
);
const pattern = v.pipe(v.string(), v.minLength(1), v.maxLength(300), v.check(isStorable));
const patterns = v.pipe(v.array(pattern), v.minLength(1), v.maxLength(500));

export const stepSchema = v.variant('kind', [
  v.strictObject({
    kind: v.literal('leaveOutKinds'),
    groups: v.pipe(v.array(v.picklist(entityGroupNames)), v.minLength(1), v.maxLength(20)),
  }),
  v.strictObject({ kind: v.literal('leaveOutLayers'), patterns }),
  v.strictObject({ kind: v.literal('leaveOutBlocks'), patterns }),
  v.strictObject({
    kind: v.literal('region'),
    keep: v.picklist(['inside', 'outside']),
    polygon: v.pipe(
      v.array(v.strictTuple([finite, finite])),
      v.minLength(3, 'A region has at least three corners.'),
      v.maxLength(500),
    ),
  }),
  v.strictObject({ kind: v.literal('strays') }),
  v.strictObject({ kind: v.literal('duplicates'), tolerance: length }),
  v.strictObject({ kind: v.literal('straighten'), angle }),
  v.strictObject({ kind: v.literal('closeGaps'), tolerance: length }),
  v.strictObject({ kind: v.literal('flattenHeights') }),
  v.strictObject({ kind: v.literal('chopArcs'), by: v.picklist(['angle', 'sagitta']), value: length }),
  v.strictObject({ kind: v.literal('curves'), sagitta: length }),
  v.strictObject({ kind: v.literal('listUsed') }),
]);
export type Step = v.InferOutput<typeof stepSchema>;
export type StepKind = Step['kind'];

export const recipeStepSchema = v.strictObject({
  id: v.pipe(v.string(), v.minLength(1), v.maxLength(60), v.check(isStorable)),
  on: v.boolean(),
  step: stepSchema,
});
export const recipeSchema = v.pipe(v.array(recipeStepSchema), v.maxLength(60, 'A recipe has at most 60 steps.'));
export type RecipeStep = v.InferOutput<typeof recipeStepSchema>;
export type Recipe = RecipeStep[];

/** What each kind of step is called, and what it does in a sentence. */
export const stepWords: Record<StepKind, { name: string; about: string }> = {
  leaveOutKinds: { name: 'Leave out by kind', about: 'Takes kinds of entities out, with everything that draws them.' },
  leaveOutLayers: {
    name: 'Leave out layers',
    about: 'Takes out what lies on layers whose names match; * stands for anything.',
  },
  leaveOutBlocks: {
    name: 'Leave out blocks',
    about: 'Takes out what stands in blocks whose names match, at any depth.',
  },
  region: { name: 'Region', about: 'Keeps what lies inside a picked outline, or drops it.' },
  strays: { name: 'Drop strays', about: 'Takes out small pieces far away from the main content.' },
  duplicates: {
    name: 'Merge doubled lines',
    about: 'Takes out what is drawn twice on a layer and joins overlapping pieces of one line.',
  },
  straighten: {
    name: 'Straighten',
    about: 'Turns lines that are nearly parallel to a main direction of the plan into it.',
  },
  closeGaps: {
    name: 'Close gaps',
    about: 'Draws ends together that miss one another by a hair, and completes corners.',
  },
  flattenHeights: { name: 'Flatten heights', about: 'Sets everything to height zero.' },
  chopArcs: {
    name: 'Chop arcs',
    about: 'Makes straight pieces of arcs, by angle or by how far a piece may leave its arc.',
  },
  curves: {
    name: 'Refine curves',
    about: 'Makes straight pieces of splines and ellipses so fine that none leaves its curve by more.',
  },
  listUsed: { name: 'List only what is used', about: 'Keeps empty layers and unused blocks out of the lists.' },
};
export const stepKinds = Object.keys(stepWords) as StepKind[];

/** A step of a kind with the values that suit most plans. */
export function freshStep(kind: StepKind): Step {
  switch (kind) {
    case 'leaveOutKinds':
      return { kind, groups: ['dimensions'] };
    case 'leaveOutLayers':
    case 'leaveOutBlocks':
      return { kind, patterns: ['*FURN*'] };
    case 'region':
      return {
        kind,
        keep: 'inside',
        polygon: [
          [0, 0],
          [1, 0],
          [1, 1],
        ],
      };
    case 'duplicates':
      return { kind, tolerance: 0.001 };
    case 'straighten':
      return { kind, angle: 0.3 };
    case 'closeGaps':
      return { kind, tolerance: 0.01 };
    case 'chopArcs':
      return { kind, by: 'sagitta', value: 0.005 };
    case 'curves':
      return { kind, sagitta: 0.002 };
    default:
      return { kind };
  }
}

/** A drawing's recipe without the steps that only fit that very drawing: what can go to another. */
export const portable = (recipe: Recipe): Recipe => recipe.filter(({ step }) => step.kind !== 'region');
