import { modelWith } from '@/core/handover/testing/modelWith';

import { csvOf } from './csv';
import { schedulesOf } from './schedules';

const rectangle = { shape: 'rectangle', width: 0.4, depth: 0.5 };
const round = { shape: 'circle', diameter: 0.5 };
const model = modelWith({
  levels: [{ id: 'L0', name: 'Ground', elevation: 0, height: 3, kind: 'ground' }],
  materials: [{ id: 'M', name: 'Concrete' }],
  columns: [
    { id: 'c1', level: 'L0', position: [0, 0], rotation: 0, section: rectangle, mark: '=C1', material: 'M' },
    { id: 'c2', level: 'L0', position: [6, 0], rotation: 0, section: rectangle, mark: 'C2', material: 'M', top: 2.5 },
    { id: 'c3', level: 'L0', position: [9, 0], rotation: 0, section: round, mark: 'C3', material: 'M' },
  ],
  beams: [{ id: 'b1', level: 'L0', start: [0, 0, 3], end: [3, 4, 3], section: rectangle, mark: 'B, "1"' }],
  walls: [
    { id: 'w1', level: 'L0', start: [0, 0], end: [5, 0], thickness: 0.2, height: 3, bulge: 0 },
    {
      id: 'w2',
      level: 'L0',
      start: [0, 4],
      end: [4, 4],
      thickness: 0.2,
      height: 3,
      bulge: 0,
      base: 0,
      profile: [
        [0, 2],
        [2, 4],
        [4, 2],
      ],
    },
  ],
  openings: [{ id: 'o1', wall: 'w1', kind: 'door', offset: 1, width: 1, height: 2, sill: 0 }],
  slabs: [
    {
      id: 's1',
      level: 'L0',
      outline: [
        [0, 0],
        [5, 0],
        [5, 4],
        [0, 4],
      ],
      holes: [
        [
          [1, 1],
          [2, 1],
          [2, 2],
          [1, 2],
        ],
      ],
      thickness: 0.25,
      top: 3,
    },
  ],
});
const schedules = new Map(schedulesOf(model).map((one) => [one.name, one]));
const cell = (name: string, row: number, head: string) => {
  const { columns, rows } = schedules.get(name)!;
  return rows[row][columns.findIndex((column) => column.head === head)];
};

test('sizes and volumes are what is worked out by hand', () => {
  expect(cell('columns', 0, 'volume')).toBeCloseTo(0.4 * 0.5 * 3, 9);
  expect(cell('columns', 1, 'volume')).toBeCloseTo(0.4 * 0.5 * 2.5, 9);
  expect(cell('columns', 2, 'area')).toBeCloseTo(Math.PI / 16, 6);
  expect([cell('beams', 0, 'length'), cell('beams', 0, 'volume')]).toEqual([5, 1]);
  expect([cell('walls', 0, 'face'), cell('walls', 0, 'net face'), cell('walls', 0, 'net volume')]).toEqual([
    15, 13, 2.6,
  ]);
  // A gable: 4 m by 2 m, and a triangle of 2 m on it.
  expect(cell('walls', 1, 'face')).toBeCloseTo(12, 9);
  expect([cell('slabs', 0, 'area'), cell('slabs', 0, 'volume')]).toEqual([19, 4.75]);
  // I of a rectangle: its depth cubed times its width over 12.
  expect(cell('sections', 0, 'about y')).toBeCloseTo((0.4 * 0.5 ** 3) / 12, 12);
});

test('quantities add up by kind, section, material and level', () => {
  const { rows } = schedules.get('quantities')!;
  expect(rows[0]).toEqual(['columns', '400 \u00d7 500', 'Concrete', 'Ground', 2, 5.5, 0, 1.1]);
  const all = (kind: string) =>
    rows.filter(([own]) => own === kind).reduce((sum, row) => sum + Number(row[row.length - 1]), 0);
  expect(all('walls')).toBeCloseTo(2.6 + 2.4, 9);
  expect(all('slabs')).toBeCloseTo(4.75, 9);
});

test('schedules without rows are left out, and an empty model has none', () => {
  expect([...schedules.keys()]).toEqual([
    'levels',
    'columns',
    'beams',
    'walls',
    'openings',
    'slabs',
    'sections',
    'quantities',
  ]);
  expect(schedulesOf(modelWith({}))).toEqual([]);
});

test('CSV has units in its heads, quotes what it must, and what begins like a formula stays a text', () => {
  const columns = csvOf(schedules.get('columns')!).split('\r\n');
  expect(columns[0]).toBe(
    '\uFEFFid,mark,level,section,material,x [m],y [m],base [m],top [m],turned [deg],area [m2],volume [m3]',
  );
  expect(columns[1].startsWith("c1,'=C1,Ground,")).toBe(true);
  expect(csvOf(schedules.get('beams')!).split('\r\n')[1].startsWith('b1,"B, ""1""",Ground')).toBe(true);
});

test('a wall under a roof stands on its level, where it does not say otherwise', () => {
  const upper = modelWith({
    levels: [{ id: 'L1', name: 'Upper', elevation: 6, height: 3 }],
    walls: [
      {
        id: 'w',
        level: 'L1',
        start: [0, 0],
        end: [4, 0],
        thickness: 0.2,
        height: 3,
        bulge: 0,
        profile: [
          [0, 8],
          [4, 10],
        ],
      },
      { id: 'v', level: 'L1', start: [0, 2], end: [4, 2], thickness: 0.2, height: 3, bulge: 0, top: 8 },
    ],
  });
  const { columns, rows } = schedulesOf(upper).find(({ name }) => name === 'walls')!;
  const at = (head: string) => columns.findIndex((column) => column.head === head);
  // From 6 m up to 8 and 10 m over 4 m; and up to 8 m.
  expect(rows.map((row) => [row[at('face')], row[at('height')]])).toEqual([
    [12, 4],
    [8, 2],
  ]);
});
