import { inflateSync } from 'node:zlib';
import type { Sheet } from '@/core/exports/sheets/sheet';
import { sheetsPdf } from './sheetsPdf';

const sheet: Sheet = {
  name: 'Ground',
  width: 297,
  height: 210,
  marks: [
    {
      kind: 'line',
      points: [
        [10, 10],
        [60, 10],
      ],
      closed: false,
      stroke: { width: 0.25 },
    },
    {
      kind: 'area',
      rings: [
        [
          [0, 0],
          [5, 0],
          [5, 5],
        ],
      ],
      grey: 0.5,
      stroke: null,
    },
    { kind: 'circle', at: [20, 20], radius: 4, stroke: { width: 0.25, dashes: [2, 1] } },
    {
      kind: 'text',
      at: [30, 30],
      text: 'R\u00e4ume 12,5 m\u00b2',
      height: 2.5,
      anchor: 'middle',
      turn: 90,
      bold: true,
    },
  ],
};

test('a PDF has a page for each sheet at its true size, its lines in millimetres, its face held by it', async () => {
  const pdf = Buffer.from(await sheetsPdf([sheet, { ...sheet, width: 1189, height: 841 }], 'Plans', new Date(0)));
  const text = pdf.toString('latin1');
  expect(text.startsWith('%PDF-1.')).toBe(true);
  // 297 by 210 mm and 1189 by 841 mm in points of a 72nd of an inch.
  const boxes = [...text.matchAll(/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/g)].map(([, w, h]) => [Number(w), Number(h)]);
  expect(boxes).toEqual(
    [
      [(297 * 72) / 25.4, (210 * 72) / 25.4],
      [(1189 * 72) / 25.4, (841 * 72) / 25.4],
    ].map((size) => size.map((value) => expect.closeTo(value, 2))),
  );
  expect(text).toMatch(/FontFile[23]/);
  const streams = [...text.matchAll(/stream\r?\n([\s\S]*?)\r?\nendstream/g)].flatMap(([, own]) => {
    try {
      return [inflateSync(Buffer.from(own, 'latin1')).toString('latin1')];
    } catch {
      return [];
    }
  });
  const page = streams.find((own) => own.includes('10 10 m'))!;
  expect(page).toContain('60 10 l');
  expect(page).toContain('[2 1] 0 d');
  expect(page).toMatch(/2\.83\d* 0 0 2\.83\d* 0 0 cm/);
});
