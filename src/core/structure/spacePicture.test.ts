import { carriedOf } from './carried';
import type { Pictured } from './picture';
import { spacePictureOf } from './spacePicture';
import { beamAt, columnAt, hinged, modelOf } from './testing/models';
import { tryStructure } from './trial';
import { viewOf } from './view';

/** A hinged beam of 6 m with 10 kN/m, and 6 kN at its middle, between two clamped columns; a slab over half of it. */
const model = modelOf({
  columns: [columnAt('C1', [0, 0]), columnAt('C2', [6, 0])],
  beams: [beamAt('B1', [0, 0, 4], [6, 0, 4], hinged)],
  supports: [0, 6].map((x) => ({ id: `P${x}`, position: [x, 0, 0], fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'] })),
  loadCases: [{ id: 'Q', selfWeight: 0 }],
  loads: [
    { kind: 'member', element: 'B1', q: [0, 0, -1e4] },
    { kind: 'point', position: [3, 0, 4], force: [0, 0, -6e3] },
  ],
});
const view = viewOf(tryStructure(model), model);
const [result] = view.results;
const picture = (what: Pictured, scale = 1) =>
  spacePictureOf({ view, result, what, carried: carriedOf(model), shows: () => true, scale });

test('a moment stands below its beam where it is in tension, the greatest value first', () => {
  const { pieces, labels } = picture('my');
  // w L2 / 8 + P L / 4 = 45 + 9 kNm, one metre below the beam as the greatest of all.
  expect(labels[0]).toMatchObject({ text: '54', size: expect.closeTo(54_000, 0) });
  expect(labels[0].at).toEqual([3, 0, 3].map((value) => expect.closeTo(value, 6)));
  // A quarter along: 33.75 + 4.5 kNm.
  const tip = pieces.map(([, to]) => to).find(([x, , z]) => Math.abs(x - 1.5) < 1e-6 && z < 4)!;
  expect(4 - tip[2]).toBeCloseTo(38.25 / 54, 6);
});

test('loads press from above, those at a place with their value', () => {
  const { pieces, labels } = picture('loads');
  expect(labels.map(({ text }) => text)).toEqual(['10', '6.0 kN']);
  const highest = Math.max(...pieces.flat().map(([, , z]) => z));
  expect(highest).toBeCloseTo(5, 6);
});

test('supports hang by what they hold up; the displaced shape goes with the scale', () => {
  const { labels } = picture('supports');
  expect(labels.map(({ text }) => text)).toEqual(['33', '33']);
  const lowest = (scale: number) =>
    Math.min(
      ...picture('moved', scale)
        .pieces.flat()
        .filter(([x]) => Math.abs(x - 3) < 0.1)
        .map(([, , z]) => z),
    );
  expect([lowest(0), lowest(1), lowest(2)]).toEqual([4, 3.2, 2.4].map((value) => expect.closeTo(value, 3)));
});
