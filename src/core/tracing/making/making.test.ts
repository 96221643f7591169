import { area } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import type { Beam } from '@/core/kinds/beam';
import type { Opening } from '@/core/kinds/opening';
import { applied, beam, column, door, gridLine, idsFrom, levelId, planOf, refused, uuid, wall } from '../testing/plan';
import { beamBetween, beamsAlongGrid, beamsBetweenSupports } from './beams';
import { columnAt, columnOfOutline, columnsAlong, columnsAtCrossings } from './columns';
import { gridArc, gridBySpacings, gridCopied, gridLine as oneLine } from './grids';
import { makeElements } from './made';
import { openingAt, openingFrom, openingsSpaced } from './openings';
import { buildingOutlines, dividedBy, regionAt } from './rooms';
import { wallChain } from './walls';

const rounded = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(9)) + 0 : v)));
const likeColumn = column(0, [0, 0]).shape;
const likeBeam: Beam = beam(0, [0, 0], [1, 0]).shape;
const likeDoor: Opening = { ...door(0, 1, 0).shape, width: 0.9 };
const place = (first = 50) => ({ levelId, newId: idsFrom(first) });

describe('grid lines', () => {
  test('by spacings stand where sums of spacings say, numbers up and letters across, in axes that are turned', () => {
    const lines = gridBySpacings(planOf(), [10, 20], { across: [5.4, 6], up: [7], axes: 0 });
    expect(lines.map(({ label }) => label)).toEqual(['1', '2', '3', 'A', 'B']);
    expect(lines[2]).toMatchObject({ start: [21.4, 18.5], end: [21.4, 28.5] });
    expect(lines[4]).toMatchObject({ start: [8.5, 27], end: [22.9, 27] });
    const turned = gridBySpacings(planOf(), [0, 0], { across: [5], up: [], axes: Math.PI / 2 });
    // A quarter turn: what ran up runs to the left, 5 m further up.
    expect(rounded(turned[1])).toMatchObject({ start: [1.5, 5], end: [-1.5, 5] });
  });

  test('labels that are taken are left out; copies lie on the side that is pointed at', () => {
    const model = planOf(gridLine(1, 'A', [0, 0], [10, 0]));
    expect(oneLine(model, [0, 3], [10, 3], 0).label).toBe('B');
    expect(oneLine(model, [0, 3], [0, 9], 0).label).toBe('1');
    const copies = gridCopied(model, model.element[uuid(1)].shape as never, [4, 5], [3, -1]);
    expect(rounded(copies)).toMatchObject([
      { label: 'B', start: [0, -4], end: [10, -4] },
      { label: 'C', start: [0, -9], end: [10, -9] },
    ]);
  });

  test('an arc runs counter-clockwise from its first point; one without a radius is refused', () => {
    expect(gridArc(planOf(), [1, 1], [4, 1], [1, 9])).toMatchObject({
      ok: true,
      value: { radius: 3, startAngle: 0, endAngle: 90 },
    });
    expect(refused(gridArc(planOf(), [1, 1], [1, 1], [1, 9]))).toMatch(/no radius/);
    expect(refused(gridArc(planOf(), [1, 1], [4, 1], [9, 1]))).toMatch(/another direction/);
  });
});

describe('columns', () => {
  const grid = [
    gridLine(1, '1', [0, -1], [0, 9]),
    gridLine(2, '2', [6, -1], [6, 9]),
    gridLine(3, 'A', [-1, 0], [9, 0]),
    gridLine(4, 'B', [-1, 5], [9, 5]),
  ];

  test('come to all crossings in a box where none stands yet', () => {
    const model = planOf(...grid, column(5, [6, 0]));
    const at = columnsAtCrossings(
      model,
      levelId,
      [
        [7, 6],
        [-1, -1],
      ],
      likeColumn,
    ).map(({ position }) => position);
    expect(at.sort()).toEqual([
      [0, 0],
      [0, 5],
      [6, 5],
    ]);
    applied(
      model,
      makeElements(
        model,
        at.map((position) => ({ kind: 'column', shape: { ...likeColumn, position } })),
        place(),
      ),
    );
    expect(
      columnsAtCrossings(
        model,
        levelId,
        [
          [7, 6],
          [-1, -1],
        ],
        likeColumn,
      ),
    ).toEqual([]);
  });

  test('turn with the grid that they stand on', () => {
    const model = planOf(gridLine(1, 'W', [0, 0], [10 * Math.cos(0.3), 10 * Math.sin(0.3)]));
    const { rotation } = columnAt(model, [5 * Math.cos(0.3), 5 * Math.sin(0.3)], likeColumn);
    expect(rotation).toBeCloseTo((0.3 * 180) / Math.PI, 9);
    expect(columnAt(model, [50, 50], likeColumn).rotation).toBe(0);
  });

  test('stand along a line in equal steps; of an outline they have its centre and its area', () => {
    expect(columnsAlong([0, 0], [0, 9], 4, likeColumn).map(({ position }) => position[1])).toEqual([0, 3, 6, 9]);
    // An L of 1 by 1 without a quarter: its centre of area lies at 5/12 from its corner.
    const shape = columnOfOutline(
      [
        [0, 0],
        [1, 0],
        [1, 0.5],
        [0.5, 0.5],
        [0.5, 1],
        [0, 1],
      ],
      likeColumn,
    );
    expect(rounded(shape.position)).toEqual(rounded([5 / 12, 5 / 12]));
    expect(Math.abs(area((shape.section as { outline: Point[] }).outline))).toBeCloseTo(0.75, 12);
  });

  test('a column on a column, and one of no level are refused with the reason', () => {
    const model = planOf(column(1, [0, 0]));
    const shape = { kind: 'column', shape: likeColumn } as const;
    expect(refused(makeElements(model, [shape], place()))).toMatch(/stands there already/);
    const away = { kind: 'column', shape: { ...likeColumn, position: [3, 3] } } as const;
    expect(refused(makeElements(model, [away, away], place()))).toMatch(/stands there already/);
    expect(refused(makeElements(model, [away], { ...place(), levelId: uuid(777) }))).toMatch(/no level/);
  });
});

describe('beams', () => {
  const plan = () =>
    planOf(
      gridLine(1, 'A', [-1, 0], [20, 0]),
      gridLine(2, '1', [0, -1], [0, 20]),
      column(3, [0, 0]),
      column(4, [6, 0]),
      column(5, [12, 0]),
      column(6, [0, 5]),
    );

  test('run along grid lines between neighbouring columns in a box, each once', () => {
    const model = plan();
    const beams = beamsBetweenSupports(
      model,
      levelId,
      [
        [-1, -1],
        [7, 6],
      ],
      likeBeam,
      'centres',
    );
    expect(beams.map(({ start, end }) => [start, end])).toEqual([
      [
        [0, 0],
        [6, 0],
      ],
      [
        [0, 0],
        [0, 5],
      ],
    ]);
    applied(
      model,
      makeElements(
        model,
        beams.map((shape) => ({ kind: 'beam', shape })),
        place(),
      ),
    );
    const rest = beamsAlongGrid(model, levelId, uuid(1), likeBeam, 'centres');
    expect(rest.map(({ start, end }) => [start, end])).toEqual([
      [
        [6, 0],
        [12, 0],
      ],
    ]);
  });

  test('end at the faces of their columns where that is asked for: 0.2 m from the middle of 400 by 400', () => {
    const { start, end } = beamBetween(
      plan(),
      levelId,
      [
        [0, 0],
        [6, 0],
      ],
      likeBeam,
      'faces',
    );
    expect(rounded([start, end])).toEqual([
      [0.2, 0],
      [5.8, 0],
    ]);
  });
});

describe('walls', () => {
  const chain = {
    points: [
      [0, 0],
      [6, 0],
      [6, 4],
    ] as Point[],
    bulges: [0, 0, 0],
  };

  test('share their nodes exactly; drawn along a face their middle lies half a thickness beside it', () => {
    const like = wall(0, [0, 0], [1, 0]).shape;
    const made = wallChain(chain, false, like, 'right face');
    expect(rounded(made)).toMatchObject({
      value: [
        { start: [0, 0.1], end: [5.9, 0.1] },
        { start: [5.9, 0.1], end: [5.9, 4] },
      ],
    });
    expect(made.ok && made.value[0].end === made.value[1].start).toBe(true);
    const closed = wallChain({ points: [...chain.points, [0, 4]], bulges: [0, 0, 0, 0] }, true, like, 'centre line');
    expect(closed.ok && closed.value).toHaveLength(4);
  });
});

describe('openings', () => {
  const host = wall(1, [0, 0], [6, 0]);

  test('lie about a point, at a distance from the nearer node, or equally spaced', () => {
    expect(openingAt(host, [2, 0.1], likeDoor)).toMatchObject({ value: { offset: 1.55, wall: uuid(1) } });
    expect(openingAt(host, [0.1, 0], likeDoor)).toMatchObject({ value: { offset: 0 } });
    expect(openingFrom(host, [1, 0], 0.3, likeDoor)).toMatchObject({ value: { offset: 0.3 } });
    // 6 - 0.3 - 0.9 from the start.
    expect(rounded(openingFrom(host, [5, 0], 0.3, likeDoor))).toMatchObject({ value: { offset: 4.8 } });
    // Three of 0.9 leave 3.3 m for four stretches of wall.
    expect(rounded(openingsSpaced(host, 3, likeDoor))).toMatchObject({
      value: [{ offset: 0.825 }, { offset: 2.55 }, { offset: 4.275 }],
    });
  });

  test('wider than their wall, not fitting, or over another are refused', () => {
    expect(refused(openingAt(host, [2, 0], { ...likeDoor, width: 7 }))).toMatch(/narrower/);
    expect(refused(openingFrom(host, [1, 0], 5.5, likeDoor))).toMatch(/does not fit/);
    expect(refused(openingsSpaced(host, 7, likeDoor))).toMatch(/do not fit/);
    const model = planOf(host, door(2, 1, 2));
    const over = { ...likeDoor, wall: uuid(1), offset: 2.5 };
    expect(refused(makeElements(model, [{ kind: 'opening', shape: over }], place()))).toMatch(/would lie over/);
  });
});

describe('rooms', () => {
  const walls = (gap = 0) => [
    wall(1, [0, 0], [6, 0]),
    wall(2, [6, 0], [6, 4]),
    wall(3, [6, 4], [0, 4]),
    wall(4, [0, 4], [0, gap]),
    // A partition that ends on two walls between their nodes.
    wall(5, [2, 0], [2, 4], { thickness: 0.1 }),
  ];

  test('are what walls bound, by inner faces, with walls that end on others between their nodes', () => {
    const found = regionAt(planOf(...walls()), levelId, [4, 2], 0.01);
    // From 2.05 to 5.9, and from 0.1 to 3.9.
    expect(found.kind === 'region' && Math.abs(area(found.region.outline))).toBeCloseTo(3.85 * 3.8, 9);
  });

  test('what stands free inside is a hole', () => {
    const island = [
      wall(11, [3, 1], [5, 1]),
      wall(12, [5, 1], [5, 3]),
      wall(13, [5, 3], [3, 3]),
      wall(14, [3, 3], [3, 1]),
    ];
    const found = regionAt(planOf(...walls(), ...island), levelId, [2.5, 2], 0.01);
    expect(
      found.kind === 'region' && found.region.holes.map((hole) => Number(Math.abs(area(hole)).toFixed(9))),
    ).toEqual([4.84]);
  });

  test('a leak is told where it is and how wide, and closed within the tolerance', () => {
    const model = planOf(...walls(0.3));
    const leak = regionAt(model, levelId, [1, 2], 0.1);
    expect(leak.kind === 'leak' && rounded([leak.from, leak.to].sort())).toEqual([
      [0, 0],
      [0, 0.3],
    ]);
    expect(leak.kind === 'leak' && leak.width).toBeCloseTo(0.3, 9);
    expect(regionAt(model, levelId, [1, 2], 0.4).kind).toBe('region');
    expect(regionAt(model, levelId, [30, 2], 0.4).kind).toBe('open');
  });

  test('of several gaps the one is told that opens the room that is asked for', () => {
    const beside = [
      wall(21, [10, 0], [14, 0]),
      wall(22, [14, 0], [14, 4]),
      wall(23, [14, 4], [10, 4]),
      wall(24, [10, 4], [10, 0.5]),
    ];
    const model = planOf(...walls(0.3), ...beside);
    const widthAt = (p: Point) => {
      const found = regionAt(model, levelId, p, 0.1);
      return found.kind === 'leak' ? Number(found.width.toFixed(9)) : found.kind;
    };
    expect([widthAt([1, 2]), widthAt([12, 2]), widthAt([30, 2]), widthAt([4, 2])]).toEqual([
      0.3,
      0.5,
      'open',
      'region',
    ]);
  });

  test('the outline of the building runs along its outer faces', () => {
    const [outline, ...more] = buildingOutlines(planOf(...walls()), levelId);
    expect(more).toEqual([]);
    expect(Math.abs(area(outline))).toBeCloseTo(6.2 * 4.2, 9);
  });

  test('an outline is divided by a line that crosses it once, the left part first', () => {
    const ring: Point[] = [
      [0, 0],
      [6, 0],
      [6, 4],
      [0, 4],
    ];
    const parts = dividedBy(ring, [2, -1], [2, 5])!;
    expect(parts.map((part) => Math.abs(area(part)))).toEqual([8, 16]);
    expect(dividedBy(ring, [2, 1], [2, 3])).toBeNull();
    expect(Math.max(...parts.flat().map((p) => distance(p, [3, 2])))).toBeLessThan(4);
  });
});
