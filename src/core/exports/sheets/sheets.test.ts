import { modelWith } from '@/core/handover/testing/modelWith';

import { papers, sheetFor } from './paper';
import { planSheet } from './plan';
import type { Mark } from './sheet';
import { sheetSvg } from './svg';

type MarkOf<K extends Mark['kind']> = Extract<Mark, { kind: K }>;

const model = modelWith({
  levels: [{ id: 'L0', name: 'Ground <1>', elevation: -0.5, height: 3 }],
  survey: { easting: 0, northing: 0, elevation: 0, north: 90 },
  grids: [
    { id: 'g1', label: '1', kind: 'line', start: [0, -1], end: [0, 6] },
    { id: 'g2', label: '2', kind: 'line', start: [5.4, -1], end: [5.4, 6] },
    { id: 'gA', label: 'A', kind: 'line', start: [-1, 0], end: [7, 0] },
  ],
  columns: [
    {
      id: 'c1',
      level: 'L0',
      position: [0, 0],
      rotation: 0,
      section: { shape: 'rectangle', width: 0.4, depth: 0.4 },
      mark: 'C1',
    },
  ],
  walls: [{ id: 'w1', level: 'L0', start: [0, 0], end: [5.4, 0], thickness: 0.2, height: 3, bulge: 0 }],
  openings: [{ id: 'o1', wall: 'w1', kind: 'door', offset: 2, width: 1, height: 2, sill: 0 }],
  zones: [
    {
      id: 'z1',
      level: 'L0',
      name: 'Lab',
      number: '1.01',
      outline: [
        [0, 0.1],
        [5, 0.1],
        [5, 4.1],
        [0, 4.1],
      ],
      height: 3,
    },
  ],
});
const wish = { project: 'Fulmar & Sons', date: '2026-11-27' };
const sheet = planSheet(model, model.levels[0], wish);
const of = <K extends Mark['kind']>(kind: K): MarkOf<K>[] =>
  sheet.marks.filter((mark): mark is MarkOf<K> => mark.kind === kind);
const texts = of('text').map(({ text }) => text);

test('the smallest sheet that it fits on at 1:100, else a smaller scale, or what is asked for', () => {
  expect(sheetFor([0, 0, 8, 7])).toEqual({ paper: 'A4', scale: 100 });
  expect(sheetFor([0, 0, 30, 15])).toEqual({ paper: 'A3', scale: 100 });
  expect(sheetFor([0, 0, 400, 100])).toEqual({ paper: 'A0', scale: 500 });
  expect(sheetFor([0, 0, 8, 7], { paper: 'A1', scale: 50 })).toEqual({ paper: 'A1', scale: 50 });
});

test('lengths on the sheet are those of the building at its scale', () => {
  expect([sheet.width, sheet.height]).toEqual([...papers.A4]);
  // 1:100: a metre is ten millimetres. The wall is parted by its door, 2 m from its start.
  const walls = of('area').filter(({ grey }) => grey === 0.78);
  const wide = walls.map(({ rings: [ring] }) => {
    const xs = ring.map(([x]) => x);
    return Number((Math.max(...xs) - Math.min(...xs)).toFixed(6));
  });
  expect(wide.slice(0, 2)).toEqual([20, 24]);
  const [column] = of('area').filter(({ grey }) => grey === 0.25);
  const xs = column.rings[0].map(([x]) => x);
  expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(4, 9);
  // North is up on the page where y grows downward: the room lies above the wall.
  const room = of('text').find(({ text }) => text === 'Lab')!;
  expect(room.at[1]).toBeLessThan(column.rings[0][0][1]);
});

test('rooms, marks, bubbles, dimensions and the title block are written', () => {
  expect(texts).toEqual(expect.arrayContaining(['1.01', 'Lab', '20.00 m\u00b2', 'C1', '5.400', 'Ground <1>']));
  expect(texts).toEqual(expect.arrayContaining(['\u22120.500 m', '1:100 on A4', '2026-11-27', 'Fulmar & Sons']));
  expect(of('circle')).toHaveLength(6);
  // Everything lies on the sheet.
  for (const { at } of of('circle')) {
    expect(at[0] > 0 && at[0] < sheet.width && at[1] > 0 && at[1] < sheet.height).toBe(true);
  }
});

test('north points where the survey has it', () => {
  const tip = (north: number): [number, number] => {
    const turned = planSheet(
      { ...model, survey: { easting: 0, northing: 0, elevation: 0, north } },
      model.levels[0],
      wish,
    );
    const n = turned.marks.find((mark): mark is MarkOf<'text'> => mark.kind === 'text' && mark.text === 'N')!;
    return [n.at[0], n.at[1]];
  };
  const [up, right] = [tip(0), tip(90)];
  expect(right[0] - up[0]).toBeCloseTo(9.4, 6);
  expect(right[1] - up[1]).toBeCloseTo(9.4, 6);
});

test('SVG is at its true size, escaped, and holds its face', () => {
  const svg = sheetSvg(sheet, 'd09GMg==');
  expect(
    svg.startsWith('<svg xmlns="http://www.w3.org/2000/svg" width="297mm" height="210mm" viewBox="0 0 297 210">'),
  ).toBe(true);
  expect(svg).toContain('Ground &lt;1&gt;');
  expect(svg).toContain('Fulmar &amp; Sons');
  expect(svg).toContain('url(data:font/woff2;base64,d09GMg==)');
  expect(svg).not.toMatch(/NaN|Infinity|undefined/);
  expect(sheetSvg(sheet)).not.toContain('@font-face');
});

test('an empty level is a sheet with its title block', () => {
  const empty = modelWith({ levels: [{ id: 'L0', name: 'Void', elevation: 0, height: 3 }] });
  const marks = planSheet(empty, empty.levels[0], wish).marks;
  expect(marks.some((mark) => mark.kind === 'text' && mark.text === 'Void')).toBe(true);
});
