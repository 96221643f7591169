import { arcOfBulge, chordCount, pointOnArc } from '@/core/geometry/bulge';
import { eachSide } from './pieces';
import { extentsOf, type Primitives } from './primitives';

/**
 * Straight segments to be drawn, sorted so that what cannot be seen is never touched: by length class, the
 * longest first, and within a class by cells of a grid. Segment i runs over xy[4i .. 4i + 4), 32 bit.
 */
export interface SegmentStore {
  xy: Float32Array;
  layer: Uint16Array;
  colour: Uint32Array;
  /** How many pixels wide a segment is drawn where weights are wanted. */
  weight: Uint8Array;
  cells: SegmentCells;
}

/** Cell c holds the segments first[c] .. first[c] + count[c), all at most length[c] long, within its box. */
export interface SegmentCells {
  first: Uint32Array;
  count: Uint32Array;
  length: Float32Array;
  box: Float32Array;
}

const gridBits = 11;
const classes = 32;

/** A path is broken into at most this many dashes; beyond it is drawn through. */
const mostDashes = 2000;

/**
 * Cuts the paths into segments and sorts them into cells.
 * @param dashed whether line types are drawn: what their gaps leave out is then no segment
 */
export function buildSegments(primitives: Primitives, dashed = false): SegmentStore {
  const extents = extentsOf(primitives) ?? [0, 0, 1, 1];
  const span = Math.max(extents[2] - extents[0], extents[3] - extents[1], 1e-9);
  const { xy: from, bulge } = primitives;
  const chords = (v: number, next: number) => {
    if (bulge[v] === 0 || next === v) return 1;
    const width = Math.hypot(from[2 * next] - from[2 * v], from[2 * next + 1] - from[2 * v + 1]);
    const radius = (width * (1 + bulge[v] ** 2)) / (4 * Math.abs(bulge[v]));
    // Half a pixel at twelve-fold zoom of the whole; but a stray far away must not make small circles angular.
    return chordCount(radius, 4 * Math.atan(bulge[v]), Math.min(span / 20_000, radius / 200));
  };
  let count = 0;
  eachSide(primitives, (_, v, next) => {
    count += chords(v, next);
  });
  const found = new Found(count);
  const solid = found.add.bind(found);
  const dasher = dashed ? new Dasher(primitives, solid) : null;
  const put = dasher === null ? solid : dasher.put.bind(dasher);
  eachSide(primitives, (p, v, next) => {
    const n = chords(v, next);
    if (n === 1) {
      put(p, from[2 * v], from[2 * v + 1], from[2 * next], from[2 * next + 1]);
      return;
    }
    const arc = arcOfBulge([from[2 * v], from[2 * v + 1]], [from[2 * next], from[2 * next + 1]], bulge[v]);
    let [x, y] = [from[2 * v], from[2 * v + 1]];
    for (let k = 1; k <= n; k += 1) {
      const [nx, ny] = pointOnArc(arc, k / n);
      put(p, x, y, nx, ny);
      [x, y] = [nx, ny];
    }
  });
  return sortIntoCells(primitives, ...found.finish(), { minX: extents[0], minY: extents[1], span });
}

/** Segments as they are found; dashes make more of them than there are sides. */
class Found {
  private count = 0;
  private xy: Float32Array;
  private path: Uint32Array;

  constructor(expected: number) {
    this.xy = new Float32Array(4 * expected);
    this.path = new Uint32Array(expected);
  }

  add(path: number, x1: number, y1: number, x2: number, y2: number): void {
    if (this.count === this.path.length) this.grow();
    const at = 4 * this.count;
    this.xy[at] = x1;
    this.xy[at + 1] = y1;
    this.xy[at + 2] = x2;
    this.xy[at + 3] = y2;
    this.path[this.count] = path;
    this.count += 1;
  }

  private grow(): void {
    const [xy, path] = [this.xy, this.path];
    const room = Math.max(64, 2 * path.length);
    this.xy = new Float32Array(4 * room);
    this.path = new Uint32Array(room);
    this.xy.set(xy);
    this.path.set(path);
  }

  finish(): [xy: Float32Array, path: Uint32Array] {
    return [this.xy.subarray(0, 4 * this.count), this.path.subarray(0, this.count)];
  }
}

/** Breaks the sides of a path by its pen's dashes, which run on round corners. */
class Dasher {
  private path = -1;
  private dashes: number[] = [];
  private dash = 0;
  private left = 0;

  constructor(
    private primitives: Primitives,
    private solid: (path: number, x1: number, y1: number, x2: number, y2: number) => void,
  ) {}

  put(path: number, x1: number, y1: number, x2: number, y2: number): void {
    if (path !== this.path) this.begin(path);
    const length = Math.hypot(x2 - x1, y2 - y1);
    if (this.dashes.length === 0 || length === 0) {
      this.solid(path, x1, y1, x2, y2);
      return;
    }
    const period = this.dashes.reduce((sum, dash) => sum + Math.abs(dash), 0);
    if ((length / period) * this.dashes.length > mostDashes) {
      this.solid(path, x1, y1, x2, y2);
      return;
    }
    for (let at = 0; at < length;) {
      const step = Math.min(this.left, length - at);
      const [t, u] = [at / length, (at + step) / length];
      if (this.dashes[this.dash] >= 0)
        this.solid(path, x1 + (x2 - x1) * t, y1 + (y2 - y1) * t, x1 + (x2 - x1) * u, y1 + (y2 - y1) * u);
      at += step;
      this.left -= step;
      if (this.left > 1e-12 * period) continue;
      this.dash = (this.dash + 1) % this.dashes.length;
      this.left = Math.abs(this.dashes[this.dash]) || period * 1e-3;
    }
  }

  private begin(path: number): void {
    this.path = path;
    const { dashes } = this.primitives.pens[this.primitives.pen[path]];
    this.dashes = dashes.some((dash) => dash < 0) && dashes.some((dash) => dash >= 0) ? dashes : [];
    this.dash = 0;
    this.left = Math.abs(this.dashes[0] ?? 0) || 1e-9;
  }
}

/** Pixels for a weight in hundredths of a millimetre; the default is 0.25 mm, one pixel. */
export const pixelsOfWeight = (weight: number): number =>
  weight < 0 ? 1 : Math.min(5, Math.max(1, Math.round(weight / 25)));

/** Above the numbers of all segments: a key is a cell's number times this, plus the segment's. */
const indexRange = 2 ** 26;

/** The square that a drawing is divided in. */
interface Ground {
  minX: number;
  minY: number;
  span: number;
}

function sortIntoCells(primitives: Primitives, xy: Float32Array, path: Uint32Array, ground: Ground): SegmentStore {
  const keys = sortedKeys(xy, path.length, ground);
  const { layer, colour, pen } = primitives;
  const pixels = primitives.pens.map(({ weight }) => pixelsOfWeight(weight));
  const sorted = {
    xy: new Float32Array(keys.length * 4),
    layer: new Uint16Array(keys.length),
    colour: new Uint32Array(keys.length),
    weight: new Uint8Array(keys.length),
  };
  for (let i = 0; i < keys.length; i += 1) {
    const from = keys[i] % indexRange;
    const owner = path[from];
    for (let k = 0; k < 4; k += 1) sorted.xy[4 * i + k] = xy[4 * from + k];
    sorted.layer[i] = layer[owner];
    sorted.colour[i] = colour[owner];
    sorted.weight[i] = pixels[pen[owner]];
  }
  return { ...sorted, cells: cellsOf(keys, sorted.xy, ground.span) };
}

/**
 * Each segment's cell and number in one number, in order. Class k holds lengths in (span / 2^(k + 1), span / 2^k]; its
 * cells are eight times as wide.
 */
function sortedKeys(xy: Float32Array, count: number, { minX, minY, span }: Ground): Float64Array {
  const keys = new Float64Array(count);
  for (let i = 0; i < count; i += 1) {
    const [x1, y1, x2, y2] = [xy[4 * i], xy[4 * i + 1], xy[4 * i + 2], xy[4 * i + 3]];
    const length = Math.sqrt((x2 - x1) * (x2 - x1) + (y2 - y1) * (y2 - y1));
    const k = length > 0 ? clamped(Math.floor(Math.log2(span / length)), classes - 1) : classes - 1;
    const cells = 2 ** clamped(k - 3, gridBits);
    const column = clamped(Math.floor((((x1 + x2) / 2 - minX) / span) * cells), cells - 1);
    const row = clamped(Math.floor((((y1 + y2) / 2 - minY) / span) * cells), cells - 1);
    keys[i] = ((k * 2 ** gridBits + row) * 2 ** gridBits + column) * indexRange + i;
  }
  return keys.sort();
}

const clamped = (value: number, most: number): number => Math.min(most, Math.max(0, value));

/** The cells of sorted segments: what each holds, how long that is at most, and the box round it. */
function cellsOf(keys: Float64Array, xy: Float32Array, span: number): SegmentCells {
  const first: number[] = [];
  let previous = -1;
  for (let i = 0; i < keys.length; i += 1) {
    const cell = Math.floor(keys[i] / indexRange);
    if (cell !== previous) first.push(i);
    previous = cell;
  }
  const cells: SegmentCells = {
    first: Uint32Array.from(first),
    count: new Uint32Array(first.length),
    length: new Float32Array(first.length),
    box: new Float32Array(4 * first.length),
  };
  for (let c = 0; c < first.length; c += 1) {
    const end = first[c + 1] ?? keys.length;
    cells.count[c] = end - first[c];
    cells.length[c] = span / 2 ** Math.floor(keys[first[c]] / indexRange / 2 ** (2 * gridBits));
    cells.box.set(boxOfSegments(xy, first[c], end), 4 * c);
  }
  return cells;
}

function boxOfSegments(xy: Float32Array, first: number, end: number): [number, number, number, number] {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 4 * first; i < 4 * end; i += 2) {
    minX = Math.min(minX, xy[i]);
    minY = Math.min(minY, xy[i + 1]);
    maxX = Math.max(maxX, xy[i]);
    maxY = Math.max(maxY, xy[i + 1]);
  }
  return [minX, minY, maxX, maxY];
}

/** Segments shorter than this on screen are thinned out, in pixels. */
const finest = 0.5;

/**
 * Lists the segments worth drawing in a view: cells in sight, and of segments smaller than half a pixel only
 * as many as keep the same amount of ink.
 * @param view minX, minY, maxX, maxY in the store's coordinates
 * @param pixel the size of a pixel in the store's coordinates
 * @param hidden 1 for each layer that is not shown
 * @param out filled with vertex numbers (two a segment); as long as two times the store's segments
 * @returns how many vertex numbers were written
 */
export function visibleSegments(
  store: SegmentStore,
  view: readonly [number, number, number, number],
  pixel: number,
  hidden: Uint8Array,
  out: Uint32Array,
): number {
  const { first, count, length, box } = store.cells;
  let n = 0;
  // What a cell's share leaves over goes to the next: small cells would otherwise all be rounded up.
  let owed = 0;
  for (let c = 0; c < first.length; c += 1) {
    if (box[4 * c] > view[2] || box[4 * c + 2] < view[0] || box[4 * c + 1] > view[3] || box[4 * c + 3] < view[1])
      continue;
    const onScreen = length[c] / pixel;
    const share = Math.min(1, onScreen / finest);
    const due = count[c] * share + owed;
    const end = first[c] + Math.min(count[c], Math.floor(due + 1e-9));
    owed = share === 1 ? owed : due - (end - first[c]);
    for (let i = first[c]; i < end; i += 1) {
      if (hidden[store.layer[i]] === 1) continue;
      out[n] = 2 * i;
      out[n + 1] = 2 * i + 1;
      n += 2;
    }
  }
  return n;
}
