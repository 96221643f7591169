import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { areaOf } from '@/core/kinds/areas';
import type { ElementOf } from '@/core/kinds/element';
import type { PlacedText } from '@/core/placed/placed';
import { tellApart } from '@/core/reading/zones/texts';
import type { Hosted } from './drift';

/** An area written in a room beside the zone there. Square metres. */
export interface WrittenArea {
  id: string;
  name: string;
  written: number;
  area: number;
  at: Point;
}

export interface AreasBeside {
  agree: number;
  differ: WrittenArea[];
  /** Areas that are written where there is no zone, and where. */
  without: { written: number; at: Point }[];
}

/** Written areas are rounded, and measured to plaster or to the raw wall: apart by up to this share, or this much. */
const [share, least] = [0.02, 0.06];

/** Sets the areas written in a drawing against the zones that they stand in. */
export function areasBeside(texts: readonly PlacedText[], hosted: readonly Hosted[]): AreasBeside {
  const zones = hosted.flatMap(({ row }): ElementOf<'zone'>[] => (row.kind === 'zone' ? [row] : []));
  const index = new BoxIndex(zones, ({ shape }) => boxOf(shape.outline));
  const told: AreasBeside = { agree: 0, differ: [], without: [] };
  for (const text of texts) {
    const written = tellApart([text]).area;
    if (written === null || !(written > 0)) continue;
    const zone = index
      .around(text.at)
      .find(({ shape }) => contains(shape.outline, text.at) && !shape.holes.some((hole) => contains(hole, text.at)));
    if (zone === undefined) {
      told.without.push({ written, at: text.at });
      continue;
    }
    const area = areaOf(zone.shape);
    if (Math.abs(area - written) <= Math.max(least, share * written)) told.agree += 1;
    else told.differ.push({ id: zone.id, name: zone.shape.number || zone.shape.name, written, area, at: text.at });
  }
  return told;
}
