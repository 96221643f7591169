import { nearestOnPiece, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { isEdgeGrip } from '@/core/kinds/areas';
import { gripsOf, kinds, outlinesOf } from '@/core/kinds/kinds';
import { levelsUp, sourceLevel } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { elementsIn } from '../layers/modelContent';
import type { BoardScene } from '../scene';
import { offer, type Held, type SnapLook, type SnapProvider } from './held';

/** At most this many elements are looked at; where more are in reach, the reach is less. */
const mostLooked = 64;
/** Points of the model are held on to before those of the underlay. */
const pointRank = -3;
/** Corners of walls are places like those of the underlay; a place on a line gives way to points. */
const cornerRank = 1;
const lineRank = 5;
/** What lies on the level below is quiet: it gives way to what is on this one. */
const belowRank = 6;

const pointWords = (grip: string, element: ElementRow): string => {
  const [one] = kinds[element.kind].names;
  if (element.kind === 'column') return `middle of ${one} ${element.shape.mark}`.trim();
  if (isEdgeGrip(grip)) return `middle of an edge of ${one}`;
  return ['start', 'end'].includes(grip) ? `end of ${one}` : `${grip === 'middle' ? 'middle' : 'corner'} of ${one}`;
};

/** The elements within reach; a crowd of them is looked at within less. @param reach metres */
export function nearby(scene: BoardScene, [x, y]: Point, reach: number): ElementRow[] {
  const found = elementsIn(scene, [x - reach, y - reach, x + reach, y + reach]);
  return found.length > mostLooked && reach > 1e-6 ? nearby(scene, [x, y], reach / 4) : found.slice(0, mostLooked);
}

/** The straight line of an element: its centre line or its grid line. */
export function straightOf(element: ElementRow): { start: Point; end: Point } | null {
  if (element.kind === 'beam') return element.shape;
  if (element.kind === 'wall') return element.shape.bulge === 0 ? element.shape : null;
  return element.kind === 'grid' && element.shape.kind === 'line' ? element.shape : null;
}

/** Corners and faces of a wall. */
function facesOf(element: ElementRow, look: SnapLook): Held[] {
  if (element.kind !== 'wall') return [];
  const [outline] = outlinesOf(element);
  const [corner, face] = [offer(look, 'model', cornerRank), offer(look, 'model', lineRank)];
  const ends = [0, outline.length / 2 - 1, outline.length / 2, outline.length - 1];
  const sides = outline.flatMap((a, i) => {
    const next = (i + 1) % outline.length;
    // The two short sides are no faces.
    return i === outline.length / 2 - 1 || next === 0
      ? []
      : face(nearestOnPiece(a, outline[next], look.at), 'face of wall');
  });
  return [...ends.flatMap((i) => corner(outline[i], 'corner of wall face')), ...sides];
}

function holdsOf(element: ElementRow, model: Model, look: SnapLook): Held[] {
  const [point, line] = [offer(look, 'model', pointRank), offer(look, 'model', lineRank)];
  const points = gripsOf(element, model.index.hostOf(element)).flatMap((grip) =>
    point(grip.at, pointWords(grip.name, element)),
  );
  const straight = straightOf(element);
  const on =
    straight === null
      ? []
      : line(nearestOnPiece(straight.start, straight.end, look.at), `on ${kinds[element.kind].names[0]}`);
  return [...points, ...on, ...facesOf(element, look)];
}

/** Ends, middles and corners of elements, wall faces, and places on the lines of walls, beams and grid lines. */
export const modelSnaps =
  (scene: () => BoardScene): SnapProvider =>
  (look) => {
    const now = scene();
    return nearby(now, look.at, look.reach * look.metresPerPixel).flatMap((element) =>
      holdsOf(element, now.model, look),
    );
  };

/** The level below one, or the one that it repeats; null below the lowest. */
function levelBelow(model: Model, levelId: string | null): { id: string; name: string } | null {
  const up = levelsUp(model);
  const at = up.findIndex(({ id }) => id === levelId);
  const below = at > 0 ? up[at - 1] : undefined;
  return below ? { id: sourceLevel(model, below.id) ?? below.id, name: below.name } : null;
}

/** Columns, and ends of walls and beams on the level below: what stands on them stands over them. */
export const belowSnaps =
  (scene: () => BoardScene): SnapProvider =>
  (look) => {
    const { model, levelId, heights } = scene();
    const below = heights === null ? levelBelow(model, levelId) : null;
    if (below === null) return [];
    const held = offer(look, 'below', belowRank);
    const reach = look.reach * look.metresPerPixel;
    const [x, y] = look.at;
    return model.index
      .touching(below.id, [x - reach, y - reach, x + reach, y + reach])
      .slice(0, mostLooked)
      .filter(({ kind }) => kind === 'column' || kind === 'wall' || kind === 'beam')
      .flatMap((element) =>
        gripsOf(element, null).flatMap((grip) => held(grip.at, `${pointWords(grip.name, element)}, on ${below.name}`)),
      );
  };
