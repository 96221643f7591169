import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { cross, distance, dot, middle, subtract, type Point } from '@/core/geometry/vector';
import { defaultSettings } from '@/core/patterns/settings';
import type { AllLooks, Line } from './looks';

/** A door is so wide, metres. */
const door = { least: 0.6, most: 4 };
/** Ends this near to one another are one, metres. */
const sameEnd = 0.03;
/** Directions whose sine is below are one, or square to one another. */
const turned = 0.03;
/** What lies between two jambs ends this near to them, metres. */
const nearJamb = 0.1;

/** A stretch of a wall that jambs close at both ends, with nothing in it, and the lines along it. */
interface Cell {
  at: Point;
  lines: Line[];
  jambs: [Line, Line];
}

/** An end of a line, and the other one. */
interface End {
  line: Line;
  at: Point;
  to: Point;
}

/**
 * Doors that are drawn by nothing but two lines from jamb to jamb. A piece of wall between two doors looks the same:
 * along a wall they take turns, and what ends at a window, or where nothing goes on, is wall.
 * @param sides straight sides of outlines, which have jambs and faces among them too
 */
export function thresholds(looks: AllLooks, lines: readonly Line[], sides: readonly Line[]): void {
  const isOpen = ({ path }: Line): boolean => looks[path] === null;
  const drawn = [...lines, ...sides].filter((line) => isOpen(line) || looks[line.path]?.role === 'window');
  const ends = endsOf(drawn);
  const cells = cellsOf(lines.filter(isOpen), drawn, jambsBy(ends, isOpen));
  const index = new BoxIndex(
    cells.flatMap((cell) => cell.jambs.map((jamb) => ({ cell, jamb }))),
    ({ jamb }) => boxOf([middle(jamb.a, jamb.b)], sameEnd),
  );
  const next = (cell: Cell, { a, b }: Line): Cell | undefined =>
    index.around(middle(a, b)).find(({ cell: other }) => other !== cell && areAlong(other.lines[0], cell.lines[0]))
      ?.cell;
  const isInWall = (cell: Cell, jamb: Line): boolean => {
    const beyond = beyondOf(cell, jamb, ends);
    return beyond.length > 0 && beyond.every(isOpen);
  };
  for (const chain of chainsOf(cells, next))
    for (const { path } of doorsIn(chain, next, isInWall).flatMap((cell) => cell.lines))
      looks[path] = { role: 'door', why: 'one of two lines from jamb to jamb' };
}

const endsOf = (lines: readonly Line[]): BoxIndex<End> =>
  new BoxIndex(
    lines.flatMap((line) => [
      { line, at: line.a, to: line.b },
      { line, at: line.b, to: line.a },
    ]),
    ({ at }) => boxOf([at], sameEnd),
  );

const areSquare = (p: Line, q: Line): boolean =>
  Math.abs(dot(subtract(p.b, p.a), subtract(q.b, q.a))) < turned * p.length * q.length;

const areAlong = (p: Line, q: Line): boolean =>
  Math.abs(cross(subtract(p.b, p.a), subtract(q.b, q.a))) < turned * p.length * q.length;

type JambsAt = (at: Point, line: Line) => End[];

/** The jambs that begin at a point, square to a line there. */
function jambsBy(ends: BoxIndex<End>, isOpen: (line: Line) => boolean): JambsAt {
  const { least, most } = defaultSettings.wall;
  return (at, line) =>
    ends
      .around(at)
      .filter(({ line: jamb }) => isOpen(jamb) && jamb.length >= least && jamb.length <= most && areSquare(jamb, line));
}

/** The cells that single lines make with the jambs at their ends. */
function cellsOf(lines: readonly Line[], drawn: readonly Line[], jambsAt: JambsAt): Cell[] {
  const cells: Cell[] = [];
  const found = lines.flatMap((line): Cell[] => {
    if (line.length < door.least || line.length > door.most) return [];
    const starts = jambsAt(line.a, line);
    const pairs = starts.flatMap((from) => jambsAt(line.b, line).map((to) => ({ from, to })));
    const even = pairs.find(({ from, to }) => Math.abs(distance(from.to, to.to) - line.length) <= sameEnd);
    return even === undefined
      ? []
      : [{ at: middle(even.from.to, line.b), lines: [line], jambs: [even.from.line, even.to.line] }];
  });
  const places = new BoxIndex(found, ({ at }) => boxOf([at], sameEnd));
  const inside = new BoxIndex(drawn, ({ a, b }) => boxOf([middle(a, b)]));
  const done = new Set<Cell>();
  for (const {
    at,
    lines: [line],
    jambs,
  } of found) {
    const same = places.around(at).filter((other) => !done.has(other) && areAlong(other.lines[0], line));
    for (const one of same) done.add(one);
    const own = same.flatMap((one) => one.lines);
    const isOther = ({ a, b }: Line): boolean => distance(middle(a, b), middle(line.a, line.b)) > sameEnd;
    if (own.some(isOther) && !isFilled(at, own, jambs[0].length, inside)) cells.push({ at, lines: own, jambs });
  }
  return cells;
}

/** Whether something runs from jamb to jamb between the outer lines: panes, or leaves of a wall. */
const isFilled = (at: Point, own: readonly Line[], across: number, inside: BoxIndex<Line>): boolean =>
  inside
    .around(at, across / 2 - sameEnd)
    .some((line) => !own.includes(line) && areAlong(line, own[0]) && line.length > own[0].length - 2 * nearJamb);

/** Cells that share jambs, in a row. */
function chainsOf(cells: readonly Cell[], next: (cell: Cell, jamb: Line) => Cell | undefined): Cell[][] {
  const around = (cell: Cell): Cell[] => cell.jambs.flatMap((jamb) => next(cell, jamb) ?? []);
  const done = new Set<Cell>();
  const walk = (first: Cell): Cell[] => {
    const chain: Cell[] = [];
    for (let cell: Cell | undefined = first; cell !== undefined; cell = around(cell).find((one) => !done.has(one))) {
      done.add(cell);
      chain.push(cell);
    }
    return chain;
  };
  const fromEnds = [...cells].sort((p, q) => around(p).length - around(q).length);
  return fromEnds.flatMap((cell) => (done.has(cell) ? [] : [walk(cell)]));
}

/** What begins at a jamb and runs away from a cell, along it. */
function beyondOf({ at, lines: [first] }: Cell, jamb: Line, ends: BoxIndex<End>): Line[] {
  const out = subtract(middle(jamb.a, jamb.b), at);
  return [jamb.a, jamb.b].flatMap((corner) =>
    ends
      .around(corner)
      .flatMap(({ line, at: from, to }) => (areAlong(line, first) && dot(subtract(to, from), out) > 0 ? [line] : [])),
  );
}

/** The doors of a row of cells; none where it does not come out even. @param isInWall whether beyond a jamb is wall */
function doorsIn(
  chain: readonly Cell[],
  next: (cell: Cell, jamb: Line) => Cell | undefined,
  isInWall: (cell: Cell, jamb: Line) => boolean,
): Cell[] {
  const [first, last] = [chain[0], chain[chain.length - 1]];
  const outer = [first, last].map((cell) => cell.jambs.filter((jamb) => next(cell, jamb) === undefined));
  // Alone a cell has two outer ends.
  const [before, after] = first === last ? [outer[0].slice(0, 1), outer[0].slice(1)] : outer;
  const [starts, ends] = [before.every((jamb) => isInWall(first, jamb)), after.every((jamb) => isInWall(last, jamb))];
  const isDoor = (i: number): boolean => (i % 2 === 0) === starts;
  if (isDoor(chain.length - 1) !== ends) return [];
  const doors = chain.filter((_, i) => isDoor(i));
  const lengthOf = (some: readonly Cell[]): number => some.reduce((sum, { lines: [{ length }] }) => sum + length, 0);
  // Pieces of a wall as long as one another are panels.
  return chain.length > 1 && lengthOf(doors) > lengthOf(chain) / 2 ? [] : doors;
}
