import { asDrawn } from '@/core/datum/placement';
import { block, dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import { gridCrossings } from '@/core/kinds/gridCrossings';
import { letterLabel, proposeLabel } from '@/core/kinds/gridLabels';
import type { ColumnCandidate, GridCandidate } from './candidate';
import { read } from './read';
import { toleranceFor } from '@/core/patterns/settings';
import { Scene } from './scene';

const roles: Record<string, Role> = { G: 'grid', C: 'column' };

/** Reads millimetres from layer G (grid) and C (columns). */
function readPlan(entities: string, blocks = '') {
  const { drawing } = readText(dxf({ blocks, entities }));
  const result = read({
    scene: new Scene(
      drawing,
      flatten(drawing),
      asDrawn('mm'),
      drawing.layers.map((layer) => roles[layer.name] ?? null),
    ),
    tolerance: toleranceFor('mm'),
  });
  return {
    ...result,
    grid: result.candidates.filter((c): c is GridCandidate => c.kind === 'grid'),
    columns: result.candidates.filter((c): c is ColumnCandidate => c.kind === 'column'),
  };
}

const bubble = (x: number, y: number, text: string) =>
  groups([0, 'CIRCLE'], [8, 'G'], [10, x], [20, y], [40, 500]) +
  groups([0, 'TEXT'], [8, 'G'], [10, x], [20, y], [40, 400], [1, text], [72, 1], [73, 2], [11, x], [21, y]);
const closed = (points: number[][], layer = 'C') =>
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
const rectangle = (x: number, y: number, w: number, d: number, layer = 'C') =>
  closed(
    [
      [x - w / 2, y - d / 2],
      [x + w / 2, y - d / 2],
      [x + w / 2, y + d / 2],
      [x - w / 2, y + d / 2],
    ],
    layer,
  );

describe('grid lines', () => {
  test('a line takes its label from the bubble at its end, in metres', () => {
    const { grid } = readPlan(line(0, 0, 0, 10000, 'G') + bubble(0, 10500, 'A'));
    expect(grid).toHaveLength(1);
    expect(grid[0].element).toMatchObject({ label: 'A', kind: 'line', start: [0, 0] });
    expect(grid[0].handles).toHaveLength(3);
    expect(grid[0].confidence).toBeGreaterThan(0.8);
  });

  test('a bubble drawn as a block with an attribute labels its line', () => {
    const mark =
      groups([0, 'INSERT'], [8, 'G'], [66, 1], [2, 'B'], [10, 0], [20, -500]) +
      groups(
        [0, 'ATTRIB'],
        [8, 'G'],
        [10, 0],
        [20, -500],
        [40, 300],
        [1, "3'"],
        [72, 1],
        [74, 2],
        [11, 0],
        [21, -500],
        [2, 'L'],
        [70, 0],
      ) +
      groups([0, 'SEQEND']);
    const { grid } = readPlan(
      line(0, 0, 0, 10000, 'G') + mark,
      block('B', groups([0, 'CIRCLE'], [8, '0'], [10, 0], [20, 0], [40, 500])),
    );
    expect(grid.map((c) => c.element.label)).toEqual(["3'"]);
  });

  test('broken pieces are joined across gaps and doubled ones merged', () => {
    const { grid } = readPlan(
      line(0, 0, 5000, 0, 'G') + line(6000, 0, 12000, 0, 'G') + line(2000, 0, 8000, 0, 'G') + bubble(-500, 0, 'A'),
    );
    expect(grid).toHaveLength(1);
    expect(grid[0].element).toMatchObject({ start: [0, 0], end: [12, 0] });
    expect(grid[0].evidence.map((e) => e.text)).toContain('joined from 3 pieces');
  });

  test('a turned wing is a family of its own and keeps its direction', () => {
    const [c, s] = [Math.cos((17 * Math.PI) / 180), Math.sin((17 * Math.PI) / 180)];
    const wing = (offset: number) => line(-s * offset, c * offset, 9000 * c - s * offset, 9000 * s + c * offset, 'G');
    const { grid } = readPlan(line(0, 0, 9000, 0, 'G') + line(0, 6000, 9000, 6000, 'G') + wing(0) + wing(5000));
    const angles = grid
      .map(({ element }) =>
        element.kind === 'line'
          ? Number(
              (
                (Math.atan2(element.end[1] - element.start[1], element.end[0] - element.start[0]) * 180) /
                Math.PI
              ).toFixed(6),
            )
          : NaN,
      )
      .sort((a, b) => a - b);
    expect(angles).toEqual([0, 0, 17, 17]);
  });

  test('a line off its family by less than the tolerance is straightened about its middle, and says so', () => {
    // 20 mm over 9 m are 0.127 degrees.
    const { grid } = readPlan(
      line(0, 0, 9000, 0, 'G') + line(0, 6000, 9000, 6000, 'G') + line(0, 12000, 9000, 12020, 'G'),
    );
    const straightened = grid.find((candidate) => candidate.doubt?.includes('off by 0.13'))!;
    expect(straightened.element).toMatchObject({ kind: 'line' });
    if (straightened.element.kind === 'line') {
      expect(straightened.element.start[1]).toBeCloseTo(12.01, 9);
      expect(straightened.element.end[1]).toBeCloseTo(12.01, 9);
    }
  });

  test('arcs are radial grid lines with centre, radius and angles', () => {
    const { grid } = readPlan(
      groups([0, 'ARC'], [8, 'G'], [10, 1000], [20, 2000], [40, 4000], [50, 90], [51, 180]) + bubble(-3000, 1500, 'R1'),
    );
    expect(grid).toHaveLength(1);
    const { element } = grid[0];
    expect(element).toMatchObject({ kind: 'arc', label: 'R1' });
    if (element.kind === 'arc')
      expect(
        [...element.centre, element.radius, element.startAngle, element.endAngle].map((v) => Number(v.toFixed(6))),
      ).toEqual([1, 2, 4, 90, 180]);
  });

  test('bubbles that disagree, labels used twice and short marks are told, not hidden', () => {
    const { grid, unread } = readPlan(
      line(0, 0, 9000, 0, 'G') +
        bubble(-500, 0, 'A') +
        bubble(9500, 0, 'B') +
        line(0, 5000, 9000, 5000, 'G') +
        bubble(-500, 5000, 'A') +
        line(50000, 50000, 50300, 50000, 'G') +
        bubble(70000, 0, 'Z'),
    );
    expect(grid.find((c) => c.element.kind === 'line' && c.element.start[1] === 0)!.doubt).toContain(
      'bubbles say A and B',
    );
    expect(grid.every((c) => c.doubt?.includes('A is there 2 times'))).toBe(true);
    expect(unread.map((entry) => entry.why)).toEqual(['a short line without a bubble', 'a bubble "Z" without a line']);
  });

  test('without bubbles labels are proposed: numbers across, letters up, without I and O', () => {
    const { grid } = readPlan(
      line(0, 0, 0, 9000, 'G') + line(5000, 0, 5000, 9000, 'G') + line(0, 1000, 9000, 1000, 'G'),
    );
    expect(grid.map((c) => c.element.label).sort()).toEqual(['1', '2', 'A']);
    expect(grid.every((c) => c.proposedLabel && c.doubt === 'no bubble')).toBe(true);
    expect([letterLabel(7), letterLabel(8), letterLabel(13), letterLabel(23), letterLabel(24)]).toEqual([
      'H',
      'J',
      'P',
      'Z',
      'AA',
    ]);
    expect(proposeLabel(true, new Set(['1', '2']))).toBe('3');
  });

  test('crossings are named number first, lie where lines and arcs meet, and not far beyond their ends', () => {
    const crossings = gridCrossings([
      { label: 'B', kind: 'line', start: [0, 4], end: [20, 4] },
      { label: '5', kind: 'line', start: [7, 0], end: [7, 10] },
      { label: 'R', kind: 'arc', centre: [7, 4], radius: 3, startAngle: 0, endAngle: 90 },
      { label: '9', kind: 'line', start: [40, 0], end: [40, 10] },
    ]);
    expect(crossings.map(({ name, point }) => [name, ...point.map((v) => Number(v.toFixed(9)))])).toEqual([
      ['5/B', 7, 4],
      ['B/R', 10, 4],
      ['5/R', 7, 7],
    ]);
  });
});

describe('columns', () => {
  test('a closed polyline is a column with its size, position and turning', () => {
    const [c, s] = [Math.cos((17 * Math.PI) / 180), Math.sin((17 * Math.PI) / 180)];
    const corners = [
      [-125, -300],
      [125, -300],
      [125, 300],
      [-125, 300],
    ].map(([x, y]) => [2000 + c * x - s * y, 3000 + s * x + c * y]);
    const [column] = readPlan(closed(corners)).columns;
    expect(column.element.section).toEqual({ shape: 'rectangle', width: 0.25, depth: 0.6 });
    expect(column.element.position.map((v) => Number(v.toFixed(9)))).toEqual([2, 3]);
    expect(column.element.rotation).toBeCloseTo(17, 6);
  });

  test('449.6 means 450, and the raw size stays as evidence', () => {
    const [column] = readPlan(rectangle(0, 0, 449.6, 400)).columns;
    expect(column.element.section).toEqual({ shape: 'rectangle', width: 0.45, depth: 0.4 });
    expect(column.raw.width).toBeCloseTo(0.4496, 9);
    expect(column.evidence.some((e) => e.text === 'rounded by 0.4 mm')).toBe(true);
  });

  test('inches are rounded to quarter inches, not to five millimetres', () => {
    const { drawing } = readText(dxf({ entities: rectangle(0, 0, 12.01, 18) }));
    const [column] = read({
      scene: new Scene(drawing, flatten(drawing), asDrawn('in'), [null, 'column']),
      tolerance: toleranceFor('in'),
    }).candidates as ColumnCandidate[];
    expect(column.element.section).toEqual({ shape: 'rectangle', width: 0.3048, depth: 0.4572 });
  });

  test('a circle, and a circle drawn as a polygon, are round', () => {
    const polygon = closed(
      Array.from({ length: 24 }, (_, i) => [
        5000 + 225 * Math.cos((i * Math.PI) / 12),
        225 * Math.sin((i * Math.PI) / 12),
      ]),
    );
    const { columns } = readPlan(groups([0, 'CIRCLE'], [8, 'C'], [10, 1000], [20, 0], [40, 225]) + polygon);
    expect(columns.map((c) => c.element.section)).toEqual([
      { shape: 'circle', diameter: 0.45 },
      { shape: 'circle', diameter: 0.45 },
    ]);
  });

  test('loose lines that close within the tolerance give a column with its corners completed', () => {
    const { columns, unread } = readPlan(
      line(0, 0, 400, 0, 'C') +
        line(400, 0, 400, 400, 'C') +
        line(0, 400, 400, 400, 'C') +
        line(0, 400, 0, 6, 'C') +
        line(1000, 0, 1400, 0, 'C') +
        line(1400, 0, 1400, 400, 'C'),
    );
    expect(columns).toHaveLength(1);
    expect(columns[0].element).toMatchObject({
      position: [0.2, 0.2],
      section: { shape: 'rectangle', width: 0.4, depth: 0.4 },
    });
    expect(columns[0].doubt).toContain('gap of 6.0 mm');
    expect(unread.map((entry) => entry.why)).toEqual(['lines that close no shape', 'lines that close no shape']);
  });

  test('two half circles drawn apart close to a round column', () => {
    const half = (from: number, to: number) =>
      groups([0, 'ARC'], [8, 'C'], [10, 0], [20, 0], [40, 225], [50, from], [51, to]);
    const { columns } = readPlan(half(0, 180) + half(180, 0));
    expect(columns.map((c) => c.element.section)).toEqual([{ shape: 'circle', diameter: 0.45 }]);
  });

  test('an L keeps its outline about its centre of area', () => {
    const [column] = readPlan(
      closed([
        [0, 0],
        [600, 0],
        [600, 200],
        [200, 200],
        [200, 600],
        [0, 600],
      ]),
    ).columns;
    // By hand: 600 x 200 at (300, 100) and 200 x 400 at (100, 400).
    const [cx, cy] = [(120 * 300 + 80 * 100) / 200, (120 * 100 + 80 * 400) / 200];
    expect(column.element.position.map((v) => Number((v * 1000).toFixed(6)))).toEqual([cx, cy]);
    expect(column.element.section).toMatchObject({ shape: 'polygon' });
    if (column.element.section.shape === 'polygon') expect(column.element.section.outline).toHaveLength(6);
  });

  test('a doubled outline is one column, a nested one takes the outermost and says so', () => {
    const { columns } = readPlan(
      rectangle(0, 0, 400, 400) +
        rectangle(0, 0, 400, 400) +
        rectangle(3000, 0, 600, 600) +
        rectangle(3000, 0, 400, 400),
    );
    expect(columns).toHaveLength(2);
    expect(columns.find((c) => c.element.position[0] === 0)!.doubt).toBe('drawn twice');
    expect(columns.find((c) => c.element.position[0] === 3)).toMatchObject({
      doubt: 'nested outlines',
      element: { section: { width: 0.6 } },
    });
  });

  test('an outline as thick as a finish about a column is no part of it, one as thin as a tube\u2019s wall is', () => {
    const { columns } = readPlan(
      rectangle(0, 0, 460, 460) +
        rectangle(0, 0, 400, 400) +
        rectangle(3000, 0, 120, 120) +
        rectangle(3000, 0, 100, 100),
    );
    const at = (x: number) => columns.find((column) => column.element.position[0] === x)!;
    expect(at(0).element.section).toMatchObject({ width: 0.4, depth: 0.4 });
    expect(at(0).doubt).toBe('finish of 30 mm or part of it');
    expect(at(3).element.section).toMatchObject({ width: 0.12, depth: 0.12 });
  });

  test('the distance from the nearest crossing is evidence, near misses are doubts', () => {
    const grid =
      line(-3000, 0, 9000, 0, 'G') +
      bubble(-3500, 0, 'B') +
      line(5000, -3000, 5000, 9000, 'G') +
      bubble(5000, -3500, '5');
    const [off] = readPlan(grid + rectangle(5008, 6, 400, 400)).columns;
    expect(off.crossing).toMatchObject({ name: '5/B' });
    expect(off.crossing!.distance).toBeCloseTo(0.01, 9);
    expect(off.doubt).toBe('10 mm off');
  });

  test('rooms and bolts on the column layer are not columns, and are told', () => {
    const { columns, unread } = readPlan(
      rectangle(0, 0, 6000, 4000) + groups([0, 'CIRCLE'], [8, 'C'], [10, 0], [20, 0], [40, 12]),
    );
    expect(columns).toEqual([]);
    expect(unread.map((entry) => entry.why)).toEqual([
      'too large for a column: 6.00 by 4.00 m',
      'too small for a column: 24 by 24 mm',
    ]);
  });

  test('a column drawn as a block is known by its insert', () => {
    const insert = groups([0, 'INSERT'], [5, 'AB'], [8, 'C'], [2, 'COL'], [10, 1000], [20, 1000], [50, 90]);
    const [column] = readPlan(insert, block('COL', rectangle(0, 0, 250, 600, '0'))).columns;
    expect(column).toMatchObject({
      key: 'column:AB',
      handles: ['AB'],
      element: { section: { width: 0.6, depth: 0.25 } },
    });
  });
});
