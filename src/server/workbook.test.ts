import Excel from 'exceljs';
import { workbookOf } from './workbook';

test('a workbook has a sheet for each schedule, its heads frozen, numbers as numbers and texts as texts', async () => {
  const schedule = {
    name: 'columns',
    columns: [
      { head: 'mark', unit: '' },
      { head: 'volume', unit: 'm3' },
    ],
    rows: [
      ['=1+1', 0.4375],
      ['C2', null],
    ],
  };
  const made = new Date('2026-11-27T12:00:00Z');
  const book = new Excel.Workbook();
  await book.xlsx.load(Buffer.from(await workbookOf([schedule], made)).buffer);
  const [sheet] = book.worksheets;
  expect([sheet.name, sheet.rowCount]).toEqual(['columns', 3]);
  expect(sheet.getRow(1).values).toEqual([undefined, 'mark', 'volume [m3]']);
  // The cell holds the text itself, not a formula of it.
  expect([sheet.getCell('A2').value, sheet.getCell('A2').formula]).toEqual(['=1+1', undefined]);
  expect([sheet.getCell('B2').value, sheet.getCell('B2').numFmt]).toEqual([0.4375, '0.000']);
  expect(sheet.views[0]).toMatchObject({ state: 'frozen', ySplit: 1 });
  expect(sheet.autoFilter).toBeTruthy();
});
