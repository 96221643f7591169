import type { Point } from '@/core/geometry/vector';
import type { Shapes } from '@/core/kinds/element';
import type { Candidate } from '@/core/reading/candidate';
import { commonOf, fieldsOf } from '@/core/kinds/putRight';
import { shapedOf } from '@/core/reading/candidate';
import { putRight } from './corrections';

const column: Shapes['column'] = {
  position: [0, 0],
  rotation: 0,
  section: { shape: 'rectangle', width: 0.4, depth: 0.6 },
  mark: '',
};

test('a column\u2019s sides and mark can be put right, a round one\u2019s diameter', () => {
  const [width, depth, outline, mark] = fieldsOf('column', column);
  expect([width.label, depth.label, mark.label]).toEqual(['Width', 'Depth', 'Mark']);
  expect(width.kind === 'length' && width.set(column, 0.45)).toEqual({
    ...column,
    section: { shape: 'rectangle', width: 0.45, depth: 0.6 },
  });
  // A round one as wide as it was.
  expect(outline.kind === 'choice' && outline.set(column, 'circle').section).toEqual({
    shape: 'circle',
    diameter: 0.4,
  });
  expect(mark.kind === 'words' && mark.set(column, 'C7').mark).toBe('C7');
  expect(
    fieldsOf('column', { ...column, section: { shape: 'circle', diameter: 0.45 } }).map(({ label }) => label),
  ).toEqual(['Diameter', 'Outline', 'Mark', 'Material', 'Middle, east', 'Middle, north']);
  const [east] = fieldsOf('column', column).filter(({ end }) => end);
  expect(east.kind === 'length' && east.set(column, 3)).toEqual({ ...column, position: [3, 0] });
});

const triangle: Point[] = [
  [0, 0],
  [1, 0],
  [1, 1],
];

test('every kind has something to put right, and what is read from a field is what was set', () => {
  const shapes: Shapes = {
    grid: { label: 'A', kind: 'line', start: [0, 0], end: [0, 9] },
    column,
    beam: { start: [0, 0], end: [6, 0], section: { shape: 'rectangle', width: 0.3, depth: 0.6 }, mark: 'B1' },
    wall: { start: [0, 0], end: [6, 0], thickness: 0.2, height: null, bulge: 0, outer: true },
    opening: { wall: 'w', use: 'window', offset: 1, width: 1.2, height: 1.2, sill: 0.9 },
    slab: {
      outline: [
        [0, 0],
        [1, 0],
        [1, 1],
      ],
      holes: [],
      thickness: 0.2,
    },
    zone: {
      name: 'Lab',
      number: '1',
      outline: [
        [0, 0],
        [1, 0],
        [1, 1],
      ],
      holes: [],
      height: null,
    },
    outdoor: {
      name: 'Yard',
      outline: [
        [0, 0],
        [1, 0],
        [1, 1],
      ],
      height: 0.1,
    },
    roof: { outline: triangle, eaves: 0, slope: 30, direction: 90, thickness: 0.2 },
    support: { position: [0, 0], rise: 0, fixed: ['x', 'y', 'z'] },
    pointLoad: { case: 'Q', position: [0, 0], rise: 0, force: [0, 0, -1000], moment: [0, 0, 0] },
    lineLoad: { case: 'Q', start: [0, 0], end: [6, 0], rise: 0, q: [0, 0, -1000] },
    areaLoad: { case: 'Q', outline: triangle, holes: [], q: -3000 },
    luminaire: { position: [0, 0], rise: 2.8, rotation: 0, tilt: 0, photometry: 'F1', output: 1 },
    calculationArea: { name: '', outline: triangle, holes: [], rise: 0.8, spacing: null },
    contour: { points: triangle, elevation: 1.5 },
  };
  for (const kind of Object.keys(shapes) as (keyof Shapes)[]) {
    const fields = fieldsOf(kind, shapes[kind]);
    expect(fields.length).toBeGreaterThan(0);
    for (const field of fields) {
      if (field.kind === 'choice')
        for (const option of field.options)
          expect(field.get(field.set(shapes[kind] as never, option) as never)).toBe(option);
      else if (field.kind === 'words') expect(field.get(field.set(shapes[kind] as never, 'new') as never)).toBe('new');
      else expect(field.get(field.set(shapes[kind] as never, 1.25) as never)).toBeCloseTo(1.25, 12);
    }
  }
});

test('many are put right together: what they have in common is shown, what one has not got stays, what was read is remembered', () => {
  const of = (element: Shapes['column']) => ({ kind: 'column', key: 'c', element }) as unknown as Candidate;
  const [a, b, round] = [
    of(column),
    of({ ...column, section: { shape: 'rectangle', width: 0.4, depth: 0.8 } }),
    of({ ...column, section: { shape: 'circle', diameter: 0.45 } }),
  ];
  expect([
    commonOf([a, b].map(shapedOf), 'Width'),
    commonOf([a, b].map(shapedOf), 'Depth'),
    commonOf([a, round].map(shapedOf), 'Width'),
  ]).toEqual([0.4, null, null]);
  const changes = new Map<string, string | number>([
    ['Width', 0.45],
    ['Mark', 'C1'],
  ]);
  expect(putRight(b, changes)).toMatchObject({
    element: { mark: 'C1', section: { width: 0.45, depth: 0.8 } },
    asRead: { section: { width: 0.4, depth: 0.8 } },
  });
  expect(putRight(round, changes).element).toMatchObject({ mark: 'C1', section: { shape: 'circle', diameter: 0.45 } });
});
