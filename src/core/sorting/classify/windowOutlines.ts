import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { leastRectangle } from '@/core/geometry/polygon';
import { middle, type Point } from '@/core/geometry/vector';
import type { Drawn } from './drawn';
import { sidesOf, type AllLooks, type Line } from './looks';
import { onJamb } from './panes';

/** A window drawn as an outline: so wide and so deep, metres, and longer than deep by this factor. */
const outlined = { least: 0.4, most: 6.5, thin: 0.05, deep: 0.65, longer: 1.3 };

/** Rectangles across a gap in a wall whose ends are drawn once more, as its jambs. */
export function windowOutlines(looks: AllLooks, drawn: Drawn): void {
  const rectangles: { path: number; ends: Line[] }[] = [];
  const sides: { path: number; middle: Point; length: number }[] = [];
  for (let path = 0; path < looks.length; path += 1) {
    if (looks[path] !== null || drawn.p.chain[path] !== 0) continue;
    const outline = drawn.placed(path);
    const own = sidesOf(outline);
    for (const { a, b, length } of own) if (length <= outlined.deep) sides.push({ path, middle: middle(a, b), length });
    const box = drawn.corners(path)?.length === 4 ? leastRectangle(outline.points) : null;
    if (box === null) continue;
    const [long, deep] = [Math.max(box.width, box.depth), Math.min(box.width, box.depth)];
    if (long < outlined.least || long > outlined.most || deep < outlined.thin || deep > outlined.deep) continue;
    const ends = own.filter(({ length }) => Math.abs(length - deep) < onJamb);
    if (long >= outlined.longer * deep && ends.length === 2) rectangles.push({ path, ends });
  }
  const index = new BoxIndex(sides, (side) => boxOf([side.middle]));
  for (const { path, ends } of rectangles) {
    const isDrawn = ({ a, b, length }: Line): boolean =>
      index
        .around(middle(a, b), onJamb)
        .some((side) => side.path !== path && Math.abs(side.length - length) < 2 * onJamb);
    if (ends.every(isDrawn)) looks[path] = { role: 'window', why: 'a rectangle from jamb to jamb' };
  }
}
