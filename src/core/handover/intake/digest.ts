import { judgeUnit, type UnitVerdict } from '@/core/datum/evidence/judge';
import type { ReadLimits } from '@/core/drawing/limits';
import type { Reading } from '@/core/drawing/reader';
import type { Drawing } from '@/core/drawing/drawing';
import { suggestLayers } from '@/core/sorting/suggestLayers';
import { lengthUnits, metresPer } from '@/core/units/length';
import { showsBuilding, type Role } from '@/core/sorting/roles';
import { drawingPicture } from '@/core/underlay/smallPictures';
import { flatten } from '@/core/underlay/flatten';
import type { Primitives } from '@/core/underlay/primitives';
import { writeIntake, type IntakeFile } from './writeIntake';

/** Everything that follows from a file alone. */
export interface Digest {
  drawing: Drawing;
  primitives: Primitives;
  unit: UnitVerdict;
  intake: IntakeFile;
  /** A small picture of it, as lines. */
  picture: number[];
}

/**
 * Draws the first conclusions from a file that was read: flattened primitives, unit, roles, intake report.
 * @param roleOf the role of a layer and why; by its name and what is drawn on it where left out
 */
export function digest(
  file: string,
  sha256: string,
  reading: Reading,
  limits: ReadLimits,
  roleOf?: (layer: string) => { role: Role | null; why: string[] },
): Digest {
  const { drawing, account } = reading;
  const primitives = flatten(drawing, { limits });
  const unit = judgeUnit(drawing, primitives);
  // Without a unit that is decided sizes are taken in the likeliest.
  const likeliest = lengthUnits.reduce((a, b) => (unit.probabilities[b] > unit.probabilities[a] ? b : a));
  const suggested = roleOf
    ? null
    : new Map(
        suggestLayers(drawing, primitives, metresPer[likeliest] * unit.scale).map((suggestion, i) => [
          drawing.layers[i].name,
          suggestion,
        ]),
      );
  const role =
    roleOf ??
    ((layer: string) => {
      const found = suggested?.get(layer);
      return { role: found?.role ?? null, why: [...(found?.why ?? []), ...(found?.conflict ? [found.conflict] : [])] };
    });
  const intake = writeIntake({ file, sha256, drawing, account, primitives, unit, roleOf: role });
  return {
    drawing,
    primitives,
    unit,
    picture: drawingPicture(
      primitives,
      Uint8Array.from(intake.layers, (layer) => Number(showsBuilding(layer.role))),
    ),
    intake,
  };
}
