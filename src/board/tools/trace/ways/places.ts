import type { ElementOf } from '@/core/kinds/element';
import { fail, ok, type Result } from '@/core/result';
import { columnAt, columnOfOutline, columnsAlong, columnsAtCrossings } from '@/core/tracing/making/columns';
import { openingAt, openingFrom, openingsSpaced } from '@/core/tracing/making/openings';
import { distance, type Point } from '@/core/geometry/vector';
import { wallLength } from '@/core/kinds/wall';
import { pointsOf, type Given, type Placed, type Way } from '../way';
import { making, many, one, outlineOf, prompts, seekElements } from './making';

/** The wall that was clicked. */
function hostOf(given: Given): Result<ElementOf<'wall'>> {
  const host = given.points[0]?.element;
  return host?.kind === 'wall' ? ok(host) : fail('There is no wall here. Click on one.');
}

/** The node of a wall that lies nearer to where it was clicked. */
function nearerNode({ at, element }: Placed): Point {
  if (element?.kind !== 'wall') return at;
  const { start, end } = element.shape;
  return distance(at, start) <= distance(at, end) ? start : end;
}

const inWall = { seeks: seekElements('wall') };

function alongLine(given: Given) {
  const [from, to] = pointsOf(given);
  if (to === undefined || distance(from, to) === 0) return ok([]);
  return many('column', columnsAlong(from, to, given.settings.count, given.settings.shapes.column));
}

/** How columns, doors and windows are made. */
export const placeWays = {
  'column.point': making(prompts('where the column stands'), { least: 1, most: 1 }, (given) =>
    one('column', columnAt(given.model, given.points[0].at, given.settings.shapes.column)),
  ),
  'column.crossings': making(
    prompts('drag a box round grid crossings'),
    { least: 2, most: 2 },
    (given) => {
      const [a, b = a]: Point[] = pointsOf(given);
      const made = columnsAtCrossings(given.model, given.levelId, [a, b], given.settings.shapes.column);
      return made.length === 0
        ? fail('No crossing of the grid without a column lies in the box.')
        : many('column', made);
    },
    { box: true },
  ),
  'column.along': making(prompts('the first column', 'the last column'), { least: 2, most: 2 }, alongLine),
  'column.outline': making(
    prompts('first corner', 'next corner'),
    { least: 2, most: null },
    (given) => {
      const outline = outlineOf(given);
      return outline.length < 3 ? ok([]) : one('column', columnOfOutline(outline, given.settings.shapes.column));
    },
    { closes: true, bends: true },
  ),
  'opening.point': making(
    prompts('a wall, where the opening is'),
    { least: 1, most: 1 },
    (given) => {
      const host = hostOf(given);
      const made = host.ok ? openingAt(host.value, given.points[0].at, given.settings.shapes.opening) : host;
      return made.ok ? one('opening', made.value) : made;
    },
    inWall,
  ),
  'opening.distance': making(
    prompts('a wall, near the node to measure from', 'how far its near edge is from the node'),
    { least: 2, most: 2 },
    (given) => {
      const host = hostOf(given);
      if (!host.ok) return host;
      const [node, along] = pointsOf(given);
      if (along === undefined) return ok([]);
      const made = openingFrom(host.value, node, distance(node, along), given.settings.shapes.opening);
      return made.ok ? one('opening', made.value) : made;
    },
    {
      seeks: (count) => (count === 0 ? { elements: ['wall'] } : 'points'),
      length: 'from the node',
      settle: nearerNode,
    },
  ),
  'opening.middle': making(
    prompts('a wall'),
    { least: 1, most: 1 },
    (given) => {
      const host = hostOf(given);
      if (!host.ok) return host;
      const { opening } = given.settings.shapes;
      const offset = (wallLength(host.value.shape) - opening.width) / 2;
      return offset < 0
        ? openingsOf(host.value, 1, given)
        : one('opening', { ...opening, wall: host.value.id, offset });
    },
    inWall,
  ),
  'opening.spaced': making(
    prompts('a wall'),
    { least: 1, most: 1 },
    (given) => {
      const host = hostOf(given);
      return host.ok ? openingsOf(host.value, given.settings.count, given) : host;
    },
    inWall,
  ),
} satisfies Record<string, Way>;

function openingsOf(host: ElementOf<'wall'>, count: number, given: Given) {
  const made = openingsSpaced(host, count, given.settings.shapes.opening);
  return made.ok ? many('opening', made.value) : made;
}
