import { sectionName } from '@/core/kinds/section';
import type { GridLine } from '@/core/kinds/grid';
import type { Crossing } from '@/core/kinds/gridCrossings';
import Flatbush from 'flatbush';
import { distance } from '@/core/geometry/vector';
import type { Tolerance } from '@/core/tolerance';
import { confidenceOf, keyOf, type ColumnCandidate, type Evidence, type Unread } from '../candidate';
import { gridCrossings } from '@/core/kinds/gridCrossings';
import type { Scene } from '../scene';
import { told, type Answer, type Asked } from '@/core/sorting/answers';
import type { ReadingSettings } from '@/core/patterns/settings';
import { fitSection, type Fit } from './fitSection';
import { findOutlines, type Outline } from '@/core/patterns/outlines';

interface Shape extends Fit {
  outlines: Outline[];
  inner: Fit[];
  /** Of the finish about it, metres; null where none is drawn. */
  finish: number | null;
  /** How thick a ring about a column is taken as part of it, metres; null where none is drawn. */
  ring: number | null;
}

/**
 * Reads columns from the layers with that role: closed polylines, circles, and loose lines that close.
 * Doubled and nested outlines give one column. Each comes with its raw and its rounded size and its distance
 * from the nearest grid crossing.
 * @param grid the grid lines that crossings are taken from
 * @param answers what was said of rings about columns and of shapes away from the grid
 * @returns voids: outlines that somebody has said to be openings
 */
export function readColumns(
  scene: Scene,
  grid: readonly GridLine[],
  { column: sides }: Pick<ReadingSettings, 'column'>,
  tolerance: Tolerance,
  answers: readonly Answer[] = [],
): { candidates: ColumnCandidate[]; unread: Unread[]; voids: Outline[] } {
  const { outlines, loose } = findOutlines(scene.paths('column'), tolerance.gap, true);
  const unread: Unread[] = loose.map((side) => ({
    role: 'column',
    entity: side.entity,
    handle: side.handle,
    layer: side.layer,
    why: 'lines that close no shape',
  }));
  const shapes: Shape[] = [];
  for (const outline of outlines) {
    const fit = fitSection(outline, tolerance);
    let why;
    if (fit === null) why = 'a shape without area';
    else if (Math.max(fit.raw.width, fit.raw.depth) > sides.most)
      why = `too large for a column: ${fit.raw.width.toFixed(2)} by ${fit.raw.depth.toFixed(2)} m`;
    else if (Math.min(fit.raw.width, fit.raw.depth) < sides.least)
      why = `too small for a column: ${(fit.raw.width * 1000).toFixed(0)} by ${(fit.raw.depth * 1000).toFixed(0)} mm`;
    else why = null;

    if (fit === null || why !== null)
      unread.push({
        role: 'column',
        entity: outline.entity,
        handle: outline.handles[0],
        layer: outline.layer,
        why: why!,
      });
    else shapes.push({ ...fit, outlines: [outline], inner: [], finish: null, ring: null });
  }
  const merged = mergeNested(shapes, answers);
  const sizes = new Map<string, number>();
  for (const { column } of merged)
    sizes.set(sectionName(column.section), (sizes.get(sectionName(column.section)) ?? 0) + 1);
  const nearest = nearestCrossing(gridCrossings(grid));
  const placed = merged.map((shape) => ({ shape, crossing: nearest(shape.column.position) }));
  const isVoid = ({ shape: { raw }, crossing }: (typeof placed)[number]): boolean =>
    isAway(crossing) && told(answers, 'void', Math.max(raw.width, raw.depth)) === 'an opening';
  return {
    candidates: placed
      .filter((one) => !isVoid(one))
      .map(({ shape, crossing }) => candidateOf(shape, sizes, crossing, tolerance)),
    unread,
    voids: placed.filter(isVoid).flatMap(({ shape }) => shape.outlines.slice(0, 1)),
  };
}

/** What stands further than this from every crossing may be an opening as well as a column, metres. */
const away = 1;

const isAway = (crossing: ColumnCandidate['crossing']): boolean => crossing !== null && crossing.distance > away;

/** A finish about a column is so thick on all sides, metres; a thinner ring is the wall of a hollow section. */
const finish = { least: 0.01, most: 0.06, even: 0.003 };
/** What is cased or plastered is at least so large itself, metres. */
const leastCased = 0.2;

/** How thick the ring between two outlines is, where it is as thick as a finish on all sides; else null. */
function finishAbout({ raw: inside, column: inner }: Fit, { raw: outside, column: outer }: Fit): number | null {
  if (inner.section.shape !== outer.section.shape || Math.min(inside.width, inside.depth) < leastCased) return null;
  const [across, along] = [(outside.width - inside.width) / 2, (outside.depth - inside.depth) / 2];
  const isEven = Math.abs(across - along) <= finish.even && distance(inner.position, outer.position) <= finish.even;
  return isEven && across >= finish.least && across <= finish.most ? (across + along) / 2 : null;
}

/** Outlines about one middle are one column; the outermost gives its size, but for a finish about it. */
function mergeNested(shapes: Shape[], answers: readonly Answer[]): Shape[] {
  if (shapes.length === 0) return [];
  const bySize = [...shapes].sort((a, b) => b.raw.width * b.raw.depth - a.raw.width * a.raw.depth);
  const tree = new Flatbush(bySize.length);
  for (const {
    column: {
      position: [x, y],
    },
  } of bySize)
    tree.add(x, y, x, y);
  tree.finish();
  const taken = new Set<number>();
  const merged: Shape[] = [];
  bySize.forEach((shape, i) => {
    if (taken.has(i)) return;
    const reach = Math.min(shape.raw.width, shape.raw.depth) / 4;
    const [x, y] = shape.column.position;
    const group: Shape = { ...shape, outlines: [...shape.outlines] };
    for (const j of tree.search(x - reach, y - reach, x + reach, y + reach)) {
      if (j <= i || taken.has(j)) continue;
      taken.add(j);
      group.outlines.push(...bySize[j].outlines);
      group.inner.push(bySize[j]);
    }
    merged.push(withoutFinish(group, answers));
  });
  return merged;
}

/** A column without the finish that is drawn about it, unless the ring was said to be part of it. */
function withoutFinish(shape: Shape, answers: readonly Answer[]): Shape {
  const core = shape.inner.find((inner) => finishAbout(inner, shape) !== null);
  const ring = core === undefined ? null : finishAbout(core, shape);
  if (core === undefined || ring === null) return shape;
  const inner = shape.inner.filter((other) => other !== core);
  if (told(answers, 'finish', ring) === 'part of the column') return { ...shape, inner, ring };
  return { ...shape, ...core, outlines: shape.outlines, inner, finish: ring };
}

function nearestCrossing(
  crossings: readonly Crossing[],
): (at: readonly [number, number]) => (Crossing & { distance: number }) | null {
  if (crossings.length === 0) return () => null;
  const tree = new Flatbush(crossings.length);
  for (const {
    point: [x, y],
  } of crossings)
    tree.add(x, y, x, y);
  tree.finish();
  return (at) => {
    const found = crossings[tree.neighbors(at[0], at[1], 1)[0]];
    return { ...found, distance: distance(found.point, at) };
  };
}

function candidateOf(
  { column, raw, outlines, inner, finish: cased, ring }: Shape,
  sizes: Map<string, number>,
  crossing: ColumnCandidate['crossing'],
  tolerance: Tolerance,
): ColumnCandidate {
  const evidence: Evidence[] = [];
  const doubts: string[] = [];
  const mm = (metres: number) => (metres * 1000).toFixed(metres < 0.01 ? 1 : 0);
  const gap = outlines[0].gap;
  evidence.push(
    gap === 0
      ? { text: outlines[0].circle ? 'a circle' : 'a closed outline', weight: 2 }
      : { text: `lines that close across a gap of ${mm(gap)} mm`, weight: 1 },
  );
  if (gap > 0) doubts.push(`gap of ${mm(gap)} mm`);
  const alike = sizes.get(sectionName(column.section))!;
  evidence.push({ text: alike > 1 ? `${alike} of this size` : 'the only one of this size', weight: alike > 2 ? 1 : 0 });
  const size = column.section;
  let off;
  if (size.shape === 'rectangle') off = Math.max(Math.abs(size.width - raw.width), Math.abs(size.depth - raw.depth));
  else if (size.shape === 'circle') off = Math.abs(size.diameter - raw.width);
  else off = 0;

  if (off > 1e-5) {
    evidence.push({ text: `rounded by ${mm(off)} mm`, weight: off > 0.001 ? -0.5 : 0 });
    if (off > 0.001) doubts.push('size rounded');
  }
  if (cased !== null) {
    evidence.push({ text: `an outline ${mm(cased)} mm about it, taken as its finish`, weight: 0 });
    doubts.push(`finish of ${mm(cased)} mm or part of it`);
  }
  if (inner.length > 0) {
    const different = inner.some(
      (fit) =>
        Math.abs(fit.raw.width - raw.width) > tolerance.rounding ||
        Math.abs(fit.raw.depth - raw.depth) > tolerance.rounding,
    );
    evidence.push({
      text: different
        ? `${inner.length + 1} outlines within one another, the outermost taken`
        : `drawn ${inner.length + 1} times`,
      weight: different ? -1 : 0.5,
    });
    doubts.push(different ? 'nested outlines' : 'drawn twice');
  }
  if (crossing !== null) {
    const at = crossing.distance;
    if (at <= tolerance.coincidence) evidence.push({ text: `on the crossing ${crossing.name}`, weight: 2 });
    else if (at <= tolerance.crossing) {
      evidence.push({ text: `${mm(at)} mm from the crossing ${crossing.name}`, weight: 0.5 });
      doubts.push(`${mm(at)} mm off`);
    } else evidence.push({ text: `${at.toFixed(2)} m from the crossing ${crossing.name}`, weight: at > 1 ? -0.5 : 0 });
  }
  const handles = [...new Set(outlines.flatMap((outline) => outline.handles))];
  return {
    kind: 'column',
    key: keyOf('column', handles),
    element: column,
    raw,
    crossing,
    evidence,
    confidence: confidenceOf('column', evidence),
    handles,
    doubt: doubts.join(', ') || null,
    asks: asked({ cased, ring, raw, crossing }),
  };
}

/** What a column leaves open: whether a ring about it is its finish; away from the grid, whether it is one at all. */
function asked({
  cased,
  ring,
  raw,
  crossing,
}: {
  cased: number | null;
  ring: number | null;
  raw: Fit['raw'];
  crossing: ColumnCandidate['crossing'];
}): Asked | null {
  if (cased !== null) return { asks: 'finish', size: cased, take: 'the finish about it' };
  if (ring !== null) return { asks: 'finish', size: ring, take: 'part of the column' };
  return isAway(crossing) ? { asks: 'void', size: Math.max(raw.width, raw.depth), take: 'a column' } : null;
}
