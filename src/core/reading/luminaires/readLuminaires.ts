import { BoxIndex, boxOf, type Box } from '@/core/geometry/boxIndex';
import { degrees, distance, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import type { Luminaire, shippedPhotometries } from '@/core/kinds/luminaire';
import { pathPoints } from '@/core/patterns/outlines';
import type { PlacedPath } from '@/core/placed/placed';
import { confidenceOf, keyAt, type Evidence, type LuminaireCandidate, type Unread } from '../candidate';
import type { Scene } from '../scene';

/** Symbols are no smaller and no larger than this, metres: a spot, and a row of linear luminaires. */
const [smallest, largest] = [0.04, 6.5];
/** Loose lines nearer than this are of one symbol, metres. */
const together = 0.03;
/** Luminaires hang so high above their level where nothing says it, metres: indoors, and on posts. */
const [usualRise, postRise] = [2.8, 6];

/** What a symbol's size tells of its light: long and narrow, small, or a plate; metres. */
const slender = 2.5;
const smallUpTo = 0.4;

/** The rectangle about a symbol: where its middle lies, how long and wide it is, how its longer side is turned. */
interface Symbol {
  middle: Point;
  length: number;
  width: number;
  turn: number;
  paths: PlacedPath[];
  ofBlock: string | null;
}

/**
 * Reads luminaires from the symbols on their role: each block that is placed there, and loose lines that hang together.
 * The longer side of a symbol is the 0 degree half-plane; what light it has its size tells, to be put right.
 */
export function readLuminaires(scene: Scene): { candidates: LuminaireCandidate[]; unread: Unread[] } {
  const paths = scene.paths('luminaire');
  const symbols = symbolsOf(scene, paths);
  const fits = ({ length }: Symbol): boolean => length >= smallest && length <= largest;
  const sizes = groupBy(symbols.filter(fits), sizeKey);
  return {
    candidates: symbols.filter(fits).map((symbol) => candidateOf(symbol, sizes.get(sizeKey(symbol))?.length ?? 1)),
    unread: symbols
      .filter((symbol) => !fits(symbol))
      .map(({ paths: [{ entity, handle, layer }], length }) => ({
        role: 'luminaire',
        entity,
        handle,
        layer,
        why: `no symbol of a luminaire: ${length.toFixed(2)} m long`,
      })),
  };
}

const sizeKey = ({ length, width }: Symbol): string => `${length.toFixed(2)} ${width.toFixed(2)}`;

/** Blocks by what placed them; loose lines by what touches. */
function symbolsOf(scene: Scene, paths: readonly PlacedPath[]): Symbol[] {
  const blockOf = ({ handle }: PlacedPath): string | null => scene.blockOf(handle);
  const [placed, loose]: [PlacedPath[], PlacedPath[]] = [[], []];
  for (const path of paths) (blockOf(path) === null ? loose : placed).push(path);
  const blocks = [...groupBy(placed, ({ handle }) => handle).values()].flatMap((own) => {
    const symbol = symbolOf(own, blockOf(own[0]));
    // A block of a whole plan holds many symbols.
    return symbol.length <= largest ? [symbol] : clusters(own).map((some) => symbolOf(some, null));
  });
  return [...blocks, ...clusters(loose).map((own) => symbolOf(own, null))];
}

/** Paths whose boxes touch, put together. */
function clusters(paths: readonly PlacedPath[]): PlacedPath[][] {
  const boxes = paths.map((path): Box => boxOf(pathPoints(path), together / 2));
  const index = new BoxIndex([...paths.keys()], (i) => boxes[i]);
  const seen = new Set<number>();
  return [...paths.keys()].flatMap((first) => {
    if (seen.has(first)) return [];
    const own: number[] = [];
    const open = [first];
    seen.add(first);
    for (let i = open.pop(); i !== undefined; i = open.pop()) {
      own.push(i);
      for (const j of index.touching(boxes[i]))
        if (!seen.has(j)) {
          seen.add(j);
          open.push(j);
        }
    }
    return [own.map((i) => paths[i])];
  });
}

/** The box of points about a direction. */
function boxAlong(points: readonly Point[], turn: number) {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [x1, y1, x2, y2] = boxOf(points.map(([x, y]): Point => [c * x + s * y, c * y - s * x]));
  const [u, v] = [(x1 + x2) / 2, (y1 + y2) / 2];
  const middle: Point = [c * u - s * v, s * u + c * v];
  return { turn, middle, along: x2 - x1, across: y2 - y1 };
}

/** A smaller box counts only where it is smaller by more than rounding. */
const smaller = 1 - 1e-6;

function symbolOf(paths: PlacedPath[], ofBlock: string | null): Symbol {
  const points = paths.flatMap(pathPoints);
  // Of the boxes along its lines the smallest lies about it.
  const { turn, middle, along, across } = directionsOf(paths)
    .map((angle) => boxAlong(points, angle))
    .reduce((best, box) => (box.along * box.across < best.along * best.across * smaller ? box : best));
  const upright = across > along + 1e-6;
  return {
    middle,
    length: Math.max(along, across),
    width: Math.min(along, across),
    turn: ((((degrees(turn) + (upright ? 90 : 0)) % 180) + 180) % 180) + 0,
    paths,
    ofBlock,
  };
}

/** A symbol has no more directions worth trying than these. */
const mostDirections = 12;

/** The directions of a symbol's straight lines, the longest first, radians; zero of one that has none. */
function directionsOf(paths: readonly PlacedPath[]): number[] {
  const sides = paths.flatMap(({ points, bulges, closed, circle }) =>
    circle
      ? []
      : points.flatMap((a, i) => {
          const last = i + 1 === points.length;
          if ((last && !closed) || bulges[i] !== 0) return [];
          const b = points[(i + 1) % points.length];
          return [{ size: distance(a, b), angle: Math.atan2(b[1] - a[1], b[0] - a[0]) }];
        }),
  );
  const angles = sides.sort((a, b) => b.size - a.size).map(({ angle }) => angle);
  const apart = angles.filter((angle, i) => angles.findIndex((other) => sameWay(angle, other)) === i);
  return apart.length === 0 ? [0] : apart.slice(0, mostDirections);
}

/** Whether a box along two directions is the same. */
const sameWay = (a: number, b: number): boolean => Math.abs(Math.sin(2 * (a - b))) < 1e-6;

type Light = (typeof shippedPhotometries)[number];

/** Words in the name of a block that tell its light; the first that is there counts. */
const named: [RegExp, Light][] = [
  [/flood|fluter|projecteur|strahler/i, 'floodlight'],
  [/post|pole|mast|bollard|poller/i, 'post top'],
  [/wall.?wash|wandfluter/i, 'wall washer'],
  [/down|spot/i, 'downlight'],
  [/linear|batten|strip|tube/i, 'linear'],
  [/panel|plate|square/i, 'panel'],
];

/** The light that a symbol most likely has: by the name of its block, else by its size. */
function lightOf({ length, width, ofBlock }: Symbol): { light: Light; why: 'name' | 'size' } {
  const byName = ofBlock === null ? undefined : named.find(([word]) => word.test(ofBlock));
  if (byName !== undefined) return { light: byName[1], why: 'name' };
  return { light: lightOfSize(length, width), why: 'size' };
}

function lightOfSize(length: number, width: number): Light {
  if (length <= smallUpTo) return 'downlight';
  return length / Math.max(width, 1e-6) >= slender ? 'linear' : 'panel';
}

function candidateOf(symbol: Symbol, alike: number): LuminaireCandidate {
  const { middle, length, width, turn, paths, ofBlock } = symbol;
  const handles = [...new Set(paths.map(({ handle }) => handle))];
  const { light: photometry, why } = lightOf(symbol);
  const onPost = photometry === 'floodlight' || photometry === 'post top';
  const evidence: Evidence[] = [
    ofBlock === null
      ? { text: 'lines that hang together', weight: 1 }
      : { text: `the block \u201c${ofBlock}\u201d`, weight: 2 },
    ...(alike > 1 ? [{ text: `${alike} of this size`, weight: 1 }] : []),
    {
      text: `${(length * 1000).toFixed(0)} by ${(width * 1000).toFixed(0)} mm: ${photometry} by its ${why}`,
      weight: 0,
    },
  ];
  const element: Luminaire = {
    position: middle,
    rise: onPost ? postRise : usualRise,
    rotation: turn,
    tilt: 0,
    photometry,
    output: 1,
  };
  return {
    kind: 'luminaire',
    key: keyAt('luminaire', handles, middle),
    element,
    evidence,
    confidence: confidenceOf('luminaire', evidence),
    handles,
    doubt: null,
  };
}
