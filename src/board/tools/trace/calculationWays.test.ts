import type { Point } from '@/core/geometry/vector';
import type { ElementKind, ElementOf, ElementRow } from '@/core/kinds/element';
import { contains } from '@/core/geometry/polygon';
import { column, levelId, planOf, slab, uuid, wall } from '@/core/tracing/testing/plan';
import { plainShapes, useTracing, type WayName } from '@/project/tracing';
import type { Given } from './way';
import { ways } from './ways/ways';

beforeEach(() => useTracing.setState({ shapes: plainShapes, count: 3, rows: 2, gap: 0.05 }));

const square: Point[] = [
  [0, 0],
  [6, 0],
  [6, 4],
  [0, 4],
];
const zone: ElementOf<'zone'> = {
  id: uuid(70),
  levelId,
  source: null,
  kind: 'zone',
  shape: { name: 'Lab', number: '1', outline: square, holes: [], height: null },
};

/** What a way makes of clicked points, on a plan of some elements. */
function make(way: WayName, points: Point[], elements: ElementRow[] = []) {
  const model = planOf(...elements);
  let n = 500;
  const under = (p: Point): ElementRow | null =>
    elements.find(({ shape }) => 'outline' in shape && contains(shape.outline, p)) ?? null;
  const given: Given = {
    model,
    plane: null,
    levelId,
    axes: { origin: [0, 0], angle: 0 },
    points: points.map((at) => ({ at, element: under(at), line: null })),
    bulges: points.map(() => 0),
    closed: true,
    selected: new Set(),
    settings: useTracing.getState(),
    newId: () => uuid(n++),
    lengths: { unit: 'm', places: null },
  };
  const edit = ways[way].edit(given);
  if (!edit.ok) return { label: '', refused: edit.message, shapes: [] };
  model.apply(edit.value.changes);
  const made = <K extends ElementKind>(kind: K) => Array.from(model.ofKind(kind), ({ shape }) => shape);
  return { label: edit.value.label, refused: '', shapes: made(way.split('.')[0] as ElementKind) as unknown[] };
}

test.each<[WayName, Point[], ElementRow[], string, unknown]>([
  ['roof.outline', square, [], 'Draw 1 roof plane', { eaves: 3, slope: 30, direction: 90 }],
  ['roof.ridge', [square[0], square[2]], [], 'Draw 2 roof planes', { direction: 90 }],
  ['support.point', [[1, 2]], [], 'Draw 1 support', { position: [1, 2], fixed: ['x', 'y', 'z'] }],
  [
    'support.columns',
    [
      [-1, -1],
      [7, 1],
    ],
    [column(1, [0, 0]), column(2, [6, 0])],
    'Draw 2 supports',
    { position: [0, 0] },
  ],
  ['pointLoad.point', [[3, 3]], [], 'Draw 1 point load', { position: [3, 3], force: [0, 0, -10_000] }],
  ['lineLoad.chain', square.slice(0, 3), [], 'Draw 2 line loads', { start: [0, 0], end: [6, 0] }],
  ['areaLoad.slab', [[1, 1]], [slab(5, square)], 'Draw 1 area load', { outline: square, q: -3000 }],
  ['areaLoad.outline', square, [], 'Draw 1 area load', { outline: square }],
  ['luminaire.point', [[1, 1]], [], 'Draw 1 luminaire', { position: [1, 1], rise: 2.8 }],
  [
    'luminaire.row',
    [
      [0, 0],
      [6, 0],
    ],
    [],
    'Draw 3 luminaires',
    { position: [1, 0] },
  ],
  ['luminaire.field', [square[0], square[2]], [], 'Draw 6 luminaires', { position: [1, 1] }],
  ['calculationArea.zone', [[2, 2]], [zone], 'Draw 1 calculation area', { outline: square, rise: 0.8 }],
  ['calculationArea.outline', square, [], 'Draw 1 calculation area', { outline: square }],
])('%s makes what its points say', (way, points, elements, label, first) => {
  const made = make(way, points, elements);
  expect([made.refused, made.label]).toEqual(['', label]);
  expect(made.shapes[0]).toMatchObject(first as object);
});

test('an area load takes the region between walls, by their inner faces', () => {
  const walls = square.map((p, i) => wall(10 + i, p, square[(i + 1) % 4]));
  const made = make('areaLoad.region', [[3, 2]], walls);
  expect(made.label).toBe('Draw 1 area load');
  const [{ outline }] = made.shapes as ElementOf<'areaLoad'>['shape'][];
  expect(outline.map((p) => p.map((value) => Number(value.toFixed(9))))).toEqual(
    expect.arrayContaining([
      [0.1, 0.1],
      [5.9, 3.9],
    ]),
  );
});

test('where nothing is to be found that is said', () => {
  expect(make('calculationArea.zone', [[50, 50]], [zone]).refused).toMatch(/no zone here/);
  expect(make('support.columns', [square[0], square[2]]).refused).toMatch(/No column/);
  expect(make('areaLoad.region', [[3, 2]]).refused).toMatch(/No walls bound/);
  // The same luminaire twice.
  const luminaire: ElementRow = { ...zone, id: uuid(80), kind: 'luminaire', shape: { ...plainShapes.luminaire } };
  expect(make('luminaire.point', [[0, 0]], [luminaire]).refused).toMatch(/hangs there already/);
});
