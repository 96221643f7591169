import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { dot, type Point } from '@/core/geometry/vector';
import { leastBy } from '@/core/lists';
import { findOutlines } from '@/core/patterns/outlines';
import type { PlacedPath } from '@/core/placed/placed';
import { Drawn } from '@/core/sorting/classify/drawn';
import type { Primitives, TextPrimitive } from '@/core/underlay/primitives';
import { centreOfText } from '@/core/underlay/textBox';
import { asDrawn, sizeOf } from './marks';
import { keyOfRow, liesInRow, type KeyedRow } from './schedule';

/** How sections of beams are drawn beside their titles, in heights of the title's text. */
const drawnWithin = {
  /** A section reaches so far from the middle of its title. */
  reach: 60,
  /** So far from the title its edge is at most. */
  away: 25,
  /** A smaller one is a symbol. */
  least: 2,
  /** What is written of a side stands so far from it at most. */
  written: 12,
};
/** A rectangle fills its box but for this share. */
const notFilled = 0.01;
/** What is written of two sides is of this rectangle where it has their proportion, within this share. */
const offProportion = 0.03;
/** A beam is no wider and no deeper than this, metres. */
const most = { width: 2, depth: 4 };

const lengthAlone = /^(\d+(?:[.,]\d+)?(?:\s+\d+\/\d+)?)\s*(?:mm|["\u2033])?$/i;

/**
 * What is drawn beside the titles of types, sections and details ("Section C-C", "Detail 4"): a rectangle with its
 * width and its depth written at two of its sides, in their proportion. Each is a row with that size for a cell.
 * @param tables gives the rows of tables, whose cells are no titles; asked for where something is called so
 */
export function detailRows(p: Primitives, tables: () => readonly KeyedRow[]): KeyedRow[] {
  const named = p.texts.flatMap((text) => {
    const words = text.text.trim();
    const key = keyOfRow(words);
    const at = centreOfText(text);
    return key !== null && words.length > key.length ? [{ key, text, at }] : [];
  });
  if (named.length === 0) return [];
  const rows = tables();
  const titles = named.filter(({ at }) => !rows.some((row) => liesInRow(row, at)));
  // In the drawing's own units: what it is drawn in tells nothing here.
  const drawn = new Drawn(p, 1);
  const paths = new BoxIndex(
    Array.from({ length: drawn.count }, (_, path) => path),
    (path) => boxOf(drawn.placed(path).points),
  );
  const texts = new BoxIndex(p.texts, (text) => boxOf([centreOfText(text)]));
  return titles.flatMap(({ key, text, at }): KeyedRow[] => {
    const { height, angle } = text;
    const near = paths.around(at, drawnWithin.reach * height).map((path) => drawn.placed(path));
    const written = texts.around(at, (drawnWithin.reach + drawnWithin.written) * height);
    const size = drawnAt(at, text, near, written);
    const u: Point = [Math.cos(angle), Math.sin(angle)];
    return size === null ? [] : [{ key, cells: [size], at, height, u }];
  });
}

/** A rectangle, along its title and across it, about the title's middle. */
interface Rectangle {
  from: Point;
  to: Point;
}

/** The size that is written at the rectangle nearest to a title of which one is. */
function drawnAt(
  at: Point,
  title: TextPrimitive,
  paths: readonly PlacedPath[],
  texts: readonly TextPrimitive[],
): string | null {
  const { height, angle } = title;
  const [u, v]: Point[] = [
    [Math.cos(angle), Math.sin(angle)],
    [-Math.sin(angle), Math.cos(angle)],
  ];
  const about = ([x, y]: Point): Point => [dot([x - at[0], y - at[1]], u), dot([x - at[0], y - at[1]], v)];
  const numbers = texts.flatMap((text) => {
    const length = lengthAlone.exec(text.text.trim())?.[1];
    return length === undefined ? [] : [{ length, at: about(centreOfText(text)) }];
  });
  if (numbers.length < 2) return null;
  const rectangles = findOutlines(paths, (height * drawnWithin.least) / 10, true).outlines.flatMap(
    ({ points, circle }) => (circle === null ? (rectangleOf(points.map(about), drawnWithin.least * height) ?? []) : []),
  );
  const sized = rectangles
    .filter((rectangle) => distanceTo(rectangle, [0, 0]) <= drawnWithin.away * height)
    .flatMap((rectangle) => {
      const size = writtenAt(rectangle, numbers, drawnWithin.written * height);
      return size === null ? [] : [{ size, away: distanceTo(rectangle, [0, 0]) }];
    });
  return leastBy(sized, ({ away }) => away)?.size ?? null;
}

function rectangleOf(points: readonly Point[], least: number): Rectangle | null {
  const [x0, y0, x1, y1] = boxOf(points);
  const area = points.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = points[(i + 1) % points.length];
    return sum + (x * nextY - nextX * y) / 2;
  }, 0);
  const box = (x1 - x0) * (y1 - y0);
  const isRectangle = Math.abs(area) >= (1 - notFilled) * box && Math.min(x1 - x0, y1 - y0) >= least;
  return isRectangle ? { from: [x0, y0], to: [x1, y1] } : null;
}

const beyond = (from: number, to: number, at: number): number => Math.max(from - at, at - to, 0);

const distanceTo = ({ from, to }: Rectangle, [x, y]: Point): number =>
  Math.hypot(beyond(from[0], to[0], x), beyond(from[1], to[1], y));

/** The size of a rectangle by the lengths that are written beside its sides; null where they are not its own. */
function writtenAt(
  rectangle: Rectangle,
  numbers: readonly { length: string; at: Point }[],
  within: number,
): string | null {
  const { from, to } = rectangle;
  const beside = (along: 0 | 1) => {
    const across = 1 - along;
    return numbers.filter(({ at }) => {
      const away = beyond(from[across], to[across], at[across]);
      return beyond(from[along], to[along], at[along]) === 0 && away > 0 && away <= within;
    });
  };
  const drawn = (to[0] - from[0]) / (to[1] - from[1]);
  for (const width of beside(0))
    for (const depth of beside(1)) {
      const words = `${width.length}x${depth.length}${asDrawn}`;
      const size = sizeOf(words);
      if (size === null || size.width > most.width || size.depth > most.depth) continue;
      if (Math.abs(size.width / size.depth / drawn - 1) <= offProportion) return words;
    }
  return null;
}
