import { area } from '@/core/geometry/polygon';
import { asDrawn } from '@/core/datum/placement';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import { firstNumberOf, sizeOf } from './beams/marks';
import { scheduled, scheduleRows } from './beams/schedule';
import type { BeamCandidate, Candidate, OutdoorCandidate, SlabCandidate } from './candidate';
import { read } from './read';
import { Scene } from './scene';
import { defaultSettings, toleranceFor } from '@/core/patterns/settings';
import { offsetOutline } from './slabs/readSlabs';

const roles: Record<string, Role> = {
  B: 'beam',
  C: 'column',
  S: 'slab',
  V: 'slabOpening',
  O: 'outdoor',
  'C-FENCE': 'outdoor',
  W: 'wall',
  T: 'label',
};

/** Reads metres from layers named by their role's letter. */
function readPlan(entities: string, settings = defaultSettings) {
  const { drawing } = readText(dxf({ entities }));
  const { candidates, unread } = read({
    scene: new Scene(
      drawing,
      flatten(drawing),
      asDrawn('m'),
      drawing.layers.map((layer) => roles[layer.name] ?? null),
    ),
    tolerance: toleranceFor('m'),
    settings,
  });
  const of = <T extends Candidate>(kind: T['kind']) => candidates.filter((c): c is T => c.kind === kind);
  return {
    beams: of<BeamCandidate>('beam'),
    slabs: of<SlabCandidate>('slab'),
    outdoor: of<OutdoorCandidate>('outdoor'),
    unread,
  };
}
const closed = (points: number[][], layer: string) =>
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
const open = (points: number[][], layer: string) =>
  groups(
    [0, 'LWPOLYLINE'],
    [8, layer],
    [90, points.length],
    [70, 0],
    ...points.flatMap(([x, y]): [number, number][] => [
      [10, x],
      [20, y],
    ]),
  );
const box = (x1: number, y1: number, x2: number, y2: number, layer: string) =>
  closed(
    [
      [x1, y1],
      [x2, y1],
      [x2, y2],
      [x1, y2],
    ],
    layer,
  );
const column = (x: number, y: number) => box(x - 0.2, y - 0.2, x + 0.2, y + 0.2, 'C');
const text = (x: number, y: number, words: string, layer = 'B', angle = 0) =>
  groups(
    [0, 'TEXT'],
    [8, layer],
    [10, x],
    [20, y],
    [40, 0.2],
    [1, words],
    [50, angle],
    [72, 1],
    [73, 2],
    [11, x],
    [21, y],
  );
const ends = ({ element: { start, end } }: BeamCandidate) =>
  [start, end].map((p) => p.map((v) => Number(v.toFixed(3)) + 0).join()).sort();

describe('sizes in marks', () => {
  test.each([
    ['300x600', 0.3, 0.6],
    ['B4 300 x 600', 0.3, 0.6],
    ['30/60', 0.3, 0.6],
    ['0.30x0.60', 0.3, 0.6],
    ['250\u00d7500', 0.25, 0.5],
  ])('%s is %d by %d m', (words, width, depth) => {
    expect(sizeOf(words)).toEqual({ width, depth });
  });
  test.each(['B4', '1:100', '5400', '3/8', '9000x12000'])('%s is none', (words) => {
    expect(sizeOf(words)).toBeNull();
  });
  test('a third number is the walls of a hollow section, in millimetres, unless they would fill it', () => {
    expect(sizeOf('H4 200x100x8')).toEqual({ width: 0.2, depth: 0.1, wall: 0.008 });
    expect(sizeOf('200x100x6.3')).toEqual({ width: 0.2, depth: 0.1, wall: 0.0063 });
    expect(sizeOf('200x100x60')).toEqual({ width: 0.2, depth: 0.1 });
  });

  test('without a unit it is in the one that fits what is drawn, in inches else only where the drawing is', () => {
    expect(sizeOf('8x14', 0.2032)).toEqual({ width: 0.2032, depth: 0.3556 });
    expect(sizeOf('30x60', 0.3)).toEqual({ width: 0.3, depth: 0.6 });
    expect(sizeOf('8x14', null, 'ft')).toEqual({ width: 0.2032, depth: 0.3556 });
    expect(sizeOf('4 1/2 x 9', null, 'in')).toEqual({ width: 0.1143, depth: 0.2286 });
    expect(sizeOf('30x60', null, 'cm')).toEqual({ width: 0.3, depth: 0.6 });
    // A fraction of an inch is no size in a metric drawing.
    expect(sizeOf('3/8', null, 'mm')).toBeNull();
  });

  test.each([0, 90, 197])(
    'a schedule gives sizes by mark and by the letters that begin it, turned by %p degrees',
    (turn) => {
      const angle = (turn * Math.PI) / 180;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const at = (x: number, y: number, words: string) => ({
        text: words,
        at: [x * c - y * s, x * s + y * c] as [number, number],
        height: 0.2,
        angle,
        handle: '',
        entity: 0,
        layer: 0,
      });
      const texts = [
        at(0, 0, 'B1'),
        at(2, 0.02, '300x600'),
        at(0, -0.5, 'RB'),
        at(2, -0.5, '20/45'),
        at(0, -1, 'B9'),
        at(2, -1.6, '400x800'),
      ];
      const sheets = [{ sheet: null, rows: scheduleRows(texts) }];
      expect(['B1', 'RB7', 'B9'].map((name) => scheduled(name, sheets)[0]?.words)).toEqual([
        '300x600',
        '20/45',
        undefined,
      ]);
    },
  );

  /** A sheet of rows of texts, two metres from cell to cell. */
  const sheetOf = (sheet: string | null, ...rows: string[][]) => ({
    sheet,
    rows: scheduleRows(
      rows.flatMap((cells, y) =>
        cells.map((words, x) => ({
          text: words,
          at: [2 * x, -y] as [number, number],
          height: 0.2,
          angle: 0,
          handle: '',
          entity: 0,
          layer: 0,
        })),
      ),
    ),
  });

  test('a mark is followed from the plan over its type and its section to the sheet that gives the size', () => {
    const sheets = [
      sheetOf(null, ['T14', 'Type R']),
      sheetOf('S-201', ['Type R', 'C-C']),
      sheetOf('S-301', ['Section C', '300x600']),
    ];
    expect(scheduled('T14', sheets)).toEqual([
      {
        words: '300x600',
        hops: ['T14 in the schedule: Type R', 'R in S-201: C-C', 'C in S-301: 300x600'],
      },
    ]);
  });

  test('sheets that say different sizes are all told, and rows that lead round in a ring say none', () => {
    const both = scheduled('B2', [sheetOf('S-201', ['B2', '300x600']), sheetOf('S-202', ['B2', '250x600'])]);
    expect(both.map(({ words }) => words)).toEqual(['300x600', '250x600']);
    expect(scheduled('B2', [sheetOf(null, ['B2', 'Type A'], ['Type A', 'Type D'], ['Type D', 'Type A'])])).toEqual([]);
  });

  test('of another plan only tables count: a size on the line of a mark may be that of another beam', () => {
    const at = (x: number, y: number, words: string) => ({
      text: words,
      at: [x, y] as [number, number],
      height: 0.2,
      angle: 0,
      handle: '',
      entity: 0,
      layer: 0,
    });
    const plan = [at(0, 0, 'B1'), at(6, 0, '250x500'), at(20, 7, 'B2'), at(22, 7, '300x600')];
    const table = [at(50, 0, 'B1'), at(52, 0, '300x600'), at(50, -0.4, 'B2'), at(52, -0.4, '250x500')];
    expect([...scheduleRows([...plan, ...table], false)]).toEqual([
      ['B1', [['300x600']]],
      ['B2', [['250x500']]],
    ]);
    expect(scheduleRows(plan).size).toBe(2);
  });

  test('labels of grid lines in a row are no schedule', () => {
    const row = ['A', 'B', 'C', 'D', '300x600'];
    expect(scheduled('A1', [sheetOf(null, row)])).toEqual([]);
    expect(scheduled('B1', [sheetOf(null, ['B1', 'A'], row)])).toEqual([]);
  });

  test('which number is the width is what is drawn', () => {
    expect(sizeOf('600x300', 0.3)).toEqual({ width: 0.3, depth: 0.6 });
    expect(sizeOf('600x300', null, 'mm', 'depth')).toEqual({ width: 0.3, depth: 0.6 });
    expect(firstNumberOf('600x300', 0.3, 'mm')).toBe('depth');
    expect(firstNumberOf('30/60', 0.3, 'mm')).toBe('width');
    expect(firstNumberOf('30/30', 0.3, 'mm')).toBeNull();
    expect(firstNumberOf('30/60', 0.45, 'mm')).toBeNull();
  });
});

describe('beams', () => {
  const columns = column(0, 0) + column(6, 0) + column(12, 0);

  test('two lines between columns reach the middles of both, with mark and size beside them', () => {
    const { beams } = readPlan(
      columns + line(0.2, 0.15, 5.8, 0.15, 'B') + line(0.2, -0.15, 5.8, -0.15, 'B') + text(3, 0.4, 'B4 300x600'),
    );
    expect(beams).toHaveLength(1);
    expect(beams[0].element).toEqual({
      start: [0, 0],
      end: [6, 0],
      section: { shape: 'rectangle', width: 0.3, depth: 0.6 },
      mark: 'B4',
    });
    expect(beams[0].doubt).toBeNull();
  });

  test('lines that run past a column are two beams that end on it', () => {
    const { beams } = readPlan(columns + line(0.2, 0.15, 11.8, 0.15, 'B') + line(0.2, -0.15, 11.8, -0.15, 'B'));
    expect(beams.map(ends)).toEqual([
      ['0,0', '6,0'],
      ['12,0', '6,0'],
    ]);
  });

  test('a single line and a dashed one, with the size from the schedule', () => {
    const dashes = Array.from({ length: 11 }, (_, i) => line(6.2 + i * 0.5, 0, 6.5 + i * 0.5, 0, 'B')).join('');
    const { beams } = readPlan(
      columns +
        line(0.2, 0, 5.8, 0, 'B') +
        dashes +
        text(3, 0.3, 'B1') +
        text(9, 0.3, 'B1') +
        text(20, 5, 'B1') +
        text(22, 5, '250x500'),
    );
    expect(beams.map(({ element }) => [element.mark, element.section])).toEqual(
      Array.from({ length: 2 }, () => ['B1', { shape: 'rectangle', width: 0.25, depth: 0.5 }]),
    );
    expect(beams.map(ends)).toEqual([
      ['0,0', '6,0'],
      ['12,0', '6,0'],
    ]);
  });

  test('a beam has its size from the detail that its row names, drawn on the same sheet', () => {
    const detail = [
      [30, 5],
      [30.75, 5],
      [30.75, 6.5],
      [30, 6.5],
    ];
    const { beams } = readPlan(
      columns +
        line(0.2, 0, 5.8, 0, 'B') +
        text(3, 0.3, 'B1') +
        text(20, 5, 'B1') +
        text(22, 5, 'Detail 4') +
        closed(detail, 'D') +
        text(30.1, 4.6, '250') +
        text(31, 5.7, '500') +
        text(29.8, 3.8, 'Detail 4'),
    );
    expect(beams.map(({ element }) => element.section)).toEqual([{ shape: 'rectangle', width: 0.25, depth: 0.5 }]);
    expect(beams[0].evidence.map((why) => why.text).slice(-2)).toEqual([
      'B1 in the schedule: Detail 4',
      '4 in this drawing: 250x500 as drawn',
    ]);
  });

  test('a secondary beam ends on the centre line of the one that carries it', () => {
    const { beams } = readPlan(
      columns +
        line(0.2, 0.15, 5.8, 0.15, 'B') +
        line(0.2, -0.15, 5.8, -0.15, 'B') +
        line(2.9, 0.15, 2.9, 4, 'B') +
        line(3.1, 0.15, 3.1, 4, 'B'),
    );
    expect(beams.map(ends).sort()).toEqual([
      ['0,0', '6,0'],
      ['3,0', '3,4'],
    ]);
    expect(beams.find((beam) => ends(beam)[0] === '3,0')!.doubt).toBe('a free end, depth by default');
  });

  test('a beam carried by a wall ends on its centre line', () => {
    const { beams } = readPlan(
      line(0, -3, 0, 3, 'W') +
        line(0.3, -3, 0.3, 3, 'W') +
        column(6, 0) +
        line(0.3, 0.1, 5.8, 0.1, 'B') +
        line(0.3, -0.1, 5.8, -0.1, 'B'),
    );
    expect(ends(beams[0])).toEqual(['0.15,0', '6,0']);
  });

  test('a text that stands square to the beam is not its mark', () => {
    expect(readPlan(columns + line(0.2, 0, 5.8, 0, 'B') + text(3, 0.3, 'B7', 'B', 90)).beams[0].element.mark).toBe('');
  });
});

describe('slabs', () => {
  test('an outline with an opening by role and one crossed out, its thickness written in it', () => {
    const { slabs } = readPlan(
      box(0, 0, 20, 10, 'S') +
        box(2, 2, 3, 4, 'V') +
        box(10, 2, 14, 5, 'S') +
        line(10, 2, 14, 5, 'S') +
        line(14, 2, 10, 5, 'S') +
        text(5, 8, 'd = 240', 'S'),
    );
    expect(slabs).toHaveLength(1);
    expect([slabs[0].element.thickness, slabs[0].element.holes.length, slabs[0].doubt]).toEqual([0.24, 2, null]);
  });

  test('without a drawn slab the building\u2019s outline stands for it, beyond its faces by the edge distance', () => {
    const walls = box(-0.1, -0.1, 6.1, 4.1, 'W') + box(0.1, 0.1, 5.9, 3.9, 'W');
    const outline = (edge: number) =>
      readPlan(walls, { ...defaultSettings, slab: { thickness: 0.2, edge } })
        .slabs[0].element.outline.map((p) => p.map((v) => Number(v.toFixed(3))).join())
        .sort();
    expect(outline(0)).toEqual(['-0.1,-0.1', '-0.1,4.1', '6.1,-0.1', '6.1,4.1']);
    expect(outline(0.15)).toEqual(['-0.25,-0.25', '-0.25,4.25', '6.25,-0.25', '6.25,4.25']);
  });

  test('an outline grows by a distance at every side: a 3-4-5 triangle by 1', () => {
    const grown = offsetOutline(
      [
        [0, 0],
        [4, 0],
        [0, 3],
      ],
      1,
    );
    // Its inner radius is 1, so all sides are twice as far from the centre (1, 1): the triangle is twice as large about
    // it.
    expect(grown.map((p) => p.map((v) => Number(v.toFixed(9)) + 0))).toEqual([
      [-1, -1],
      [7, -1],
      [-1, 5],
    ]);
  });

  test('lines that close nothing are told', () => {
    expect(readPlan(line(0, 0, 5, 0, 'S')).unread.map(({ why }) => why)).toEqual(['lines that close no outline']);
  });
});

describe('outdoor surfaces', () => {
  test('a closed outline takes the text inside as its name, and a height written in it', () => {
    const { outdoor } = readPlan(box(0, 0, 10, 5, 'O') + text(5, 3, 'Boat Apron', 'O') + text(5, 1, 'h=0.15', 'O'));
    expect(outdoor.map(({ element: { name, height, outline } }) => [name, height, outline.length])).toEqual([
      ['Boat Apron', 0.15, 4],
    ]);
  });

  test('two open lines beside one another are a road between them, a third alone is none', () => {
    const { outdoor, unread } = readPlan(
      open(
        [
          [0, 0],
          [20, 0],
          [30, 10],
        ],
        'O',
      ) +
        open(
          [
            [0, 6],
            [17, 6],
            [26, 14],
          ],
          'O',
        ) +
        open(
          [
            [60, 0],
            [60, 40],
          ],
          'O',
        ),
    );
    expect(outdoor.map(({ element }) => element.outline.length)).toEqual([6]);
    expect(unread.map(({ role, why }) => [role, why])).toEqual([['outdoor', 'an open line without another beside it']]);
  });

  test('an open line on a layer of fences is one, its posts are none', () => {
    const corners = [
      [0, 0],
      [30, 0],
      [30, 12],
    ];
    const post = groups([0, 'CIRCLE'], [8, 'C-FENCE'], [10, 30], [20, 0], [40, 0.06]);
    const { outdoor, unread } = readPlan(open(corners, 'C-FENCE') + post);
    expect(outdoor.map(({ element: { use, height } }) => [use, height])).toEqual([['fence', 1.8]]);
    // 42 m of 4 cm, less the corner that the inner side cuts off.
    expect(Math.abs(area(outdoor[0].element.outline))).toBeCloseTo(42 * 0.04, 1);
    expect(unread).toEqual([]);
  });

  test('sides drawn in opposite directions are a road of the same shape', () => {
    const side = (...points: [number, number][]) => open(points, 'O');
    const areas = [side([0, 0], [20, 0]) + side([0, 6], [20, 6]), side([0, 0], [20, 0]) + side([20, 6], [0, 6])].map(
      (entities) => readPlan(entities).outdoor.map(({ element }) => Math.abs(area(element.outline))),
    );
    // 20 m by 6 m, and no bow that crosses itself.
    expect(areas).toEqual([[120], [120]]);
  });
});
