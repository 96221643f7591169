import type { Point } from '@/core/geometry/vector';
import type { ElementKind, ElementRow } from '@/core/kinds/element';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import type { Result } from '@/core/result';
import { column, gridLine, levelId, planOf, uuid, wall } from '@/core/tracing/testing/plan';
import { plainShapes, useTracing, type WayName } from '@/project/tracing';
import type { BoardScene } from '../../scene';
import type { World } from '../world';
import { TraceTool } from './traceTool';
import { at, held } from '../testing/pointing';

/** A board of a hundred pixels a metre, on which elements are hit at their start. */
function tracing(
  way: WayName,
  elements: ElementRow[] = [],
  selected: string[] = [],
  plane: BoardScene['plane'] = null,
) {
  const model = planOf(...elements);
  const said: string[] = [];
  const drafts: number[] = [];
  const nearest = (p: Point, kinds: readonly ElementKind[] | 'any') =>
    Object.values(model.element).find(
      (one) =>
        (kinds === 'any' || kinds.includes(one.kind)) &&
        (one.kind === 'wall' || (one.kind === 'grid' && one.shape.kind === 'line')) &&
        Math.abs((one.shape as { start: Point }).start[1] - p[1]) < 0.2,
    ) ?? null;
  const world = {
    scene: { model, plane, levelId, selected: new Set(selected), axes: null, unit: { unit: 'm', places: null } },
    camera: { x: 0, y: 0, metresPerPixel: 0.01 },
    choice: { chosen: 0, of: 0 },
    under: { element: nearest, endless: (p: Point) => [p, [p[0] + 1, p[1]]] },
    redraw: () => undefined,
    events: {
      drafted: (rows: readonly ElementRow[]) => drafts.push(rows.length),
      committed: (make: (now: Model) => Result<Edit>) => {
        const edit = make(model);
        said.push(edit.ok ? edit.value.label : edit.message);
        if (edit.ok) model.apply(edit.value.changes);
      },
    },
  } as unknown as World;
  const tool = new TraceTool({ kind: 'trace', way }, world);
  const click = (...points: Point[]) => points.forEach((p) => tool.click(at(p)));
  const shapes = <K extends ElementKind>(kind: K) => Array.from(model.ofKind(kind), ({ shape }) => shape);
  return { tool, click, said, drafts, shapes };
}

beforeEach(() => useTracing.setState({ shapes: plainShapes, drawnAlong: 'centre line', count: 3, gap: 0.05, edge: 0 }));

describe('a chain', () => {
  test('is ended by Enter, by a second click on its last point, or by leaving it; nothing of it is lost', () => {
    const enter = tracing('wall.chain');
    enter.click([0, 0], [5, 0], [5, 4]);
    expect(enter.said).toEqual([]);
    expect(enter.tool.key('Enter')).toBe(true);
    expect(enter.said).toEqual(['Draw 2 walls']);
    const twice = tracing('wall.chain');
    twice.click([0, 0], [5, 0], [5, 0]);
    expect(twice.said).toEqual(['Draw 1 wall']);
    const left = tracing('wall.chain');
    left.click([0, 0], [5, 0]);
    left.tool.exit();
    expect(left.shapes('wall')).toMatchObject([{ start: [0, 0], end: [5, 0] }]);
  });

  test('is closed by a click near its first point, which all walls then share', () => {
    const { click, shapes } = tracing('wall.chain');
    click([0, 0], [5, 0], [5, 4], [0.05, 0.05]);
    expect(shapes('wall')).toHaveLength(3);
    expect(shapes('wall').some(({ end }) => end[0] === 0 && end[1] === 0)).toBe(true);
  });

  test('Escape goes one step back at a time; Backspace takes the last point', () => {
    const { tool, click } = tracing('wall.chain');
    click([0, 0], [5, 0]);
    tool.move(at([9, 9]));
    tool.type('length', 3);
    expect(tool.fields()[0]).toMatchObject({ typed: true, value: 3 });
    expect(tool.key('Escape')).toBe(true);
    expect([tool.fields()[0].typed, tool.base]).toEqual([false, [5, 0]]);
    expect(tool.key('Backspace')).toBe(true);
    expect(tool.base).toEqual([0, 0]);
    expect([tool.key('Escape'), tool.key('Escape')]).toEqual([true, false]);
  });

  test('a side is bent through a third point', () => {
    const { tool, click, shapes } = tracing('wall.chain');
    click([0, 0]);
    expect(tool.bend()).toBe(true);
    click([2, 0], [1, -1]);
    tool.key('Enter');
    // Half a circle, counter-clockwise.
    expect(shapes('wall')[0].bulge).toBeCloseTo(1, 9);
  });

  test('what is held on to is stored, Shift locks the direction, and what is typed goes before both', () => {
    const { tool, shapes } = tracing('wall.chain');
    tool.click(at([0.03, 0], { held: held([0, 0]) }));
    tool.click(at([4.9, 0.4], { shift: true }));
    tool.move(at([5, 3]));
    tool.type('length', 2);
    tool.type('turned', Math.PI / 2);
    tool.takeTyped();
    tool.key('Enter');
    expect(
      shapes('wall').map(({ start, end }) => [start, end].map((p) => p.map((v) => Number(v.toFixed(9)) + 0))),
    ).toEqual([
      [
        [0, 0],
        [4.9, 0],
      ],
      [
        [4.9, 0],
        [4.9, 2],
      ],
    ]);
  });
});

test('a box stands for two points; what makes nothing says so, and what is there is not made again', () => {
  const grid = [gridLine(1, '1', [0, -1], [0, 9]), gridLine(2, 'A', [-1, 0], [9, 0])];
  const { tool, said, shapes } = tracing('column.crossings', grid);
  const from = { at: [-1, -1] as Point, pixels: [0, 0] as Point };
  const box = () => {
    expect(tool.press(at([-1, -1], { from }))).toBe(true);
    tool.drag(at([2, 2], { from }));
    tool.drop(at([2, 2], { from }));
  };
  box();
  expect([said, shapes('column').length]).toEqual([['Draw 1 column'], 1]);
  box();
  expect([said.length, shapes('column').length]).toEqual([1, 1]);
});

test('an opening asks for a wall and refuses what does not fit; from a node its distance is typed', () => {
  const walls = [wall(1, [0, 0], [6, 0])];
  const { tool, click, said, shapes } = tracing('opening.distance', walls);
  click([1, 0]);
  tool.move(at([3, 0]));
  expect(tool.fields().map(({ label }) => label)).toEqual(['from the node']);
  tool.type('length', 0.3);
  tool.takeTyped();
  expect(said).toEqual(['Draw 1 opening']);
  expect(shapes('opening')[0].offset).toBeCloseTo(0.3, 12);
  const wide = tracing('opening.middle', walls);
  useTracing.setState({ shapes: { ...plainShapes, opening: { ...plainShapes.opening, width: 7 } } });
  wide.click([1, 0]);
  expect([wide.said, wide.shapes('opening')]).toEqual([[], []]);
});

test('a change waits for something to be selected; then two points move it, with a draft on the way', () => {
  const none = tracing('change.move', [column(1, [0, 0])]);
  none.click([0, 0], [2, 0]);
  expect(none.said).toEqual([]);
  const { tool, click, said, drafts, shapes } = tracing('change.move', [column(1, [0, 0])], [uuid(1)]);
  click([0, 0]);
  tool.move(at([1, 1]));
  expect(drafts.at(-1)).toBe(1);
  click([2, 0]);
  expect([said, shapes('column')[0].position]).toEqual([['Move 1 column'], [2, 0]]);
});

test('a way has words for each of its points, and makes nothing of none', () => {
  const plan: ElementRow[] = [wall(1, [0, 0], [6, 0]), gridLine(2, 'A', [0, 3], [9, 3])];
  for (const way of ['grid.copy', 'beam.gridLine', 'zone.divide', 'slab.hole', 'change.corner'] as WayName[]) {
    const { tool, said } = tracing(way, plan);
    const most = tool.way.points.most ?? 3;
    for (let n = 0; n < most; n += 1) expect(tool.way.prompt(n).length).toBeGreaterThan(5);
    expect(tool.key('Enter')).toBe(false);
    expect(said).toEqual([]);
  }
});

describe('a region between walls', () => {
  const open = [wall(1, [0, 0], [6, 0]), wall(2, [6, 0], [6, 4]), wall(3, [6, 4], [0, 4]), wall(4, [0, 4], [0, 0.3])];

  test.each(['zone.region', 'slab.region', 'areaLoad.region'] as const)(
    '%s looks for no point to hold on to, and takes one that is typed',
    (way) => {
      const { tool } = tracing(way, open);
      tool.move(at([3, 2]));
      expect(tool.wants).toBe('things');
      expect(tool.fields().map(({ label }) => label)).toEqual(['east', 'north']);
    },
  );

  test('that is open shows the gap while the pointer is in it, and says so on a click', () => {
    const { tool, click, said, shapes } = tracing('zone.region', open);
    const leakAt = (p: Point) => {
      tool.move(at(p));
      return tool.leak;
    };
    expect(leakAt([3, 2])).toMatchObject({ width: expect.closeTo(0.3, 9) });
    expect(leakAt([30, 2])).toBeNull();
    click([3, 2]);
    expect(said).toEqual([]);
    expect(shapes('zone')).toEqual([]);
    // The refusal stays near where it was, and takes the first Escape; away from there it is gone.
    tool.move(at([3.2, 2], { pixels: [20, 0] }));
    expect(tool.key('Escape')).toBe(true);
    click([3, 2]);
    tool.move(at([30, 2], { pixels: [300, 0] }));
    expect(tool.key('Escape')).toBe(false);
  });
});

test('in a section members are made in its plane, and what is made in the plan is refused there with a sentence', () => {
  const plane = { of: { at: [10, 20] as Point, turning: 0 }, model: planOf() };
  const { click, said, tool } = tracing('upright.member', [], [], plane);
  click([1, 0.5], [4, 2.5]);
  tool.key('Enter');
  expect(said).toEqual(['Draw 1 beam on a section']);
  const walls = tracing('wall.chain', [], [], plane);
  walls.click([0, 0], [3, 0]);
  walls.tool.key('Enter');
  expect(walls.said).toEqual([]);
  // And the other way round: without a section there is no plane.
  const plain = tracing('upright.column');
  plain.click([0, 0], [0, 3]);
  expect(plain.said).toEqual([]);
});
