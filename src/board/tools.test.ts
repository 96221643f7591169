import type { Point } from '@/core/geometry/vector';
import { useBoard } from './boardStore';
import {
  clickCorner,
  clickLine,
  clickPoint,
  closeOutline,
  dropCorner,
  finishTool,
  leaveTool,
  wantsLine,
  wantsPoints,
} from './tools';

const board = () => useBoard.getState();
const picked = (x: number, y: number) => ({
  point: [x, y] as Point,
  drawingId: 'd',
  drawingPoint: [x, y] as Point,
  words: 'end of line',
});
beforeEach(() => {
  board().setTool({ kind: 'look' });
  board().setMeasured(null);
});

describe('the outline tool', () => {
  let taken: Point[] | null = null;
  beforeEach(() => {
    taken = null;
    board().setTool({
      kind: 'outline',
      prompt: 'corner',
      take: (corners) => {
        taken = corners;
      },
    });
  });
  const click = (...points: Point[]) => points.forEach((p) => clickCorner(p, 0.1));

  test('two corners make a rectangle', () => {
    click([1, 2], [5, 9]);
    expect(closeOutline()).toBe(true);
    expect(taken).toEqual([
      [1, 2],
      [5, 2],
      [5, 9],
      [1, 9],
    ]);
    expect([board().tool.kind, board().corners]).toEqual(['look', []]);
  });

  test('a click near the first corner closes a polygon; nine pixels are near', () => {
    click([0, 0], [10, 0], [10, 10], [0.8, 0.3]);
    expect(taken).toEqual([
      [0, 0],
      [10, 0],
      [10, 10],
    ]);
  });

  test('with two corners a click near the first is a corner, and further off it always is', () => {
    click([0, 0], [10, 0], [0.5, 0]);
    expect(board().corners).toHaveLength(3);
    click([1.2, 0]);
    expect(board().corners).toHaveLength(4);
  });

  test('one corner is not enough, the last one can be taken back, and Escape first drops corners, then the tool', () => {
    click([0, 0]);
    expect(closeOutline()).toBe(false);
    click([3, 3]);
    expect(dropCorner()).toBe(true);
    expect(board().corners).toEqual([[0, 0]]);
    expect(leaveTool()).toBe(true);
    expect([board().tool.kind, board().corners]).toEqual(['outline', []]);
    expect(leaveTool()).toBe(true);
    expect(board().tool.kind).toBe('look');
    expect([leaveTool(), dropCorner(), closeOutline()]).toEqual([false, false, false]);
    expect(taken).toBeNull();
  });
});

test('a picked point goes to whom it was for, once', () => {
  const taken: string[] = [];
  board().setTool({ kind: 'pick', prompt: 'zero', take: ({ words }) => taken.push(words) });
  expect(wantsPoints()).toBe(true);
  clickPoint(picked(1, 1));
  clickPoint(picked(2, 2));
  expect([taken, wantsPoints()]).toEqual([['end of line'], false]);
});

test('measuring takes two points, the third begins anew, and Escape drops an open one', () => {
  board().setTool({ kind: 'measure', mode: 'distance' });
  clickPoint(picked(0, 0));
  clickPoint(picked(3, 4));
  expect(board().measured).toMatchObject({ points: [{ point: [0, 0] }, { point: [3, 4] }], done: true });
  clickPoint(picked(7, 7));
  expect(board().measured).toMatchObject({ points: [{ point: [7, 7] }], done: false });
  leaveTool();
  expect([board().measured, board().tool.kind]).toEqual([null, 'measure']);
});

test('a run takes any number of points until Enter; the last one can be taken back; an angle ends with its third', () => {
  board().setTool({ kind: 'measure', mode: 'run' });
  clickPoint(picked(0, 0));
  expect(finishTool()).toBe(false);
  for (const x of [5, 9, 12]) clickPoint(picked(x, 0));
  expect(dropCorner()).toBe(true);
  expect(finishTool()).toBe(true);
  expect([board().measured?.points.map(({ point }) => point[0]), board().measured?.done]).toEqual([[0, 5, 9], true]);
  board().setTool({ kind: 'measure', mode: 'angle' });
  for (const x of [1, 0, 4]) clickPoint(picked(x, x));
  expect(board().measured?.done).toBe(true);
});

test('a picked line goes to whom it was for, once, and a click on none waits', () => {
  const taken: string[] = [];
  board().setTool({ kind: 'pickLine', prompt: 'axis', take: ({ words }) => taken.push(words) });
  expect([wantsLine(), wantsPoints()]).toEqual([true, false]);
  clickLine(null);
  const line = {
    from: [0, 0] as Point,
    to: [1, 0] as Point,
    drawingId: 'd',
    drawn: [
      [0, 0],
      [1, 0],
    ] as [Point, Point],
    words: 'line on A',
  };
  clickLine(line);
  clickLine(line);
  expect([taken, wantsLine()]).toEqual([['line on A'], false]);
});
