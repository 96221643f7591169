import type { Drawing } from '@/core/drawing/drawing';
import type { Primitives } from '@/core/underlay/primitives';
import { formatNumber, lengthUnits, metresPer, unitNames, type LengthUnit } from '@/core/units/length';
import { doorLeaves } from './objects';
import { buildingSides } from './sides';
import { median } from './sizes';

/** A block whose content is of another unit than the drawing. */
export interface MixedBlock {
  block: string;
  inserts: number;
  unit: LengthUnit;
  words: string;
  places: [number, number][];
}

/** A door leaf measures this, metres; outside it the block was drawn in something else. */
const leaf = { low: 0.55, high: 1.5 };
/** The leaf that another unit has to explain. */
const usual = { low: 0.6, high: 1.25 };

/**
 * Blocks that came in at the size of another unit: their door leaves are no doors as the drawing goes, but would be in
 * inches, say. Doors are the
 * blocks that come from elsewhere and whose size is known.
 * @param metresPerUnit true metres of one drawing unit
 */
export function mixedBlocks(drawing: Drawing, primitives: Primitives, metresPerUnit: number): MixedBlock[] {
  const { observations } = doorLeaves(primitives, buildingSides(primitives));
  const groups = new Map<number, typeof observations>();
  for (const observation of observations) {
    const block = observation.block ?? -1;
    if (block < 0) continue;
    const group = groups.get(block);
    if (group) group.push(observation);
    else groups.set(block, [observation]);
  }
  return [...groups].flatMap(([block, group]): MixedBlock[] => {
    const drawn = median(group.map(({ value }) => value));
    const size = drawn * metresPerUnit;
    if (size >= leaf.low && size <= leaf.high) return [];
    const unit = lengthUnits.find(
      (other) => drawn * metresPer[other] >= usual.low && drawn * metresPer[other] <= usual.high,
    );
    if (unit === undefined || Math.abs(metresPer[unit] / metresPerUnit - 1) < 0.01) return [];
    const words =
      `Its door leaves come to ${formatNumber(size, size < 0.1 ? 3 : 2)} m; in ` +
      `${unitNames[unit]} they would be ${formatNumber(drawn * metresPer[unit], 2)} m.`;
    return [
      {
        block: drawing.blocks[block].name,
        inserts: group.length,
        unit,
        words,
        places: group.map(({ at }) => [at[0], at[1]]),
      },
    ];
  });
}
