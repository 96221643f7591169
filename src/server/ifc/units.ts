import * as v from 'valibot';
import { number, reference, text, type IfcFile } from './ifcFile';

/** Metres and radians of the units in which a file has its lengths and angles. */
export interface FileUnits {
  length: number;
  angle: number;
}

/** Powers of ten by their names in ISO 10303-41. */
const prefixes: Record<string, number> = { MILLI: 1e-3, CENTI: 1e-2, DECI: 1e-1, KILO: 1e3, MICRO: 1e-6 };

const assignment = v.object({ Units: v.array(reference) });
const standard = v.object({ UnitType: text, Prefix: v.nullish(text) });
const converted = v.object({ UnitType: text, ConversionFactor: reference });
const measure = v.object({ ValueComponent: number, UnitComponent: reference });

/** The units of a file; metres and radians where it says none. */
export function unitsOf(file: IfcFile): FileUnits {
  const units: FileUnits = { length: 1, angle: 1 };
  const { IFCUNITASSIGNMENT } = file.names;
  for (const id of file.idsOf(IFCUNITASSIGNMENT))
    for (const { value } of file.line(id, assignment)?.Units ?? []) {
      const type = (file.line(value, standard) ?? file.line(value, converted))?.UnitType.value;
      if (type === 'LENGTHUNIT') units.length = factorOf(file, value);
      if (type === 'PLANEANGLEUNIT') units.angle = factorOf(file, value);
    }
  return units;
}

/** How many of the standard's own unit one unit is. */
function factorOf(file: IfcFile, unit: number): number {
  const other = file.line(unit, converted);
  const factor = other === null ? null : file.line(other.ConversionFactor.value, measure);
  if (factor !== null) return factor.ValueComponent * factorOf(file, factor.UnitComponent.value);
  return prefixes[file.line(unit, standard)?.Prefix?.value ?? ''] ?? 1;
}
