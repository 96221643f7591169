import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { arcOfBulge } from '@/core/geometry/bulge';
import { leastRectangle } from '@/core/geometry/polygon';
import { distance, nearestOnPiece, type Point } from '@/core/geometry/vector';
import type { Role } from '../roles';
import { isLeaf, isQuarter } from './doors';
import type { Drawn } from './drawn';
import type { AllLooks } from './looks';
import { shortPiece } from './walls';

/** What a block's inserts mostly are, it is; so many of them are needed. */
const enough = { inserts: 2, share: 0.6 };
/** A window is so wide, and an end of it lies so near to a jamb, metres. */
const pane = { least: 0.4, most: 6.5, deepest: 0.65, onJamb: 0.06 };

/** One insert of a block: its paths, and what they are made of, metres. */
interface Insert {
  paths: number[];
  points: Point[];
  sides: [Point, Point][];
  arcs: { centre: Point; radius: number; sweep: number }[];
}

/**
 * Blocks that hold a quarter arc with its leaf are doors; those that run from jamb to jamb of a wall windows.
 * @param isNamed whether a block's name tells already what it is
 */
export function blockOpenings(looks: AllLooks, drawn: Drawn, isNamed: (block: number) => boolean): void {
  const blocks = insertsOf(looks, drawn, isNamed);
  if (blocks.size === 0) return;
  const jambs = jambsOf(looks, drawn);
  const index = new BoxIndex(jambs, (jamb) => boxOf(jamb));
  const atJamb = (end: Point): boolean =>
    index.around(end, pane.onJamb).some(([a, b]) => distance(nearestOnPiece(a, b, end), end) <= pane.onJamb);
  const signs: [Role, string, (insert: Insert) => boolean][] = [
    ['door', 'with a quarter arc and its leaf', isDoor],
    ['window', 'from jamb to jamb of a wall', (insert) => isWindow(insert, atJamb)],
  ];
  for (const inserts of blocks.values()) {
    if (inserts.length < enough.inserts) continue;
    for (const [role, what, is] of signs) {
      const found = inserts.filter(is).length;
      if (found < enough.share * inserts.length) continue;
      const why = `${found} of ${inserts.length} inserts of its block ${what}`;
      for (const { paths } of inserts) for (const path of paths) looks[path] ??= { role, why };
      break;
    }
  }
}

/** The inserts of each block of which nothing has been said yet. */
function insertsOf(looks: AllLooks, drawn: Drawn, isNamed: (block: number) => boolean): Map<number, Insert[]> {
  const blocks = new Map<number, Map<number, Insert>>();
  for (let path = 0; path < looks.length; path += 1) {
    if (drawn.p.chain[path] === 0 || looks[path] !== null) continue;
    const block = drawn.outermost(path);
    if (isNamed(block)) continue;
    const tops = blocks.get(block) ?? new Map<number, Insert>();
    blocks.set(block, tops);
    const insert = tops.get(drawn.p.top[path]) ?? { paths: [], points: [], sides: [], arcs: [] };
    tops.set(drawn.p.top[path], insert);
    insert.paths.push(path);
    for (const { a, b, bulge } of sidesOf(drawn, path)) {
      insert.points.push(a, b);
      if (bulge === 0) insert.sides.push([a, b]);
      else insert.arcs.push(arcOfBulge(a, b, bulge));
    }
  }
  return new Map([...blocks].map(([block, tops]) => [block, [...tops.values()]]));
}

function sidesOf(drawn: Drawn, path: number): { a: Point; b: Point; bulge: number }[] {
  const { points, bulges, closed } = drawn.placed(path);
  const sides = points.map((a, i) => ({ a, b: points[(i + 1) % points.length], bulge: bulges[i] }));
  return closed ? sides : sides.slice(0, -1);
}

/** The short sides of what looks like walls. */
function jambsOf(looks: AllLooks, drawn: Drawn): [Point, Point][] {
  return looks.flatMap((look, path) =>
    look?.role !== 'wall'
      ? []
      : sidesOf(drawn, path).flatMap(({ a, b, bulge }): [Point, Point][] =>
          bulge === 0 && distance(a, b) <= shortPiece ? [[a, b]] : [],
        ),
  );
}

const isDoor = ({ arcs, sides }: Insert): boolean =>
  arcs.some((arc) => isQuarter(arc) && sides.some(([a, b]) => isLeaf(arc, a, b)));

function isWindow({ points, arcs }: Insert, atJamb: (end: Point) => boolean): boolean {
  const box = arcs.length > 0 ? null : leastRectangle(points);
  if (box === null) return false;
  const [long, deep] = [Math.max(box.width, box.depth), Math.min(box.width, box.depth)];
  if (long < pane.least || long > pane.most || deep > pane.deepest || deep > long / 1.5) return false;
  const turn = box.rotation + (box.width >= box.depth ? 0 : Math.PI / 2);
  const [ux, uy] = [(Math.cos(turn) * long) / 2, (Math.sin(turn) * long) / 2];
  const [x, y] = box.centre;
  return atJamb([x + ux, y + uy]) && atJamb([x - ux, y - uy]);
}
