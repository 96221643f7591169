import * as v from 'valibot';
import type { Swing } from '@/core/cut/fillings';
import { reference, text, type IfcFile } from './ifcFile';
import type { FileUnits } from './units';

/** How leaves are hung, by the words of the standard; other doors slide, fold, turn or do not say. */
const leavesBy: Record<string, Swing['leaves']> = {
  SINGLE_SWING_LEFT: 'begin',
  DOUBLE_SWING_LEFT: 'begin',
  SINGLE_SWING_RIGHT: 'end',
  DOUBLE_SWING_RIGHT: 'end',
  DOUBLE_DOOR_SINGLE_SWING: 'both',
  DOUBLE_DOOR_DOUBLE_SWING: 'both',
};

const door = v.object({ ObjectPlacement: v.nullish(reference), OperationType: v.nullish(text) });
const type = v.object({ OperationType: v.nullish(text) });
const typing = v.object({ RelatedObjects: v.array(reference), RelatingType: reference });

/** How doors open: as they say themselves, else as their type does. */
export class Swings {
  private readonly types = new Map<number, number>();

  constructor(
    private readonly file: IfcFile,
    private readonly units: FileUnits,
  ) {
    for (const id of file.idsOf(file.names.IFCRELDEFINESBYTYPE)) {
      const relation = file.line(id, typing);
      for (const { value } of relation?.RelatedObjects ?? []) this.types.set(value, relation!.RelatingType.value);
    }
  }

  of(id: number): Swing | null {
    const found = this.file.line(id, door);
    const own = this.types.get(id);
    const word =
      found?.OperationType?.value ?? (own === undefined ? null : this.file.line(own, type)?.OperationType?.value);
    const leaves = leavesBy[word ?? ''];
    if (leaves === undefined || !found?.ObjectPlacement) return null;
    const m = this.file.placeOf(found.ObjectPlacement.value);
    const size = Math.hypot(m[0], m[1]) || 1;
    return {
      leaves,
      origin: [m[12] * this.units.length, m[13] * this.units.length],
      along: [m[0] / size, m[1] / size],
      towards: [m[4] / size, m[5] / size],
    };
  }
}
