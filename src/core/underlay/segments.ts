import { arcOfBulge, chordCount, pointOnArc } from '@/core/geometry/bulge';
import { Growable } from '@/core/drawing/growable';
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
  const xy = new Growable(new Float32Array(count * 4));
  const path = new Growable(new Uint32Array(count));
  const solid = (p: number, x1: number, y1: number, x2: number, y2: number) => {
    xy.push(x1);
    xy.push(y1);
    xy.push(x2);
    xy.push(y2);
    path.push(p);
  };
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
  return sortIntoCells(primitives, xy.finish(), path.finish(), span, extents[0], extents[1]);
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

function sortIntoCells(
  primitives: Primitives,
  xy: Float32Array,
  path: Uint32Array,
  span: number,
  minX: number,
  minY: number,
): SegmentStore {
  const count = path.length;
  const pixels = primitives.pens.map((pen) => pixelsOfWeight(pen.weight));
  const keys = new Float64Array(count);
  const indexRange = 2 ** 26;
  for (let i = 0; i < count; i += 1) {
    const length = Math.hypot(xy[4 * i + 2] - xy[4 * i], xy[4 * i + 3] - xy[4 * i + 1]);
    // Class k holds lengths in (span / 2^(k + 1), span / 2^k]; its cells are eight times as wide.
    const k = length > 0 ? Math.min(classes - 1, Math.max(0, Math.floor(Math.log2(span / length)))) : classes - 1;
    const bits = Math.min(gridBits, Math.max(0, k - 3));
    const place = (value: number, low: number) =>
      Math.min(2 ** bits - 1, Math.max(0, Math.floor(((value - low) / span) * 2 ** bits)));
    const [cx, cy] = [place((xy[4 * i] + xy[4 * i + 2]) / 2, minX), place((xy[4 * i + 1] + xy[4 * i + 3]) / 2, minY)];
    keys[i] = ((k * 2 ** gridBits + cy) * 2 ** gridBits + cx) * indexRange + i;
  }
  keys.sort();
  const sorted: SegmentStore = {
    xy: new Float32Array(count * 4),
    layer: new Uint16Array(count),
    colour: new Uint32Array(count),
    weight: new Uint8Array(count),
    cells: {
      first: new Uint32Array(0),
      count: new Uint32Array(0),
      length: new Float32Array(0),
      box: new Float32Array(0),
    },
  };
  const [first, counts, lengths, boxes]: number[][] = [[], [], [], []];
  let previous = -1;
  for (let i = 0; i < count; i += 1) {
    const cell = Math.floor(keys[i] / indexRange);
    const from = keys[i] - cell * indexRange;
    for (let k = 0; k < 4; k += 1) sorted.xy[4 * i + k] = xy[4 * from + k];
    sorted.layer[i] = primitives.layer[path[from]];
    sorted.colour[i] = primitives.colour[path[from]];
    sorted.weight[i] = pixels[primitives.pen[path[from]]];
    if (cell !== previous) {
      first.push(i);
      counts.push(0);
      lengths.push(span / 2 ** Math.floor(cell / 2 ** (2 * gridBits)));
      boxes.push(Infinity, Infinity, -Infinity, -Infinity);
      previous = cell;
    }
    const c = counts.length - 1;
    counts[c] += 1;
    boxes[4 * c] = Math.min(boxes[4 * c], xy[4 * from], xy[4 * from + 2]);
    boxes[4 * c + 1] = Math.min(boxes[4 * c + 1], xy[4 * from + 1], xy[4 * from + 3]);
    boxes[4 * c + 2] = Math.max(boxes[4 * c + 2], xy[4 * from], xy[4 * from + 2]);
    boxes[4 * c + 3] = Math.max(boxes[4 * c + 3], xy[4 * from + 1], xy[4 * from + 3]);
  }
  sorted.cells = {
    first: Uint32Array.from(first),
    count: Uint32Array.from(counts),
    length: Float32Array.from(lengths),
    box: Float32Array.from(boxes),
  };
  return sorted;
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
