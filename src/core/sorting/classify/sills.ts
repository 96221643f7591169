import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { cross, distance, dot, middle, subtract, type Point } from '@/core/geometry/vector';
import { defaultSettings } from '@/core/patterns/settings';
import type { AllLooks, Line } from './looks';

/** A sill is longer than its window by this much at most, and lies square before it, metres. */
const sill = { longer: 0.4, aside: 0.03, turned: 0.02 };

/**
 * Lines before a window, a little longer than it: its sill, which with the wall's faces would make a thicker wall.
 * @param sides straight sides of outlines, which windows may be
 */
export function sills(looks: AllLooks, lines: readonly Line[], sides: readonly Line[]): void {
  const panes = [...lines, ...sides].filter(({ path, length }) => looks[path]?.role === 'window' && length > 0.4);
  const index = new BoxIndex(panes, ({ a, b }) => boxOf([middle(a, b)]));
  for (const { path, a, b, length } of lines) {
    if (looks[path] !== null || length < 0.4) continue;
    const [at, u]: [Point, Point] = [middle(a, b), [(b[0] - a[0]) / length, (b[1] - a[1]) / length]];
    const isBefore = (pane: Line): boolean => {
      const away = subtract(middle(pane.a, pane.b), at);
      const turned = Math.abs(cross(u, subtract(pane.b, pane.a))) / pane.length;
      const more = length - pane.length;
      return turned < sill.turned && Math.abs(dot(away, u)) < sill.aside && more > sill.aside && more <= sill.longer;
    };
    const near = index.around(at, defaultSettings.wall.most).filter((pane) => distance(middle(pane.a, pane.b), at) > 0);
    if (near.some(isBefore)) looks[path] = { role: 'window', why: 'a sill before a window' };
  }
}
