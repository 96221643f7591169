import { modelWith } from '@/core/handover/testing/modelWith';

import { element, xmlFile, xmlId } from './xml';
import { writeGbxml } from './writeGbxml';

type Part = Record<string, unknown>;
type Point = [number, number];
type V3 = [number, number, number];

const box = (x: number, y: number, w: number, d: number): Point[] => [
  [x, y],
  [x + w, y],
  [x + w, y + d],
  [x, y + d],
];
const wall = (id: string, start: Point, end: Point, thickness = 0.4): Part => ({
  id,
  level: 'L1',
  start,
  end,
  thickness,
  height: 3,
  construction: 'W',
});
const zone = (id: string, level: string, outline: Point[], more: Part = {}): Part => ({
  id,
  level,
  name: id,
  outline,
  height: 3,
  temperature: 20,
  ...more,
});

/** Two rooms side by side, walls of 0.4 m about them and of 0.2 m between, slabs of 0.2 m; one room over the first. */
const parts = (): Record<string, unknown> => ({
  levels: [
    { id: 'L1', name: 'Lower', elevation: 10, height: 3 },
    { id: 'L2', name: 'Upper', elevation: 13, height: 3 },
    { id: 'L3', name: 'Roof', elevation: 16, height: 3 },
  ],
  survey: { easting: 0, northing: 0, elevation: 5, north: 0 },
  walls: [
    wall('S', [-0.2, -0.2], [6.2, -0.2]),
    wall('E', [6.2, -0.2], [6.2, 4.2]),
    wall('N', [6.2, 4.2], [-0.2, 4.2]),
    wall('W', [-0.2, 4.2], [-0.2, -0.2]),
    wall('M', [3, 0], [3, 4], 0.2),
  ],
  openings: [
    { id: 'O', wall: 'S', kind: 'window', offset: 0.7, width: 1.5, height: 1.2, sill: 0.9, construction: 'G' },
  ],
  slabs: ['L1', 'L2', 'L3'].map((level) => ({
    id: `s${level}`,
    level,
    outline: box(-0.4, -0.4, 6.8, 4.8),
    thickness: 0.2,
  })),
  zones: [
    zone('A & <B>', 'L1', box(0, 0, 2.9, 4)),
    zone('B', 'L1', box(3.1, 0, 2.9, 4), { temperature: null }),
    zone('C', 'L2', box(0, 0, 2.9, 4)),
  ],
  constructions: [
    {
      id: 'W',
      name: 'Outer wall',
      kind: 'wall',
      thickness: 0.4,
      uValue: 0.3,
      layers: [
        { name: 'Wool', thickness: 0.16, conductivity: 0.035, density: 40, heatCapacity: 1030 },
        { name: 'Bricks', thickness: 0.24, conductivity: 0.8 },
      ],
    },
    { id: 'G', name: 'Pane', kind: 'glazing', uValue: 1.1, gValue: 0.5, transmittance: 0.7 },
  ],
});

const text = writeGbxml(modelWith(parts()), 'Fulmar & Sons');

/** The parts of a text between tags of a name. */
const within = (of: string, name: string): string[] =>
  [...of.matchAll(new RegExp(`<${name}(?: [^>]*)?>([\\s\\S]*?)</${name}>`, 'g'))].map(([, inside]) => inside);
const whole = (of: string, name: string): string[] =>
  [...of.matchAll(new RegExp(`<${name}(?: [^>]*)?>[\\s\\S]*?</${name}>`, 'g'))].map(([all]) => all);
const loops = (of: string): V3[][] =>
  within(of, 'PolyLoop').map((inside) =>
    within(inside, 'CartesianPoint').map((at) => within(at, 'Coordinate').map(Number) as V3),
  );

/** The area of a ring in space along its normal (Newell). */
function normalOf(ring: readonly V3[]): V3 {
  const n: V3 = [0, 0, 0];
  ring.forEach((p, i) => {
    const q = ring[(i + 1) % ring.length];
    n[0] += ((p[1] - q[1]) * (p[2] + q[2])) / 2;
    n[1] += ((p[2] - q[2]) * (p[0] + q[0])) / 2;
    n[2] += ((p[0] - q[0]) * (p[1] + q[1])) / 2;
  });
  return n;
}

test('every space closes on centre planes: normals add up to nothing, and its volume is that of its prism', () => {
  const spaces = whole(text, 'Space');
  expect(spaces).toHaveLength(3);
  const volumes = spaces.map((one) => {
    const [shell] = within(one, 'ClosedShell');
    const rings = loops(shell);
    const sum = rings.map(normalOf).reduce((all, n) => all.map((value, i) => value + n[i]) as V3, [0, 0, 0]);
    for (const value of sum) expect(value).toBeCloseTo(0, 6);
    // By the divergence theorem a third of the sum of places times areas.
    return rings.reduce((all, ring) => {
      const n = normalOf(ring);
      return all + (ring[0][0] * n[0] + ring[0][1] * n[1] + ring[0][2] * n[2]) / 3;
    }, 0);
  });
  // From -0.2 to 3, from -0.2 to 4.2, and from the middle of one slab to that of the next: 3 m.
  expect(volumes[0]).toBeCloseTo(3.2 * 4.4 * 3, 6);
  expect(volumes[1]).toBeCloseTo(3.2 * 4.4 * 3, 6);
  // Areas and volumes of its own are by inner faces.
  expect(within(spaces[0], 'Area').map(Number)).toEqual([expect.closeTo(2.9 * 4, 6)]);
  expect(within(spaces[0], 'Volume').map(Number)).toEqual([expect.closeTo(2.9 * 4 * 2.8, 6)]);
});

test('what parts two spaces is written once, with both; what lies to outside with one', () => {
  const surfaces = whole(text, 'Surface');
  const between = surfaces.filter((one) => one.split('<AdjacentSpaceId').length === 3);
  expect(between.map((one) => /surfaceType="(\w+)"/.exec(one)![1]).sort()).toEqual(['InteriorFloor', 'InteriorWall']);
  const [partition] = between.filter((one) => one.includes('InteriorWall'));
  // In the middle of the partition, at x = 3.
  for (const [x] of loops(partition)[0]) expect(x).toBeCloseTo(3, 9);
  const ids = [...text.matchAll(/ id="([^"]+)"/g)].map(([, id]) => id);
  expect(new Set(ids).size).toBe(ids.length);
  // What is referred to is there.
  const references = [...text.matchAll(/(?:spaceIdRef|surfaceIdRef|zoneIdRef|buildingStoreyIdRef|IdRef)="([^"]+)"/g)];
  for (const [, id] of references) expect(ids).toContain(id);
});

test('walls tell their way, windows lie in theirs, constructions have their layers', () => {
  const south = whole(text, 'Surface').find((one) => one.includes('wall S') && one.includes('<Opening'))!;
  expect(within(south, 'Azimuth')[0]).toBe('180');
  expect(within(south, 'Tilt')[0]).toBe('90');
  const [opening] = loops(whole(south, 'Opening')[0]);
  const [xs, zs] = [opening.map(([x]) => x), opening.map(([, , z]) => z)];
  // From 0.7 m of the wall's start at -0.2, 1.5 m wide; sill at 0.9 m above 10 m.
  expect([Math.min(...xs), Math.max(...xs), Math.min(...zs), Math.max(...zs)]).toEqual(
    [0.5, 2, 10.9, 12.1].map((value) => expect.closeTo(value, 6)),
  );
  expect(whole(text, 'Material').map((one) => within(one, 'Name')[0])).toEqual(['Wool', 'Bricks']);
  expect(within(whole(text, 'WindowType')[0], 'U-value')).toEqual(['1.1']);
  expect(text).toContain('conditionType="Unconditioned"');
});

test('texts are escaped, and signs that no file may hold are taken out', () => {
  expect(text).toContain('<Name>Fulmar &amp; Sons</Name>');
  expect(text).toContain('A &amp; &lt;B&gt;');
  expect(xmlFile(element('a', { b: '"<' }, 'x\u0000y\ud800z'))).toBe(
    '<?xml version="1.0" encoding="UTF-8"?>\n<a b="&quot;&lt;">x y z</a>\n',
  );
  expect(xmlId('space', 'a@b c')).toBe('space-a_b_c');
  expect(() => xmlFile(element('a', {}, NaN))).toThrow(/no number/);
});

test('a model without rooms is a building without spaces', () => {
  const empty = writeGbxml(modelWith({}), 'Empty');
  expect(empty).toContain('<Building');
  expect(empty).not.toContain('<Space');
});

test('a room about a court closes too: its floor is one loop that goes round the hole', () => {
  const court = box(1, 1, 1, 1);
  const hole = [
    wall('c1', [1, 1], [2, 1], 0.2),
    wall('c2', [2, 1], [2, 2], 0.2),
    wall('c3', [2, 2], [1, 2], 0.2),
    wall('c4', [1, 2], [1, 1], 0.2),
  ];
  const [lower] = parts().zones as Part[];
  const about = box(0.9, 0.9, 1.2, 1.2);
  const of = writeGbxml(
    modelWith({
      ...parts(),
      walls: [...(parts().walls as Part[]).slice(0, 4), ...hole],
      zones: [{ ...lower, outline: box(0, 0, 6, 4), holes: [about] }],
    }),
    'Court',
  );
  const [shell] = within(of, 'ClosedShell');
  const rings = loops(shell);
  const sum = rings.map(normalOf).reduce((all, n) => all.map((value, i) => value + n[i]) as V3, [0, 0, 0]);
  for (const value of sum) expect(value).toBeCloseTo(0, 6);
  // The floor on centre planes less the court by the middles of its walls.
  const floor = rings.map(normalOf).find(([, , z]) => z < -1)!;
  expect(-floor[2]).toBeCloseTo(6.4 * 4.4 - Math.abs(court[2][0] - court[0][0]) ** 2, 6);
});

/** One room under two planes of 30 degrees that meet above y = 2; the second lies lower by so much. */
const gabled = (lower: number): string => {
  const tan = Math.tan(Math.PI / 6);
  const plane = (id: string, y: number, drop: number): Part => ({
    id,
    level: 'L1',
    outline: [
      [-0.6, 2, 12 + 2.6 * tan - drop],
      [-0.6, y, 12 - drop],
      [6.6, y, 12 - drop],
      [6.6, 2, 12 + 2.6 * tan - drop],
    ],
    slope: 30,
    direction: y < 2 ? 90 : 270,
    thickness: 0.2,
    construction: 'W',
  });
  return writeGbxml(
    modelWith({
      ...parts(),
      walls: (parts().walls as Part[]).slice(0, 4),
      slabs: (parts().slabs as Part[]).slice(0, 1),
      zones: [zone('Loft', 'L1', box(0, 0, 6, 4), { roofs: ['R1', 'R2'], clearHeight: 2.8 })],
      roofs: [plane('R1', -0.6, 0), plane('R2', 4.6, lower)],
    }),
    'Gable',
  );
};

test.each([
  ['meet at their ridge', 0, 0],
  ['end at different heights, with a step between', 0.5, 1],
])('a room under two roof planes that %s closes along both', (_, lower, steps) => {
  const of = gabled(lower);
  const rings = loops(within(of, 'ClosedShell')[0]);
  const sum = rings.map(normalOf).reduce((all, n) => all.map((value, i) => value + n[i]) as V3, [0, 0, 0]);
  for (const value of sum) expect(value).toBeCloseTo(0, 6);
  const volume = rings.reduce((all, ring) => {
    const n = normalOf(ring);
    return all + (ring[0][0] * n[0] + ring[0][1] * n[1] + ring[0][2] * n[2]) / 3;
  }, 0);
  // From the middle of the floor's slab at 9.9 m to the middles of the planes: at y = 0.9, the mean over each half,
  // 1.5 m beyond the eaves at 12 m, and half of 0.2 m of thickness square to the plane above.
  const mean = 12 + 1.5 * Math.tan(Math.PI / 6) + 0.1 / Math.cos(Math.PI / 6) - 9.9;
  // Coordinates are written to a micrometre.
  expect(volume).toBeCloseTo(6.4 * 2.2 * (2 * mean - lower), 4);
  const roofs = whole(of, 'Surface').filter((one) => one.includes('surfaceType="Roof"'));
  expect(roofs.map((one) => Number(within(one, 'Tilt')[0])).sort((a, b) => a - b)).toEqual(
    [30, 30, ...(steps === 1 ? [90] : [])].map((value) => expect.closeTo(value, 6)),
  );
  // The gable ends have five corners, or six where the step shows.
  const ends = rings.filter((ring) => ring.length > 4);
  expect(ends.map((ring) => ring.length)).toEqual(steps === 1 ? [6, 6] : [5, 5]);
});
