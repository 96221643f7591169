import type { GridLine } from '@/core/model/elements';
import { defaultTolerance, type Tolerance } from '@/core/tolerance';
import type { LengthUnit } from '@/core/units/length';
import type { Candidate, Unread } from './candidate';
import { readColumns } from './columns/readColumns';
import { readGrid } from './grid/readGrid';
import type { Scene } from './scene';

export interface ReadingResult { candidates: Candidate[]; unread: Unread[] }

/** The tolerances for a drawing in a unit: sizes drawn in inches or feet are rounded to quarter inches, others to 5 mm. */
export function toleranceFor(unit: LengthUnit): Tolerance {
  const imperial = unit === 'in' || unit === 'ft';
  return imperial ? { ...defaultTolerance, roundingModule: 0.0254 / 4, rounding: 0.0254 / 8 } : defaultTolerance;
}

/**
 * Reads everything that the roles of a drawing ask for.
 * @param accepted grid lines that are part of the model; they come before the ones read
 */
export function read(scene: Scene, accepted: readonly GridLine[], tolerance: Tolerance): ReadingResult {
  const grid = readGrid(scene, tolerance);
  const known = new Set(accepted.map((line) => line.label));
  const lines = [...accepted, ...grid.candidates.map((candidate) => candidate.element).filter((line) => !known.has(line.label))];
  const columns = readColumns(scene, lines, tolerance);
  return { candidates: [...grid.candidates, ...columns.candidates], unread: [...grid.unread, ...columns.unread] };
}
