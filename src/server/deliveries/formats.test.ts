import { csvParse } from 'd3';
import Excel from 'exceljs';
import fc from 'fast-check';
import { modelWith } from '@/core/handover/testing/modelWith';
import { isStorable } from '@/core/storable';

import { differences } from '@/core/exports/deliveries/report';
import { formatNames } from '@/core/exports/deliveries/wish';
import { formats } from './formats';
import { backReader } from './readBack';
import { allNodes, readXml } from './readXml';

test('levels whose names read alike have files of their own', async () => {
  const names = ['Upper floor', 'Upper/floor', 'UPPER FLOOR', '\u4e0a\u968e', ''];
  const model = modelWith({
    levels: names.map((name, i) => ({ id: `L${i}`, name, elevation: 3 * i, height: 3 })),
  });
  const about = { name: 'Fulmar Store', made: new Date(0) };
  for (const [format, ending] of [
    ['svg', 'svg'],
    ['dxf', 'dxf'],
  ] as const) {
    const files = await formats[format](model, about);
    const plans = files.map(({ file }) => file).filter((file) => file.startsWith('plan-'));
    expect(new Set(plans.map((file) => file.toLowerCase())).size).toBe(names.length);
    expect(plans[0]).toBe(`plan-Upper_floor.${ending}`);
    expect(plans[3]).toBe(`plan-\u4e0a\u968e.${ending}`);
  }
});

test('names of every kind come back from every format', async () => {
  const names = [
    '"a" <b> & \'c\'',
    '=SUM(A1:A9)',
    '\u6771\u4eac \ud83c\udfd7',
    'two\nlines\tand; a, comma',
    'x'.repeat(400),
    '\\U+00e9',
  ];
  const ring = [
    [0, 0],
    [4, 0],
    [4, 3],
    [0, 3],
  ];
  const model = modelWith({
    levels: names.map((name, i) => ({ id: `L${i}`, name, elevation: 3 * i, height: 3 })),
    grids: names.map((label, i) => ({ id: `g${i}`, label, kind: 'line', start: [i, -1], end: [i, 9] })),
    columns: names.map((mark, i) => ({
      id: `c${i}`,
      level: `L${i}`,
      position: [i, 1],
      section: { shape: 'rectangle', width: 0.3, depth: 0.4 },
      mark,
    })),
    slabs: names.map((_, i) => ({ id: `s${i}`, level: `L${i}`, outline: ring, thickness: 0.2 })),
    walls: ring.map((start, i) => ({
      id: `w${i}`,
      level: 'L0',
      start,
      end: ring[(i + 1) % 4],
      thickness: 0.2,
      height: 3,
    })),
    zones: names.map((name, i) => ({ id: `z${i}`, level: `L${i}`, name, number: name, outline: ring, height: 2.5 })),
    constructions: names.map((name, i) => ({
      id: `k${i}`,
      name,
      kind: 'wall',
      thickness: 0.2,
      layers: [],
      uValue: null,
    })),
  });
  const readBack = backReader(model);
  for (const format of formatNames) {
    const written = await formats[format](model, { name: names[0], made: new Date(0) });
    const back = await Promise.all(written.map(readBack));
    expect([format, ...differences(back)]).toEqual([format]);
    expect(written.length).toBeGreaterThan(0);
  }
});

test('any name that can be shown comes back letter by letter from gbXML, the workbook, CSV and model.json', async () => {
  const outline = [
    [0, 0],
    [4, 0],
    [4, 3],
    [0, 3],
  ];
  await fc.assert(
    fc.asyncProperty(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }).filter(isStorable), async (any) => {
      // Blanks at the ends of a name are no part of it.
      const name = `x${any}y`;
      const model = modelWith({
        levels: [{ id: 'L', name: 'Ground', elevation: 0, height: 3 }],
        zones: [{ id: 'z', level: 'L', name, number: '', outline, height: 2.5 }],
      });
      const about = { name: 'Fulmar Store', made: new Date(0) };
      const texts: Record<string, string> = {};
      for (const format of ['gbxml', 'csv', 'json', 'xlsx'] as const)
        for (const { file, content } of await formats[format](model, about)) {
          if (format === 'gbxml') texts[format] = spaceName(String(content));
          if (format === 'json') texts[format] = (JSON.parse(String(content)) as typeof model).zones[0].name;
          if (file === 'rooms.csv') texts[format] = csvParse(String(content).replace(/^\ufeff/, ''))[0].name;
          if (format === 'xlsx') texts[format] = await roomName(content);
        }
      expect(texts).toEqual({ gbxml: name, csv: name, json: name, xlsx: name });
    }),
    { numRuns: 20 },
  );
}, 60_000);

const spaceName = (text: string): string => {
  const root = readXml(text);
  if (!root.ok) throw new Error(root.message);
  const space = [...allNodes(root.value)].find(({ name }) => name === 'Space');
  return space?.children.find(({ name }) => name === 'Name')?.text ?? '';
};

async function roomName(content: string | Uint8Array): Promise<string> {
  const book = new Excel.Workbook();
  await book.xlsx.load(new Uint8Array(Buffer.from(content)).buffer);
  const sheet = book.getWorksheet('rooms')!;
  const heads = sheet.getRow(1).values as Excel.CellValue[];
  return String(sheet.getRow(2).getCell(heads.indexOf('name')).value);
}
