import { readFileSync } from 'node:fs';
import PdfDocument from 'pdfkit';
import type { Mark, Sheet, Stroke } from '@/core/exports/sheets/sheet';
import { runsOf, type Face } from './faces';

/** Points of print in a millimetre. */
const perMillimetre = 72 / 25.4;
/** A capital is this share of its letters' size in the face that ships. */
const capital = 0.7;
const ink = '#1c2b2d';

type Document = InstanceType<typeof PdfDocument>;

function penOf(page: Document, { width, dashes }: Stroke): void {
  page.lineWidth(width).lineJoin('round').strokeColor(ink);
  if (dashes === undefined) page.undash();
  // The operator of the format itself: a dash and its gap alone would make axes plain dashes.
  else page.addContent(`[${dashes.join(' ')}] 0 d`);
}

function trace(page: Document, points: readonly (readonly [number, number])[], closed: boolean): void {
  points.forEach(([x, y], i) => (i === 0 ? page.moveTo(x, y) : page.lineTo(x, y)));
  if (closed) page.closePath();
}

function drawMark(page: Document, mark: Mark): void {
  if (mark.kind === 'line') {
    penOf(page, mark.stroke);
    trace(page, mark.points, mark.closed);
    page.stroke();
  } else if (mark.kind === 'circle') {
    penOf(page, mark.stroke);
    page.circle(...mark.at, mark.radius).fillAndStroke('#fff', ink);
  } else if (mark.kind === 'area') {
    const tone = Math.round(255 * mark.grey);
    for (const ring of mark.rings) trace(page, ring, true);
    page.fillColor([tone, tone, tone]);
    if (mark.stroke === null) page.fill('even-odd');
    else {
      penOf(page, mark.stroke);
      page.fillAndStroke([tone, tone, tone], ink, 'even-odd');
    }
  } else drawText(page, mark);
}

/** Faces that documents hold already. */
const held = new WeakMap<Document, Set<string>>();

function setFace(page: Document, { name, path }: Face, weight: 400 | 700): void {
  const own = `${name} ${weight}`;
  const known = held.get(page) ?? new Set();
  if (!known.has(own)) page.registerFont(own, readFileSync(path(weight)));
  held.set(page, known.add(own));
  page.font(own);
}

function drawText(page: Document, { at, text, height, anchor, turn, bold }: Extract<Mark, { kind: 'text' }>): void {
  page.fontSize(height / capital).fillColor(ink);
  // Signs that no line of text can show are spaces.
  const runs = runsOf(text.replace(/[\u0000-\u001f\u007f]/g, ' ')).map((run) => {
    setFace(page, run.face, bold ? 700 : 400);
    return { ...run, wide: page.widthOfString(run.text) };
  });
  const wide = runs.reduce((sum, run) => sum + run.wide, 0);
  let x = at[0] - { start: 0, middle: wide / 2, end: wide }[anchor];
  page.save();
  page.rotate(turn, { origin: [at[0], at[1]] });
  for (const run of runs) {
    setFace(page, run.face, bold ? 700 : 400);
    // The text stands on its base line.
    page.text(run.text, x, at[1], { lineBreak: false, baseline: 'alphabetic' });
    x += run.wide;
  }
  page.restore();
}

/**
 * Sheets as a PDF, a page each at its true size, the faces of its texts held by the file.
 * @param made when it was made
 */
export async function sheetsPdf(sheets: readonly Sheet[], title: string, made: Date): Promise<Uint8Array> {
  const page = new PdfDocument({
    autoFirstPage: false,
    info: { Title: title, Creator: 'Zircon Frame', CreationDate: made },
  });
  const chunks: Buffer[] = [];
  page.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise<void>((done, failed) => page.on('end', done).on('error', failed));
  for (const { width, height, marks } of sheets) {
    page.addPage({ size: [width * perMillimetre, height * perMillimetre], margin: 0 });
    page.scale(perMillimetre);
    for (const mark of marks) drawMark(page, mark);
  }
  page.end();
  await ended;
  return new Uint8Array(Buffer.concat(chunks));
}
