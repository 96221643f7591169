import type { Point } from '@/core/geometry/vector';
import { useBoard } from './boardStore';
import { clickCorner, clickPoint, closeOutline, dropCorner, leaveTool, wantsPoints } from './tools';

const board = () => useBoard.getState();
const picked = (x: number, y: number) => ({ point: [x, y] as Point, drawingId: 'd', drawingPoint: [x, y] as Point, words: 'end of line' });
beforeEach(() => { board().setTool({ kind: 'look' }); board().setMeasured(null); });

describe('the outline tool', () => {
  let taken: Point[] | null = null;
  beforeEach(() => { taken = null; board().setTool({ kind: 'outline', prompt: 'corner', take: (corners) => { taken = corners; } }); });
  const click = (...points: Point[]) => points.forEach((p) => clickCorner(p, 0.1));

  test('two corners make a rectangle', () => {
    click([1, 2], [5, 9]);
    expect(closeOutline()).toBe(true);
    expect(taken).toEqual([[1, 2], [5, 2], [5, 9], [1, 9]]);
    expect([board().tool.kind, board().corners]).toEqual(['look', []]);
  });

  test('a click near the first corner closes a polygon; nine pixels are near', () => {
    click([0, 0], [10, 0], [10, 10], [0.8, 0.3]);
    expect(taken).toEqual([[0, 0], [10, 0], [10, 10]]);
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
  board().setTool({ kind: 'measure' });
  clickPoint(picked(0, 0));
  clickPoint(picked(3, 4));
  expect(board().measured).toMatchObject({ from: { point: [0, 0] }, to: { point: [3, 4] } });
  clickPoint(picked(7, 7));
  expect(board().measured).toMatchObject({ from: { point: [7, 7] }, to: null });
  leaveTool();
  expect([board().measured, board().tool.kind]).toEqual([null, 'measure']);
});
