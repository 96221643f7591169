import type { Point } from '@/core/geometry/vector';
import { sectionSize } from '@/core/kinds/section';
import { elevationOf, found, metres, type Rule } from '../rule';
import { inPlan } from '../subject';

/** Sides of sections, thicknesses of walls and of slabs, and extents of buildings that are usual, metres. */
const usual = { side: [0.04, 4], wall: [0.03, 2], slab: [0.05, 2], extent: [2, 2000] } as const;

/** Sizes out of all proportion: mostly a wrong unit. */
export const proportions: Rule = {
  name: 'out of proportion',
  near: false,
  find(subject) {
    const { model } = subject;
    const odd = (
      id: string,
      at: Point,
      z: number,
      what: string,
      size: number,
      [least, most]: readonly [number, number],
    ) =>
      size >= least && size <= most
        ? []
        : found('warning', [id], at, z, [
            `${what} is ${metres(size)}; between ${metres(least)} and ${metres(most)} was expected.`,
            'Look whether the drawing\u2019s unit is right, and put the size right.',
          ]);
    const sections = [
      ...model.columns.map(({ id, section, position, level }) => ({
        id,
        section,
        at: inPlan(position),
        z: elevationOf(subject, level),
      })),
      ...model.beams.map(({ id, section, start }) => ({ id, section, at: inPlan(start), z: start[2] })),
    ].flatMap(({ id, section, at, z }) => {
      const { width, depth } = sectionSize(section);
      const side = width < usual.side[0] || width > usual.side[1] ? width : depth;
      return odd(id, at, z, 'A side of its section', side, usual.side);
    });
    const walls = model.walls.flatMap(({ id, thickness, start, level }) =>
      odd(id, [start[0], start[1]], elevationOf(subject, level), 'Its thickness', thickness, usual.wall),
    );
    const slabs = model.slabs.flatMap(({ id, thickness, outline, level }) =>
      odd(
        id,
        [outline[0]?.[0] ?? 0, outline[0]?.[1] ?? 0],
        elevationOf(subject, level),
        'Its thickness',
        thickness,
        usual.slab,
      ),
    );
    return [...sections, ...walls, ...slabs, ...extent(model)];
  },
};

function extent({ columns, walls }: Parameters<Rule['find']>[0]['model']) {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of [
    ...columns.map(({ position }) => position),
    ...walls.flatMap(({ start, end }) => [start, end]),
  ]) {
    [minX, minY, maxX, maxY] = [Math.min(minX, x), Math.min(minY, y), Math.max(maxX, x), Math.max(maxY, y)];
  }
  const size = Math.max(maxX - minX, maxY - minY);
  const [least, most] = usual.extent;
  if (minX > maxX || (size >= least && size <= most)) return [];
  return [
    found('warning', [], [minX, minY], 0, [
      `The building is ${metres(size)} long; between ${least} m and ${most} m was expected.`,
      'Look whether the unit of the drawings is right.',
    ]),
  ];
}
