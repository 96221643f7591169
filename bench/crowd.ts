import { placementTransform, asDrawn } from '@/core/datum/placement';
import { dxf, line, readText } from '@/core/drawing/testing/dxf';
import { plainDisplay } from '@/core/underlay/display';
import { flatten } from '@/core/underlay/flatten';
import { buildIndex, openIndex } from '@/core/underlay/pieces';
import type { BoardDrawing } from '@/board/scene';
import { holdsAt } from '@/board/snapping/held';
import { underlaySnaps } from '@/board/snapping/underlaySnaps';

/** Snapping on a drawing of so many lines through one place, all of which lie in the cursor's reach. */
export function crowdedSnaps(lines: number): (away: number) => unknown {
  const fan = Array.from({ length: lines }, (_, i) => {
    const angle = (Math.PI * i) / lines;
    const [x, y] = [5000 * Math.cos(angle), 5000 * Math.sin(angle)];
    return line(-x, -y, x, y, 'FAN');
  }).join('');
  const { drawing } = readText(dxf({ entities: fan }));
  const primitives = flatten(drawing);
  const layers = drawing.layers.map(({ name }) => ({ name, hidden: false, empty: false }));
  const placement = asDrawn('mm');
  const board = {
    id: 'fan',
    underlay: { layers, primitives, index: openIndex(buildIndex(primitives)) },
    transform: placementTransform(placement, primitives.origin),
    hidden: new Uint8Array(layers.length),
    display: plainDisplay,
  } as unknown as BoardDrawing;
  const provider = underlaySnaps(() => [board]);
  return (away) => holdsAt([provider], { at: [away, 0.01], metresPerPixel: 0.01, reach: 12, base: null });
}
