import { distance, middle, subtract, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { endsOf } from '@/core/kinds/kinds';
import { formatLength } from '@/core/units/length';
import { elementsIn } from '../layers/modelContent';
import type { BoardScene } from '../scene';
import { offer, type Held, type SnapProvider } from './held';

/** Nodes of the model within this are compared, metres: about two bays. */
const within = 16;
/** So many nodes are compared, the nearest, and so many elements looked at for them at most. */
const [mostNodes, mostLooked] = [12, 400];
/** Nodes closer than this are one, metres. */
const oneNode = 0.01;
/** By how many pixels a place at an equal distance stands back behind what is drawn. */
const rank = 4;

/** Where something else is repeated in a row: columns, supports, luminaires, and ends of beams. */
function nodesOf(element: ElementRow): Point[] {
  if (element.kind === 'luminaire') return [element.shape.position];
  return element.kind === 'column' || element.kind === 'support' || element.kind === 'beam' ? endsOf(element) : [];
}

/** The nodes nearest to a place; in a crowd only what is close to it is looked at. */
function nodesNear(scene: BoardScene, [x, y]: Point, reach = within): Point[] {
  const found = elementsIn(scene, [x - reach, y - reach, x + reach, y + reach]);
  if (found.length > mostLooked && reach > oneNode) return nodesNear(scene, [x, y], reach / 2);
  const kept: Point[] = [];
  const byNearness = found.flatMap(nodesOf).sort((a, b) => distance(a, [x, y]) - distance(b, [x, y]));
  for (const node of byNearness) {
    if (kept.length === mostNodes) break;
    if (!kept.some((other) => distance(other, node) < oneNode)) kept.push(node);
  }
  return kept;
}

/** Places as far from one node as it is from the next, and halfway between two. */
export const equalSnaps =
  (scene: () => BoardScene): SnapProvider =>
  (look) => {
    const now = scene();
    if (now.heights !== null) return [];
    const held = offer(look, 'model', rank);
    const nodes = nodesNear(now, look.at);
    return nodes.flatMap((a, i) =>
      nodes.flatMap((b, j): Held[] => {
        if (i === j) return [];
        const [dx, dy] = subtract(b, a);
        const far = formatLength(Math.hypot(dx, dy), now.unit);
        const halfway = i < j ? held(middle(a, b), `halfway of ${far} between two`) : [];
        return [...held([b[0] + dx, b[1] + dy], `as far again: ${far}`), ...halfway];
      }),
    );
  };
