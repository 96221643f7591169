import Excel from 'exceljs';
import type { Cell, Schedule } from '@/core/exports/schedules/table';

/** Columns are as wide as their longest text, within these, in letters. */
const [narrowest, widest] = [8, 44];
/** Numbers are shown with this many places; the cell holds all of them. */
const shown = '0.000';
/** A sheet's name has at most so many letters. */
const longestName = 31;

const widthOf = (head: string, cells: readonly Cell[]): number =>
  Math.min(widest, Math.max(narrowest, ...[head, ...cells].map((cell) => String(cell ?? '').length + 2)));

/**
 * Schedules as a workbook, a sheet each: heads frozen and with their units, filters on them, numbers as numbers. Every
 * text is a text, also one that begins like a formula.
 * @param made when it was made
 */
export async function workbookOf(schedules: readonly Schedule[], made: Date): Promise<Uint8Array> {
  const book = new Excel.Workbook();
  book.creator = 'Zircon Frame';
  [book.created, book.modified] = [made, made];
  for (const { name, columns, rows } of schedules) {
    const sheet = book.addWorksheet(name.slice(0, longestName), { views: [{ state: 'frozen', ySplit: 1 }] });
    const heads = columns.map(({ head, unit }) => (unit === '' ? head : `${head} [${unit}]`));
    sheet.columns = heads.map((header, i) => ({
      header,
      width: widthOf(
        header,
        rows.map((row) => row[i]),
      ),
    }));
    for (const row of rows) sheet.addRow([...row]);
    sheet.getRow(1).font = { bold: true };
    columns.forEach((_, i) => {
      const figures = rows.some((row) => typeof row[i] === 'number' && !Number.isInteger(row[i]));
      if (figures) sheet.getColumn(i + 1).numFmt = shown;
    });
    sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: 1, column: columns.length } };
  }
  return new Uint8Array(await book.xlsx.writeBuffer());
}
