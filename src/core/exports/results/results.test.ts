import { modelWith } from '@/core/handover/testing/modelWith';
import DxfParser from 'dxf-parser';
import { usualIes, usualNames } from '@/core/lighting/photometry/usual';
import { ontoProject } from '../dxf/onto';
import { reportTables } from '../schedules/analysis';
import { tableSheets } from '../sheets/tables';
import type { ReadModel } from '@/core/handover/model/readModel';
import { framesOf, ResultPictures } from './pictures';
import { resultsOf } from './results';
import { writeResultsDxf } from './writeResultsDxf';

/** A beam of 6 m with hinges at its ends on two columns of 3 m, 10 kN/m on it, no weight; a room with a luminaire. */
function modelOf(): ReadModel {
  const section = { shape: 'rectangle', width: 0.3, depth: 0.5 };
  const column = (id: string, x: number) => ({ id, level: 'L', position: [x, 0], section, base: 0, top: 3 });
  const foot = (id: string, x: number) => ({ id, position: [x, 0, 0], fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'] });
  const hinge = ['ry', 'rz'];
  return modelWith({
    levels: [{ id: 'L', name: 'Ground', elevation: 0, height: 3 }],
    grids: [
      { id: 'g', label: 'A', kind: 'line', start: [-1, 0], end: [7, 0] },
      { id: 'h', label: '1', kind: 'line', start: [0, -1], end: [0, 7] },
    ],
    columns: [column('c1', 0), column('c2', 6)],
    beams: [
      { id: 'b1', level: 'L', start: [0, 0, 3], end: [6, 0, 3], section, releases: { start: hinge, end: hinge } },
    ],
    zones: [
      {
        id: 'z',
        level: 'L',
        name: 'Watch room',
        number: '1',
        outline: [
          [10, 0],
          [16, 0],
          [16, 4],
          [10, 4],
        ],
        height: 3,
      },
    ],
    supports: [foot('p1', 0), foot('p2', 6)],
    loadCases: [{ id: 'Q', selfWeight: 0 }],
    combinations: [{ id: 'U', factors: { Q: 1.5 } }],
    loads: [{ case: 'Q', kind: 'member', element: 'b1', q: [0, 0, -10000] }],
    photometries: [{ id: usualNames[0], ies: usualIes(usualNames[0]) }],
    luminaires: [{ id: 'l', photometry: usualNames[0], position: [13, 2, 2.9] }],
  });
}
const model = modelOf();
const results = resultsOf(model);
const pictures = new ResultPictures(results, model);

test('what supports carry lies over the plan, and in the unit of its DXF on layers of its own', () => {
  const over = pictures.over(model.levels[0]);
  const dxf = new DxfParser().parseSync(writeResultsDxf(over, ontoProject('mm')))!;
  const texts = dxf.entities.flatMap((one) =>
    one.layer === 'ZF-RESULT-SUPPORT-TEXT'
      ? [one as unknown as { text: string; startPoint: { x: number }; textHeight: number }]
      : [],
  );
  // 1.5 times 10 kN/m on 6 m, half of it on either foot.
  expect(texts.map(({ text }) => text).filter((text) => text.includes('45'))).toHaveLength(2);
  // Each is marked by a ring.
  expect(dxf.entities.filter(({ type, layer }) => type === 'CIRCLE' && layer === 'ZF-RESULT-SUPPORT')).toHaveLength(2);
  expect(texts.map(({ textHeight }) => textHeight)).toEqual(texts.map(() => 180));
  expect(Math.max(...texts.map(({ startPoint }) => startPoint.x))).toBeGreaterThan(5000);
  expect(over.map(({ layer }) => layer)).toEqual(
    expect.arrayContaining(['MY', 'VZ', 'SUPPORT', 'HEAT', 'LIGHT-VALUES', 'LIGHT-LINES']),
  );
});

test('every value of light lies at its point, small enough for its grid', () => {
  const [area] = results.light!.areas;
  const values = pictures.over(model.levels[0]).find(({ layer }) => layer === 'LIGHT-VALUES')!;
  expect(values.picture.labels.map(({ text }) => Number(text))).toEqual(area.total.map((lux) => Math.round(lux)));
  expect(values.picture.labels.map(({ at }) => at)).toEqual(area.points.map(([x, y]) => [x, y]));
  const [across] = area.lattice.across;
  expect(values.letters).toBeLessThan(Math.abs(across) / 2);
});

test('the brighter a band of light, the stronger its tint, since it covers those beneath it', () => {
  const lines = pictures.over(model.levels[0]).find(({ layer }) => layer === 'LIGHT-LINES')!;
  const shares = (lines.picture.tints ?? []).map(({ share }) => share);
  expect(shares.length).toBeGreaterThan(2);
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(shares[shares.length - 1]).toBe(1);
});

test('a frame is seen along the grid line that it stands on, with the moment amid its beam', () => {
  const frames = framesOf(model);
  expect(frames.map(({ label }) => label)).toEqual(['A']);
  const [moments] = pictures.within(frames[0].cut);
  // q l2 / 8 of 15 kN/m over 6 m, at 3 m of the beam's start, which lies 1 m from the grid line's.
  const amid = moments.picture.labels.find(({ text }) => text === '67' || text === '68')!;
  expect(amid.at[0]).toBeCloseTo(4, 1);
  expect(moments.title).toContain('case U');
});

test('of a part that goes out its own results are shown, and they are those of the whole', () => {
  const part = new ResultPictures(results, { ...model, columns: [], zones: [] });
  const layers = part.over(model.levels[0]).map(({ layer }) => layer);
  expect(layers).toContain('MY');
  expect(layers).not.toContain('HEAT');
  const whole = pictures.over(model.levels[0]).find(({ layer }) => layer === 'MY');
  expect(part.over(model.levels[0]).find(({ layer }) => layer === 'MY')?.picture.labels).toEqual(whole?.picture.labels);
  expect(new ResultPictures(results, { ...model, columns: [], beams: [] }).within(framesOf(model)[0].cut)).toEqual([]);
});

test('a report says what carries, what rooms lose and what light they have, over as many pages as that takes', () => {
  const tables = reportTables(results);
  const balance = tables.find(({ name }) => name === 'loads and reactions')!;
  expect(balance.rows).toEqual([['Q', 60, 60, 0]]);
  expect(tables.find(({ name }) => name === 'light of areas')!.rows[0][0]).toContain('Watch room');
  const rows = Array.from({ length: 200 }, (_, i) => [i, `word ${i} `.repeat(30), 'x'.repeat(300)]);
  const columns = ['number', 'words', 'one word'].map((head) => ({ head, unit: '' }));
  const sheets = tableSheets('Report', ['Made today.'], [{ name: 'long', columns, rows }]);
  expect(sheets.length).toBeGreaterThan(10);
  const inside = sheets.flatMap(({ marks }) => marks).filter((mark) => mark.kind === 'text');
  for (const { at } of inside) expect(at[1]).toBeLessThan(297 - 10);
  // The head stands on every page, and each number comes once.
  expect(inside.filter(({ text }) => text === 'number')).toHaveLength(sheets.length);
  expect(inside.filter(({ text }) => text === '199')).toHaveLength(1);
});
