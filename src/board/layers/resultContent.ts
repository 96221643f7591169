import { boxOf } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import { toScreen } from '../camera';
import type { Picture } from '@/core/structure/picture';
import type { BoardScene } from '../scene';
import type { Content, Sheet } from './slicedPicture';

/** Shapes drawn before other work gets a turn. */
const breath = 80;
/** A place that carries is a dot of this radius, pixels. */
const dotRadius = 3.5;
/** The letters of values, pixels, and how much room each has; what would lie over another is left out. */
const [letters, letterWidth] = [11, 7];

/** What of a calculation lies over the board: diagrams against their members, displaced axes, and values. */
export const resultContent = (scene: () => BoardScene): Content =>
  function* (sheet) {
    const { picture, tokens } = scene();
    if (picture === null) return;
    const { context } = sheet;
    context.save();
    context.fillStyle = tokens.amber;
    yield* tints(sheet, picture.tints ?? []);
    context.restore();
    context.save();
    context.strokeStyle = tokens.beam;
    context.fillStyle = tokens.beam;
    context.lineWidth = 1.5;
    yield* shapes(sheet, picture.areas, () => {
      context.globalAlpha = 0.16;
      context.fill();
      context.globalAlpha = 1;
      context.stroke();
    });
    yield* shapes(sheet, picture.lines, () => context.stroke());
    context.restore();
    context.save();
    context.font = `600 ${letters}px "Overpass Mono", monospace`;
    context.textAlign = 'center';
    context.textBaseline = 'middle';
    context.lineJoin = 'round';
    drawLabels(sheet, picture.labels, tokens);
    context.restore();
  };

const outside = ({ box }: Sheet, points: readonly Point[]): boolean => {
  const [x1, y1, x2, y2] = boxOf(points);
  return x2 < box[0] || x1 > box[2] || y2 < box[1] || y1 > box[3];
};

/** The strongest tint still lets what lies beneath be read. */
const strongest = 0.34;

function* tints({ context, camera, size }: Sheet, all: NonNullable<Picture['tints']>): Generator<void> {
  let drawn = 0;
  for (const { outline, holes, share } of all) {
    context.beginPath();
    for (const ring of [outline, ...holes]) {
      ring.forEach((p, i) =>
        i === 0 ? context.moveTo(...toScreen(camera, size, p)) : context.lineTo(...toScreen(camera, size, p)),
      );
      context.closePath();
    }
    context.globalAlpha = strongest * share;
    context.fill('evenodd');
    drawn += 1;
    if (drawn % breath === 0) yield;
  }
}

function* shapes(sheet: Sheet, all: readonly (readonly Point[])[], finish: () => void): Generator<void> {
  const { context, camera, size } = sheet;
  let drawn = 0;
  for (const points of all) {
    if (outside(sheet, points)) continue;
    context.beginPath();
    const pixels = points.map((p) => toScreen(camera, size, p));
    if (pixels.length === 1) {
      context.arc(...pixels[0], dotRadius, 0, 2 * Math.PI);
      context.fill();
    } else {
      pixels.forEach(([x, y], i) => (i === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
      finish();
    }
    drawn += 1;
    if (drawn % breath === 0) yield;
  }
}

/** Values beside their places, the ones that would lie over others left out. */
function drawLabels(
  sheet: Sheet,
  labels: readonly { at: Point; text: string }[],
  { ink, board }: { ink: string; board: string },
): void {
  const { context, camera, size, box } = sheet;
  const taken = new Set<string>();
  const step = letters + 3;
  context.strokeStyle = board;
  context.fillStyle = ink;
  context.lineWidth = 3;
  for (const { at, text } of labels) {
    if (at[0] < box[0] || at[0] > box[2] || at[1] < box[1] || at[1] > box[3]) continue;
    const [x, y] = toScreen(camera, size, at);
    const wide = Math.ceil((text.length * letterWidth) / step / 2);
    const [column, row] = [Math.round(x / step), Math.round((y - step) / step)];
    const cells = Array.from({ length: 2 * wide + 1 }, (_, i) => `${column + i - wide}/${row}`);
    if (cells.some((cell) => taken.has(cell))) continue;
    for (const cell of cells) taken.add(cell);
    context.strokeText(text, x, y - step);
    context.fillText(text, x, y - step);
  }
}
