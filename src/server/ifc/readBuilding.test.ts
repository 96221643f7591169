import { readDxf } from '@/core/drawing/reader';
import { flatten } from '@/core/underlay/flatten';
import { readBuilding } from './readBuilding';
import { otherHand } from './testing/otherHand';

const bytes = (text: string) => new TextEncoder().encode(text);

async function taken(text: string) {
  const read = await readBuilding(bytes(text));
  if (!read.ok) throw new Error(read.message);
  return read.value;
}

/** A plan's paths on a layer, each as its least and greatest x and y in the building's own system, metres. */
function reachesOf(dxf: string, layer: string): number[][] {
  const read = readDxf(bytes(dxf));
  if (!read.ok) throw new Error(read.message);
  const { drawing } = read.value;
  const flat = flatten(drawing);
  const own = (x: number, y: number): [number, number] => {
    const [dx, dy] = [(flat.origin[0] + x) / 1000 - 100, (flat.origin[1] + y) / 1000 - 50];
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    return [c * dx + s * dy, c * dy - s * dx];
  };
  return [...flat.layer].flatMap((at, path) => {
    if (drawing.layers[at].name !== layer) return [];
    const points = Array.from({ length: flat.start[path + 1] - flat.start[path] }, (_, i) =>
      own(flat.xy[2 * (flat.start[path] + i)], flat.xy[2 * (flat.start[path] + i) + 1]),
    );
    const over = [0, 1].map((axis) => points.map((point) => point[axis]));
    return [over.flatMap((values) => [Math.min(...values), Math.max(...values)])];
  });
}

/** Numbers to a hundredth of a millimetre: the solid of the reader has 32 bits. */
const near = (numbers: readonly number[]) => numbers.map((value): unknown => expect.closeTo(value, 5));

test('a building of another hand: its storeys, its heights, what is on plans and what is not', async () => {
  const { plans, report } = await taken(otherHand());
  expect(plans.map(({ name, elevation, height }) => [name, elevation, height])).toEqual([
    ['Level 1', 12, 3],
    ['Level 2', 15, 3],
  ]);
  expect(report).toEqual({
    schema: 'IFC2X3',
    storeys: [
      { name: 'Level 1', elevation: 12, cut: 13.2 },
      { name: 'Level 2', elevation: 15, cut: 16.2 },
    ],
    read: [
      ['COLUMN', 2],
      ['DOOR', 1],
      ['FOUNDATION', 1, 0],
      ['FURNITURE', 1],
      ['GRID LINE', 3],
      ['SLAB', 1],
      ['WALL', 1],
    ].map(([kind, count, drawn = count]) => ({ kind, count, drawn })),
    leftOut: [
      { kind: 'FOUNDATION', count: 1, reason: 'has no shape in the file', remedy: expect.any(String) as string },
    ],
    warnings: [
      'Storey Level 2 structure at 14.850 m has no plan of its own: it is one floor with Level 2 at 15.000 m.',
    ],
  });
});

test('its plans lie where the building does, in its unit, each kind on its layer', async () => {
  const [{ dxf: lower }, { dxf: upper }] = (await taken(otherHand())).plans;
  // The wall is cut into two pieces by the door, whose leaf hangs at the far end and opens to y.
  expect(reachesOf(lower, 'WALL').sort((a, b) => a[0] - b[0])).toEqual([
    near([0, 1, -0.1, 0.1]),
    near([1.9, 5, -0.1, 0.1]),
  ]);
  const [leaf, arc] = reachesOf(lower, 'DOOR');
  expect(leaf).toEqual(near([1.9, 1.9, 0, 0.9]));
  expect(arc).toEqual(near([1, 1.9, 0, 0.9]));
  for (const plan of [lower, upper])
    expect(reachesOf(plan, 'COLUMN').map(([low, high, from, to]) => [(low + high) / 2, (from + to) / 2])).toEqual([
      near([0, 4]),
      near([6, 4]),
    ]);
  expect(reachesOf(lower, 'FURNITURE')).toEqual([near([3, 5, 1, 1.5])]);
  expect([reachesOf(lower, 'SLAB'), reachesOf(upper, 'SLAB'), reachesOf(upper, 'SLAB OPENING')]).toEqual([
    [],
    [near([0, 6, 0, 4])],
    [near([1, 2, 1, 2])],
  ]);
  const [a, one, ring] = reachesOf(lower, 'GRID').filter(
    ([low, high, from, to]) => Math.max(high - low, to - from) > 1.1,
  );
  expect(a).toEqual(near([0, 8, 0, 0]));
  expect(one).toEqual(near([0, 0, 0, 4]));
  expect(ring).toEqual(near([0, 9, 0, 9]));
});

test('a file without storeys, or cut short, is told in a sentence', async () => {
  const none = otherHand({
    40: 'IFCCARTESIANPOINT((0.,0.))',
    42: 'IFCCARTESIANPOINT((0.,0.))',
    46: 'IFCCARTESIANPOINT((0.,0.))',
  });
  const read = await readBuilding(bytes(none));
  expect(read.ok ? '' : read.message).toContain('holds no storey');
  const cut = await readBuilding(bytes(otherHand().slice(0, 2000)));
  expect(cut.ok ? '' : cut.message).toContain('cut short');
  const nonsense = await readBuilding(bytes('ISO-10303-21;\nnothing of the kind'));
  expect(nonsense.ok).toBe(false);
});
