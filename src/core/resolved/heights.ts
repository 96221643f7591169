import type { ElementRow } from '@/core/kinds/element';
import { tiesOf, type LevelTie, type Tie } from '@/core/kinds/tie';
import type { Storey } from './building';

/** Where ends that are tied to levels lie; what is tied to a level that is not there is as without a tie. */
export class Ties {
  private readonly rank: ReadonlyMap<string, number>;

  /** @param storeys from the lowest up */
  constructor(private readonly storeys: readonly Storey[]) {
    this.rank = new Map(storeys.map(({ level }, i) => [level.id, i]));
  }

  /**
   * The height of an end that is tied to a level, metres above the project's zero; null where it is not, or the level
   * is not there. On a storey that repeats another it is tied to the level as many storeys away.
   * @param own the level that the element belongs to
   * @param storey the one it is placed on
   */
  heightOf(tie: Tie | undefined, own: string, storey: Storey): number | null {
    if (typeof tie !== 'object') return null;
    const at = this.storeyOf(tie, own, storey);
    return at === null ? null : at.base + tie.offset;
  }

  private storeyOf({ level }: LevelTie, own: string, storey: Storey): Storey | null {
    const [to, from, here] = [this.rank.get(level), this.rank.get(own), this.rank.get(storey.level.id)];
    if (to === undefined || from === undefined || here === undefined) return null;
    return this.storeys[to + here - from] ?? null;
  }

  /** Whether an element is tied to a level that there is not. */
  isLoose(element: ElementRow): boolean {
    return Object.values(tiesOf(element)).some((tie) => typeof tie === 'object' && !this.rank.has(tie.level));
  }
}
