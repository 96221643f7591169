import { envelopeOf } from './envelope';
import { envelopePicture, motionPicture, pictureOf, type Seen } from './picture';
import { beamAt, columnAt, hinged, modelOf } from './testing/models';
import { tryStructure } from './trial';
import { viewOf } from './view';

/** A hinged beam of 6 m with 10 kN/m between two clamped columns. */
const model = modelOf({
  columns: [columnAt('C1', [0, 0]), columnAt('C2', [6, 0])],
  beams: [beamAt('B1', [0, 0, 4], [6, 0, 4], hinged)],
  supports: [0, 6].map((x) => ({ id: `P${x}`, position: [x, 0, 0], fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'] })),
  loadCases: [{ id: 'Q', selfWeight: 0 }],
  loads: [{ kind: 'member', element: 'B1', q: [0, 0, -1e4] }],
});
const view = viewOf(tryStructure(model), model);
const [result] = view.results;
const plan: Seen = { at: ([x, y]) => [x, y], shows: () => true, showsNode: () => true, plan: true };
const face: Seen = { at: ([x, , z]) => [x, z], shows: () => true, showsNode: () => true, plan: false };

test('moments lie on the side in tension: to the right in plan, below on a section, with their greatest value', () => {
  const seen = pictureOf(view, result, 'my', plan);
  // w L2 / 8 = 45 kNm in the middle, 1 m from the beam as the greatest.
  const [shape] = seen.areas;
  expect(shape).toHaveLength(23);
  expect(shape[11]).toEqual([expect.closeTo(3, 9), expect.closeTo(-1, 9)]);
  expect(shape[6][1]).toBeCloseTo(-0.75, 9);
  expect(seen.labels.map(({ text }) => text)).toEqual(['45']);
  const below = pictureOf(view, result, 'my', face).areas.find((points) => points[0][1] === 4 && points[22][1] === 4)!;
  expect(below[11]).toEqual([expect.closeTo(3, 9), expect.closeTo(3, 9)]);
});

test('an envelope draws the greatest and the least, and tells what governs', () => {
  const two = {
    ...model,
    combinations: [
      { id: 'A', factors: { Q: 1.4 } },
      { id: 'B', factors: { Q: -1 } },
    ],
  };
  const shown = viewOf(tryStructure(two), two);
  const envelope = envelopeOf(shown)!;
  const texts = envelopePicture(shown, envelope, 'my', plan).labels.map(({ text }) => text);
  // 1.4 and -1 times 45 kNm.
  expect(texts).toEqual(['63', '45']);
  // 1.4 times 30 kN up, 30 kN down.
  expect([envelope.most, envelope.least, envelope.governing].map(({ supports }) => supports[0].value[2])).toEqual(
    [42_000, -30_000, 42_000].map((value) => expect.closeTo(value, 3)),
  );
  expect(envelopeOf(view)).toBeNull();
});

test('in plan columns tell what they carry along; supports tell what they hold up', () => {
  const axial = pictureOf(view, result, 'n', plan);
  expect(axial.labels.map(({ text }) => text)).toEqual(['30', '30']);
  expect(pictureOf(view, result, 'supports', plan).labels).toEqual([
    { at: [0, 0], text: '30' },
    { at: [6, 0], text: '30' },
  ]);
  expect(pictureOf(view, result, 'none', plan)).toEqual({ areas: [], lines: [], labels: [] });
});

test('the displaced shape hangs by as much as is asked for, and not at all in the still picture', () => {
  const lowest = (scale: number) =>
    Math.min(
      ...pictureOf(view, result, 'moved', face, scale)
        .lines.flatMap((line) => line.map(([, z]) => z))
        .filter((z) => z > 2),
    );
  expect(lowest(0)).toBeGreaterThan(2);
  const middle = (scale: number) =>
    pictureOf(view, result, 'moved', face, scale).lines.find((line) => Math.abs(line[6][0] - 3) < 0.01)![6][1];
  expect(middle(0)).toBeCloseTo(4, 9);
  expect(4 - middle(1)).toBeCloseTo(0.8, 6);
  expect(4 - middle(2)).toBeCloseTo(1.6, 6);
  // 5 w L4 / 384 E I = 0.95 mm, and what the columns give in.
  expect(pictureOf(view, result, 'moved', face).labels[0].text).toMatch(/^\u22121\.0 mm$/);
});

test('a mechanism swings: what stands still is not drawn', () => {
  const loose = {
    ...model,
    supports: undefined,
    loads: [],
    columns: [
      ...model.columns,
      { ...columnAt('C3', [12, 0]), position: [12, 0] as [number, number], section: model.columns[0].section },
    ],
  };
  const swinging = viewOf(tryStructure(loose), loose);
  expect(swinging.motions.length).toBeGreaterThan(0);
  const alone = swinging.motions.map((motion) => motionPicture(swinging, motion, face, 1).lines);
  // It tips along x and along y, which is towards the eye.
  const [[foot, head]] = alone.find((lines) => lines.length === 1 && Math.abs(lines[0][1][0] - 12) > 0.1)!;
  expect(foot).toEqual([12, 0]);
  expect(Math.abs(head[0] - 12) + Math.abs(head[1] - 4)).toBeGreaterThan(0.1);
});
