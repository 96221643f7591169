import { regionArea } from '@/core/geometry/clipping';
import { area } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import earcut from 'earcut';
import { marksOf } from './axes';
import { measured, type Shell } from './body';
import { drawnOn } from './drawn';
import { leavesOf } from './fillings';
import { Plans } from './plan';
import { isBuilding } from './recognise';
import { sectionOf } from './section';
import { silhouetteOf } from './silhouette';
import { planStoreys, topHeight } from './storeys';

const bytes = (text: string) => new TextEncoder().encode(text);

/** A prism over rings, the outline counter-clockwise and holes clockwise, with corners of their own for every face. */
function prism(rings: readonly Point[][], low: number, high: number): Shell {
  const corners: number[] = [];
  const triangles: number[] = [];
  const face = (...places: [number, number, number][]): void => {
    const first = corners.length / 3;
    corners.push(...places.flat());
    triangles.push(first, first + 1, first + 2);
  };
  const flat = rings.flat();
  const starts = rings.slice(0, -1).map((_, i) => rings.slice(0, i + 1).flat().length);
  const lid = earcut(
    flat.flatMap(([x, y]) => [x, y]),
    starts,
  );
  for (let i = 0; i < lid.length; i += 3) {
    const three = [flat[lid[i]], flat[lid[i + 1]], flat[lid[i + 2]]];
    const [a, b, c] = area(three) > 0 ? three : [...three].reverse();
    face([...a, high], [...b, high], [...c, high]);
    face([...c, low], [...b, low], [...a, low]);
  }
  for (const ring of rings)
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      face([...a, low], [...b, low], [...b, high]);
      face([...a, low], [...b, high], [...a, high]);
    });
  return { corners: Float64Array.from(corners), triangles: Uint32Array.from(triangles) };
}

/** The shell with its corners welded. */
const welded = (shell: Shell): Shell => measured({ kind: 'OTHER', shells: [shell] })!.shells()[0];

/** A body turned so that what was up runs along x. */
const laid = ({ corners, triangles }: Shell): Shell => ({
  corners: corners.map((_, i) => corners[[i + 2, i - 1, i - 1][i % 3]]),
  triangles,
});

const box = (x: number, y: number, w: number, d: number, low: number, high: number): Shell =>
  prism(
    [
      [
        [x, y],
        [x + w, y],
        [x + w, y + d],
        [x, y + d],
      ],
    ],
    low,
    high,
  );

const areas = (shell: Shell, z: number): number[] =>
  sectionOf(welded(shell), z).map(({ points, closed }) => (closed ? Math.abs(area(points)) : NaN));

test('a level plane cuts a solid along closed lines without points in the middle of straight sides', () => {
  const [line, ...others] = sectionOf(welded(box(2, 1, 5, 0.2, 0, 3)), 1.2);
  expect(others).toEqual([]);
  expect(line.closed).toBe(true);
  expect([...line.points].sort()).toEqual([
    [2, 1],
    [2, 1.2],
    [7, 1],
    [7, 1.2],
  ]);
  const tube = prism(
    [
      [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ],
      [
        [0.1, 0.1],
        [0.1, 0.9],
        [0.9, 0.9],
        [0.9, 0.1],
      ],
    ],
    0,
    3,
  );
  expect(areas(tube, 1).sort()).toEqual([expect.closeTo(0.64, 12), expect.closeTo(1, 12)]);
});

test('a plane through corners cuts what is below and above it once, and nothing that only touches it', () => {
  expect(areas(box(0, 0, 1, 1, 0, 1.2), 1.2)).toEqual([1]);
  expect(areas(box(0, 0, 1, 1, 1.2, 3), 1.2)).toEqual([]);
  const low = box(0, 0, 1, 1, 0, 1.2);
  const high = box(0, 0, 1, 1, 1.2, 3);
  const both: Shell = {
    corners: Float64Array.from([...low.corners, ...high.corners]),
    triangles: Uint32Array.from([...low.triangles, ...high.triangles.map((i) => i + low.corners.length / 3)]),
  };
  expect(areas(both, 1.2)).toEqual([1]);
});

test('where a side of a shell is missing the line stays open', () => {
  const whole = box(0, 0, 4, 1, 0, 3);
  // The last two triangles are the side from its last corner to its first: x = 0.
  const open = { ...whole, triangles: whole.triangles.slice(0, -6) };
  const [line] = sectionOf(welded(open), 1);
  expect(line.closed).toBe(false);
  expect([line.points[0], line.points.at(-1)].sort()).toEqual([
    [0, 0],
    [0, 1],
  ]);
});

test('what a body covers in plan has its holes, whatever lies below its upper side', () => {
  const plate = prism(
    [
      [
        [0, 0],
        [10, 0],
        [10, 4],
        [6, 4],
        [6, 8],
        [0, 8],
      ],
      [
        [1, 1],
        [1, 3],
        [4, 3],
        [4, 1],
      ],
    ],
    -0.2,
    0,
  );
  const [region, ...others] = silhouetteOf([welded(plate)]);
  expect(others).toEqual([]);
  expect(region.outline).toHaveLength(6);
  expect(region.holes).toHaveLength(1);
  expect(regionArea([region])).toBeCloseTo(10 * 4 + 6 * 4 - 3 * 2, 9);
  // A rolled section that lies: 0.2 wide, its web and lower flange below the upper one.
  const web = 0.005;
  const h: Point[] = [
    ...([
      [-0.1, 0],
      [0.1, 0],
      [0.1, 0.02],
      [web, 0.02],
      [web, 0.28],
      [0.1, 0.28],
    ] as const),
    ...([
      [0.1, 0.3],
      [-0.1, 0.3],
      [-0.1, 0.28],
      [-web, 0.28],
      [-web, 0.02],
      [-0.1, 0.02],
    ] as const),
  ];
  const beam = laid(prism([h], 1, 7));
  const covered = silhouetteOf([welded(beam)]);
  expect(covered).toHaveLength(1);
  expect(regionArea(covered)).toBeCloseTo(6 * 0.2, 9);
  expect(covered[0].outline).toHaveLength(4);
});

test('storeys that are one floor have one plan, low ones are cut at half their height', () => {
  const joined: string[] = [];
  const storeys = planStoreys(
    [
      { name: 'Roof', elevation: 7.2, things: 4 },
      { name: 'Ground', elevation: 0, things: 90 },
      { name: 'Structure', elevation: -0.15, things: 2 },
      { name: 'Crawl space', elevation: -1.65, things: 5 },
      { name: 'Parapet', elevation: 7.9, things: 1 },
    ],
    (one, to) => joined.push(`${one.name} with ${to.name}`),
  );
  expect(joined).toEqual(['Structure with Ground', 'Parapet with Roof']);
  expect(storeys.map(({ name, height, cut }) => [name, height, cut])).toEqual([
    ['Crawl space', 1.65, expect.closeTo(-1.65 + 0.825, 9)],
    ['Ground', 7.2, 1.2],
    ['Roof', 3, expect.closeTo(8.4, 9)],
  ]);
  // Nothing on the roof is a metre high: a usual storey; a tower of 4.8 m is one.
  expect([topHeight(storeys[2], 8.1), topHeight(storeys[2], 12)]).toEqual([3, expect.closeTo(4.8, 9)]);
});

test('each body is on the plans where it is cut, or lies below the cut, or is a floor or a beam of the storey', () => {
  const storeys = planStoreys(
    [
      { name: 'Ground', elevation: 0, things: 1 },
      { name: 'Upper', elevation: 3.6, things: 1 },
    ],
    () => undefined,
  );
  const on = (kind: string, low: number, high: number): string =>
    storeys
      .map((storey) => drawnOn(measured({ kind, shells: [box(0, 0, 1, 1, low, high)] })!, storey, storeys))
      .map((drawn) => (drawn === null ? '-' : Object.keys(drawn)[0]))
      .join(' ');
  expect([on('COLUMN', -1, 7), on('WALL', 0, 3.4), on('FURNITURE', 0, 0.7), on('WALL', 2, 3)]).toEqual([
    'cut cut',
    'cut -',
    'seen -',
    '- -',
  ]);
  expect([on('SLAB', -0.2, 0), on('SLAB', 3.3, 3.55), on('SLAB', 6.8, 7)]).toEqual(['seen -', '- seen', '- -']);
  expect([on('BEAM', 3, 3.5), on('BEAM', -0.5, 0), on('BEAM', 6.5, 7), on('ROOM', 0, 0.5)]).toEqual([
    'seen -',
    'seen -',
    '- seen',
    '- -',
  ]);
});

test('a door\u2019s leaf is as wide as its opening, hung where it says, and opens to where its y points', () => {
  const outline: Point[] = [
    [3, 1],
    [3.9, 1],
    [3.9, 1.2],
    [3, 1.2],
  ];
  const swing = { origin: [3, 1.1], along: [1, 0], towards: [0, 1] } as const;
  const [left] = leavesOf(outline, { ...swing, leaves: 'begin' });
  expect([left.hinge, left.end]).toEqual([
    [3, expect.closeTo(1.1, 9)],
    [3, expect.closeTo(2, 9)],
  ]);
  expect([left.radius, left.from, left.to]).toEqual([0.9, 0, 90].map((value) => expect.closeTo(value, 9)));
  const [right] = leavesOf(outline, { ...swing, leaves: 'end' });
  expect([right.hinge[0], right.from, right.to]).toEqual([3.9, 90, 180].map((value) => expect.closeTo(value, 9)));
  // Turned half round it opens downwards.
  const [turned] = leavesOf(outline, { origin: [3.9, 1.1], along: [-1, 0], towards: [0, -1], leaves: 'begin' });
  expect([turned.hinge, turned.end]).toEqual([
    [expect.closeTo(3.9, 9), expect.closeTo(1.1, 9)],
    [expect.closeTo(3.9, 9), expect.closeTo(0.2, 9)],
  ]);
  const both = leavesOf(outline, { ...swing, leaves: 'both' });
  expect(both.map(({ radius }) => radius)).toEqual([expect.closeTo(0.45, 9), expect.closeTo(0.45, 9)]);
});

test('columns of many chords are circles, holes of floors and names of rooms have layers of their own', () => {
  const plans = new Plans(planStoreys([{ name: 'Ground', elevation: 0, things: 1 }], () => undefined));
  const ring = Array.from({ length: 96 }, (_, i): Point => [
    5 + 0.225 * Math.cos((i * Math.PI) / 48),
    0.225 * Math.sin((i * Math.PI) / 48),
  ]);
  expect(plans.add({ kind: 'COLUMN', shells: [prism([ring], 0, 3)] })).toBe(1);
  const holed = prism(
    [
      [
        [0, 0],
        [4, 0],
        [4, 4],
        [0, 4],
      ],
      [
        [1, 1],
        [1, 2],
        [2, 2],
        [2, 1],
      ],
    ],
    -0.2,
    0,
  );
  plans.add({ kind: 'SLAB', shells: [holed] });
  plans.addRoom([box(0, 0, 4, 3, 0, 2.8)], ['0.04', 'Dry Lab']);
  const [{ marks }] = plans.plans;
  expect(marks.map(({ layer, shape }) => `${layer} ${shape}`)).toEqual([
    'COLUMN circle',
    'SLAB line',
    'SLAB OPENING line',
    'ROOM line',
    'ROOM TEXT text',
    'ROOM TEXT text',
  ]);
  expect(marks[0]).toEqual({
    layer: 'COLUMN',
    shape: 'circle',
    centre: [expect.closeTo(5, 9), expect.closeTo(0, 9)],
    radius: expect.closeTo(0.225, 9) as number,
  });
});

test('a room about a court has its name between the two', () => {
  const plans = new Plans(planStoreys([{ name: 'Ground', elevation: 0, things: 1 }], () => undefined));
  const ring = prism(
    [
      [
        [0, 0],
        [9, 0],
        [9, 9],
        [0, 9],
      ],
      [
        [2, 2],
        [2, 8],
        [8, 8],
        [8, 2],
      ],
    ],
    0,
    3,
  );
  expect(plans.addRoom([ring], ['Gallery'])).toBe(1);
  const [name] = plans.plans[0].marks.flatMap((mark) => (mark.shape === 'text' ? [mark.at] : []));
  const within = (low: number, high: number) => name.every((value) => value > low && value < high);
  expect([within(0, 9), within(2, 8)]).toEqual([true, false]);
});

test('a grid line has its label in a ring that touches each end, an arc in the direction that it would go on', () => {
  const rings = (axis: Parameters<typeof marksOf>[0]) =>
    marksOf(axis).flatMap((mark) => (mark.shape === 'circle' ? [mark.centre] : []));
  expect(
    rings({
      label: 'A',
      shape: 'line',
      points: [
        [0, 0],
        [0, 20],
      ],
    }),
  ).toEqual([
    [0, -0.5],
    [0, 20.5],
  ]);
  const [from, to] = rings({ label: 'R1', shape: 'arc', centre: [0, 0], radius: 9, from: 0, to: 90 });
  expect([from[0], from[1], to[0], to[1]]).toEqual([9, -0.5, -0.5, 9].map((value) => expect.closeTo(value, 9)));
});

test('a file of a building is known by how it begins', () => {
  expect(
    [bytes('ISO-10303-21;\nHEADER;'), bytes('\ufeffISO-10303-21;'), bytes('  0\nSECTION')].map(isBuilding),
  ).toEqual([true, true, false]);
});
