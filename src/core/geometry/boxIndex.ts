import Flatbush from 'flatbush';
import type { Point } from './vector';

export type Box = readonly [minX: number, minY: number, maxX: number, maxY: number];

/** The box round some points, wider by a margin on all sides. */
export function boxOf(points: readonly Point[], margin = 0): Box {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points) {
    minX = Math.min(minX, x);
    minY = Math.min(minY, y);
    maxX = Math.max(maxX, x);
    maxY = Math.max(maxY, y);
  }
  return [minX - margin, minY - margin, maxX + margin, maxY + margin];
}

/** Things by their boxes in the plane, to be asked which touch a box; none where there are no things. */
export class BoxIndex<T> {
  private tree: Flatbush | null = null;

  constructor(
    private items: readonly T[],
    boxOfItem: (item: T) => Box,
  ) {
    if (items.length === 0) return;
    this.tree = new Flatbush(items.length);
    for (const item of items) this.tree.add(...boxOfItem(item));
    this.tree.finish();
  }

  /** The places in the list of the things whose boxes touch a box. */
  indices(box: Box): number[] {
    return this.tree === null ? [] : this.tree.search(...box);
  }

  /** The things whose boxes touch a box. */
  touching(box: Box): T[] {
    return this.indices(box).map((i) => this.items[i]);
  }

  /** The things whose boxes hold a point, or lie within a reach of it. */
  around([x, y]: Point, reach = 0): T[] {
    return this.touching([x - reach, y - reach, x + reach, y + reach]);
  }
}
