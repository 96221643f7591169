import type { XY } from '../../demo/building';
import type { Draft } from '../../demo/draft';
import { between, type Random } from './random';

/** What a dirty hand does, metres and shares. */
const habits = {
  /** A line this short is drawn in one go. */
  neatBelow: 0.35,
  /** Degrees that one line in four is off. */
  tilt: 0.3,
  tiltedBy: 0.01,
  shortBy: 0.01,
  gap: 0.0195,
  faceOff: 0.005,
};

/** Draws lines as a tidy or a dirty hand does: in pieces, doubled, with ends that miss, a little askew. */
export class Pen {
  constructor(
    private readonly draft: Draft,
    private readonly random: Random,
    readonly dirty: boolean,
  ) {}

  /** How far something lies off where it belongs, metres. */
  off(by = habits.faceOff): number {
    return this.dirty ? between(this.random, -by, by) : 0;
  }

  line(layer: string, a: XY, b: XY): void {
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (!this.dirty || length < habits.neatBelow) {
      if (length > 1e-6) this.draft.line(layer, a, b);
      return;
    }
    const { random } = this;
    const u: XY = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
    const most = Math.min(habits.tiltedBy, length * Math.tan((habits.tilt * Math.PI) / 180));
    const tilt = random() < 0.25 ? most * between(random, -1, 1) : 0;
    const short = () => (random() < 0.15 ? between(random, 0, habits.shortBy) : 0);
    const [before, after] = [short(), short()];
    const p: XY = [a[0] + u[0] * before - (u[1] * tilt) / 2, a[1] + u[1] * before + (u[0] * tilt) / 2];
    const q: XY = [b[0] - u[0] * after + (u[1] * tilt) / 2, b[1] - u[1] * after - (u[0] * tilt) / 2];
    if (random() < 0.12 && length > 2) {
      const at = (s: number): XY => [p[0] + (q[0] - p[0]) * s, p[1] + (q[1] - p[1]) * s];
      const cut = between(random, 0.3, 0.7);
      this.draft.line(layer, p, at(cut));
      this.draft.line(layer, at(cut + between(random, 0, habits.gap) / length), q);
    } else this.draft.line(layer, p, q);
    if (random() < 0.08) this.draft.line(layer, p, q);
  }

  /** A line as dashes. */
  dashes(layer: string, a: XY, b: XY, dash: number, gap: number): void {
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const at = (s: number): XY => [a[0] + ((b[0] - a[0]) * s) / length, a[1] + ((b[1] - a[1]) * s) / length];
    for (let from = 0; from < length - 0.05; from += dash + gap)
      this.draft.line(layer, at(from), at(Math.min(from + dash, length)));
  }

  ring(layer: string, points: readonly XY[]): void {
    points.forEach((point, k) => this.draft.line(layer, point, points[(k + 1) % points.length]));
  }
}

/** The corners of a regular polygon. */
export const regular = (n: number, [x, y]: XY, radius: number, from = 0): XY[] =>
  Array.from({ length: n }, (_, k): XY => {
    const angle = from + (2 * Math.PI * k) / n;
    return [x + radius * Math.cos(angle), y + radius * Math.sin(angle)];
  });

/** The corners of a rectangle about its middle. */
export const corners = ([x, y]: XY, width: number, depth: number): XY[] => [
  [x - width / 2, y - depth / 2],
  [x + width / 2, y - depth / 2],
  [x + width / 2, y + depth / 2],
  [x - width / 2, y + depth / 2],
];
