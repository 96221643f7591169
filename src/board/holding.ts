import { useTracing } from '@/project/tracing';
import { holdsAt, type Held, type SnapLook, type SnapProvider } from './snapping/held';

const sameHold = (a: Held, b: Held): boolean =>
  a.words === b.words && a.point[0] === b.point[0] && a.point[1] === b.point[1];

/** What the cursor could hold on to, and which of it it does. */
export class Holding {
  private holds: Held[] = [];
  private chosen = 0;

  constructor(private readonly providers: readonly SnapProvider[]) {}

  get held(): Held | null {
    return this.holds[this.chosen] ?? null;
  }

  get choice(): { chosen: number; of: number } {
    return { chosen: this.chosen, of: this.holds.length };
  }

  clear(): void {
    this.holds = [];
    this.chosen = 0;
  }

  /**
   * Looks for what there is; what was chosen stays chosen where it is still offered.
   * @param first the drawing whose points come first; null where any will do
   * @param plain whether only what is there is held on to, not what follows from it: that is for Tracing
   */
  seek(look: Omit<SnapLook, 'reach'>, first: string | null, plain: boolean): void {
    const before = this.held;
    const { reach, off } = useTracing.getState();
    const found = holdsAt(this.providers, { ...look, reach }, plain ? [...off, 'follows', 'below'] : off);
    this.holds =
      first === null ? found : found.toSorted((a, b) => Number(b.drawingId === first) - Number(a.drawingId === first));
    const kept = this.chosen > 0 && before ? this.holds.findIndex((held) => sameHold(held, before)) : -1;
    this.chosen = Math.max(0, kept);
  }

  /** Steps to the next. @returns whether there is one */
  next(): boolean {
    if (this.holds.length < 2) return false;
    this.chosen = (this.chosen + 1) % this.holds.length;
    return true;
  }
}
