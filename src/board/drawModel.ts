import { placementTransform } from '@/core/datum/placement';
import { apply, determinant, turnDirection } from '@/core/geometry/transform';
import { direction, radians, type Point } from '@/core/geometry/vector';
import { columnOutline, type Column, type GridLine } from '@/core/model/elements';
import type { Candidate } from '@/core/reading/candidate';
import { outlinesOf } from '@/core/model/outlines';
import { fonts } from '@/ui/tokens';
import { anchorOf } from './anchor';
import { areaKinds, drawArea } from './drawAreas';
import { patternOf } from './patterns';
import { stroke, type Pen } from './pen';
import { toScreen, viewBox } from './camera';
import type { LevelRow } from '@/core/model/state';
import { formatLength } from '@/core/units/length';
import type { BoardDrawing, Trace } from './scene';
import { underlayColour } from './underlayColour';

/** Texts smaller than this on screen are not worth their letters, in pixels. */
const smallestText = 4;
/** While the view moves, at most this many texts are drawn. */
const textsInMotion = 250;

const css = (colour: number) => `#${colour.toString(16).padStart(6, '0')}`;

/** Draws texts, model and candidates. @returns whether texts were left out because the view moves */
export function drawModel(pen: Pen, moving: boolean): boolean {
  const { context, size, scene } = pen;
  context.clearRect(0, 0, size.width, size.height);
  let held = false;
  for (const drawing of scene.drawings) if (!drawing.display.above) held = drawTexts(pen, drawing, moving) || held;
  const pointed = scene.candidates.find((candidate) => candidate.key === scene.pointed);
  // What is large lies below what is small.
  const walls = new Map(
    scene.elements.flatMap((element) => (element.kind === 'wall' ? [[element.id, element.shape] as const] : [])),
  );
  for (const kind of areaKinds) {
    for (const element of scene.elements)
      if (element.kind === kind)
        drawArea(
          pen,
          kind,
          outlinesOf(
            kind,
            element.shape as never,
            element.kind === 'opening' ? (walls.get(element.shape.wall) ?? null) : null,
          ),
          null,
        );
    for (const candidate of scene.candidates)
      if (candidate.kind === kind)
        drawArea(
          pen,
          kind,
          candidate.kind === 'opening' ? [candidate.outline] : outlinesOf(kind, candidate.element as never),
          candidate,
        );
  }
  for (const candidate of scene.candidates) if (candidate.kind === 'grid') drawGrid(pen, candidate.element, candidate);
  for (const element of scene.elements) if (element.kind === 'grid') drawGrid(pen, element.shape, null);
  for (const candidate of scene.candidates)
    if (candidate.kind === 'column') drawColumn(pen, candidate.element, candidate);
  for (const element of scene.elements) if (element.kind === 'column') drawColumn(pen, element.shape, null);
  for (const drawing of scene.drawings) if (drawing.display.above) held = drawTexts(pen, drawing, moving) || held;
  if (pointed) ringPointed(pen, pointed);
  for (const trace of scene.traces) drawTrace(pen, trace);
  if (scene.heights !== null) drawHeights(pen, scene.heights);
  drawOverlay(pen);
  if (scene.heights === null) drawZero(pen);
  return held;
}

/** At most this many lines of an overlay are drawn a frame; in any view that is more than can be told apart. */
const overlayLines = 30_000;

/** What a bench shows over a drawing: wide lines in a colour of its own. */
function drawOverlay({ context, camera, size, scene }: Pen): void {
  const { overlay } = scene;
  const drawing = overlay === null ? undefined : scene.drawings.find(({ id }) => id === overlay.drawingId);
  if (!overlay || !drawing) return;
  const t = placementTransform(drawing.placement, overlay.origin);
  const box = viewBox(camera, size);
  for (const { lines, tone } of overlay.parts) {
    context.setLineDash([]);
    context.strokeStyle =
      tone === 'look' ? scene.tokens.amber : tone === 'wrong' ? scene.tokens.clay : scene.tokens.zircon;
    context.lineWidth = 2;
    let drawn = 0;
    for (let i = 0; i < lines.length && drawn < overlayLines;) {
      context.beginPath();
      // Long paths cost more than many short ones.
      for (let n = 0; n < 800 && i < lines.length; i += 4) {
        const [a, b] = [apply(t, [lines[i], lines[i + 1]]), apply(t, [lines[i + 2], lines[i + 3]])];
        if (
          Math.max(a[0], b[0]) < box[0] ||
          Math.min(a[0], b[0]) > box[2] ||
          Math.max(a[1], b[1]) < box[1] ||
          Math.min(a[1], b[1]) > box[3]
        )
          continue;
        const [[x1, y1], [x2, y2]] = [toScreen(camera, size, a), toScreen(camera, size, b)];
        context.moveTo(x1, y1);
        // What is too small to be seen is still shown, as a speck.
        context.lineTo(Math.hypot(x2 - x1, y2 - y1) < 2 ? x1 + 2 : x2, y2);
        n += 1;
        drawn += 1;
      }
      context.stroke();
    }
  }
}

function drawTexts({ context, camera, size, scene }: Pen, drawing: BoardDrawing, moving: boolean): boolean {
  const { texts } = drawing.underlay.primitives;
  const box = viewBox(camera, size);
  const t = drawing.transform;
  const factor = Math.hypot(t[0], t[1]) / camera.metresPerPixel;
  let drawn = 0;
  context.textBaseline = 'alphabetic';
  for (const text of texts) {
    const height = text.height * factor;
    if (height < smallestText || drawing.hidden[text.layer] === 1) continue;
    const at = apply(t, [text.x, text.y]);
    const reach = text.height * Math.hypot(t[0], t[1]) * Math.max(2, text.text.length);
    if (at[0] < box[0] - reach || at[0] > box[2] + reach || at[1] < box[1] - reach || at[1] > box[3] + reach) continue;
    drawn += 1;
    if (moving && drawn > textsInMotion) return true;
    const [x, y] = toScreen(camera, size, at);
    context.save();
    context.translate(x, y);
    context.rotate(-turnDirection(t, text.angle));
    // The angle is that of the base line; mirrored letters stand on its other side.
    context.scale(text.widthFactor, text.mirrored === determinant(t) < 0 ? 1 : -1);
    // A letter's height is its capital's; the face's capitals are 0.72 of its size.
    context.font = `${(height / 0.72).toFixed(2)}px ${fonts.text}`;
    context.globalAlpha = 1 - drawing.display.fade;
    context.fillStyle = css(underlayColour(scene, drawing, text.colour, text.layer));
    context.textAlign = (['left', 'center', 'right'] as const)[text.across];
    const lines = text.text.split('\n');
    const step = height * 1.66;
    const first =
      text.up === 3
        ? height
        : text.up === 2
          ? height / 2 - ((lines.length - 1) * step) / 2
          : -(lines.length - 1) * step;
    lines.forEach((line, i) => context.fillText(line, 0, first + i * step));
    context.restore();
  }
  return false;
}

const bubbleRadius = 10;

function drawGrid(pen: Pen, line: GridLine, candidate: Candidate | null): void {
  const { context, camera, size } = pen;
  stroke(pen, candidate, 'grid');
  // Dash-dot is a grid line; what nobody has accepted is broken up further.
  context.setLineDash(candidate === null ? [14, 4, 2, 4] : [5, 5]);
  context.beginPath();
  const ends: [Point, Point][] = [];
  if (line.kind === 'line') {
    const [a, b] = [toScreen(camera, size, line.start), toScreen(camera, size, line.end)];
    context.moveTo(...a);
    context.lineTo(...b);
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
    ends.push([a, [-u[0], -u[1]]], [b, u]);
  } else {
    const centre = toScreen(camera, size, line.centre);
    const radius = line.radius / camera.metresPerPixel;
    context.arc(centre[0], centre[1], radius, -radians(line.startAngle), -radians(line.endAngle), true);
    const [c, s] = direction(radians(line.endAngle));
    ends.push([
      [centre[0] + radius * c, centre[1] - radius * s],
      [-s, -c],
    ]);
  }
  context.stroke();
  for (const [[x, y], [ux, uy]] of ends)
    bubble(pen, [x + ux * bubbleRadius, y + uy * bubbleRadius], line.label, candidate);
}

function bubble({ context, scene }: Pen, [x, y]: Point, label: string, candidate: Candidate | null): void {
  context.setLineDash(candidate === null ? [] : [3, 2.5]);
  context.beginPath();
  context.arc(x, y, bubbleRadius, 0, 2 * Math.PI);
  context.fillStyle = scene.tokens.panel;
  context.fill();
  context.stroke();
  context.fillStyle = scene.tokens.ink;
  context.font = `600 ${label.length > 2 ? 9 : 11}px ${fonts.figures}`;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  context.fillText(label, x, y + 0.5);
}

function outlinePath({ context, camera, size }: Pen, column: Column): void {
  context.beginPath();
  if (column.section.shape === 'circle') {
    const [x, y] = toScreen(camera, size, column.position);
    context.arc(x, y, Math.max(2.5, column.section.diameter / 2 / camera.metresPerPixel), 0, 2 * Math.PI);
    return;
  }
  const points = columnOutline(column).map((p) => toScreen(camera, size, p));
  const [cx, cy] = toScreen(camera, size, column.position);
  // Never smaller than a mark that can be seen and hit.
  const reach = Math.max(...points.map(([x, y]) => Math.hypot(x - cx, y - cy)));
  const grow = reach < 3.5 ? 3.5 / reach : 1;
  points.forEach(([x, y], i) => {
    const p: Point = [cx + (x - cx) * grow, cy + (y - cy) * grow];
    if (i === 0) context.moveTo(...p);
    else context.lineTo(...p);
  });
  context.closePath();
}

function drawColumn(pen: Pen, column: Column, candidate: Candidate | null): void {
  const { context, scene } = pen;
  outlinePath(pen, column);
  if (candidate === null) {
    context.fillStyle = patternOf(context, scene.tokens, 'column');
    context.fill();
  } else if (scene.chosen.has(candidate.key)) {
    context.fillStyle = scene.tokens.zirconSoft;
    context.fill();
  }
  stroke(pen, candidate, 'column');
  context.setLineDash(candidate === null ? [] : [3, 2]);
  context.stroke();
}

function ringPointed({ context, camera, size, scene }: Pen, candidate: Candidate): void {
  const [x, y] = toScreen(camera, size, anchorOf(candidate));
  const radius =
    candidate.kind === 'column' || candidate.kind === 'opening' ? Math.max(14, 0.6 / camera.metresPerPixel) : 9;
  context.setLineDash([]);
  context.beginPath();
  context.arc(x, y, radius, 0, 2 * Math.PI);
  context.strokeStyle = scene.tokens.board;
  context.lineWidth = 5;
  context.stroke();
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 2.5;
  context.stroke();
}

/** The line that a section stands on, with its name; short strokes at the ends point the way it looks. */
function drawTrace({ context, camera, size, scene }: Pen, { name, from, to }: Trace): void {
  const [[x1, y1], [x2, y2]] = [toScreen(camera, size, from), toScreen(camera, size, to)];
  const length = Math.hypot(x2 - x1, y2 - y1) || 1;
  const [nx, ny] = [((y2 - y1) / length) * 12, (-(x2 - x1) / length) * 12];
  context.setLineDash([18, 5, 3, 5]);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 1.5;
  context.beginPath();
  context.moveTo(x1, y1);
  context.lineTo(x2, y2);
  context.stroke();
  context.setLineDash([]);
  context.lineWidth = 3;
  context.beginPath();
  for (const [x, y] of [
    [x1, y1],
    [x2, y2],
  ]) {
    context.moveTo(x, y);
    context.lineTo(x + nx, y + ny);
  }
  context.stroke();
  context.font = `600 11px ${fonts.text}`;
  context.fillStyle = scene.tokens.zircon;
  context.textAlign = 'left';
  context.textBaseline = 'bottom';
  context.fillText(name, x2 + 6, y2 - 4);
}

/** The project's levels over a section seen face on. */
function drawHeights({ context, camera, size, scene }: Pen, levels: readonly LevelRow[]): void {
  context.lineWidth = 1.25;
  context.font = `600 11px ${fonts.text}`;
  context.textAlign = 'left';
  context.textBaseline = 'bottom';
  for (const { name, elevation } of levels) {
    const y = toScreen(camera, size, [0, elevation])[1];
    context.strokeStyle = scene.tokens.zircon;
    context.setLineDash([10, 6]);
    context.beginPath();
    context.moveTo(0, y);
    context.lineTo(size.width, y);
    context.stroke();
    context.fillStyle = scene.tokens.zircon;
    context.fillText(`${name} ${formatLength(elevation, scene.unit)}`, 12, y - 3);
  }
  context.setLineDash([]);
}

/** The project's zero, or that of the axes worked along: a small cross along them with its word. */
function drawZero({ context, camera, size, scene }: Pen): void {
  const { axes } = scene;
  const [x, y] = toScreen(camera, size, axes?.origin ?? [0, 0]);
  if (x < -20 || y < -20 || x > size.width + 20 || y > size.height + 20) return;
  const arm = axes === null ? 8 : 28;
  const [c, s] = direction(axes?.angle ?? 0);
  context.setLineDash([]);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 1.5;
  context.beginPath();
  context.moveTo(x - 8 * c, y + 8 * s);
  context.lineTo(x + arm * c, y - arm * s);
  context.moveTo(x + 8 * s, y + 8 * c);
  context.lineTo(x - arm * s, y - arm * c);
  context.stroke();
  context.font = `10px ${fonts.figures}`;
  context.fillStyle = scene.tokens.zircon;
  context.textAlign = 'left';
  context.textBaseline = 'top';
  context.fillText(axes?.name ?? 'zero', x + 5, y + 4);
}
