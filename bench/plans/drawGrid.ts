import type { XY } from '../../demo/building';
import type { Building } from './building';
import type { Hand } from './hand';
import { corners, regular } from './pen';

const bubbleRadius = 0.5;
const overhang = 2.4;
/** How far a line that runs on through its bubble does, metres. */
const through = 2 * bubbleRadius + 0.3;

/** The frames a label stands in. */
function frame({ draft, pen, layers, style }: Hand, at: XY, label: string): void {
  const layer = layers.bubble;
  const [x, y] = at;
  switch (style.bubble) {
    case 'circle':
      draft.circle(layer, at, bubbleRadius);
      break;
    case 'two arcs':
      draft.arc(layer, at, bubbleRadius, 0, 180);
      draft.arc(layer, at, bubbleRadius, 180, 360);
      break;
    case 'bulges':
      draft.polyline(
        layer,
        [
          [x - bubbleRadius, y],
          [x + bubbleRadius, y],
        ],
        true,
        [1, 1],
      );
      break;
    case 'hexagon of lines':
      pen.ring(layer, regular(6, at, bubbleRadius));
      break;
    case 'octagon':
      draft.polyline(layer, regular(8, at, bubbleRadius, Math.PI / 8), true);
      break;
    case 'square':
      draft.polyline(layer, corners(at, 2 * bubbleRadius, 2 * bubbleRadius), true);
      break;
    case 'block':
      draft.insert(layer, 'MARK', at, { attribute: { tag: 'LABEL', text: label, height: 0.45 } });
      return;
    case 'no frame':
      break;
  }
  draft.text(layers.gridText, at, 0.45, label);
}

const greek: Record<string, string> = {
  A: 'Α',
  B: 'Β',
  C: 'Γ',
  D: 'Δ',
  E: 'Ε',
  F: 'Ζ',
  G: 'Η',
  H: 'Θ',
  J: 'Κ',
  K: 'Λ',
};

/** What a line is called by an office's habit. */
function called({ style }: Hand, label: string): string {
  if (style.labels === 'prefixed') return `${/^\d/.test(label) ? 'X' : 'Y'}${label}`;
  return style.labels === 'greek' ? (greek[label] ?? label) : label;
}

/** An axis from end to end of what it may cross; its bubbles stand beyond its ends. */
function axis(hand: Hand, name: string, a: XY, b: XY): void {
  const label = called(hand, name);
  const { style, pen, draft, layers, turned, truth, random } = hand;
  truth.grids.push({ label, a: turned(a), b: turned(b) });
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const u: XY = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const at = (s: number, aside = 0): XY => [a[0] + u[0] * s - u[1] * aside, a[1] + u[1] * s + u[0] * aside];
  const line = (from: number, to: number) => pen.line(layers.grid, at(from), at(to));
  const bend = style.gridLine === 'bent' ? 0.5 : 0;
  switch (style.gridLine) {
    case 'whole':
      line(0, length);
      break;
    case 'bent':
      // The last piece steps aside, to a bubble that would overlap its neighbour's.
      line(0.8, length - 0.8);
      draft.line(layers.grid, at(0.8), at(0, bend));
      draft.line(layers.grid, at(length - 0.8), at(length, bend));
      break;
    case 'stubs':
      line(0, overhang - 0.4);
      line(length - overhang + 0.4, length);
      break;
    case 'pieces': {
      const cut = length * (0.3 + 0.4 * random());
      line(0, cut);
      line(cut + 0.4, length);
      break;
    }
    case 'dashes':
      pen.dashes(layers.grid, at(0), at(length), 1.2, 0.3);
      break;
    case 'through the bubble':
      // Where there is no frame to run through, a line ends at its text.
      if (style.bubble === 'no frame') line(0, length);
      else line(-through, style.bubbles === 'both ends' ? length + through : length);
      break;
  }
  frame(hand, at(-bubbleRadius, bend), label);
  if (style.bubbles === 'both ends') frame(hand, at(length + bubbleRadius, bend), label);
}

export function drawGrid(hand: Hand, { axes, right, top }: Building): void {
  for (const { at, label } of axes.x) axis(hand, label, [at, -overhang], [at, top + overhang]);
  for (const { at, label } of axes.y) axis(hand, label, [-overhang, at], [right + overhang, at]);
}
