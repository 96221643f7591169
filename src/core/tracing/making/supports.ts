import { boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import type { Support } from '@/core/kinds/support';
import type { Model } from '@/core/model/model';
import { defaultTolerance } from '@/core/tolerance';

/** Supports under the columns of a level whose positions lie in a box, where none is yet. */
export function supportsUnderColumns(
  model: Model,
  levelId: string | null,
  corners: readonly [Point, Point],
  like: Support,
): Support[] {
  const [minX, minY, maxX, maxY] = boxOf(corners);
  const found = model.index.touching(levelId, [minX, minY, maxX, maxY]);
  const held = found.flatMap((element) => (element.kind === 'support' ? [element.shape.position] : []));
  return found.flatMap((element): Support[] => {
    if (element.kind !== 'column') return [];
    const { position } = element.shape;
    const [x, y] = position;
    const inside = x >= minX && x <= maxX && y >= minY && y <= maxY;
    const taken = held.some((p) => distance(p, position) <= defaultTolerance.coincidence);
    return inside && !taken ? [{ ...like, position }] : [];
  });
}
