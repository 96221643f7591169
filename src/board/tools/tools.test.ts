import type { Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { put, type Edit } from '@/core/model/edits';
import type { Result } from '@/core/result';
import { Model } from '@/core/model/model';
import { useBoard, type PickedLine, type ToolRequest } from '../boardStore';
import type { Hit } from '../hits';
import { toolFor } from './tools';
import type { World } from './world';
import { at, held } from './testing/pointing';

const board = () => useBoard.getState();
const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const column = (n: number, position: Point): ElementRow => ({
  id: uuid(n),
  levelId: null,
  source: null,
  kind: 'column',
  shape: { position, rotation: 0, section: { shape: 'rectangle', width: 0.4, depth: 0.4 }, mark: '' },
});

/** A board of ten pixels a metre on which elements are hit within half a metre. */
function worldOf(elements: ElementRow[] = [], straight: PickedLine | null = null) {
  const model = new Model();
  model.apply(elements.map((element) => put('element', element)));
  const said: unknown[][] = [];
  const scene = { model, plane: null, selected: new Set<string>() };
  const say =
    (name: string) =>
    (...args: unknown[]) =>
      said.push([name, ...args]);
  const near = (at: Point): Hit | null => {
    const element = Object.values(model.element).find(
      (one) => one.kind === 'column' && Math.hypot(one.shape.position[0] - at[0], one.shape.position[1] - at[1]) < 0.5,
    );
    return element ? { element, candidate: null } : null;
  };
  const world = {
    desk: useBoard,
    scene,
    camera: { x: 0, y: 0, metresPerPixel: 0.1 },
    size: { width: 100, height: 100 },
    choice: { chosen: 0, of: 0 },
    under: {
      hit: near,
      inBox: (from: Point, to: Point) =>
        Object.values(model.element).filter(
          (one) => one.kind === 'column' && one.shape.position[0] > from[0] && one.shape.position[0] < to[0],
        ),
      line: () => null,
      straight: () => straight,
    },
    redraw: () => undefined,
    events: {
      cameraChanged: say('camera'),
      candidateClicked: say('candidate'),
      lineClicked: say('line'),
      selected: (ids: ReadonlySet<string>) => {
        scene.selected = new Set(ids);
        said.push(['selected', [...ids]]);
      },
      drafted: (rows: ElementRow[]) => said.push(['drafted', rows.length]),
      committed: (make: (now: Model) => Result<Edit>) => {
        const edit = make(model);
        said.push(edit.ok ? ['committed', edit.value.label] : ['refused', edit.message]);
        if (edit.ok) model.apply(edit.value.changes);
      },
      deleted: (ids: ReadonlySet<string>) => said.push(['deleted', [...ids]]),
    },
  };
  return { world: world as unknown as World, said, scene };
}

beforeEach(() => {
  board().setTool({ kind: 'look' });
  board().setMeasured(null);
});

/** The tool that is asked for, as the board turns to it. */
function turnTo(request: ToolRequest, world: World = worldOf().world) {
  board().setTool(request);
  return toolFor(request, world);
}

describe('the outline tool', () => {
  const outline = () => {
    const taken: Point[][] = [];
    const tool = turnTo({ kind: 'outline', prompt: 'corner', take: (corners) => taken.push(corners) });
    return { tool, taken, click: (...points: Point[]) => points.forEach((p) => tool.click!(at(p))) };
  };

  test('two corners make a rectangle', () => {
    const { tool, taken, click } = outline();
    click([1, 2], [5, 9]);
    expect(tool.key!('Enter')).toBe(true);
    expect(taken).toEqual([
      [
        [1, 2],
        [5, 2],
        [5, 9],
        [1, 9],
      ],
    ]);
    expect(board().tool.kind).toBe('look');
  });

  test('a click near the first corner closes a polygon; nine pixels are near, further off it is a corner', () => {
    const { taken, click } = outline();
    click([0, 0], [10, 0], [10, 10], [1.2, 0], [0.8, 0.3]);
    expect(taken).toEqual([
      [
        [0, 0],
        [10, 0],
        [10, 10],
        [1.2, 0],
      ],
    ]);
  });

  test('what is held on to is the corner, not where the pointer is', () => {
    const { tool, taken } = outline();
    tool.click!(at([0.1, 0], { held: held([0, 0]) }));
    tool.click!(at([4.9, 3], { held: held([5, 3]) }));
    tool.key!('Enter');
    expect(taken[0][2]).toEqual([5, 3]);
  });

  test('one corner is not enough, the last one can be taken back, and Escape drops corners before the tool', () => {
    const { tool, taken, click } = outline();
    click([0, 0]);
    expect(tool.key!('Enter')).toBe(false);
    click([3, 3]);
    expect(tool.key!('Backspace')).toBe(true);
    expect(tool.key!('Enter')).toBe(false);
    expect(tool.key!('Escape')).toBe(true);
    // Nothing is left to drop: the board leaves the tool.
    expect([tool.key!('Escape'), tool.key!('Backspace')]).toEqual([false, false]);
    expect(taken).toEqual([]);
  });
});

test('a picked point goes to whom it was for, and the tool is left; a click on nothing waits', () => {
  const taken: string[] = [];
  const tool = turnTo({ kind: 'pick', prompt: 'zero', of: null, take: ({ words }) => taken.push(words) });
  tool.click!(at([1, 1]));
  expect(board().tool.kind).toBe('pick');
  tool.click!(at([1, 1], { held: held([1, 1]) }));
  expect([taken, board().tool.kind, tool.wants]).toEqual([['end of line'], 'look', 'points']);
});

describe('measuring', () => {
  const measure = (mode: 'distance' | 'run' | 'angle') => {
    const tool = turnTo({ kind: 'measure', mode });
    return { tool, click: (...xs: number[]) => xs.forEach((x) => tool.click!(at([x, 0], { held: held([x, 0]) }))) };
  };

  test('takes two points, the third begins anew, and Escape drops an open one', () => {
    const { tool, click } = measure('distance');
    click(0, 3);
    expect(board().measured).toMatchObject({ points: [{ point: [0, 0] }, { point: [3, 0] }], done: true });
    click(7);
    expect(board().measured).toMatchObject({ points: [{ point: [7, 0] }], done: false });
    expect(tool.key!('Escape')).toBe(true);
    expect([board().measured, tool.key!('Escape')]).toEqual([null, false]);
  });

  test('a run takes any number of points until Enter, and the last one back; an angle ends with its third', () => {
    const { tool, click } = measure('run');
    click(0);
    expect(tool.key!('Enter')).toBe(false);
    click(5, 9, 12);
    expect([tool.key!('Backspace'), tool.key!('Enter')]).toEqual([true, true]);
    expect([board().measured?.points.map(({ point }) => point[0]), board().measured?.done]).toEqual([[0, 5, 9], true]);
    measure('angle').click(1, 0, 4);
    expect(board().measured?.done).toBe(true);
  });
});

test('a picked line goes to whom it was for, once, and a click on none waits', () => {
  const taken: string[] = [];
  const take = ({ words }: PickedLine) => taken.push(words);
  turnTo({ kind: 'pickLine', prompt: 'axis', take }).click!(at([0, 0]));
  expect(board().tool.kind).toBe('pickLine');
  const line: PickedLine = {
    from: [0, 0],
    to: [1, 0],
    drawingId: 'd',
    drawn: [
      [0, 0],
      [1, 0],
    ],
    words: 'line on A',
  };
  turnTo({ kind: 'pickLine', prompt: 'axis', take }, worldOf([], line).world).click!(at([0, 0]));
  expect([taken, board().tool.kind]).toEqual([['line on A'], 'look']);
});

describe('looking', () => {
  const columns = [column(1, [0, 0]), column(2, [5, 0]), column(3, [9, 0])];
  const look = () => {
    const made = worldOf(columns);
    return { ...made, tool: toolFor({ kind: 'look' }, made.world) };
  };

  test('a click selects, with Ctrl or Shift more, or less; a click beside clears', () => {
    const { tool, scene } = look();
    tool.click!(at([0.1, 0]));
    expect([...scene.selected]).toEqual([uuid(1)]);
    tool.click!(at([5.1, 0], { adding: true }));
    expect([...scene.selected]).toEqual([uuid(1), uuid(2)]);
    tool.click!(at([0, 0], { adding: true }));
    expect([...scene.selected]).toEqual([uuid(2)]);
    tool.click!(at([3, 3]));
    expect([...scene.selected]).toEqual([]);
  });

  test('Shift and drag selects what lies in the box, beside what is selected', () => {
    const { tool, scene } = look();
    tool.click!(at([9, 0]));
    const from = { at: [-1, -1] as Point, pixels: [0, 0] as Point };
    expect(tool.press!(at([-1, -1], { shift: true, from }))).toBe(true);
    tool.drop!(at([6, 1], { shift: true, from }));
    expect([...scene.selected].sort()).toEqual([uuid(1), uuid(2), uuid(3)]);
  });

  test('what is selected is dragged with a draft and moved once; what is not moves the view', () => {
    const { tool, said } = look();
    expect(tool.press!(at([0, 0]))).toBe(false);
    tool.click!(at([0, 0]));
    said.length = 0;
    const from = { at: [0, 0] as Point, pixels: [0, 0] as Point };
    expect(tool.press!(at([0, 0], { from }))).toBe(true);
    expect(tool.wants).toBe('points');
    tool.drag!(at([1, 0], { from }));
    tool.drag!(at([2, 0], { from }));
    tool.drop!(at([2, 1], { from, held: held([2, 1.5]) }));
    expect(said).toEqual([
      ['drafted', 1],
      ['drafted', 1],
      ['drafted', 1],
      ['drafted', 0],
      ['committed', 'Move 1 column'],
    ]);
  });

  test('Escape leaves a drag with nothing done, then clears the selection; Delete deletes it', () => {
    const { tool, said, scene } = look();
    tool.click!(at([0, 0]));
    tool.press!(at([0, 0]));
    tool.drag!(at([3, 0], { from: { at: [0, 0], pixels: [0, 0] } }));
    said.length = 0;
    expect(tool.key!('Escape')).toBe(true);
    expect(said).toEqual([['drafted', 0]]);
    expect(tool.key!('Delete')).toBe(true);
    expect(said.at(-1)).toEqual(['deleted', [uuid(1)]]);
    expect(tool.key!('Escape')).toBe(true);
    expect([...scene.selected]).toEqual([]);
    expect([tool.key!('Escape'), tool.key!('Delete')]).toEqual([false, false]);
  });
});
