import { line, dxf, readText } from '@/core/drawing/testing/dxf';
import { flatten } from './flatten';
import { mainContent, mainContentOf } from './mainContent';

/** A plan of 10 by 5 on its layers in a frame of 30 by 20. */
const plan = dxf({
  entities:
    line(0, 0, 10, 0, 'WALL') +
    line(10, 0, 10, 5, 'WALL') +
    line(0, 0, 0, 5, 'GRID') +
    line(-10, -8, 20, -8, 'FRAME') +
    line(20, -8, 20, 12, 'FRAME'),
});

test('the layers that show the building decide the view, and frame and title block do not', () => {
  const { drawing } = readText(plan);
  const p = flatten(drawing);
  const counting = (...names: string[]) => Uint8Array.from(drawing.layers, ({ name }) => Number(names.includes(name)));
  expect(mainContentOf(p, counting('WALL', 'GRID'))).toEqual([
    [0, 0],
    [10, 5],
  ]);
  // Where no layer has a role everything counts.
  expect(mainContentOf(p, counting())).toEqual(mainContent(p));
  expect(mainContent(p)).toEqual([
    [-10, -8],
    [20, 12],
  ]);
});
