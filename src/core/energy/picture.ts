import type { Place } from '@/core/bodies/shell';
import { middle, type Point } from '@/core/geometry/vector';
import type { Picture } from '@/core/structure/picture';
import type { SpacePicture } from '@/core/structure/spacePicture';
import type { ShownZone } from './file';

/** A zone with its outline in plan. */
export interface DrawnZone {
  zone: ShownZone;
  outline: Point[];
  holes: Point[][];
  /** Whether its own surfaces are told. */
  chosen: boolean;
}

const watts = (value: number): string => `${value.toFixed(0)} W`;

/** What a zone needs for each square metre. */
const densityOf = ({ designLoad, area }: ShownZone): number => designLoad / (area || 1);

/** Heat over a plan: zones tinted by their load for each square metre; of one chosen what its walls lose. */
export function heatPicture(drawn: readonly DrawnZone[]): Picture {
  const most = drawn.reduce((greatest, { zone }) => Math.max(greatest, densityOf(zone)), 0) || 1;
  const picture: Required<Picture> = { areas: [], lines: [], labels: [], tints: [] };
  for (const { zone, outline, holes, chosen } of drawn) {
    picture.tints.push({ outline, holes, share: Math.max(0, densityOf(zone)) / most });
    const [x, y] = centreOf(outline);
    picture.labels.push({ at: [x, y], text: zone.heated ? watts(zone.designLoad) : 'unheated' });
    if (!chosen) continue;
    for (const { from, to, surface } of zone.sides) {
      const { uValue, transmission } = zone.surfaces[surface];
      picture.lines.push([from, to]);
      if (transmission !== 0)
        picture.labels.push({ at: middle(from, to), text: `${transmission.toFixed(1)} W/K, U ${uValue.toFixed(2)}` });
    }
  }
  return picture;
}

/** Heat in space: the upright surfaces of zones as frames; of one chosen with what each loses. */
export function heatInSpace(drawn: readonly DrawnZone[]): SpacePicture {
  const picture: SpacePicture = { pieces: [], labels: [] };
  const chosen = drawn.filter((one) => one.chosen);
  for (const { zone } of chosen)
    for (const { from, to, low, high, surface } of zone.sides) {
      const [a, b, c, d]: Place[] = [
        [...from, low],
        [...to, low],
        [...to, high],
        [...from, high],
      ];
      picture.pieces.push([a, b], [b, c], [c, d], [d, a]);
      const { transmission } = zone.surfaces[surface];
      const [x, y] = middle(from, to);
      if (transmission !== 0)
        picture.labels.push({
          at: [x, y, (low + high) / 2],
          text: `${transmission.toFixed(1)} W/K`,
          size: Math.abs(transmission),
        });
    }
  for (const { zone, outline } of drawn) {
    const [x, y] = centreOf(outline);
    const low = zone.sides.reduce((least, side) => Math.min(least, side.low), Infinity);
    if (Number.isFinite(low) && zone.heated)
      picture.labels.push({ at: [x, y, low + zone.height / 2], text: watts(zone.designLoad), size: zone.designLoad });
  }
  picture.labels.sort((a, b) => b.size - a.size);
  return picture;
}

const centreOf = (outline: readonly Point[]): Point => [
  outline.reduce((sum, [x]) => sum + x, 0) / (outline.length || 1),
  outline.reduce((sum, [, y]) => sum + y, 0) / (outline.length || 1),
];
