import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { common, regionArea, regionCentre, type Region } from '@/core/geometry/clipping';
import type { Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import { elevationOf, found, type Rule } from '../rule';

/** Less in common is rounding, square metres. */
const least = 0.02;

/** Zones of one level that take the same floor. */
export const overlappingZones: Rule = {
  name: 'overlapping zones',
  near: true,
  find(subject) {
    const ring = (points: readonly (readonly number[])[]): Point[] => points.map(([x, y]): Point => [x, y]);
    return [...groupBy(subject.model.zones, ({ level }) => level)].flatMap(([level, own]) => {
      const zones = own.map(({ id, name, number, outline, holes }) => ({
        id,
        called: name || number || id,
        region: [{ outline: ring(outline), holes: holes.map(ring) }] satisfies Region,
        box: boxOf(ring(outline)),
      }));
      const index = new BoxIndex(zones, ({ box }) => box);
      return zones.flatMap((a, i) =>
        index
          .indices(a.box)
          .filter((j) => j > i)
          .flatMap((j) => {
            const b = zones[j];
            const both = common(a.region, b.region);
            const size = regionArea(both);
            if (size < least) return [];
            return found('error', [a.id, b.id], regionCentre(both), elevationOf(subject, level), [
              `${a.called} and ${b.called} have ${size.toFixed(2)} m2 of floor in common: it would be counted twice.`,
              'Put both to their walls again, or move the corner that lies in the other room.',
            ]);
          }),
      );
    });
  },
};
