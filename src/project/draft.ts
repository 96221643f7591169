import type { ElementRow } from '@/core/kinds/element';

/**
 * Elements as they would be if a gesture ended now. Only the board reads it: nothing of it is part of the model until
 * the gesture's edit is committed.
 */
export class Draft {
  private elements: readonly ElementRow[] = [];
  private readonly listeners = new Set<() => void>();

  get rows(): readonly ElementRow[] {
    return this.elements;
  }

  set(rows: readonly ElementRow[]): void {
    this.elements = rows;
    for (const listener of this.listeners) listener();
  }

  clear(): void {
    if (this.elements.length > 0) this.set([]);
  }

  /** @returns the way to stop */
  subscribe(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => {
      this.listeners.delete(listener);
    };
  }
}
