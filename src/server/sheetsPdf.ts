import { readFile } from 'node:fs/promises';
import PdfDocument from 'pdfkit';
import type { Mark, Sheet, Stroke } from '@/core/exports/sheets/sheet';
import { facePath } from './face';

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

function drawText(page: Document, { at, text, height, anchor, turn, bold }: Extract<Mark, { kind: 'text' }>): void {
  const size = height / capital;
  page
    .font(bold ? 'bold' : 'plain')
    .fontSize(size)
    .fillColor(ink);
  const wide = page.widthOfString(text);
  const left = { start: 0, middle: wide / 2, end: wide }[anchor];
  page.save();
  page.rotate(turn, { origin: [at[0], at[1]] });
  // The text stands on its base line.
  page.text(text, at[0] - left, at[1], { lineBreak: false, baseline: 'alphabetic' });
  page.restore();
}

/** Sheets as a PDF, a page each at its true size, the face that ships held by the file. @param made when it was made */
export async function sheetsPdf(sheets: readonly Sheet[], title: string, made: Date): Promise<Uint8Array> {
  const page = new PdfDocument({
    autoFirstPage: false,
    info: { Title: title, Creator: 'Zircon Frame', CreationDate: made },
  });
  page.registerFont('plain', await readFile(facePath(400)));
  page.registerFont('bold', await readFile(facePath(700)));
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
