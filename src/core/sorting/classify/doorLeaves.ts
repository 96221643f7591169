import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { leastRectangle } from '@/core/geometry/polygon';
import { cross, distance, dot, middle, subtract, type Point } from '@/core/geometry/vector';
import { defaultSettings } from '@/core/patterns/settings';
import type { Drawn } from './drawn';
import type { AllLooks, Line } from './looks';
import { zigzagOf } from './zigzags';

/** A leaf that slides is so thick and so long, and so far before the wall, metres. */
const leaf = { thin: 0.02, thick: 0.09, least: 0.5, most: 4, before: 0.12 };
/** The ends of a leaf and of a threshold lie at the jambs within this, metres; a leaf may reach beyond by so much. */
const atJamb = 0.03;
const beyondJamb = 0.12;
/** Directions whose sine is below are square to one another. */
const square = 0.03;

/** So many leaves fold. */
const folded = { fewest: 2, most: 8 };
/** Of a wall's thickness a leaf that is shut in it has this share at most; off its middle it is no pane, metres. */
const shut = { thickest: 0.7, off: 0.008 };

/** Where a leaf lies: the middle of its length, along it, half its length and its thickness. */
interface Leaf {
  at: Point;
  u: Point;
  half: number;
  thin: number;
}

/** How a jamb lies to a leaf, told by how far its ends are aside of the leaf's middle line. */
type Way = (near: number, far: number, leaf: Leaf) => boolean;

/** The wall is on one side of a leaf that slides. */
const before: Way = (p, q, { thin }) => p * q > 0 && Math.min(Math.abs(p), Math.abs(q)) < thin / 2 + leaf.before;

/** One that is shut lies in it, on one side of its middle. */
const within: Way = (p, q, { thin }) =>
  p * q < 0 && thin <= shut.thickest * Math.abs(p - q) && Math.abs(p + q) / 2 > shut.off;

/** Leaves that fold begin and end in the wall. */
const inside: Way = (p, q) => p * q <= 0;

/**
 * What reaches from one jamb across a wall to another: thin rectangles before a wall are leaves that slide, in it those
 * that are shut, a zigzag of a few even pieces leaves that fold. What runs from jamb to jamb beneath them are
 * thresholds; as faces of the wall they would close it.
 * @param sides straight sides of outlines, which have jambs among them too
 */
export function doorLeaves(looks: AllLooks, drawn: Drawn, lines: readonly Line[], sides: readonly Line[]): void {
  const isOpen = ({ path }: Line): boolean => looks[path] === null;
  const { least, most } = defaultSettings.wall;
  const open = [...lines, ...sides].filter(isOpen);
  const jambs = open.filter(({ length }) => length >= least && length <= most);
  const jambIndex = new BoxIndex(jambs, ({ a, b }) => boxOf([a, b]));
  const lineIndex = new BoxIndex(lines.filter(isOpen), ({ a, b }) => boxOf([middle(a, b)]));
  for (let path = 0; path < looks.length; path += 1) {
    if (looks[path] !== null || drawn.p.chain[path] !== 0) continue;
    const straight = leafOf(drawn.corners(path));
    const ways = straight === null ? [inside] : [before, within];
    const found = straight ?? foldedOf(drawn, path);
    const ends =
      found === null
        ? undefined
        : ways.map((way) => jambsOf(found, jambIndex, path, way)).find((jambs) => jambs !== undefined);
    if (ends === undefined) continue;
    looks[path] = { role: 'door', why: straight ? 'a thin rectangle from jamb to jamb' : 'a zigzag from jamb to jamb' };
    const [from, to] = ends;
    for (const line of lineIndex.around(middle(middle(from.a, from.b), middle(to.a, to.b)), most))
      if (joins(line, from, to)) looks[line.path] = { role: 'door', why: 'a threshold beneath a leaf' };
  }
}

function leafOf(corners: Point[] | null): Leaf | null {
  const box = corners?.length === 4 ? leastRectangle(corners) : null;
  if (corners === null || box === null) return null;
  const [thin, long] = [Math.min(box.width, box.depth), Math.max(box.width, box.depth)];
  if (thin < leaf.thin || thin > leaf.thick || long < leaf.least || long > leaf.most) return null;
  const [a, b, c] = corners;
  const [from, to] = distance(a, b) > distance(b, c) ? [a, b] : [b, c];
  const length = distance(from, to);
  return { at: box.centre, u: [(to[0] - from[0]) / length, (to[1] - from[1]) / length], half: long / 2, thin };
}

/** Leaves that fold, as one from end to end. */
function foldedOf(drawn: Drawn, path: number): Leaf | null {
  const count = drawn.p.start[path + 1] - drawn.p.start[path] - 1;
  if (count < folded.fewest || count > folded.most) return null;
  const { points, bulges, closed } = drawn.placed(path);
  const zigzag = closed || bulges.some((bulge) => bulge !== 0) ? null : zigzagOf(points);
  const [from, to] = [points[0], points[count]];
  const long = distance(from, to);
  if (zigzag === null || long < leaf.least || long > leaf.most) return null;
  return { at: middle(from, to), u: [(to[0] - from[0]) / long, (to[1] - from[1]) / long], half: long / 2, thin: 0 };
}

/** The jambs at both ends of a leaf that lie to it in a way. */
function jambsOf(own: Leaf, index: BoxIndex<Line>, path: number, way: Way): [Line, Line] | undefined {
  const { at, u, half, thin } = own;
  const aside = (p: Point): number => cross(u, subtract(p, at));
  const jambAt = (end: number): Line[] => {
    const place: Point = [at[0] + u[0] * end, at[1] + u[1] * end];
    return index.around(place, thin + leaf.before + beyondJamb).filter((line) => {
      if (line.path === path) return false;
      const isSquare = Math.abs(dot(u, subtract(line.b, line.a))) < square * line.length;
      const beyond = Math.sign(end) * dot(u, subtract(place, middle(line.a, line.b)));
      const isAtEnd = beyond > -atJamb && beyond < beyondJamb;
      return isSquare && isAtEnd && way(aside(line.a), aside(line.b), own);
    });
  };
  const others = jambAt(half);
  for (const from of jambAt(-half)) {
    const reach = (line: Line): [number, number] => {
      const [p, q] = [aside(line.a), aside(line.b)];
      return p < q ? [p, q] : [q, p];
    };
    const across = reach(from);
    const to = others.find((line) => reach(line).every((value, i) => Math.abs(value - across[i]) < atJamb));
    if (to !== undefined) return [from, to];
  }
  return undefined;
}

/** Whether a line runs from an end of one jamb to one of another. */
const joins = ({ a, b }: Line, from: Line, to: Line): boolean =>
  [from, to].every((jamb) => [jamb.a, jamb.b].some((end) => [a, b].some((p) => distance(p, end) < atJamb)));
