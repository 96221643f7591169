import { steelOutline } from '@/core/drawing/testing/steel';
import type { XY } from '../../demo/building';
import type { Building } from './building';
import type { Hand } from './hand';
import { corners, regular } from './pen';

export function drawColumns(hand: Hand, { columns, column }: Building): void {
  for (const place of columns) {
    const at: XY = [place[0] + hand.pen.off(), place[1] + hand.pen.off()];
    hand.truth.columns.push({
      at: hand.turned(at),
      width: column.width,
      depth: column.round ? column.width : column.depth,
      round: column.round,
      steel: !column.round && hand.style.column.startsWith('steel'),
    });
    if (column.round) roundColumn(hand, at, column.width);
    else squareColumn(hand, at, column.width, column.depth);
  }
}

function roundColumn({ draft, layers, style }: Hand, at: XY, width: number): void {
  if (style.column === 'fill') {
    draft.hatch(layers.column, regular(24, at, width / 2), true);
    return;
  }
  if (style.column === 'doubled') draft.circle(layers.column, at, width / 2 + 0.03);
  if (style.column === 'cross')
    for (const [dx, dy] of [
      [width / 2, 0],
      [0, width / 2],
    ])
      draft.line(layers.column, [at[0] - dx, at[1] - dy], [at[0] + dx, at[1] + dy]);
  if (style.column === 'lines') draft.polyline(layers.column, regular(24, at, width / 2), true);
  else draft.circle(layers.column, at, width / 2);
}

function squareColumn({ draft, pen, layers, style }: Hand, at: XY, width: number, depth: number): void {
  const layer = layers.column;
  const ring = corners(at, width, depth);
  switch (style.column) {
    case 'block':
      draft.insert(layer, 'POST', at, { scale: [width, depth] });
      return;
    case 'fill':
      draft.hatch(layer, ring, true);
      return;
    case 'lines':
      pen.ring(layer, ring);
      return;
    case 'steel':
      draft.polyline(layer, steel(at, width, depth), true);
      return;
    case 'steel in lines':
      pen.ring(layer, steel(at, width, depth));
      return;
    default:
      draft.polyline(layer, ring, true);
  }
  if (style.column === 'outline and hatch') draft.hatch(layers.fill, ring);
  if (style.column === 'cross' || style.column === 'diagonal') draft.line(layer, ring[0], ring[2]);
  if (style.column === 'cross') draft.line(layer, ring[1], ring[3]);
  if (style.column === 'doubled') draft.polyline(layer, corners(at, width + 0.06, depth + 0.06), true);
}

/** Of a rolled steel section a web is so thick, and a flange, as shares of its width and depth. */
const thin = { web: 0.06, flange: 0.08 };

/** The outline of a steel section about a place. */
const steel = ([x, y]: XY, width: number, depth: number): XY[] =>
  steelOutline(width, depth, width * thin.web, depth * thin.flange).map(([dx, dy]): XY => [x + dx, y + dy]);

export function drawBeams(hand: Hand, { beams, column }: Building): void {
  const { pen, draft, layers, style, truth, turned } = hand;
  for (const { a, b, width, depth, mark } of beams) {
    truth.beams.push({ a: turned(a), b: turned(b), width, depth, mark });
    const [x1, x2, y] = [a[0] + column.width / 2, b[0] - column.width / 2, a[1]];
    const sides = style.beam === 'single' || style.beam === 'dashes' ? [0] : [-width / 2, width / 2];
    for (const side of sides) {
      if (style.beam === 'pair') pen.dashes(layers.beam, [x1, y + side], [x2, y + side], 0.4, 0.2);
      else if (style.beam === 'dashes') pen.dashes(layers.beam, [x1, y], [x2, y], 0.3, 0.2);
      else pen.line(layers.beam, [x1, y + side], [x2, y + side]);
    }
    const size = sizeText(hand, width, depth);
    const at: XY = [(x1 + x2) / 2, y + width / 2 + 0.25];
    if (style.beamMark === 'one text') draft.text(layers.beam, at, 0.18, `${mark} ${size}`);
    else {
      draft.text(layers.beam, [at[0] - 0.8, at[1]], 0.18, mark);
      draft.text(layers.beam, [at[0] + 0.4, at[1]], 0.18, size);
    }
  }
}

/** A size as the drawing's own system writes it. */
function sizeText({ style }: Hand, width: number, depth: number): string {
  if (style.unit === 'in' || style.unit === 'ft') return `${Math.round(width / 0.0254)}x${Math.round(depth / 0.0254)}`;
  if (style.unit === 'cm') return `${Math.round(width * 100)}/${Math.round(depth * 100)}`;
  return `${Math.round(width * 1000)}x${Math.round(depth * 1000)}`;
}
