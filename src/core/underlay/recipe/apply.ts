import { leastOf } from '@/core/lists';
import { Kind, type Drawing } from '@/core/drawing/drawing';
import type { ReadLimits } from '@/core/drawing/limits';
import { flatten } from '../flatten';
import { pathCount, type Primitives } from '../primitives';
import { chopArcs } from './chopArcs';
import { closeGaps } from './closeGaps';
import { mergeDuplicates } from './duplicates';
import { untouched, type StepResult } from './edit';
import { leaveOutBlocks, leaveOutKinds, leaveOutLayers, region } from './leaveOut';
import { straighten } from './straighten';
import { dropStrays } from './strays';
import { entityGroups, type Recipe, type Step } from './steps';

/** What a recipe is applied to. */
export interface Kitchen {
  drawing: Drawing;
  /** Flattened without any recipe. */
  raw: Primitives;
  /** Of the drawing's unit. */
  metresPerUnit: number;
  limits?: ReadLimits;
}

/** How much a step touches: entities of the file, or places where an entity says nothing (gaps, empty layers). */
export interface StepCount {
  entities: number;
  words: string;
}

/** The primitives after the steps that are on, and what each of these touched. */
export function applyRecipe(
  kitchen: Kitchen,
  recipe: Recipe,
): { primitives: Primitives; counts: Record<string, StepCount> } {
  let primitives = startOf(kitchen, recipe);
  const counts: Record<string, StepCount> = {};
  for (const { id, on, step } of recipe) {
    if (!on) continue;
    const done = applyStep(kitchen, primitives, step);
    counts[id] = done.count;
    primitives = done.result.primitives;
  }
  return { primitives, counts };
}

/** Curves are made straight while a drawing is flattened, so that step comes first wherever it stands. */
function startOf({ drawing, raw, metresPerUnit, limits }: Kitchen, recipe: Recipe): Primitives {
  const curves = recipe.flatMap(({ on, step }) => (on && step.kind === 'curves' ? [step.sagitta] : []));
  return curves.length === 0 ? raw : flatten(drawing, { limits, sagitta: leastOf(curves) / metresPerUnit });
}

/** Applies one step. */
export function applyStep(kitchen: Kitchen, p: Primitives, step: Step): { result: StepResult; count: StepCount } {
  const { drawing, metresPerUnit } = kitchen;
  const units = (metres: number) => metres / metresPerUnit;
  const counted = (result: StepResult, word = 'entity', plural = 'entities') => {
    const entities = entitiesOf(drawing, p, result);
    return { result, count: { entities, words: said(entities, word, plural) } };
  };
  switch (step.kind) {
    case 'leaveOutKinds':
      return step.groups.length === 1
        ? counted(leaveOutKinds(p, step.groups), entityGroups[step.groups[0]].one, entityGroups[step.groups[0]].words)
        : counted(leaveOutKinds(p, step.groups));
    case 'leaveOutLayers':
      return counted(leaveOutLayers(p, drawing, step.patterns));
    case 'leaveOutBlocks':
      return counted(leaveOutBlocks(p, drawing, step.patterns));
    case 'region':
      return counted(region(p, step.keep, step.polygon));
    case 'strays': {
      const result = dropStrays(p);
      const metres = result.away * metresPerUnit;
      return {
        result,
        count: {
          entities: entitiesOf(drawing, p, result),
          words:
            result.pieces === 0
              ? 'no stray'
              : `${said(result.pieces, 'stray', 'strays')} ` +
                `${result.pieces === 1 ? '' : 'up to '}${metres >= 10 ? Math.round(metres).toLocaleString('en') : metres.toFixed(2)} ` +
                'm away',
        },
      };
    }
    case 'duplicates':
      return counted(mergeDuplicates(p, units(step.tolerance)), 'doubled or joined line', 'doubled or joined lines');
    case 'straighten':
      return counted(
        straighten(p, step.angle),
        `line within ${step.angle}\u00b0 of an axis`,
        `lines within ${step.angle}\u00b0 of an axis`,
      );
    case 'closeGaps': {
      const result = closeGaps(p, units(step.tolerance));
      return { result, count: { entities: result.gaps, words: said(result.gaps, 'gap', 'gaps') } };
    }
    case 'flattenHeights': {
      const paths = [...p.elevation.keys()].filter((i) => p.elevation[i] !== 0);
      return counted(
        paths.length === 0
          ? untouched(p)
          : { primitives: { ...p, elevation: new Float32Array(pathCount(p)) }, paths, texts: [] },
        'entity off height zero',
        'entities off height zero',
      );
    }
    case 'chopArcs':
      return counted(chopArcs(p, step.by, step.by === 'angle' ? step.value : units(step.value)), 'arc', 'arcs');
    case 'curves': {
      const paths = [...p.kind.keys()].filter((i) => p.kind[i] === Kind.spline || p.kind[i] === Kind.ellipse);
      return counted({ primitives: p, paths, texts: [] }, 'curve', 'curves');
    }
    case 'listUsed': {
      const empty = emptyLayers(drawing).length + unusedBlocks(drawing).length;
      return {
        result: untouched(p),
        count: { entities: empty, words: said(empty, 'empty layer or unused block', 'empty layers and unused blocks') },
      };
    }
  }
}

const said = (n: number, word: string, plural: string): string =>
  `${n.toLocaleString('en')} ${n === 1 ? word : plural}`;

/**
 * How many entities paths and texts belong to: what a dimension's block draws is one dimension, what another block
 * draws is its own.
 */
function entitiesOf({ kind, blocks }: Drawing, p: Primitives, { paths, texts }: StepResult): number {
  const seen = new Set<number>();
  const rows = kind.length + blocks.length;
  const add = (top: number, entity: number) =>
    seen.add(top >= 0 && kind[top] !== Kind.insert ? top : (top + 1) * rows + entity + rows);
  for (const path of paths) add(p.top[path], p.entity[path]);
  for (const text of texts) add(p.texts[text].top, p.texts[text].entity);
  return seen.size;
}

/** Layers on which no entity of the file lies. */
export function emptyLayers({ layers, layer }: Drawing): number[] {
  const used = new Uint8Array(layers.length);
  for (let row = 0; row < layer.length; row += 1) used[layer[row]] = 1;
  return layers.flatMap((_, i) => (used[i] === 1 ? [] : [i]));
}

/** Blocks that nothing inserts, those of the drawing program itself left aside. */
export function unusedBlocks({ blocks, kind, at, numbers, model }: Drawing): number[] {
  const used = new Uint8Array(blocks.length);
  for (let row = 0; row < kind.length; row += 1)
    if (kind[row] === Kind.insert || kind[row] === Kind.dimension || kind[row] === Kind.table) {
      const block = numbers[at[row] + 5];
      if (block >= 0) used[block] = 1;
    }
  return blocks.flatMap(({ name }, i) => (used[i] === 1 || i === model || name.startsWith('*') ? [] : [i]));
}
