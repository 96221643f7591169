import { distance, type Point } from '@/core/geometry/vector';
import { fail, ok } from '@/core/result';
import { beamBetween, beamsAlongGrid, beamsBetweenSupports } from '@/core/tracing/making/beams';
import { gridArc, gridBySpacings, gridCopied, gridLine } from '@/core/tracing/making/grids';
import { wallChain } from '@/core/tracing/making/walls';
import { parseSpacings } from '@/core/units/typed';
import { pathOf, pointsOf, type Given, type Way } from '../way';
import { making, many, one, prompts, seekElements, sidesOf } from './making';

/** Spacings as typed; none where nothing was. */
const spacingsOf = (text: string, { lengths }: Given) => (text.trim() === '' ? ok([]) : parseSpacings(text, lengths));

function bySpacings(given: Given) {
  const [across, up] = [given.settings.across, given.settings.up].map((text) => spacingsOf(text, given));
  if (!across.ok) return across;
  if (!up.ok) return up;
  const [origin] = pointsOf(given);
  const lines = gridBySpacings(given.model, origin, { across: across.value, up: up.value, axes: given.axes.angle });
  return many('grid', lines);
}

function copied(given: Given) {
  const [line, side] = given.points;
  if (line?.element?.kind !== 'grid') return fail('That is no grid line. Click on one.');
  const spacings = parseSpacings(given.settings.across, given.lengths);
  if (!spacings.ok) return spacings;
  return side === undefined
    ? ok([])
    : many('grid', gridCopied(given.model, line.element.shape, spacings.value, side.at));
}

function arc(given: Given) {
  const [centre, from, to] = pointsOf(given);
  if (to === undefined) return ok([]);
  const made = gridArc(given.model, centre, from, to);
  return made.ok ? one('grid', made.value) : made;
}

const box = (given: Given): [Point, Point] => {
  const [a, b = a] = pointsOf(given);
  return [a, b];
};

function walls(given: Given) {
  const { settings, closed } = given;
  const path = pathOf(given);
  const points = path.points.filter((p, i) => i === 0 || distance(p, path.points[i - 1]) > 0);
  if (points.length < 2) return ok([]);
  const made = wallChain({ points, bulges: path.bulges }, closed, settings.shapes.wall, settings.drawnAlong);
  return made.ok ? many('wall', made.value) : made;
}

/** How grid lines, beams and walls are made. */
export const lineWays = {
  'grid.line': making(prompts('where the line begins', 'where it ends'), { least: 2, most: 2 }, (given) => {
    const [start, end] = pointsOf(given);
    return end === undefined || distance(start, end) === 0
      ? ok([])
      : one('grid', gridLine(given.model, start, end, given.axes.angle, given.settings.shapes.grid.label));
  }),
  'grid.spacings': making(prompts('where the first two lines cross'), { least: 1, most: 1 }, bySpacings),
  'grid.arc': making(prompts('centre of the arc', 'where it begins', 'where it ends'), { least: 3, most: 3 }, arc, {
    about: true,
  }),
  'grid.copy': making(prompts('the grid line', 'the side that copies come to'), { least: 2, most: 2 }, copied, {
    seeks: (count) => (count === 0 ? { elements: ['grid'] } : 'points'),
  }),
  'beam.chain': making(prompts('where the beam begins', 'next support'), { least: 2, most: null }, (given) =>
    many(
      'beam',
      sidesOf(pointsOf(given)).map((between) =>
        beamBetween(given.model, given.levelId, between, given.settings.shapes.beam, given.settings.beamEnds),
      ),
    ),
  ),
  'beam.supports': making(
    prompts('drag a box round columns'),
    { least: 2, most: 2 },
    (given) => {
      const { beam } = given.settings.shapes;
      const made = beamsBetweenSupports(given.model, given.levelId, box(given), beam, given.settings.beamEnds);
      return made.length === 0
        ? fail('No two neighbouring columns on a grid line lie in the box without a beam between them.')
        : many('beam', made);
    },
    { box: true },
  ),
  'beam.gridLine': making(
    prompts('a grid line with columns'),
    { least: 1, most: 1 },
    (given) => {
      const line = given.points[0]?.element;
      if (line?.kind !== 'grid') return fail('That is no grid line. Click on one.');
      const { beam } = given.settings.shapes;
      const made = beamsAlongGrid(given.model, given.levelId, line.id, beam, given.settings.beamEnds);
      return made.length === 0
        ? fail(`No two neighbouring columns stand on ${line.shape.label} without a beam between them.`)
        : many('beam', made);
    },
    { seeks: seekElements('grid') },
  ),
  'wall.chain': making(prompts('where the wall begins', 'next corner'), { least: 2, most: null }, walls, {
    closes: true,
    bends: true,
  }),
} satisfies Record<string, Way>;
