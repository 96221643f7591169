import { distance, type Point } from '@/core/geometry/vector';
import { DxfWriter } from '@/core/handover/dxf/dxfWriter';
import { eachSide } from '@/core/underlay/pieces';
import { extentsOf, type Primitives } from '@/core/underlay/primitives';
import { metresPer, type LengthUnit } from '@/core/units/length';
import { questionKinds, type Question, type QuestionKind } from './questions';

/** The layers of a marked-up drawing, with their colours. */
const drawn = { name: 'DRAWING', colour: 8 };
const layers: Record<QuestionKind, { name: string; colour: number }> = {
  gap: { name: 'QUESTION-GAP', colour: 1 },
  double: { name: 'QUESTION-DOUBLE', colour: 30 },
  askew: { name: 'QUESTION-ASKEW', colour: 6 },
  dimension: { name: 'QUESTION-DIMENSION', colour: 5 },
};
/** Rings and letters, metres; the list of questions has lines this far apart, in heights of its letters. */
const [ring, letters, lineSpacing] = [0.5, 0.25, 1.8];
/** More lines than this are not drawn again, so that the file can still be sent. */
const mostLines = 300_000;

/**
 * A drawing with its questions as a DXF: its lines in grey, a numbered ring about each place, and the list of questions
 * beside it, all in the drawing's own unit and coordinates.
 */
export function markedUp(p: Primitives, asked: readonly Question[], unit: LengthUnit, scale: number): string {
  const writer = new DxfWriter(unit, [drawn, ...questionKinds.map((kind) => layers[kind])]);
  const [ox, oy] = p.origin;
  let lines = 0;
  eachSide(p, (_, v, w) => {
    lines += 1;
    if (lines > mostLines) return;
    const [a, b] = [v, w].map((i): Point => [p.xy[2 * i] + ox, p.xy[2 * i + 1] + oy]);
    if (distance(a, b) > 0) writer.line(drawn.name, a, b);
  });
  const metres = metresPer[unit] * scale;
  const [radius, height] = [ring / metres, letters / metres];
  const box = extentsOf(p) ?? [0, 0, 0, 0];
  const list: Point = [box[2] + ox + 4 * radius, box[3] + oy];
  asked.forEach(({ kind, at, words, handle }, i) => {
    const { name } = layers[kind];
    writer.circle(name, at, radius);
    writer.text(name, [at[0] + radius + height, at[1] + radius], height, String(i + 1));
    writer.note(name, [list[0], list[1] - i * lineSpacing * height], height, `${i + 1}  ${words} (${handle})`);
  });
  return writer.finish();
}
