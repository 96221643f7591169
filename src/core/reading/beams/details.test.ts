import { dxf, groups, line, outline, readText } from '@/core/drawing/testing/dxf';
import type { Point } from '@/core/geometry/vector';
import { flatten } from '@/core/underlay/flatten';
import { placesOfMark } from './markPlaces';
import { sizeOf } from './marks';
import { scheduled, type ScheduleSheet } from './schedule';
import { rowsOfSheet, sheetRowsOf } from './sheetRows';

/** A detail's text is 2.5 mm high, its section is drawn at 1:20 beside it, all in millimetres of paper. */
const height = 2.5;

interface Turned {
  text: (x: number, y: number, words: string, upright?: boolean) => string;
  at: (x: number, y: number) => Point;
}

/** A sheet that is turned by so many degrees. */
function turned(degrees: number): Turned {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const at = (x: number, y: number): Point => [x * c - y * s, x * s + y * c];
  // Set by its middle.
  const text: Turned['text'] = (x, y, words, upright = false) =>
    groups(
      [0, 'TEXT'],
      [8, '0'],
      [10, at(x, y)[0]],
      [20, at(x, y)[1]],
      [11, at(x, y)[0]],
      [21, at(x, y)[1]],
      [40, height],
      [50, degrees + (upright ? 90 : 0)],
      [72, 1],
      [73, 2],
      [1, words],
    );
  return { text, at };
}

/** A section of 15 by 30 mm of paper, with what is written under it and beside it, and a title below. */
function section(
  { text, at }: Turned,
  title: string,
  [width, depth]: readonly [string, string],
  { loose = false, titleAt = -18, depthAt = -6 } = {},
): string {
  const corners = [at(0, 0), at(15, 0), at(15, 30), at(0, 30)];
  const sides = corners.map((a, i) => line(...a, ...corners[(i + 1) % 4]));
  const diagonals = line(...corners[0], ...corners[2]) + line(...corners[1], ...corners[3]);
  const drawn = loose ? sides.join('') + diagonals : outline(corners);
  return drawn + text(7.5, -6, width) + text(depthAt, 15, depth, true) + text(7.5, titleAt, title);
}

const sheetOf = (entities: string) => {
  const { drawing } = readText(dxf({ entities }));
  return { drawing, primitives: flatten(drawing) };
};

const sizesOf = (entities: string, key: string): string[] => {
  const { drawing, primitives } = sheetOf(entities);
  return (rowsOfSheet(drawing, primitives).get(key) ?? []).flat();
};

describe('the section that is drawn above a title', () => {
  test.each([0, 30, 90])('has the size that is written at it, turned by %p degrees', (degrees) => {
    expect(sizesOf(section(turned(degrees), 'Section C-C', ['300', '600']), 'C')).toEqual(['300x600 as drawn']);
  });

  test('may be of loose lines with its diagonals, and of a type or a detail', () => {
    expect(sizesOf(section(turned(0), 'Detail 4', ['300', '600 mm'], { loose: true }), '4')).toEqual([
      '300x600 as drawn',
    ]);
    expect(sizesOf(section(turned(0), 'TYPE R', ['12"', '24"'], { loose: true }), 'R')).toEqual(['12x24 as drawn']);
  });

  test('has no size where what is written has another proportion, or lies within', () => {
    expect(sizesOf(section(turned(0), 'Section C-C', ['300', '700']), 'C')).toEqual([]);
    const { text } = turned(0);
    const within = outline([
      [0, 0],
      [15, 0],
      [15, 30],
      [0, 30],
    ]);
    expect(sizesOf(within + text(7.5, 8, '300') + text(7.5, 20, '600') + text(7.5, -18, 'Section C-C'), 'C')).toEqual(
      [],
    );
  });

  test('is the nearest of several', () => {
    const moved = ({ text, at }: Turned, by: number): Turned => ({
      text: (x, y, words, upright) => text(x + by, y, words, upright),
      at: (x, y) => at(x + by, y),
    });
    const both =
      section(turned(0), 'Section C-C', ['300', '600']) + section(moved(turned(0), 50), 'Section D-D', ['250', '500']);
    expect([sizesOf(both, 'C'), sizesOf(both, 'D')]).toEqual([['300x600 as drawn'], ['250x500 as drawn']]);
  });

  test('is no room: a beam is not wider than 2 m', () => {
    expect(sizesOf(section(turned(0), 'Section A-A', ['2400', '4800']), 'A')).toEqual([]);
  });

  test('lies near its title, and what is written of it near its sides', () => {
    const sizes: [string, string] = ['300', '600'];
    expect(sizesOf(section(turned(0), 'Section C-C', sizes, { titleAt: -60 }), 'C')).toHaveLength(1);
    expect(sizesOf(section(turned(0), 'Section C-C', sizes, { titleAt: -70 }), 'C')).toEqual([]);
    expect(sizesOf(section(turned(0), 'Section C-C', sizes, { depthAt: -35 }), 'C')).toEqual([]);
  });

  test('is a rectangle, and larger than the letters of its title', () => {
    const { text } = turned(0);
    const title = (y: number) => text(7.5, y, 'Section C-C');
    const angle = outline([
      [0, 0],
      [15, 0],
      [15, 10],
      [5, 10],
      [5, 30],
      [0, 30],
    ]);
    expect(sizesOf(angle + text(7.5, -6, '300') + text(-6, 15, '600', true) + title(-18), 'C')).toEqual([]);
    const symbol = outline([
      [6, 10],
      [10, 10],
      [10, 18],
      [6, 18],
    ]);
    expect(sizesOf(symbol + text(7.5, 4, '300') + text(0, 15, '600', true) + title(-6), 'C')).toEqual([]);
  });

  test('is not that of a type that only stands in a table beside it', () => {
    const { text } = turned(0);
    const table = text(-20, -18, 'T13') + text(7.5, -18, 'Type R') + text(-20, -24, 'T14') + text(7.5, -24, 'Type R');
    expect(sizesOf(section(turned(0), ' ', ['300', '600']) + table, 'R')).toEqual([]);
  });
});

test('a drawn section says its width first, whatever an office writes first', () => {
  expect(sizeOf('300x600 as drawn', null, 'mm', 'depth')).toEqual({ width: 0.3, depth: 0.6 });
  expect(sizeOf('300x600', null, 'mm', 'depth')).toEqual({ width: 0.6, depth: 0.3 });
});

test('a mark is followed over its row and its type to what the section draws, each hop told', () => {
  const { text } = turned(0);
  const table = (rows: string[][]) =>
    rows.flatMap((cells, y) => cells.map((words, x) => text(30 * x, -5 * y, words))).join('');
  const named = (sheet: string, entities: string) => ({ sheet, ...sheetOf(entities) });
  const drawings = [
    named(
      'S-201',
      table([
        ['T13', 'Type R'],
        ['T14', 'Type R'],
      ]),
    ),
    named(
      'S-202',
      table([
        ['Type Q', 'Section B-B'],
        ['Type R', 'Section C-C'],
      ]),
    ),
    named('S-301', section(turned(0), 'Section C-C', ['300', '600'])),
  ];
  const sheets: ScheduleSheet[] = drawings.map(({ sheet, drawing, primitives }) => ({
    sheet,
    rows: rowsOfSheet(drawing, primitives),
  }));
  expect(scheduled('T14', sheets)).toEqual([
    {
      words: '300x600 as drawn',
      hops: ['T14 in S-201: Type R', 'R in S-202: Section C-C', 'C in S-301: 300x600 as drawn'],
    },
  ]);
  const places = placesOfMark(
    'T14',
    drawings.map(({ sheet, drawing, primitives }) => ({
      drawingId: sheet,
      texts: primitives.texts,
      rows: sheetRowsOf(drawing, primitives),
    })),
  );
  expect(places.map(({ drawingId, size }) => [drawingId, size])).toEqual([
    ['S-201', null],
    ['S-202', null],
    ['S-301', '300x600 as drawn'],
  ]);
});
