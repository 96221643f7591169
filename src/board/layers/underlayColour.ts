import { adaptColour } from '@/core/underlay/colours';
import { ink } from '@/core/underlay/primitives';
import type { BoardDrawing, BoardScene } from '@/board/scene';

const rgb = (colour: string): number => parseInt(colour.slice(1), 16);

/** A colour leaning towards the board, for the underlay is quiet. */
function quiet(colour: number, board: number): number {
  const mix = (shift: number) => Math.round(((colour >> shift) & 255) * 0.72 + ((board >> shift) & 255) * 0.28);
  return (mix(16) << 16) | (mix(8) << 8) | mix(0);
}

/**
 * The colour in which something of a drawing is shown on this ground, by the drawing's display.
 * @param layer its number
 */
export function underlayColour(
  { dark, tokens }: BoardScene,
  { display, underlay }: Pick<BoardDrawing, 'display' | 'underlay'>,
  drawn: number,
  layer: number,
): number {
  const own = rgb(tokens.underlay);
  const chosen = display.colours === 'layer' ? display.layerColours[underlay.layers[layer].name] : undefined;
  // A colour that a person chose is shown as it is.
  if (chosen !== undefined) return rgb(chosen);
  if (display.colours === 'ink') return quiet(own, rgb(tokens.board));
  const colour = display.colours === 'inverted' && drawn !== ink ? 0xffffff - drawn : drawn;
  return quiet(adaptColour(colour, dark, own), rgb(tokens.board));
}

/** Changes whenever the colours of a drawing do. */
export const colourKey = ({ dark }: BoardScene, { display }: BoardDrawing): string =>
  JSON.stringify([dark, display.colours, display.colours === 'layer' ? display.layerColours : null]);
