import { unplace, type Placement } from '@/core/datum/placement';
import type { ReadLength } from '@/core/datum/dimensionCheck';
import type { Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import type { ElementRow } from '@/core/kinds/element';
import { gridPoints } from '@/core/kinds/grid';
import { outlinesOf } from '@/core/kinds/kinds';
import type { Scene } from '@/core/reading/scene';
import { areasBeside, type AreasBeside } from './areas';
import { coverageOf, type Covered } from './coverage';
import { dimensionsBeside, type DimensionsBeside } from './dimensions';
import { driftOf, type Drift, type Hosted } from './drift';
import { piecesOf, strokesOf } from './strokes';

/** How an element lies to its lines: on them, beside them within the tolerance, or further off. */
export const driftTones = ['on', 'near', 'off'] as const;
export type DriftTone = (typeof driftTones)[number];

/** Up to this far from its lines an element lies on them, metres. */
export const onLines = 0.002;

export const toneOf = ({ away }: Pick<Drift, 'away'>, tolerance: number): DriftTone => {
  if (away <= onLines) return 'on';
  return away <= tolerance ? 'near' : 'off';
};

/** A plan beside the model of its storey. Lines are x1 y1 x2 y2 each, about the drawing's origin in its own units. */
export interface Comparison {
  coverage: Covered[];
  rest: Float32Array;
  drift: Drift[];
  /** Elements of other drawings, drawn by hand, or whose lines are no longer in the drawing. */
  undrawn: number;
  tint: Record<DriftTone, Float32Array>;
  dimensions: DimensionsBeside;
  areas: AreasBeside;
}

/** What a plan is compared with. */
export interface ComparisonTask {
  scene: Scene;
  drawingId: string;
  /** The elements of its storey, with grid lines and with the walls that openings are in. */
  elements: readonly ElementRow[];
  lengths: readonly ReadLength[];
  /** Metres that an element may lie off its lines. */
  tolerance: number;
}

/** Compares a plan with the elements of its storey. */
export function comparisonOf({ scene, drawingId, elements, lengths, tolerance }: ComparisonTask): Comparison {
  const hosted = hostedOf(elements);
  const { rows, rest } = coverageOf(scene, drawingId, hosted);
  const own = hosted.filter(({ row: { source } }) => source?.drawing === drawingId && source.handles.length > 0);
  const handles = new Set(own.flatMap(({ row: { source } }) => source?.handles ?? []));
  const strokes = groupBy(scene.pathsOf(handles).flatMap(strokesOf), ({ handle }) => handle);
  const drifts = own.flatMap((one) => {
    const drift = driftOf(
      one,
      (one.row.source?.handles ?? []).flatMap((handle) => strokes.get(handle) ?? []),
    );
    return drift === null || bounded.has(one.row.kind) ? [] : [{ one, drift }];
  });
  const flat = (lines: readonly [Point, Point][]) => linesOf(lines, scene.placement, scene.primitives.origin);
  const tinted = (tone: DriftTone) =>
    flat(drifts.filter(({ drift }) => toneOf(drift, tolerance) === tone).flatMap(({ one }) => linesOfElement(one)));
  return {
    coverage: rows,
    rest: flat(rest),
    drift: drifts.map(({ drift }) => drift),
    undrawn: hosted.filter(({ row }) => !bounded.has(row.kind)).length - drifts.length,
    tint: { on: tinted('on'), near: tinted('near'), off: tinted('off') },
    dimensions: dimensionsBeside(lengths, scene.placement, hosted),
    areas: areasBeside(scene.texts('zone', 'label'), hosted),
  };
}

/** Kinds that follow from others, or that no line of a drawing stands for. */
const bounded: ReadonlySet<ElementRow['kind']> = new Set([
  'zone',
  'support',
  'pointLoad',
  'lineLoad',
  'areaLoad',
  'luminaire',
  'calculationArea',
  'contour',
]);

/** Elements with the walls that openings are in, and the openings that walls have. */
export function hostedOf(elements: readonly ElementRow[]): Hosted[] {
  const openings = groupBy(
    elements.flatMap((row) => (row.kind === 'opening' ? [row.shape] : [])),
    ({ wall }) => wall,
  );
  const walls = new Map(elements.flatMap((row) => (row.kind === 'wall' ? [[row.id, row.shape] as const] : [])));
  return elements.map((row) => ({
    row,
    host: row.kind === 'opening' ? (walls.get(row.shape.wall) ?? null) : null,
    openings: openings.get(row.id) ?? [],
  }));
}

const linesOfElement = ({ row, host }: Hosted): [Point, Point][] =>
  row.kind === 'grid'
    ? piecesOf(gridPoints(row.shape), false)
    : outlinesOf(row, host).flatMap((ring) => piecesOf(ring, true));

function linesOf(lines: readonly [Point, Point][], placement: Placement, origin: readonly [number, number]) {
  const flat = new Float32Array(4 * lines.length);
  lines.forEach((ends, i) =>
    ends.forEach((p, k) => {
      const [x, y] = unplace(placement, p);
      flat.set([x - origin[0], y - origin[1]], 4 * i + 2 * k);
    }),
  );
  return flat;
}
