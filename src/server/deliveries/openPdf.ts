import { extractText, getDocumentProxy } from 'unpdf';
import type { ReadBack } from '@/core/exports/ifc/readBack';
import type { Sheet } from '@/core/exports/sheets/sheet';

/** Points of print in a millimetre. */
const perMillimetre = 72 / 25.4;
/** Pages are as large as their sheets within this, millimetres. */
const sameSize = 0.1;

/** Of a text so many signs are looked for: one that is longer may run over the sheet's edge. */
const longest = 40;

/** A text as a page may have it: readers put blanks between pieces. */
const plain = (text: string): string => text.replace(/[\s\u0000-\u001f\u007f]/g, '');

/** Opens a PDF with a reader that did not write it: pages of the sheets' sizes, and the texts that are on them. */
export async function openPdf(bytes: Uint8Array, sheets: readonly Sheet[]): Promise<ReadBack[]> {
  // The reader takes the bytes for its own.
  const document = await getDocumentProxy(new Uint8Array(bytes));
  const pages: ReadBack = { kind: 'sheets', model: sheets.length, file: 0 };
  const texts: ReadBack = { kind: 'texts on sheets', model: 0, file: 0 };
  const { text } = await extractText(document, { mergePages: false });
  for (const [i, { width, height, marks }] of sheets.entries()) {
    if (i < document.numPages) {
      const [left, low, right, high] = (await document.getPage(i + 1)).view;
      const off = [right - left - width * perMillimetre, high - low - height * perMillimetre];
      if (off.every((points) => Math.abs(points) <= sameSize * perMillimetre)) pages.file += 1;
    }
    const there = plain(text[i] ?? '');
    const written = marks.flatMap((mark) =>
      mark.kind === 'text' && plain(mark.text) !== '' ? [plain(mark.text)] : [],
    );
    texts.model += written.length;
    texts.file += written.filter((one) => there.includes(one.slice(0, longest))).length;
  }
  await document.destroy();
  return [pages, texts];
}
