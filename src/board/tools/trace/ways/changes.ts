import { boxOf } from '@/core/geometry/boxIndex';
import { distance, subtract, type Point } from '@/core/geometry/vector';
import type { ElementRow, Shaped } from '@/core/kinds/element';
import { gridCrossings } from '@/core/kinds/gridCrossings';
import type { Edit } from '@/core/model/edits';
import { fail, type Result } from '@/core/result';
import { alignElements } from '@/core/tracing/align';
import { carried } from '@/core/tracing/carried';
import { clipOf, copiesOf, inARow, pasteClip, repeatElements, toPoints } from '@/core/tracing/copied';
import { isEdgeGrip } from '@/core/kinds/areas';
import type { Grip } from '@/core/kinds/kind';
import { gripsOf } from '@/core/kinds/kinds';
import { addCorner, bendEdge, dragGrip, edgeNear, gripped, removeCorner } from '@/core/tracing/corners';
import { mirror, mirrorElements, moveElements, shift, turn, turnElements } from '@/core/tracing/moved';
import { splitElement } from '@/core/tracing/parts';
import { closeCorner, reachTo } from '@/core/tracing/reach';
import { setOffEdges } from '@/core/tracing/setOff';
import { keptClip } from '@/project/clipboard';
import { pointsOf, type Given, type Seeks, type Way } from '../way';
import { prompts } from './making';

const points = (): Seeks => 'points';
const any = (): Seeks => ({ elements: 'any' });
const lineFirst = (count: number): Seeks => (count === 0 ? 'line' : { elements: ['wall', 'beam', 'grid'] });

/** What a change gives on the board: the elements as they would be. */
type Preview = (given: Given) => readonly Shaped[];

const changing = (
  prompt: Way['prompt'],
  count: number,
  { edit, preview = () => [], ...more }: Pick<Way, 'edit'> & { preview?: Preview } & Partial<Way>,
): Way => ({
  prompt,
  points: { least: count, most: count },
  seeks: points,
  selection: true,
  ...more,
  edit,
  preview: (given) => [...preview(given)],
});

const elementsOf = ({ model, selected }: Given): ElementRow[] => [...selected].flatMap((id) => model.element[id] ?? []);

/** The shift from the first point to the second. */
const by = (given: Given): Point => {
  const [from, to = from] = pointsOf(given);
  return subtract(to, from);
};

/** The turn about the first point, from the direction of the second to that of the third. */
function turned(given: Given): { about: Point; angle: number } {
  const [about, from = about, to = from] = pointsOf(given);
  const angle = (p: Point): number => Math.atan2(p[1] - about[1], p[0] - about[0]);
  return { about, angle: distance(about, from) === 0 || distance(about, to) === 0 ? 0 : angle(to) - angle(from) };
}

/** An element that was clicked, by its number among the points. */
const clicked = (given: Given, n: number): ElementRow | null => given.points[n]?.element ?? null;

const onElement =
  (act: (given: Given, element: ElementRow, at: Point) => Result<Edit>): Way['edit'] =>
  (given) => {
    const element = clicked(given, 0);
    return element === null ? fail('There is no element here. Click on one.') : act(given, element, given.points[0].at);
  };

/** The crossings of the grid in a box, without the one that is copied from. */
function crossingsIn(given: Given): Point[] {
  const [base, a, b = a] = pointsOf(given);
  if (a === undefined) return [];
  const [minX, minY, maxX, maxY] = boxOf([a, b]);
  const grid = Array.from(given.model.ofKind('grid'), ({ shape }) => shape);
  const inside = gridCrossings(grid)
    .map(({ point }) => point)
    .filter(([x, y]) => x >= minX && x <= maxX && y >= minY && y <= maxY);
  return toPoints(base, inside);
}

/** Copies of what is selected, at shifts, for the eye. */
function copiesAt(given: Given, shifts: readonly Point[]): ElementRow[] {
  const { elements } = clipOf(given.model, given.selected);
  const standing = elements.filter(({ kind }) => kind !== 'opening');
  return shifts.flatMap((one) => copiesOf(standing, shift(one), () => ''));
}

/** The end or corner of an element that is nearest to a point; an opening is moved by its middle in its wall. */
function nearestGrip(element: ElementRow | null, at: Point): Grip | null {
  if (element === null || element.kind === 'opening') return null;
  const grips = gripsOf(element, null).filter(({ name }) => name !== 'middle' && !isEdgeGrip(name));
  return [...grips].sort((a, b) => distance(a.at, at) - distance(b.at, at))[0] ?? null;
}

/** How what there is gets changed. */
export const changeWays = {
  'change.move': changing(prompts('a point to move by', 'where it comes to'), 2, {
    preview: (given) => carried(given.model, given.selected, shift(by(given)), 'joined'),
    edit: (given) => moveElements(given.model, given.selected, by(given)),
  }),
  'change.copy': changing(prompts('a point to copy by', 'where it comes to'), 2, {
    preview: (given) => copiesAt(given, inARow(by(given), given.settings.copies)),
    edit: (given) => repeatElements(given.model, given.selected, inARow(by(given), given.settings.copies), given.newId),
  }),
  'change.repeat': changing(
    prompts('the crossing to copy from', 'a box round crossings: one corner', 'its other corner'),
    3,
    {
      preview: (given) => copiesAt(given, crossingsIn(given)),
      edit: (given) => repeatElements(given.model, given.selected, crossingsIn(given), given.newId),
    },
  ),
  'change.turn': changing(prompts('the point to turn about', 'a direction', 'the direction that it becomes'), 3, {
    about: true,
    preview(given) {
      const { about, angle } = turned(given);
      return carried(given.model, given.selected, turn(about, angle), 'joined');
    },
    edit(given) {
      const { about, angle } = turned(given);
      return turnElements(given.model, given.selected, about, angle);
    },
  }),
  'change.mirror': changing(prompts('one point of the mirror', 'another point of it'), 2, {
    preview(given) {
      const [a, b = a] = pointsOf(given);
      return distance(a, b) === 0 ? elementsOf(given) : carried(given.model, given.selected, mirror(a, b), 'joined');
    },
    edit(given) {
      const [a, b] = pointsOf(given);
      return mirrorElements(given.model, given.selected, a, b);
    },
  }),
  'change.align': changing(prompts('the line to align to'), 1, {
    seeks: () => 'line',
    edit(given) {
      const [{ line }] = given.points;
      return line === null
        ? fail('There is no straight line here. Click on a grid line, a wall or a line of the drawing.')
        : alignElements(given.model, given.selected, line);
    },
  }),
  'change.reach': changing(prompts('the line to reach to', 'the end to cut back or lengthen'), 2, {
    seeks: lineFirst,
    selection: false,
    edit(given) {
      const [{ line }, { element, at }] = given.points;
      if (line === null) return fail('There is no straight line here. Click on a line, a wall or a grid line.');
      if (element === null)
        return fail('There is nothing to cut back or lengthen here. Click on a wall, beam or grid line.');
      return reachTo(given.model, element.id, at, line);
    },
  }),
  'change.corner': changing(prompts('the first of two', 'the second'), 2, {
    seeks: any,
    selection: false,
    edit(given) {
      const [a, b] = [clicked(given, 0), clicked(given, 1)];
      return a === null || b === null
        ? fail('A corner is closed between two walls, beams or grid lines. Click on both.')
        : closeCorner(given.model, a.id, b.id);
    },
  }),
  'change.split': changing(prompts('where to split a wall or a beam'), 1, {
    seeks: any,
    selection: false,
    edit: onElement((given, { id }, at) => splitElement(given.model, id, at, given.newId)),
  }),
  'change.addCorner': changing(prompts('an edge of an outline', 'where its new corner lies'), 2, {
    seeks: (count) => (count === 0 ? { elements: ['slab', 'zone', 'outdoor'] } : 'points'),
    selection: false,
    edit(given) {
      const element = clicked(given, 0);
      return element === null
        ? fail('There is no outline here.')
        : addCorner(given.model, element.id, given.points[1].at);
    },
  }),
  'change.removeCorner': changing(prompts('the corner to remove'), 1, {
    seeks: () => ({ elements: ['slab', 'zone', 'outdoor'] }),
    selection: false,
    edit: onElement((given, { id }, at) => removeCorner(given.model, id, at)),
  }),
  'change.bend': changing(prompts('a wall, or an edge of an outline', 'a point that the arc goes through'), 2, {
    seeks: (count) => (count === 0 ? { elements: ['wall', 'slab', 'zone', 'outdoor'] } : 'points'),
    selection: false,
    edit(given) {
      const element = clicked(given, 0);
      return element === null
        ? fail('There is nothing to bend here.')
        : bendEdge(given.model, element.id, given.points[1].at);
    },
  }),
  'change.setOffEdge': changing(prompts('the edge of an outline to set off'), 1, {
    seeks: () => ({ elements: ['slab', 'zone', 'outdoor'] }),
    selection: false,
    edit: onElement(({ model, settings }, element, at) => {
      const edge = edgeNear(element, at);
      if (edge === null || edge.ring !== 0 || !('outline' in element.shape))
        return fail('There is no outer edge here. Click near one of a slab, a zone or an outdoor surface.');
      const by = element.shape.outline.map((_, i) => (i === edge.corner ? settings.setOff : 0));
      return setOffEdges(model, element.id, by);
    }),
  }),
  'change.node': changing(prompts('an end or a corner', 'where it comes to'), 2, {
    seeks: (count) => (count === 0 ? { elements: 'any' } : 'points'),
    selection: false,
    settle: ({ at, element }) => nearestGrip(element, at)?.at ?? at,
    preview(given) {
      const [{ element, at }, to] = given.points;
      const grip = nearestGrip(element, at);
      return element === null || grip === null || to === undefined
        ? []
        : gripped(given.model, element.id, grip.name, to.at, 'joined');
    },
    edit(given) {
      const [{ element, at }, to] = given.points;
      const grip = nearestGrip(element, at);
      return element === null || grip === null
        ? fail('There is no end or corner here. Click on a wall, a beam, a column or an outline.')
        : dragGrip(given.model, element.id, grip.name, to.at);
    },
  }),
  'change.paste': changing(prompts('where the copied things come to'), 1, {
    selection: false,
    preview(given) {
      const clip = keptClip();
      if (clip === null) return [];
      const standing = clip.elements.filter(({ kind }) => kind !== 'opening');
      return copiesOf(standing, shift(subtract(given.points[0].at, clip.base)), () => '');
    },
    edit(given) {
      const clip = keptClip();
      if (clip === null || given.levelId === null)
        return fail('Nothing has been copied yet. Select elements and copy them first.');
      return pasteClip(given.model, clip, given.points[0].at, [given.levelId], given.newId);
    },
  }),
} satisfies Record<string, Way>;
