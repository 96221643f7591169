import { placementTransform } from '@/core/datum/placement';
import { apply } from '@/core/geometry/transform';
import type { OverlayPart } from '@/project/overlay';
import type { Tokens } from '@/ui/tokens';
import { toScreen } from '../camera';
import type { BoardScene } from '../scene';
import type { Content } from './slicedPicture';

/** At most this many lines are drawn a picture; in any view that is more than can be told apart. */
const mostLines = 30_000;
/** Long paths cost more than many short ones: lines a path. */
const linesOfPath = 400;

const toneOf = ({ amber, clay, zircon }: Tokens, tone: OverlayPart['tone']): string =>
  ({ look: amber, wrong: clay, evidence: zircon })[tone];

/** What a bench shows over a drawing for a moment: wide lines in a colour of their own. */
export const evidenceContent = (scene: () => BoardScene): Content =>
  function* ({ context, camera, size, box }) {
    const { overlay, drawings, tokens } = scene();
    const drawing = overlay === null ? undefined : drawings.find(({ id }) => id === overlay.drawingId);
    if (!overlay || !drawing) return;
    const t = placementTransform(drawing.placement, overlay.origin);
    for (const { lines, tone } of overlay.parts) {
      context.strokeStyle = toneOf(tokens, tone);
      context.lineWidth = 2;
      let drawn = 0;
      for (let i = 0; i < lines.length && drawn < mostLines;) {
        context.beginPath();
        for (let n = 0; n < linesOfPath && i < lines.length; i += 4) {
          const [a, b] = [apply(t, [lines[i], lines[i + 1]]), apply(t, [lines[i + 2], lines[i + 3]])];
          if (Math.max(a[0], b[0]) < box[0] || Math.min(a[0], b[0]) > box[2]) continue;
          if (Math.max(a[1], b[1]) < box[1] || Math.min(a[1], b[1]) > box[3]) continue;
          const [[x1, y1], [x2, y2]] = [toScreen(camera, size, a), toScreen(camera, size, b)];
          context.moveTo(x1, y1);
          // What is too small to be seen is still shown, as a speck.
          context.lineTo(Math.hypot(x2 - x1, y2 - y1) < 2 ? x1 + 2 : x2, y2);
          n += 1;
          drawn += 1;
        }
        context.stroke();
        yield;
      }
    }
  };
