import type { XY } from '../../demo/building';
import type { Axis, Building } from './building';
import type { Hand } from './hand';

/** What surrounds a plan on its sheet: dimension chains, frame, title block, legend, schedule, section marks, north. */
export function drawSheet(hand: Hand, building: Building): void {
  if (hand.style.dimensions !== 'none') chains(hand, building);
  if (hand.style.outside === 'planted') planting(hand, building);
  if (hand.style.sheet === 'framed') {
    frame(hand, building);
    schedule(hand, building);
    sectionMark(hand, building);
    north(hand, building);
    note(hand, building);
  }
}

/** Trees and parked cars beside the building. */
function planting({ draft, layers }: Hand, { right, top }: Building): void {
  const layer = layers.sheet;
  for (let x = 1; x < right; x += 7) {
    const at: XY = [x, top + 3.8];
    draft.circle(layer, at, 0.9);
    for (let k = 0; k < 6; k += 1) {
      const angle = (k * Math.PI) / 3;
      draft.line(layer, at, [at[0] + 0.9 * Math.cos(angle), at[1] + 0.9 * Math.sin(angle)]);
    }
  }
  for (let y = 1; y + 2 < top; y += 5) {
    draft.rectangle(layer, [right + 3.4, y], [right + 7.9, y + 1.8]);
    draft.line(layer, [right + 4.6, y], [right + 4.6, y + 1.8]);
  }
}

function chains(hand: Hand, { axes, right, top }: Building): void {
  chain(hand, axes.x, (at) => [at, -1.6]);
  chain(hand, axes.y, (at) => [-1.6, at]);
  dimension(hand, [0, top + 1.6], [right, top + 1.6], String(Math.round(right * 1000)));
}

function chain(hand: Hand, axes: readonly Axis[], place: (at: number) => XY): void {
  for (let k = 1; k < axes.length; k += 1) {
    const [a, b] = [axes[k - 1].at, axes[k].at];
    dimension(hand, place(a), place(b), String(Math.round((b - a) * 1000)));
  }
}

/** A dimension, whole, or as the lines, ticks and text that are left when it is taken apart. */
function dimension({ draft, layers, style }: Hand, a: XY, b: XY, text: string): void {
  if (style.dimensions === 'whole') {
    draft.dimension(layers.dimension, a, b, a, text);
    return;
  }
  draft.line(layers.dimension, a, b);
  for (const [x, y] of [a, b]) draft.line(layers.dimension, [x - 0.1, y - 0.1], [x + 0.1, y + 0.1]);
  draft.text(layers.dimension, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2 + 0.2], 0.18, text);
}

/** Room round a plan and its bubbles to the frame, metres. */
const margin = 5;

function frame({ draft, layers }: Hand, { right, top }: Building): void {
  const layer = layers.sheet;
  const [x, y] = [right + 16, top + margin];
  draft.rectangle(layer, [-margin, -margin], [x, y]);
  draft.rectangle(layer, [-margin - 0.5, -margin - 0.5], [x + 0.5, y + 0.5]);
  draft.rectangle(layer, [x - 9, -margin], [x, -margin + 4]);
  ['Reed Bank Centre', 'Plan', 'Scale 1:100', 'Drawing 12'].forEach((text, k) => {
    draft.line(layer, [x - 9, -margin + k], [x, -margin + k]);
    draft.text(layer, [x - 4.5, -margin + k + 0.5], 0.3, text);
  });
}

/** A table of doors, drawn as lines and texts. */
function schedule({ draft, layers }: Hand, { right, top, gaps }: Building): void {
  const layer = layers.sheet;
  const rows = gaps.filter(({ use }) => use === 'door').slice(0, 6);
  const [x, y] = [right + 6, top];
  for (let k = 0; k <= rows.length + 1; k += 1) draft.line(layer, [x, y - k * 0.6], [x + 6, y - k * 0.6]);
  for (const across of [0, 2, 4, 6]) draft.line(layer, [x + across, y], [x + across, y - (rows.length + 1) * 0.6]);
  ['Door', 'Width', 'Type'].forEach((head, k) => draft.text(layer, [x + 1 + 2 * k, y - 0.3], 0.2, head));
  rows.forEach(({ width }, k) => {
    const line = y - 0.9 - k * 0.6;
    draft.text(layer, [x + 1, line], 0.2, `D${k + 1}`);
    draft.text(layer, [x + 3, line], 0.2, String(Math.round(width * 1000)));
    draft.text(layer, [x + 5, line], 0.2, 'T1');
  });
}

function sectionMark({ draft, layers }: Hand, { right, top }: Building): void {
  const y = top * 0.55;
  for (const [x, inward] of [
    [-3.8, 1],
    [right + 3.8, -1],
  ] as const) {
    draft.line(layers.sheet, [x, y], [x + inward * 1.2, y]);
    draft.polyline(
      layers.sheet,
      [
        [x - 0.25, y],
        [x + 0.25, y],
        [x, y + 0.5],
      ],
      true,
    );
    draft.text(layers.sheet, [x, y + 0.9], 0.4, 'S');
  }
}

function north({ draft, layers }: Hand, { right, top }: Building): void {
  const at: XY = [right + 12, top - 6];
  draft.circle(layers.sheet, at, 0.9);
  draft.line(layers.sheet, [at[0], at[1] - 0.9], [at[0], at[1] + 1.2]);
  draft.text(layers.sheet, [at[0], at[1] + 1.6], 0.4, 'N');
}

/** A note with a leader to the outer wall. */
function note({ draft, layers }: Hand, { right, top }: Building): void {
  const [x, y] = [right + 3.2, top * 0.3];
  draft.line(layers.sheet, [right + 0.2, y - 0.6], [x, y]);
  draft.line(layers.sheet, [x, y], [x + 0.6, y]);
  draft.text(layers.sheet, [x + 2.2, y], 0.2, 'see detail 4', true);
}
