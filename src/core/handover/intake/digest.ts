import { judgeUnit, type UnitVerdict } from '@/core/datum/evidence/judge';
import type { ReadLimits } from '@/core/drawing/limits';
import type { Reading } from '@/core/drawing/reader';
import type { Drawing } from '@/core/drawing/drawing';
import { suggestRole } from '@/core/sorting/suggest';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import type { Primitives } from '@/core/underlay/primitives';
import { writeIntake, type IntakeFile } from './writeIntake';

/** Everything that follows from a file alone. */
export interface Digest { drawing: Drawing; primitives: Primitives; unit: UnitVerdict; intake: IntakeFile }

/**
 * Draws the first conclusions from a file that was read: flattened primitives, unit, roles, intake report.
 * @param roleOf the role of a layer and why; by its name where left out
 */
export function digest(file: string, sha256: string, reading: Reading, limits: ReadLimits, roleOf: (layer: string) => { role: Role | null; why: string[] } = byName): Digest {
  const { drawing, account } = reading;
  const primitives = flatten(drawing, { limits });
  const unit = judgeUnit(drawing, primitives);
  return { drawing, primitives, unit, intake: writeIntake({ file, sha256, drawing, account, primitives, unit, roleOf }) };
}

function byName(layer: string): { role: Role | null; why: string[] } {
  const suggestion = suggestRole(layer);
  return suggestion ? { role: suggestion.role, why: [suggestion.why] } : { role: null, why: [] };
}
