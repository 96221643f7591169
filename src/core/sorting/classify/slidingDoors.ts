import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { leastRectangle } from '@/core/geometry/polygon';
import { cross, distance, dot, middle, subtract, type Point } from '@/core/geometry/vector';
import { defaultSettings } from '@/core/patterns/settings';
import type { Drawn } from './drawn';
import type { AllLooks, Line } from './looks';

/** A leaf that slides is so thick and so long, and so far before the wall, metres. */
const leaf = { thin: 0.02, thick: 0.09, least: 0.5, most: 4, before: 0.12 };
/** The ends of a leaf and of a threshold lie at the jambs within this, metres; a leaf may reach beyond by so much. */
const atJamb = 0.03;
const beyondJamb = 0.12;
/** Directions whose sine is below are square to one another. */
const square = 0.03;

/** Where a leaf lies: the middle of its length, along it, half its length and its thickness. */
interface Leaf {
  at: Point;
  u: Point;
  half: number;
  thin: number;
}

/**
 * Thin rectangles before a wall that reach from one jamb across it to another: leaves that slide. What runs from jamb
 * to jamb beneath them are thresholds; as faces of the wall they would close it.
 * @param sides straight sides of outlines, which have jambs among them too
 */
export function slidingDoors(looks: AllLooks, drawn: Drawn, lines: readonly Line[], sides: readonly Line[]): void {
  const isOpen = ({ path }: Line): boolean => looks[path] === null;
  const { least, most } = defaultSettings.wall;
  const open = [...lines, ...sides].filter(isOpen);
  const jambs = open.filter(({ length }) => length >= least && length <= most);
  const jambIndex = new BoxIndex(jambs, ({ a, b }) => boxOf([a, b]));
  const lineIndex = new BoxIndex(lines.filter(isOpen), ({ a, b }) => boxOf([middle(a, b)]));
  for (let path = 0; path < looks.length; path += 1) {
    const found = looks[path] === null && drawn.p.chain[path] === 0 ? leafOf(drawn.corners(path)) : null;
    const ends = found === null ? null : jambsOf(found, jambIndex, path);
    if (ends === null) continue;
    looks[path] = { role: 'door', why: 'a thin rectangle from jamb to jamb before a wall' };
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

/** The jambs at both ends of a leaf, beside it on one side; null where there are not both. */
function jambsOf({ at, u, half, thin }: Leaf, index: BoxIndex<Line>, own: number): [Line, Line] | null {
  const aside = (p: Point): number => cross(u, subtract(p, at));
  const jambAt = (end: number): Line[] => {
    const place: Point = [at[0] + u[0] * end, at[1] + u[1] * end];
    return index.around(place, thin + leaf.before + beyondJamb).filter((line) => {
      if (line.path === own) return false;
      const isSquare = Math.abs(dot(u, subtract(line.b, line.a))) < square * line.length;
      const beyond = Math.sign(end) * dot(u, subtract(place, middle(line.a, line.b)));
      const isAtEnd = beyond > -atJamb && beyond < beyondJamb;
      const near = Math.min(Math.abs(aside(line.a)), Math.abs(aside(line.b)));
      const isBeside = aside(line.a) * aside(line.b) > 0 && near < thin / 2 + leaf.before;
      return isSquare && isAtEnd && isBeside;
    });
  };
  const others = jambAt(half);
  for (const from of jambAt(-half)) {
    const reach = (line: Line): [number, number] => {
      const [p, q] = [aside(line.a), aside(line.b)];
      return p < q ? [p, q] : [q, p];
    };
    const own = reach(from);
    const to = others.find((line) => reach(line).every((value, i) => Math.abs(value - own[i]) < atJamb));
    if (to !== undefined) return [from, to];
  }
  return null;
}

/** Whether a line runs from an end of one jamb to one of another. */
const joins = ({ a, b }: Line, from: Line, to: Line): boolean =>
  [from, to].every((jamb) => [jamb.a, jamb.b].some((end) => [a, b].some((p) => distance(p, end) < atJamb)));
