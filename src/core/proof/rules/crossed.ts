import { centroid } from '@/core/geometry/polygon';
import { sidesCross } from '@/core/geometry/sidesCross';
import { elevationOf, found, type Rule } from '../rule';
import { inPlan } from '../subject';

/** Outlines that cross themselves. */
export const crossed: Rule = {
  name: 'crossed outline',
  near: true,
  find(subject) {
    const { slabs, zones, outdoor } = subject.model;
    const rings = [
      ...slabs.map((one) => ({ ...one, rings: [one.outline, ...one.holes] })),
      ...zones.map((one) => ({ ...one, rings: [one.outline, ...one.holes] })),
      ...outdoor.map((one) => ({ ...one, rings: [one.outline] })),
    ];
    return rings.flatMap(({ id, level, rings: own }) =>
      own.flatMap((ring) => {
        const points = ring.map(inPlan);
        if (!sidesCross(points)) return [];
        return found('error', [id], centroid(points), elevationOf(subject, level), [
          'Its outline crosses itself, so that nobody knows what lies inside.',
          'Move the corner that lies on the wrong side, or draw it again.',
        ]);
      }),
    );
  },
};
