import RBush from 'rbush';
import type { Box } from '@/core/geometry/boxIndex';
import type { ElementRow } from '@/core/kinds/element';
import { boxOfElement } from '@/core/kinds/kinds';
import type { Wall } from '@/core/kinds/wall';

interface Entry {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
  element: ElementRow;
}

/** From this share of a level on it is quicker to make all boxes anew than to exchange the changed ones. */
const madeAnewFrom = 1 / 8;

/** The elements of one level by their boxes in plan (an R*-tree, Beckmann and others, 1990), following edits. */
export class LevelBoxes {
  private readonly tree = new RBush<Entry>();
  private readonly entries = new Map<string, Entry>();

  constructor(private readonly hostOf: (element: ElementRow) => Wall | null) {}

  load(elements: readonly ElementRow[]): void {
    for (const element of elements) this.keep(element);
    this.tree.load([...this.entries.values()]);
  }

  /**
   * Takes over elements that changed, by their ids; null where one is not on the level any more.
   * @returns whether it did: where very many changed, boxes made anew are quicker
   */
  follow(changed: readonly [id: string, element: ElementRow | null][]): boolean {
    if (changed.length > Math.max(16, this.entries.size * madeAnewFrom)) return false;
    for (const [id, element] of changed) {
      const before = this.entries.get(id);
      this.entries.delete(id);
      const after = element === null ? null : this.keep(element);
      if (before) this.tree.remove(before);
      if (after) this.tree.insert(after);
    }
    return true;
  }

  touching([minX, minY, maxX, maxY]: Box): ElementRow[] {
    return this.tree.search({ minX, minY, maxX, maxY }).map(({ element }) => element);
  }

  extent(): Box | null {
    if (this.entries.size === 0) return null;
    const { minX, minY, maxX, maxY } = this.tree.toJSON() as Entry;
    return [minX, minY, maxX, maxY];
  }

  /** An element without a place, such as an opening without its wall, has no box. */
  private keep(element: ElementRow): Entry | null {
    const box = boxOfElement(element, this.hostOf(element));
    if (box === null) return null;
    const [minX, minY, maxX, maxY] = box;
    const entry = { minX, minY, maxX, maxY, element };
    this.entries.set(element.id, entry);
    return entry;
  }
}
