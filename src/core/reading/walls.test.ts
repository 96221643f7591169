import { asDrawn } from '@/core/datum/placement';
import { block, dxf, groups, insert, line, readText } from '@/core/drawing/testing/dxf';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import type { Candidate, OpeningCandidate, WallCandidate, ZoneCandidate } from './candidate';
import { read } from './read';
import { toleranceFor } from '@/core/patterns/settings';
import { Scene } from './scene';

const roles: Record<string, Role> = { W: 'wall', D: 'door', G: 'window', Z: 'zone', C: 'column' };

/** Reads metres: layer W walls, D doors, G windows, Z zones, C columns. */
function readPlan(entities: string, blocks = '') {
  const { drawing } = readText(dxf({ blocks, entities }));
  const { candidates, unread } = read({
    scene: new Scene(
      drawing,
      flatten(drawing),
      asDrawn('m'),
      drawing.layers.map((layer) => roles[layer.name] ?? null),
    ),
    tolerance: toleranceFor('m'),
  });
  const of = <T extends Candidate>(kind: T['kind']) => candidates.filter((c): c is T => c.kind === kind);
  return {
    walls: of<WallCandidate>('wall'),
    openings: of<OpeningCandidate>('opening'),
    zones: of<ZoneCandidate>('zone'),
    unread,
  };
}
const pair = (x1: number, y1: number, x2: number, y2: number, t: number, layer = 'W'): string => {
  const length = Math.hypot(x2 - x1, y2 - y1);
  const [nx, ny] = [(-(y2 - y1) / length) * (t / 2), ((x2 - x1) / length) * (t / 2)];
  return line(x1 + nx, y1 + ny, x2 + nx, y2 + ny, layer) + line(x1 - nx, y1 - ny, x2 - nx, y2 - ny, layer);
};
const closed = (points: number[][], layer = 'W') =>
  groups(
    [0, 'LWPOLYLINE'],
    [8, layer],
    [90, points.length],
    [70, 1],
    ...points.flatMap(([x, y]): [number, number][] => [
      [10, x],
      [20, y],
    ]),
  );
const box = (x1: number, y1: number, x2: number, y2: number, layer = 'W') =>
  closed(
    [
      [x1, y1],
      [x2, y1],
      [x2, y2],
      [x1, y2],
    ],
    layer,
  );
const text = (x: number, y: number, words: string, height = 0.3) =>
  groups([0, 'TEXT'], [8, 'Z'], [10, x], [20, y], [40, height], [1, words], [72, 1], [73, 2], [11, x], [21, y]);
const lines = (walls: WallCandidate[]) =>
  walls
    .map(
      ({ element: { start, end, thickness } }) =>
        [start, end]
          .map((p) => p.map((v) => Number(v.toFixed(3))).join(','))
          .sort()
          .join(' to ') + ` ${thickness}`,
    )
    .sort();
/** A room of 6 by 4 m by its centre lines, with walls of 0.2. */
const room = box(-0.1, -0.1, 6.1, 4.1) + box(0.1, 0.1, 5.9, 3.9);

describe('junctions', () => {
  test('two outlines within one another are four walls that share their corners exactly', () => {
    const { walls, unread } = readPlan(room);
    expect(lines(walls)).toEqual(['0,0 to 0,4 0.2', '0,0 to 6,0 0.2', '0,4 to 6,4 0.2', '6,0 to 6,4 0.2']);
    const nodes = new Set(walls.flatMap(({ element: { start, end } }) => [start, end].map((p) => p.join())));
    expect(nodes.size).toBe(4);
    expect(walls.every(({ element }) => element.outer)).toBe(true);
    expect(unread).toEqual([]);
  });

  test('a wall that ends on another parts it, at one node of all three', () => {
    const { walls } = readPlan(box(-0.1, -0.1, 6.1, 4.1) + box(0.1, 0.1, 2.95, 3.9) + box(3.05, 0.1, 5.9, 3.9));
    expect(lines(walls)).toEqual([
      '0,0 to 0,4 0.2',
      '0,0 to 3,0 0.2',
      '0,4 to 3,4 0.2',
      '3,0 to 3,4 0.1',
      '3,0 to 6,0 0.2',
      '3,4 to 6,4 0.2',
      '6,0 to 6,4 0.2',
    ]);
    expect(walls.find(({ element }) => element.thickness === 0.1)!.element.outer).toBe(false);
  });

  test('walls that cross, drawn through and drawn open, meet in the middle', () => {
    const through = readPlan(pair(0, 0, 6, 0, 0.2) + pair(3, -3, 3, 3, 0.2));
    const open = readPlan(
      pair(0, 0, 2.9, 0, 0.2) + pair(3.1, 0, 6, 0, 0.2) + pair(3, -3, 3, -0.1, 0.2) + pair(3, 0.1, 3, 3, 0.2),
    );
    for (const { walls } of [through, open])
      expect(lines(walls)).toEqual(['0,0 to 3,0 0.2', '3,-3 to 3,0 0.2', '3,0 to 3,3 0.2', '3,0 to 6,0 0.2']);
  });

  test('a skew wall of another thickness ends on the centre line', () => {
    // From (1, 2) down at 45 degrees to the wall along y = 0, whose face it meets at y = 0.15: the centre lines cross
    // at (3, 0).
    const { walls } = readPlan(pair(-2, 0, 8, 0, 0.3) + pair(1, 2, 2.85, 0.15, 0.1));
    expect(lines(walls)).toEqual(['-2,0 to 3,0 0.3', '1,2 to 3,0 0.1', '3,0 to 8,0 0.3']);
  });

  test('faces that stop a hair short of their corner still meet', () => {
    const { walls } = readPlan(
      line(-0.1, -0.1, 6.085, -0.1, 'W') +
        line(0.1, 0.1, 5.89, 0.1, 'W') +
        line(6.1, -0.08, 6.1, 4, 'W') +
        line(5.9, 0.115, 5.9, 4, 'W'),
    );
    const corner = walls
      .flatMap(({ element: { start, end } }) => [start, end])
      .filter((p, i, all) => all.findIndex((q) => q.join() === p.join()) !== i);
    expect(corner.map((p) => p.map((v) => Number(v.toFixed(3))))).toEqual([[6, 0]]);
  });
});

describe('what makes a wall', () => {
  test('doubled and broken faces are one, a thickness off by 2 mm is rounded', () => {
    const { walls } = readPlan(
      line(0, 0, 3, 0, 'W') +
        line(2, 0, 6, 0, 'W') +
        line(0, 0, 6, 0, 'W') +
        line(0, 0.198, 4, 0.198, 'W') +
        line(4.015, 0.198, 6, 0.198, 'W'),
    );
    expect(walls).toHaveLength(1);
    expect([walls[0].element.thickness, walls[0].raw.thickness]).toEqual([0.2, expect.closeTo(0.198, 6)]);
  });

  test('outer leaf, cavity and inner leaf are one wall', () => {
    const { walls } = readPlan([0, 0.115, 0.215, 0.365].map((y) => line(0, y, 8, y, 'W')).join(''));
    expect(walls.map(({ element: { thickness } }) => thickness)).toEqual([0.365]);
    expect(walls[0].evidence.map(({ text: words }) => words)).toContain(
      '2 lines between its faces: leaves of one wall',
    );
  });

  test('a cavity wall on whose inner face others end is one wall, although that face is in short pieces and its leaves go on', () => {
    // Outer face, two leaves and an inner face in pieces of 1.6 m between walls of 0.4, over 12 m.
    const pieces = Array.from({ length: 6 }, (_, i) =>
      line(2 * i + (i === 0 ? 0 : 0.2), 0.35, 2 * i + 1.8, 0.35, 'W'),
    ).join('');
    const across = Array.from(
      { length: 5 },
      (_, i) => line(2 * i + 1.8, 0.35, 2 * i + 1.8, 4, 'W') + line(2 * i + 2.2, 0.35, 2 * i + 2.2, 4, 'W'),
    ).join('');
    const { walls } = readPlan([0, 0.1, 0.25].map((y) => line(0, y, 12, y, 'W')).join('') + pieces + across);
    const along = walls.filter(({ element: { start, end } }) => start[1] === end[1]);
    expect(new Set(along.map(({ element: { thickness } }) => thickness))).toEqual(new Set([0.35]));
    expect(along.reduce((sum, { element: { start, end } }) => sum + Math.abs(end[0] - start[0]), 0)).toBeCloseTo(12, 6);
    expect(walls.length - along.length).toBe(5);
  });

  test('walls drawn as rectangles that end on others have the room between them, not an opening as wide as it', () => {
    // Two cross walls, 6 m apart, and in one line with one another a wall on either side of the room between them.
    const { walls, openings } = readPlan(
      box(3, -4, 3.2, 4) + box(9.2, -4, 9.4, 4) + box(0, -0.1, 3, 0.1) + box(9.4, -0.1, 12, 0.1),
    );
    expect(openings).toEqual([]);
    expect(lines(walls)).toEqual([
      '0,0 to 3.1,0 0.2',
      '12,0 to 9.3,0 0.2',
      '3.1,-4 to 3.1,0 0.2',
      '3.1,0 to 3.1,4 0.2',
      '9.3,-4 to 9.3,0 0.2',
      '9.3,0 to 9.3,4 0.2',
    ]);
  });

  test('fillings that overlap at a corner make no walls of their own there', () => {
    const { walls } = readPlan(
      room + box(-0.1, -0.1, 6, 0.1) + box(-0.1, 3.9, 6, 4.1) + box(-0.1, 0, 0.1, 4) + box(5.9, 0, 6.1, 4),
    );
    expect(lines(walls)).toEqual(['0,0 to 0,4 0.2', '0,0 to 6,0 0.2', '0,4 to 6,4 0.2', '6,0 to 6,4 0.2']);
  });

  test('two walls with a narrow shaft between them are two', () => {
    const { walls } = readPlan(pair(0, 0, 6, 0, 0.2) + pair(0, 0.7, 6, 0.7, 0.2));
    expect(walls.map(({ element: { thickness } }) => thickness)).toEqual([0.2, 0.2]);
  });

  test('a shelf beside a wall does not thicken it, and is told as not read', () => {
    const { walls, unread } = readPlan(pair(0, 0, 8, 0, 0.2) + line(2, 0.4, 4, 0.4, 'W'));
    expect(walls.map(({ element: { thickness } }) => thickness)).toEqual([0.2]);
    expect(unread.map(({ why }) => why)).toEqual(['a line without a second face']);
  });

  test('equal treads are a stair, not walls', () => {
    const { walls, unread } = readPlan(
      Array.from({ length: 10 }, (_, i) => line(i * 0.28, 0, i * 0.28, 1.2, 'W')).join(''),
    );
    expect(walls).toEqual([]);
    expect(unread.map(({ why }) => why)).toEqual(Array.from({ length: 10 }, () => 'equal steps, as of a stair'));
  });

  test('a wall broken by a column goes on', () => {
    const { walls } = readPlan(pair(0, 0, 3.8, 0, 0.2) + pair(4.2, 0, 8, 0, 0.2) + box(3.8, -0.2, 4.2, 0.2, 'C'));
    expect(lines(walls)).toEqual(['0,0 to 8,0 0.2']);
  });

  test('arcs about one centre are a curved wall with its bulge', () => {
    const arc = (r: number) => groups([0, 'ARC'], [8, 'W'], [10, 0], [20, 0], [40, r], [50, 0], [51, 90]);
    const { walls } = readPlan(arc(4.9) + arc(5.1));
    expect(walls[0].element).toMatchObject({
      thickness: 0.2,
      start: [expect.closeTo(5, 9), expect.closeTo(0, 9)],
      end: [expect.closeTo(0, 9), expect.closeTo(5, 9)],
      bulge: expect.closeTo(Math.tan(Math.PI / 8), 9),
    });
  });

  test('a curved wall meets straight ones at shared nodes, square on and going on, and bounds the room with them', () => {
    // An apse of radius 3 on the open side of a room of 6 by 4: its centre line starts at (6, 0) and ends at (0, 0),
    // bulging down.
    const arc = (r: number) => groups([0, 'ARC'], [8, 'W'], [10, 3], [20, 0], [40, r], [50, 180], [51, 0]);
    const open =
      pair(0, 0, 0, 4, 0.2) + line(-0.1, 4.1, 6.1, 4.1, 'W') + line(0.1, 3.9, 5.9, 3.9, 'W') + pair(6, 4, 6, 0, 0.2);
    const { walls, zones } = readPlan(open + arc(2.9) + arc(3.1) + text(3, 1, 'Chapel'));
    const bent = walls.find(({ element }) => element.bulge !== 0)!.element;
    const ends = new Set(
      walls
        .filter(({ element }) => element.bulge === 0)
        .flatMap(({ element: { start, end } }) => [start.join(), end.join()]),
    );
    expect([bent.start, bent.end].every((p) => ends.has(p.join()))).toBe(true);
    expect([bent.start, bent.end].map((p) => p.map((v) => Number(v.toFixed(6))))).toEqual([
      [0, 0],
      [6, 0],
    ]);
    expect([bent.bulge, bent.outer]).toEqual([expect.closeTo(1, 6), true]);
    // By inner faces: 5.8 by 3.9, and half a circle of radius 2.9.
    expect(zones.map(({ element }) => element.name)).toEqual(['Chapel']);
    expect(Math.abs(zones[0].areas.inner - (5.8 * 3.9 + (Math.PI * 2.9 ** 2) / 2))).toBeLessThan(0.05);
    expect(Math.abs(zones[0].areas.centre - (6 * 4 + (Math.PI * 9) / 2))).toBeLessThan(0.05);
  });

  test('a curved wall that ends on the face of a straight one parts it at their node', () => {
    const arc = (r: number) => groups([0, 'ARC'], [8, 'W'], [10, 4], [20, 0], [40, r], [50, 2], [51, 178]);
    const { walls } = readPlan(pair(-2, 0, 10, 0, 0.2) + arc(1.95) + arc(2.05));
    const straight = walls.filter(({ element }) => element.bulge === 0);
    expect(lines(straight)).toEqual(['-2,0 to 2,0 0.2', '10,0 to 6,0 0.2', '2,0 to 6,0 0.2']);
    const bent = walls.find(({ element }) => element.bulge !== 0)!.element;
    for (const p of [bent.start, bent.end])
      expect(
        straight.flatMap(({ element: { start, end } }) => [start, end]).filter((q) => q.join() === p.join()),
      ).toHaveLength(2);
    expect(bent.bulge).toBeCloseTo(1, 6);
  });

  test('a curved wall goes on across the windows drawn in it, which count along its centre line', () => {
    // A quarter of a circle of radius 5, open between 30 and 50 degrees, with three panes there.
    const arc = (r: number, from: number, to: number, layer = 'W') =>
      groups([0, 'ARC'], [8, layer], [10, 0], [20, 0], [40, r], [50, from], [51, to]);
    const panes = [4.9, 5, 5.1].map((r) => arc(r, 30, 50, 'G')).join('');
    const { walls, openings } = readPlan([4.9, 5.1].map((r) => arc(r, 0, 30) + arc(r, 50, 90)).join('') + panes);
    expect(walls).toHaveLength(1);
    expect(walls[0].element).toMatchObject({ thickness: 0.2, bulge: expect.closeTo(Math.tan(Math.PI / 8), 6) });
    // 30 degrees of a radius of 5 m are 2.618 m, 20 degrees 1.745 m.
    expect(openings).toMatchObject([
      {
        host: walls[0].key,
        element: {
          use: 'window',
          offset: expect.closeTo((5 * Math.PI) / 6, 4),
          width: expect.closeTo((5 * Math.PI) / 9, 4),
        },
      },
    ]);
    expect(Math.hypot(...openings[0].at)).toBeCloseTo(5, 1);
  });

  test('walls of two thicknesses in one line share the node between them', () => {
    const { walls } = readPlan(pair(0, 0, 4, 0, 0.3) + line(4, -0.15, 4, 0.15, 'W') + pair(4, 0, 8, 0, 0.1));
    expect(lines(walls)).toEqual(['0,0 to 4,0 0.3', '4,0 to 8,0 0.1']);
    const ends = walls.flatMap(({ element: { start, end } }) => [start.join(), end.join()]);
    expect(new Set(ends).size).toBe(3);
  });

  test('a leaf that runs on beyond short walls does not take their faces for furniture', () => {
    const { walls } = readPlan(pair(0, 0, 4, 0, 0.3) + pair(8, 0, 12, 0, 0.3) + line(0, 0.05, 28, 0.05, 'W'));
    expect(lines(walls)).toEqual(['0,0 to 4,0 0.3', '12,0 to 8,0 0.3']);
    // Two leaves that run on are no wall of their own.
    const two = readPlan(pair(0, 0, 4, 0, 0.3) + line(0, 0.05, 28, 0.05, 'W') + line(0, -0.05, 28, -0.05, 'W'));
    expect(lines(two.walls)).toContain('0,0 to 4,0 0.3');
  });

  test('a turned wing keeps its directions', () => {
    const [c, s] = [Math.cos((17 * Math.PI) / 180), Math.sin((17 * Math.PI) / 180)];
    const at = (x: number, y: number): [number, number] => [x * c - y * s, x * s + y * c];
    const { walls } = readPlan(
      pair(...at(0, 0), ...at(5, 0), 0.2) + pair(...at(5, 0), ...at(5, 4), 0.2) + pair(20, 0, 30, 0, 0.2),
    );
    expect(walls).toHaveLength(3);
    const corner = at(5, 0);
    expect(
      walls.filter(({ element: { start, end } }) =>
        [start, end].some((p) => Math.hypot(p[0] - corner[0], p[1] - corner[1]) < 1e-6),
      ),
    ).toHaveLength(2);
  });
});

describe('openings', () => {
  const wall = (from: number, to: number) =>
    line(0, 0.1, from, 0.1, 'W') +
    line(to, 0.1, 8, 0.1, 'W') +
    line(0, -0.1, from, -0.1, 'W') +
    line(to, -0.1, 8, -0.1, 'W');
  const jambs = (from: number, to: number) => line(from, -0.1, from, 0.1, 'W') + line(to, -0.1, to, 0.1, 'W');

  test('a door drawn loose, as a block, or not at all: its width is the gap\u2019s', () => {
    const loose =
      groups([0, 'ARC'], [8, 'D'], [10, 3], [20, 0.1], [40, 0.9], [50, 0], [51, 90]) + line(3, 0.1, 3, 1, 'D');
    const frame = block(
      'D9',
      groups([0, 'ARC'], [8, '0'], [10, 0], [20, 0], [40, 0.9], [50, 0], [51, 90]) + line(0, 0, 0, 0.9),
    );
    for (const [entities, blocks, doubt] of [
      [loose, '', null],
      [insert('D9', 3, 0.1, [], 'D'), frame, null],
      ['', '', 'no leaf drawn'],
    ] as const) {
      const { walls, openings } = readPlan(wall(3, 3.9) + jambs(3, 3.9) + entities, blocks);
      expect(lines(walls)).toEqual(['0,0 to 8,0 0.2']);
      expect(openings).toMatchObject([
        {
          element: { use: 'door', offset: 3, width: expect.closeTo(0.9, 9), height: 2.1, sill: 0 },
          host: walls[0].key,
          doubt,
        },
      ]);
    }
  });

  test('a window of three lines across the gap, with its sill by default', () => {
    const { openings } = readPlan(
      wall(2, 3.8) + jambs(2, 3.8) + [-0.1, 0, 0.1].map((y) => line(2, y, 3.8, y, 'G')).join(''),
    );
    expect(openings).toMatchObject([
      { element: { use: 'window', offset: 2, width: expect.closeTo(1.8, 9), sill: 0.9, height: 1.2 } },
    ]);
  });

  test('a window or a door drawn over faces that go on is an opening as wide as it is drawn, and doubted', () => {
    const over =
      [-0.03, 0.03].map((y) => line(2, y, 3.6, y, 'G')).join('') +
      line(2, -0.1, 2, 0.1, 'G') +
      line(3.6, -0.1, 3.6, 0.1, 'G');
    const leaf =
      groups([0, 'ARC'], [8, 'D'], [10, 5], [20, 0.1], [40, 0.9], [50, 0], [51, 90]) + line(5, 0.1, 5, 1, 'D');
    const { walls, openings } = readPlan(pair(0, 0, 8, 0, 0.2) + over + leaf);
    expect(lines(walls)).toEqual(['0,0 to 8,0 0.2']);
    expect(
      openings.map(({ element: { use, offset, width }, doubt }) => [
        use,
        Number(offset.toFixed(6)),
        Number(width.toFixed(6)),
        doubt,
      ]),
    ).toEqual([
      ['window', 2, 1.6, 'faces go on'],
      ['door', 5, 0.9, 'faces go on'],
    ]);
  });

  test('sill and height are what is written beside an opening, else by default', () => {
    const window = wall(2, 3.8) + jambs(2, 3.8) + line(2, 0, 3.8, 0, 'G');
    const beside = (words: string) =>
      groups(
        [0, 'TEXT'],
        [8, 'G'],
        [10, 2.9],
        [20, 0.5],
        [40, 0.2],
        [1, words],
        [72, 1],
        [73, 2],
        [11, 2.9],
        [21, 0.5],
      );
    expect(
      readPlan(window + beside('BRH 75, H=1500')).openings.map(({ element: { sill, height } }) => [sill, height]),
    ).toEqual([[0.75, 1.5]]);
    expect(
      readPlan(window + beside('sill 0.6 head 2.4')).openings.map(({ element: { sill, height } }) => [sill, height]),
    ).toEqual([[0.6, 1.8]]);
    expect(readPlan(window + beside('Office')).openings.map(({ element: { sill, height } }) => [sill, height])).toEqual(
      [[0.9, 1.2]],
    );
  });

  test('a leaf that leans on another wall opens nothing there, and a door beside any wall is told as not read', () => {
    // The door stands in the gap of the upright wall and swings against the other, 0.12 m away.
    const upright =
      line(-0.1, 0.1, -0.1, 0.2, 'W') +
      line(0.1, 0.1, 0.1, 0.2, 'W') +
      line(-0.1, 1.1, -0.1, 4, 'W') +
      line(0.1, 1.1, 0.1, 4, 'W') +
      line(-0.1, 0.2, 0.1, 0.2, 'W') +
      line(-0.1, 1.1, 0.1, 1.1, 'W');
    const swung =
      groups([0, 'ARC'], [8, 'D'], [10, 0.1], [20, 0.2], [40, 0.9], [50, 0], [51, 90]) + line(0.1, 0.2, 1, 0.2, 'D');
    const { openings, unread } = readPlan(
      pair(-1, 0, 6, 0, 0.2) + upright + swung + line(3, 2, 3.9, 2, 'D') + line(3, 2, 3, 2.9, 'D'),
    );
    expect(openings).toHaveLength(1);
    expect(unread.filter(({ role }) => role === 'door').map(({ why }) => why)).toEqual([
      'a door that stands in no wall',
      'a door that stands in no wall',
    ]);
  });

  test('a gap without jambs and without anything in it parts two walls', () => {
    expect(lines(readPlan(wall(3, 4.5)).walls)).toEqual(['0,0 to 3,0 0.2', '4.5,0 to 8,0 0.2']);
  });

  test('an opening is counted from the node at which its wall begins', () => {
    const { walls, openings } = readPlan(
      line(0, 0.1, 1.9, 0.1, 'W') +
        line(2.1, 0.1, 5, 0.1, 'W') +
        line(5.9, 0.1, 8, 0.1, 'W') +
        line(0, -0.1, 5, -0.1, 'W') +
        line(5.9, -0.1, 8, -0.1, 'W') +
        jambs(5, 5.9) +
        pair(2, 0.1, 2, 4, 0.2),
    );
    const host = walls.find(({ key }) => key === openings[0].host)!;
    expect([host.element.start, openings[0].element.offset]).toEqual([[2, 0], expect.closeTo(3, 9)]);
  });
});

describe('zones', () => {
  test('a room has its inner area, and its areas by centre lines and outer faces', () => {
    const { zones } = readPlan(
      room + text(3, 2.3, 'Dry Lab') + text(3, 1.6, '0.06', 0.2) + text(3, 1.2, '22.0 m2', 0.2),
    );
    expect(zones).toHaveLength(1);
    expect(zones[0].element).toMatchObject({ name: 'Dry Lab', number: '0.06', holes: [] });
    // 5.8 by 3.8, 6 by 4, 6.2 by 4.2.
    expect(zones[0].areas).toEqual({
      inner: expect.closeTo(22.04, 6),
      centre: expect.closeTo(24, 6),
      outer: expect.closeTo(26.04, 6),
    });
    expect(zones[0].doubt).toBeNull();
  });

  test('a door between two rooms does not make them one', () => {
    const inner =
      box(0.1, 0.1, 2.95, 3.9).length > 0
        ? line(2.95, 0.1, 2.95, 1.5, 'W') +
          line(2.95, 2.4, 2.95, 3.9, 'W') +
          line(3.05, 0.1, 3.05, 1.5, 'W') +
          line(3.05, 2.4, 3.05, 3.9, 'W') +
          line(2.95, 1.5, 3.05, 1.5, 'W') +
          line(2.95, 2.4, 3.05, 2.4, 'W')
        : '';
    const { zones, openings } = readPlan(room + inner + text(1.5, 2, 'Store') + text(4.5, 2, 'Office'));
    expect(zones.map(({ element, areas }) => [element.name, Number(areas.inner.toFixed(3))]).sort()).toEqual(
      [
        ['Office', 2.85 * 3.8],
        ['Store', 2.85 * 3.8],
      ].map(([name, size]) => [name, Number((size as number).toFixed(3))]),
    );
    expect(openings).toHaveLength(1);
  });

  test('a stub of a wall beside a door parts two rooms though one of its faces is not drawn, and is doubted', () => {
    const wall = pair(3, 1.4, 3, 3.9, 0.1) + line(2.95, 1.4, 3.05, 1.4, 'W');
    const leaf = line(3.05, 0.5, 3.95, 0.5, 'D');
    const stub = line(2.95, 0.1, 2.95, 0.5, 'W');
    const names = text(1.5, 2, 'Store') + text(4.5, 2, 'Office');
    const found = readPlan(room + wall + leaf + stub + line(2.95, 0.5, 3.05, 0.5, 'W') + names);
    expect(found.zones.map(({ element }) => element.name).sort()).toEqual(['Office', 'Store']);
    expect(found.openings.map(({ element }) => element.width)).toEqual([0.9]);
    const doubted = found.walls.filter(({ doubt }) => doubt === 'a face missing');
    expect(doubted.map(({ element: { start, end } }) => [start, end].flat().map((v) => Number(v.toFixed(2))))).toEqual([
      [3, 0, 3, 4],
    ]);
    // Without the jamb nothing tells how thick it would be.
    expect(readPlan(room + wall + leaf + stub + names).zones).toHaveLength(1);
  });

  test('one face alone is no wall where a window is drawn, and none where it ends free', () => {
    const outer = line(0, -0.1, 6, -0.1, 'W');
    const inner = line(0, 0.1, 2, 0.1, 'W') + line(2.5, 0.1, 6, 0.1, 'W') + line(2, -0.1, 2, 0.1, 'W');
    const { openings } = readPlan(outer + inner + line(2, 0, 2.5, 0, 'G'));
    expect(openings.map(({ element }) => element.width)).toEqual([0.5]);
    const free = line(4, -0.1, 4.5, -0.1, 'W') + line(4, -0.1, 4, 0.1, 'W');
    expect(lines(readPlan(pair(0, 0, 3, 0, 0.2) + line(3, -0.1, 3, 0.1, 'W') + free).walls)).toEqual([
      '0,0 to 3,0 0.2',
    ]);
  });

  test('a core that stands free in a hall is a hole in it, and a room of its own', () => {
    const hall = box(-0.1, -0.1, 12.1, 9.1) + box(0.1, 0.1, 11.9, 8.9);
    const core = box(4.9, 2.9, 8.1, 6.1) + box(5.1, 3.1, 7.9, 5.9);
    const { zones } = readPlan(hall + core + text(2, 2, 'Hall') + text(6.5, 4.5, 'Core'));
    const byName = new Map(zones.map((zone) => [zone.element.name, zone]));
    expect(byName.get('Hall')!.element.holes).toHaveLength(1);
    expect(byName.get('Hall')!.areas.inner).toBeCloseTo(11.8 * 8.8 - 3.2 * 3.2, 6);
    expect(byName.get('Core')!.areas.inner).toBeCloseTo(2.8 * 2.8, 6);
  });

  test('a wall that ends free in a room does not part it, and a room without a name is doubted', () => {
    const { zones, walls } = readPlan(room + pair(2, 0.1, 2, 2, 0.1) + line(1.95, 2, 2.05, 2, 'W'));
    expect(walls).toHaveLength(6);
    expect(zones.map(({ doubt, areas }) => [doubt, Number(areas.inner.toFixed(2))])).toEqual([['no name', 22.04]]);
  });

  test('an outline drawn on the zone layer comes before the walls round it; a written area that is another room\u2019s is doubted', () => {
    const { zones } = readPlan(
      room + box(0.1, 0.1, 5.9, 3.9, 'Z') + text(3, 2, 'Archive') + text(3, 1, '48.0 m2', 0.2),
    );
    expect(zones.map(({ element, doubt }) => [element.name, doubt])).toEqual([['Archive', 'written area differs']]);
  });
});
