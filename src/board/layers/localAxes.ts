import { radians, subtract, type Point } from '@/core/geometry/vector';
import { middleOfBeam } from '@/core/kinds/beam';
import type { ElementRow } from '@/core/kinds/element';
import { anchorOf } from '@/core/kinds/kinds';
import { toScreen } from '../camera';
import type { Pen } from './pen';

/** How long an axis is drawn, and how far its letter stands beyond it, pixels. */
const [reach, beyond] = [26, 8];

/** An axis of a member as it is seen in plan: a share of its full length, in a direction of the screen. */
interface Axis {
  name: 'x' | 'y' | 'z';
  along: Point;
}

/** x from start to end; y and z turned about it by the member's angle, which shortens them in plan. */
function axesOfMember(element: ElementRow): Axis[] {
  if (element.kind === 'beam') {
    const [start, end] = middleOfBeam(element.shape);
    const [dx, dy] = subtract(end, start);
    const length = Math.hypot(dx, dy) || 1;
    const [ux, uy] = [dx / length, dy / length];
    const turn = radians(element.shape.angle ?? 0);
    const left = (share: number): Point => [-uy * share, ux * share];
    return [
      { name: 'x', along: [ux, uy] },
      { name: 'y', along: left(Math.cos(turn)) },
      { name: 'z', along: left(-Math.sin(turn)) },
    ];
  }
  if (element.kind !== 'column') return [];
  const turn = radians(element.shape.rotation);
  return [
    { name: 'y', along: [Math.cos(turn), Math.sin(turn)] },
    { name: 'z', along: [-Math.sin(turn), Math.cos(turn)] },
  ];
}

/** An axis shorter than this in plan points at the eye, and has only its letter. */
const upright = 0.05;

/** The local axes of a beam or a column, where they are to be seen. */
export function drawLocalAxes(pen: Pen, element: ElementRow): void {
  const at = anchorOf(element);
  if (at === null) return;
  const { context, scene, camera, size } = pen;
  const [x, y] = toScreen(camera, size, at);
  context.save();
  context.setLineDash([]);
  context.lineWidth = 1.5;
  context.font = '600 11px "Overpass Mono", monospace';
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  for (const { name, along } of axesOfMember(element)) {
    const [ex, ey] = [along[0] * reach, -along[1] * reach];
    if (Math.hypot(along[0], along[1]) < upright) continue;
    context.strokeStyle = context.fillStyle = name === 'x' ? scene.tokens.zircon : scene.tokens.ink;
    context.globalAlpha = name === 'z' ? 0.6 : 1;
    context.beginPath();
    context.moveTo(x, y);
    context.lineTo(x + ex, y + ey);
    context.stroke();
    const share = (reach + beyond) / reach;
    context.fillText(name, x + ex * share, y + ey * share);
  }
  context.restore();
}
