import { distance, type Point } from '@/core/geometry/vector';
import type { Shaped } from '@/core/kinds/element';
import { bandOutline } from '@/core/kinds/lines';
import { sectionSize } from '@/core/kinds/section';
import { fail } from '@/core/result';
import { makeMembers, makeUprightColumns, type UprightMember } from '@/core/tracing/upright/making';
import { makeUprightOpenings } from '@/core/tracing/upright/openings';
import { makeUprightRoofs } from '@/core/tracing/upright/roofs';
import { pointsOf, type Given, type Way } from '../way';
import { prompts, sidesOf } from './making';

const noPlane = fail('Look at a section face on first: what is made here stands in its plane.');

const membersOf = (given: Given): UprightMember[] =>
  sidesOf(pointsOf(given))
    .filter(([start, end]) => distance(start, end) > 0)
    .map(([start, end]) => ({ start, end, source: null, like: given.settings.shapes.beam }));

/** What is made in the plane of a section that is seen face on. Shown before, it is drawn in that plane. */
export const uprightWays = {
  'upright.member': {
    upright: true,
    prompt: prompts('where the member begins', 'where it ends'),
    seeks: () => 'points',
    points: { least: 2, most: null },
    preview: (given) =>
      membersOf(given).map(({ start, end, like }): Shaped => {
        const { depth } = sectionSize(like.section);
        return {
          kind: 'beam',
          shape: { start, end, section: { shape: 'rectangle', width: depth, depth }, mark: like.mark },
        };
      }),
    edit: (given) =>
      given.plane === null ? noPlane : makeMembers(given.model, given.plane, membersOf(given), given.newId),
  },
  'upright.column': {
    upright: true,
    prompt: prompts('its foot', 'the height of its head'),
    seeks: () => 'points',
    points: { least: 2, most: 2 },
    preview: (given) => {
      const [a, b] = pointsOf(given);
      if (b === undefined || a[1] === b[1]) return [];
      const { width } = sectionSize(given.settings.shapes.column.section);
      return [
        {
          kind: 'column',
          shape: {
            position: [a[0], (a[1] + b[1]) / 2],
            rotation: 0,
            section: { shape: 'rectangle', width, depth: Math.abs(b[1] - a[1]) },
            mark: '',
          },
        },
      ];
    },
    edit: (given) => {
      const [a, b] = pointsOf(given);
      if (given.plane === null || b === undefined) return noPlane;
      const column = { ends: [a, b] as const, like: given.settings.shapes.column, source: null };
      return makeUprightColumns(given.model, given.plane, [column], given.newId);
    },
  },
  'upright.opening': {
    upright: true,
    prompt: prompts('one corner of the opening', 'the opposite corner'),
    seeks: () => 'points',
    points: { least: 2, most: 2 },
    preview: (given) => {
      const [[x1, y1], [x2, y2] = [x1, y1]] = pointsOf(given);
      if (x1 === x2 || y1 === y2) return [];
      const [start, end]: Point[] = [
        [x1, (y1 + y2) / 2],
        [x2, (y1 + y2) / 2],
      ];
      return [{ kind: 'wall', shape: { ...given.settings.shapes.wall, start, end, thickness: Math.abs(y2 - y1) } }];
    },
    edit: (given) => {
      const [a, b] = pointsOf(given);
      if (given.plane === null || b === undefined) return noPlane;
      const drawn = { corners: [a, b] as const, like: given.settings.shapes.opening, source: null };
      return makeUprightOpenings(given.model, given.plane, [drawn], given.newId);
    },
  },
  'upright.roof': {
    upright: true,
    prompt: prompts('its underside at the eaves', 'its underside at the ridge'),
    seeks: () => 'points',
    points: { least: 2, most: 2 },
    preview: (given) => {
      const [a, b] = pointsOf(given);
      const like = given.settings.shapes.roof;
      return b === undefined
        ? []
        : [{ kind: 'roof', shape: { ...like, outline: bandOutline([a, b], like.thickness) } }];
    },
    edit: (given) => {
      const [a, b] = pointsOf(given);
      if (given.plane === null || b === undefined) return noPlane;
      const roof = { ends: [a, b] as const, like: given.settings.shapes.roof, source: null };
      return makeUprightRoofs(given.model, given.plane, [roof], given.newId);
    },
  },
} satisfies Record<string, Way>;
