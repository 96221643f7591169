import { direction, distance, dot, subtract, type Point } from '@/core/geometry/vector';
import type { BoardScene } from '../scene';
import { reachPixels, type Held, type SnapProvider } from './held';

/** The zero is a point like others; the axes through it give way to all that is drawn. */
const zeroRank = 0;
const axisRank = 8;

/** The zero of the axes worked along, and places on the two axes through it. */
export const axesSnaps =
  (scene: () => BoardScene): SnapProvider =>
  (at, metresPerPixel) => {
    const { axes, heights } = scene();
    if (heights !== null) return [];
    const origin: Point = axes?.origin ?? [0, 0];
    const of = axes === null ? 'the project' : axes.name;
    const offer = (point: Point, words: string, rank: number): Held[] => {
      const pixels = distance(point, at) / metresPerPixel;
      return pixels > reachPixels ? [] : [{ words, drawingId: '', point, drawingPoint: point, pixels, rank }];
    };
    const foot = (angle: number): Point => {
      const u = direction(angle);
      const along = dot(subtract(at, origin), u);
      return [origin[0] + along * u[0], origin[1] + along * u[1]];
    };
    const angle = axes?.angle ?? 0;
    return [
      ...offer(origin, `zero of ${of}`, zeroRank),
      ...offer(foot(angle), `on the x axis of ${of}`, axisRank),
      ...offer(foot(angle + Math.PI / 2), `on the y axis of ${of}`, axisRank),
    ];
  };
