import type { Point } from '@/core/geometry/vector';
import { fail, ok, type Result } from '@/core/result';
import type { DrawnLine } from './takeMembers';

/** A window or a door that lines of a section show: two opposite corners, and the lines' paths. */
export interface TakenOpening {
  corners: readonly [Point, Point];
  paths: number[];
}

/** Lines touch within this, metres; a line is level or upright where its ends differ by no more. */
const touching = 0.005;
/** Each side of a frame is drawn over at least this share of it. */
const drawnShare = 0.9;
/** Openings are as wide and as high as this, metres. */
const [smallest, largest] = [0.2, 12];
/** More lines than these are no windows but a whole sheet. */
const mostLines = 3000;

interface Piece {
  box: readonly [left: number, low: number, right: number, high: number];
  path: number;
}

const pieceOf = ({ from, to, path }: DrawnLine): Piece => ({
  box: [Math.min(from[0], to[0]), Math.min(from[1], to[1]), Math.max(from[0], to[0]), Math.max(from[1], to[1])],
  path,
});

const touch = ({ box: a }: Piece, { box: b }: Piece): boolean =>
  a[0] <= b[2] + touching && b[0] <= a[2] + touching && a[1] <= b[3] + touching && b[1] <= a[3] + touching;

/** Lines that hang together, each group once. */
function groups(pieces: readonly Piece[]): Piece[][] {
  const left = new Set(pieces.keys());
  const found: Piece[][] = [];
  for (const first of pieces.keys()) {
    if (!left.delete(first)) continue;
    const group = [first];
    for (const i of group)
      for (const j of left)
        if (touch(pieces[i], pieces[j])) {
          left.delete(j);
          group.push(j);
        }
    found.push(group.map((i) => pieces[i]));
  }
  return found;
}

/** The rectangle round lines that hang together, where all four of its sides are drawn; else null. */
function frameOf(pieces: readonly Piece[]): TakenOpening | null {
  const [left, low] = [0, 1].map((i) => Math.min(...pieces.map(({ box }) => box[i])));
  const [right, high] = [2, 3].map((i) => Math.max(...pieces.map(({ box }) => box[i])));
  const sizes = [right - left, high - low];
  if (sizes.some((size) => size < smallest || size > largest)) return null;
  const sides = [
    { across: 0, at: left },
    { across: 0, at: right },
    { across: 1, at: low },
    { across: 1, at: high },
  ];
  const drawn = sides.every(({ across, at }) => {
    const on = pieces.filter(({ box }) => [box[across], box[across + 2]].every((v) => Math.abs(v - at) <= touching));
    const along = 1 - across;
    const reach = on.reduce((sum, { box }) => sum + box[along + 2] - box[along], 0);
    return reach >= drawnShare * sizes[along];
  });
  if (!drawn) return null;
  const corners: TakenOpening['corners'] = [
    [left, low],
    [right, high],
  ];
  return { corners, paths: [...new Set(pieces.map(({ path }) => path))] };
}

const inside = ({ corners: [a, b] }: TakenOpening, { corners: [c, d] }: TakenOpening): boolean =>
  a[0] >= c[0] && a[1] >= c[1] && b[0] <= d[0] && b[1] <= d[1];

/** The windows and doors that lines of a section show: rectangles with what touches them, panes in frames once. */
export function takeOpenings(lines: readonly DrawnLine[]): Result<TakenOpening[]> {
  if (lines.length > mostLines)
    return fail(
      `${lines.length} lines lie on that layer; at most ${mostLines} are taken at once. Draw the openings by their corners.`,
    );
  const frames = groups(lines.map(pieceOf)).flatMap((group) => frameOf(group) ?? []);
  const outer = frames.filter((one) => !frames.some((other) => other !== one && inside(one, other)));
  if (outer.length === 0)
    return fail('No rectangle stands there that could be a window or a door. Draw it by its corners.');
  return ok(outer.map((one) => ({ ...one, paths: framesWithin(one, frames) })));
}

/** The paths of a frame and of all that stands within it. */
const framesWithin = (outer: TakenOpening, frames: readonly TakenOpening[]): number[] => [
  ...new Set(frames.filter((one) => inside(one, outer)).flatMap(({ paths }) => paths)),
];
