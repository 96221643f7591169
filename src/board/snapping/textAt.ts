import { contains } from '@/core/geometry/polygon';
import { apply, invert } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { textBox } from '@/core/underlay/textBox';
import type { BoardDrawing } from '../scene';

/** The text of an underlay under a point, the smallest where some lie over one another; none of drawings held. */
export function textAt(drawings: readonly BoardDrawing[], at: Point): { drawingId: string; text: number } | null {
  let best: { drawingId: string; text: number; height: number } | null = null;
  for (const { id, underlay, transform, hidden, display } of drawings) {
    if (display.held) continue;
    const p = apply(invert(transform), at);
    for (const [text, primitive] of underlay.primitives.texts.entries()) {
      const { layer, height } = primitive;
      if (hidden[layer] !== 0 || (best !== null && best.height <= height)) continue;
      if (contains(textBox(primitive), p)) best = { drawingId: id, text, height };
    }
  }
  return best && { drawingId: best.drawingId, text: best.text };
}
