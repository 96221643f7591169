import { direction, dot, subtract, type Point } from '@/core/geometry/vector';
import type { BoardScene } from '../scene';
import { offer, type SnapProvider } from './held';

/** The zero is a point like others; the axes through it give way to all that is drawn. */
const zeroRank = 0;
const axisRank = 8;

/** The zero of the axes worked along, and places on the two axes through it. */
export const axesSnaps =
  (scene: () => BoardScene): SnapProvider =>
  (look) => {
    const { axes, heights } = scene();
    if (heights !== null) return [];
    const origin: Point = axes?.origin ?? [0, 0];
    const of = axes === null ? 'the project' : axes.name;
    const onAxis = offer(look, 'axes', axisRank);
    const foot = (angle: number): Point => {
      const u = direction(angle);
      const along = dot(subtract(look.at, origin), u);
      return [origin[0] + along * u[0], origin[1] + along * u[1]];
    };
    const angle = axes?.angle ?? 0;
    return [
      ...offer(look, 'axes', zeroRank)(origin, `zero of ${of}`),
      ...onAxis(foot(angle), `on the x axis of ${of}`),
      ...onAxis(foot(angle + Math.PI / 2), `on the y axis of ${of}`),
    ];
  };
