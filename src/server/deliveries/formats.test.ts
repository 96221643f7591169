import { modelWith } from '@/core/handover/testing/modelWith';

import { differences } from '@/core/exports/deliveries/report';
import { formatNames } from '@/core/exports/deliveries/wish';
import { formats } from './formats';
import { backReader } from './readBack';

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
