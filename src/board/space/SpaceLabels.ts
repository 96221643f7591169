import type { Place } from '@/core/bodies/shell';
import type { Size } from '../camera';
import { projectionOf, type Orbit } from './orbit';

/** A value at a place of the project; those that come first go before others. */
export interface SpaceLabel {
  at: Place;
  text: string;
}

/** So many values can be told apart at once. */
const mostShown = 36;
/** The room that a value takes, pixels: of each letter, and upwards. */
const [letter, tall] = [7, 16];

/** Values that stand at places of the model in space and go with them as it is turned. */
export class SpaceLabels {
  private labels: readonly SpaceLabel[] = [];
  private spans: HTMLSpanElement[] = [];

  constructor(private readonly root: HTMLElement) {}

  set(labels: readonly SpaceLabel[]): void {
    this.labels = labels;
  }

  /** Puts the first values where their places are seen; what would lie over another is left out. */
  place(orbit: Orbit, size: Size): void {
    const { toX, toY } = projectionOf(orbit, size, 1);
    const taken: { x: number; y: number; half: number }[] = [];
    for (const { at, text } of this.labels) {
      if (taken.length === mostShown) break;
      const x = ((toX[0] * at[0] + toX[1] * at[1] + toX[2] * at[2] + toX[3] + 1) / 2) * size.width;
      const y = ((1 - (toY[0] * at[0] + toY[1] * at[1] + toY[2] * at[2] + toY[3])) / 2) * size.height;
      const half = (text.length * letter) / 2;
      if (x < half || x > size.width - half || y < tall || y > size.height - tall) continue;
      if (taken.some((one) => Math.abs(one.x - x) < one.half + half && Math.abs(one.y - y) < tall)) continue;
      this.put(taken.length, text, x, y);
      taken.push({ x, y, half });
    }
    for (const span of this.spans.splice(taken.length)) span.remove();
  }

  private put(i: number, text: string, x: number, y: number): void {
    let span = this.spans[i];
    if (span === undefined) {
      span = document.createElement('span');
      this.root.append(span);
      this.spans[i] = span;
    }
    if (span.textContent !== text) span.textContent = text;
    span.style.transform = `translate(${Math.round(x)}px, ${Math.round(y)}px) translate(-50%, -50%)`;
  }
}
