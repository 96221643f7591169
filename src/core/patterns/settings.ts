import * as v from 'valibot';
import { defaultTolerance, type Tolerance } from '@/core/tolerance';
import type { LengthUnit } from '@/core/units/length';

const length = (least: number, most: number) => v.pipe(v.number(), v.finite(), v.minValue(least), v.maxValue(most));
const thickness = length(0.01, 20);

/** Which of two written numbers of a size is the width. */
export const firstNumbers = ['width', 'depth'] as const;
export type FirstNumber = (typeof firstNumbers)[number];

/**
 * What reading takes for granted of each role where the drawing does not say, and how exact it is; lengths in metres.
 * What came later has a default, so that
 * settings kept before can still be read.
 */
export const settingsSchema = v.strictObject({
  /** What a wall measures across. */
  wall: v.strictObject({ least: thickness, most: thickness }),
  /** What a column measures: what is larger is a core or a room, what is smaller a bolt. */
  column: v.strictObject({ least: thickness, most: thickness }),
  door: v.strictObject({ height: length(0.1, 50) }),
  window: v.strictObject({ sill: length(0, 50), height: length(0.1, 50) }),
  beam: v.strictObject({
    least: thickness,
    most: thickness,
    depth: thickness,
    /** Which of two written numbers is the width, where nothing drawn tells. */
    first: v.optional(v.picklist(firstNumbers), 'width'),
  }),
  /** Thickness of slabs, and how far the slab of a building without a drawn one reaches beyond its outer faces. */
  slab: v.strictObject({ thickness, edge: length(-5, 5) }),
  /** Zones smaller than this, square metres, are shafts. */
  zone: v.strictObject({ least: length(0, 1000) }),
  outdoor: v.strictObject({ height: length(0, 100) }),
  /**
   * How far loose ends may lie apart, columns off their crossing, lines off their family (radians), and what sizes are
   * rounded to; a module of null is what suits the drawing's unit.
   */
  exact: v.strictObject({
    gap: length(0, 0.5),
    crossing: length(0, 1),
    offAxis: length(0, 0.1),
    module: v.nullable(length(0.0001, 1)),
  }),
});
export type ReadingSettings = v.InferOutput<typeof settingsSchema>;

export const defaultSettings: ReadingSettings = {
  wall: { least: 0.05, most: 0.6 },
  column: { least: 0.08, most: 3 },
  door: { height: 2.1 },
  window: { sill: 0.9, height: 1.2 },
  beam: { least: 0.1, most: 1.2, depth: 0.5, first: 'width' },
  slab: { thickness: 0.2, edge: 0 },
  zone: { least: 1 },
  outdoor: { height: 0.1 },
  exact: {
    gap: defaultTolerance.gap,
    crossing: defaultTolerance.crossing,
    offAxis: defaultTolerance.offAxis,
    module: null,
  },
};

/** What sizes of drawings in a unit are rounded to, metres: quarter inches for those in inches or feet, else 5 mm. */
export const usualModule = (unit: LengthUnit): number =>
  unit === 'in' || unit === 'ft' ? 0.0254 / 4 : defaultTolerance.roundingModule;

/** The tolerances for a drawing in a unit. */
export function toleranceFor(unit: LengthUnit, { exact }: Pick<ReadingSettings, 'exact'> = defaultSettings): Tolerance {
  const roundingModule = exact.module ?? usualModule(unit);
  return {
    ...defaultTolerance,
    gap: exact.gap,
    crossing: exact.crossing,
    offAxis: exact.offAxis,
    roundingModule,
    rounding: roundingModule / 2,
  };
}
