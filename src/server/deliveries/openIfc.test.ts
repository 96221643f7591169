import { modelWith } from '@/core/handover/testing/modelWith';
import { writeIfc } from '@/core/exports/ifc/writeIfc';

import { within } from '@/core/exports/deliveries/report';
import { openIfc } from './openIfc';

test('a public reader finds every element of a file, and columns as large as the model has them', async () => {
  const section = { shape: 'rectangle', width: 0.4, depth: 0.6 };
  const square = [
    [0, 0],
    [8, 0],
    [8, 6],
    [0, 6],
  ];
  const model = modelWith({
    levels: [{ id: 'L', name: 'Ground \u2018\u5730\u2019', elevation: 2, height: 3 }],
    columns: [
      { id: 'c1', level: 'L', position: [1, 1], rotation: 30, section },
      { id: 'c2', level: 'L', position: [7, 1], section: { shape: 'circle', diameter: 0.4 } },
    ],
    beams: [{ id: 'b1', level: 'L', start: [1, 1, 5], end: [7, 1, 5], section }],
    walls: [{ id: 'w1', level: 'L', start: [0, 0], end: [8, 0], thickness: 0.3, height: 3 }],
    openings: [{ id: 'o1', wall: 'w1', kind: 'window', offset: 2, width: 1.5, height: 1.2, sill: 0.9 }],
    slabs: [{ id: 's1', level: 'L', outline: square, thickness: 0.2 }],
    zones: [{ id: 'z1', level: 'L', name: 'Lab', outline: square, height: 3 }],
  });
  const text = writeIfc(model, { name: 'Fulmar Store', time: '2026-11-27T12:00:00' });
  const all = await openIfc(text, model);
  expect(all.filter(({ model, file }) => model !== file)).toEqual([]);
  // 0.4 by 0.6 by 3 m.
  expect(all.find(({ kind }) => kind === 'litres of columns')).toEqual({
    kind: 'litres of columns',
    model: 720,
    file: 720,
  });
  // Two columns, one of them round, a beam, a wall and a slab lie where the model has them; a millimetre off is seen.
  const placed = (of: typeof model) => openIfc(text, of).then((back) => back.find(({ kind }) => kind === within));
  expect(await placed(model)).toEqual({ kind: within, model: 5, file: 5 });
  const [first, ...rest] = model.walls;
  const moved = { ...model, walls: [{ ...first, end: [8, 0.001] as [number, number] }, ...rest] };
  expect(await placed(moved)).toEqual({ kind: within, model: 5, file: 4 });
  // What is not in the file is not found.
  const without = text.replace(/#\d+=IFCBEAM\(.*\);\n/, '');
  expect((await openIfc(without, model)).find(({ kind }) => kind === 'beams')).toEqual({
    kind: 'beams',
    model: 1,
    file: 0,
  });
}, 30_000);
