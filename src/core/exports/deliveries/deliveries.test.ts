import { modelWith } from '@/core/handover/testing/modelWith';
import type { ReadModel } from '@/core/handover/model/readModel';
import { contentOf, countsOf } from './contentOf';
import { countedIn, differences, litres } from './report';
import { contentNames, disciplines } from './wish';

function modelOf(): ReadModel {
  const square = [
    [0, 0],
    [6, 0],
    [6, 4],
  ];
  const section = { shape: 'circle', diameter: 0.3 };
  const on = (level: string) => ({
    columns: { id: `c${level}`, level, position: [1, 1], section },
    walls: { id: `w${level}`, level, start: [0, 0], end: [6, 0], thickness: 0.2, height: 3 },
    openings: { id: `o${level}`, wall: `w${level}`, kind: 'door', offset: 1, width: 1, height: 2 },
    slabs: { id: `s${level}`, level, outline: square, thickness: 0.2 },
    zones: {
      id: `z${level}`,
      level,
      outline: square,
      height: 3,
      boundaries: [{ wall: `w${level}`, length: 6, beyond: null, openings: [`o${level}`] }],
    },
  });
  const both = [on('A'), on('B')];
  return modelWith({
    levels: [
      { id: 'A', name: 'Ground', elevation: 0, height: 3 },
      { id: 'B', name: 'Upper', elevation: 3, height: 3 },
    ],
    ...Object.fromEntries(
      (['columns', 'walls', 'openings', 'slabs', 'zones'] as const).map((kind) => [kind, both.map((one) => one[kind])]),
    ),
    supports: [{ id: 'p', position: [1, 1, -0.5], fixed: ['z'] }],
    luminaires: [
      { id: 'l1', photometry: 'panel', position: [1, 1, 2.7] },
      { id: 'l2', photometry: 'panel', position: [1, 1, 5.7] },
    ],
    loads: [
      { kind: 'member', element: 'cA', q: [0, 0, -1] },
      { kind: 'area', slab: 'sB', q: -2 },
      { kind: 'point', position: [1, 1, 4] },
      { kind: 'area', level: 'B', outline: square, q: -3 },
    ],
  });
}

test('a delivery holds the lists that are wanted on the levels that are wanted, and what hangs on them', () => {
  const model = modelOf();
  const whole = countsOf(contentOf(model, { content: [...contentNames], levels: null }));
  expect(whole).toEqual(countsOf(model));
  const upper = contentOf(model, { content: [...contentNames], levels: ['B'] });
  expect(countsOf(upper)).toMatchObject({
    columns: 1,
    walls: 1,
    openings: 1,
    slabs: 1,
    zones: 1,
    luminaires: 1,
    supports: 0,
  });
  expect(upper.luminaires?.map(({ id }) => id)).toEqual(['l2']);
  expect(upper.loads?.map(({ kind }) => kind)).toEqual(['area', 'point', 'area']);
  expect(upper.levels).toHaveLength(2);
  // Without walls there are no doors in them, and rooms name no walls.
  const bare = contentOf(model, { content: ['openings', 'zones'], levels: null });
  expect([bare.openings, bare.zones.map(({ boundaries }) => boundaries)]).toEqual([[], [[], []]]);
});

test('every discipline takes something that its formats hold', () => {
  for (const { formats, content } of disciplines) {
    expect(formats.length).toBeGreaterThan(0);
    if (formats.includes('gbxml')) expect(content).toContain('zones');
  }
});

test('what did not come back whole is told by file and kind', () => {
  const back = [
    {
      file: 'model.ifc',
      kinds: [
        { kind: 'columns', model: 4, file: 4 },
        { kind: 'walls', model: 3, file: 2 },
      ],
    },
    { file: 'model.xlsx', kinds: [] },
  ];
  expect(differences(back)).toEqual(['model.ifc: 2 of 3 walls came back.']);
  // What is measured is no thing that is counted.
  expect(countedIn([...back, { file: 'model.ifc', kinds: [{ kind: litres, model: 720, file: 720 }] }])).toBe(6);
});
