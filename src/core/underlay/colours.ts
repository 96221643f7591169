import { byBlock, byLayer, trueColour, type Drawing } from '@/core/drawing/drawing';
import { ink } from './primitives';

/** Colours 1 to 9 and the greys 250 to 255 of the DXF colour index; 7 and 0 are ink. */
const plain: Record<number, number> = {
  1: 0xff0000,
  2: 0xffff00,
  3: 0x00ff00,
  4: 0x00ffff,
  5: 0x0000ff,
  6: 0xff00ff,
  7: ink,
  8: 0x808080,
  9: 0xc0c0c0,
  250: 0x333333,
  251: 0x505050,
  252: 0x696969,
  253: 0x828282,
  254: 0xbebebe,
  255: ink,
};

/**
 * Red, green and blue of a colour index. From 10 on: 24 hues of 15 degrees, each in five brightnesses
 * (even numbers) and their pale halves (odd numbers).
 */
export function colourOfIndex(index: number): number {
  if (index in plain) return plain[index];
  if (index < 10 || index > 249) return ink;
  const hue = Math.floor((index - 10) / 10) * 15;
  const value = [1, 0.74, 0.51, 0.41, 0.31][Math.floor((index % 10) / 2)];
  const saturation = index % 2 === 1 ? 0.5 : 1;
  const channel = (n: number) => {
    const k = (n + hue / 60) % 6;
    return Math.round(255 * value * (1 - saturation * Math.max(0, Math.min(k, 4 - k, 1))));
  };
  return (channel(5) << 16) | (channel(3) << 8) | channel(1);
}

/** What a style's colour comes to on a layer, inside a block with a colour of its own. */
export function resolveColour(drawing: Drawing, colour: number, layer: number, blockColour: number): number {
  if (colour === byBlock) return blockColour;
  const own = colour === byLayer ? drawing.layers[layer].colour : colour;
  return own >= trueColour ? own - trueColour : colourOfIndex(own);
}

/** Makes a colour readable on a light or dark ground by moving its lightness away from the ground's. */
export function adaptColour(colour: number, dark: boolean, inkColour: number): number {
  if (colour === ink) return inkColour;
  const [r, g, b] = [(colour >> 16) & 255, (colour >> 8) & 255, colour & 255];
  // Relative luminance, WCAG 2.2.
  const linear = (v: number) => (v <= 10 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4);
  const mix = (towards: number, share: number) =>
    [r, g, b].reduce((sum, v) => sum * 256 + Math.round(v + (towards - v) * share), 0);
  for (let share = 0; share <= 0.9; share += 0.1) {
    const mixed = mix(dark ? 255 : 0, share);
    const light =
      0.2126 * linear((mixed >> 16) & 255) + 0.7152 * linear((mixed >> 8) & 255) + 0.0722 * linear(mixed & 255);
    const contrast = dark ? (light + 0.05) / (0.009 + 0.05) : (0.94 + 0.05) / (light + 0.05);
    if (contrast >= 3) return mixed;
  }
  return inkColour;
}
