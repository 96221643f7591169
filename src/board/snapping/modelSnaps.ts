import { distance, dot, subtract, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { gripsOf, kinds } from '@/core/kinds/kinds';
import { elementsIn } from '../layers/modelContent';
import type { BoardScene } from '../scene';
import { reachPixels, type Held, type SnapProvider } from './held';

/** At most this many elements are looked at; where more are in reach, the reach is less. */
const mostLooked = 64;
/** Points of the model are held on to before those of the underlay. */
const pointRank = -3;
/** A place on a centre line gives way to points. */
const lineRank = 5;

const pointWords = (grip: string, element: ElementRow): string => {
  const [one] = kinds[element.kind].names;
  if (element.kind === 'column') return `middle of ${one} ${element.shape.mark}`.trim();
  return ['start', 'end'].includes(grip) ? `end of ${one}` : `${grip === 'middle' ? 'middle' : 'corner'} of ${one}`;
};

/** The foot of a point on a straight line between two. */
function footOn(a: Point, b: Point, p: Point): Point {
  const along = subtract(b, a);
  const t = Math.min(1, Math.max(0, dot(subtract(p, a), along) / (dot(along, along) || 1)));
  return [a[0] + t * along[0], a[1] + t * along[1]];
}

/** The elements within reach; a crowd of them is looked at within less. */
function nearby(scene: BoardScene, [x, y]: Point, reach: number): ElementRow[] {
  const found = elementsIn(scene, [x - reach, y - reach, x + reach, y + reach]);
  return found.length > mostLooked && reach > 1e-6 ? nearby(scene, [x, y], reach / 4) : found.slice(0, mostLooked);
}

/** Ends, middles and corners of elements, and places on the centre lines of walls, beams and grid lines. */
export const modelSnaps =
  (scene: () => BoardScene): SnapProvider =>
  (at, metresPerPixel) => {
    const now = scene();
    if (now.heights !== null) return [];
    const held = (point: Point, words: string, rank: number): Held[] => {
      const pixels = distance(point, at) / metresPerPixel;
      return pixels > reachPixels ? [] : [{ words, drawingId: '', point, drawingPoint: point, pixels, rank }];
    };
    return nearby(now, at, reachPixels * metresPerPixel).flatMap((element) => {
      const host = now.model.index.hostOf(element);
      const points = gripsOf(element, host).flatMap((grip) => held(grip.at, pointWords(grip.name, element), pointRank));
      const straight =
        element.kind === 'beam' ||
        (element.kind === 'wall' && element.shape.bulge === 0) ||
        (element.kind === 'grid' && element.shape.kind === 'line');
      if (!straight) return points;
      const { start, end } = element.shape as { start: Point; end: Point };
      return [...points, ...held(footOn(start, end, at), `on ${kinds[element.kind].names[0]}`, lineRank)];
    });
  };
