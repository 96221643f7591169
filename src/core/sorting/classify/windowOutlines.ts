import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { leastRectangle } from '@/core/geometry/polygon';
import { middle, type Point } from '@/core/geometry/vector';
import type { Drawn } from './drawn';
import { sidesOf, type AllLooks, type Line } from './looks';
import { onJamb } from './panes';

/** A window drawn as an outline: so wide and so deep, metres, and longer than deep by this factor. */
const outlined = { least: 0.4, most: 6.5, thin: 0.05, deep: 0.65, longer: 1.3 };

/** A rectangle of a window's size, and its two short sides. */
interface Rectangle {
  path: number;
  ends: Line[];
}

/**
 * Rectangles across a gap in a wall whose ends are drawn once more, as its jambs. Where the pieces of the wall between
 * them are rectangles too, both take turns: next to what is no rectangle, a corner of walls or a jamb, is a window.
 */
export function windowOutlines(looks: AllLooks, drawn: Drawn): void {
  const rectangles = new Map<number, Rectangle>();
  const sides: { path: number; middle: Point; length: number }[] = [];
  for (let path = 0; path < looks.length; path += 1) {
    if (looks[path] !== null || drawn.p.chain[path] !== 0) continue;
    const own = sidesOf(drawn.placed(path));
    for (const { a, b, length } of own) if (length <= outlined.deep) sides.push({ path, middle: middle(a, b), length });
    const found = rectangleOf(path, drawn, own);
    if (found !== null) rectangles.set(path, found);
  }
  const index = new BoxIndex(sides, (side) => boxOf([side.middle]));
  const besides = (path: number, { a, b, length }: Line): number[] =>
    index
      .around(middle(a, b), onJamb)
      .flatMap((side) => (side.path !== path && Math.abs(side.length - length) < 2 * onJamb ? [side.path] : []));
  const closed = new Map(
    [...rectangles.values()].flatMap(({ path, ends }): [number, number[][]][] => {
      const beyond = ends.map((end) => besides(path, end));
      return beyond.every((others) => others.length > 0) ? [[path, beyond]] : [];
    }),
  );
  for (const path of takingTurns(closed, (other) => rectangles.has(other)))
    looks[path] = { role: 'window', why: 'a rectangle from jamb to jamb' };
}

/** A path as a rectangle, where it is one of a window's size. */
function rectangleOf(path: number, drawn: Drawn, sides: readonly Line[]): Rectangle | null {
  const box = drawn.corners(path)?.length === 4 ? leastRectangle(drawn.placed(path).points) : null;
  if (box === null) return null;
  const [long, deep] = [Math.max(box.width, box.depth), Math.min(box.width, box.depth)];
  if (long < outlined.least || long > outlined.most || deep < outlined.thin || deep > outlined.deep) return null;
  const ends = sides.filter(({ length }) => Math.abs(length - deep) < onJamb);
  return long >= outlined.longer * deep && ends.length === 2 ? { path, ends } : null;
}

/**
 * The windows among rectangles that follow one another, from those that what is no rectangle ends at; what only
 * rectangles follow is a window too.
 * @param closed rectangles with what is drawn at either end
 */
function takingTurns(
  closed: ReadonlyMap<number, readonly (readonly number[])[]>,
  isRectangle: (path: number) => boolean,
): number[] {
  const isWindow = new Map<number, boolean>();
  const next: number[] = [];
  const say = (path: number, is: boolean): void => {
    if (isWindow.has(path)) return;
    isWindow.set(path, is);
    next.push(path);
  };
  for (const [path, beyond] of closed) if (beyond.some((others) => !others.some(isRectangle))) say(path, true);
  for (const path of next)
    for (const other of closed.get(path)?.flat() ?? []) if (closed.has(other)) say(other, !isWindow.get(path));
  return [...closed.keys()].filter((path) => isWindow.get(path) ?? true);
}
