import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { direction, type Point } from '@/core/geometry/vector';
import { leastOf } from '@/core/lists';
import { below, inBox, measure, type Measure, type Rings } from '@/core/geometry/ringParts';

/** What carries a floor: a line of a beam or a wall, or the point of a column. */
export interface Carrier {
  axis: number;
  a: Point;
  b: Point;
  /** How far along it, from 0 to 1, what is carried is told apart; without the ends. */
  cuts: readonly number[];
}

/** A part of a floor and what carries it. */
export interface Patch extends Measure {
  carrier: number;
  /** How far along the carrier it rests, from 0 to 1, and where that is. */
  share: number;
  foot: Point;
  /** Whether it lies beyond what carries it, with nothing on the other side: then its moment is passed on too. */
  over: boolean;
}

/** Hears of a floor's parts one after another, as they are told apart. */
export interface Taker {
  take: (patch: Patch, part: Rings) => void;
  /** What nothing carries. */
  lose: (part: Measure) => void;
}

/** Parts are told apart by the carrier nearest to them down to this size; borders within are chords, metres. */
const [coarse, fine] = [1, 0.5];
/** A floor reaches at most so far beyond the last thing that carries it, metres: more is no overhang. */
const longestOverhang = 3;
/** Carriers are looked for so far away first, then twice as far each time, metres; */
const firstReach = 6;
/** nothing spans further than this, */
const farthestAhead = 100;
/** and fewer than these are looked at one by one. */
const few = 24;
/** A point that carries lies ahead where it is within 45 degrees of straight ahead. */
const ahead = Math.SQRT1_2;

/**
 * Tells which carrier takes which part of a floor: the nearest, or the nearest along the direction of span.
 * @param span radians; null spreads to all sides
 * @param overhang how far it reaches beyond what carries it, metres; what reaches further is carried by nothing
 */
export function tributaryOf(
  rings: Rings,
  carriers: readonly Carrier[],
  { span = null, overhang = longestOverhang }: { span?: number | null; overhang?: number },
  taker: Taker,
): void {
  new Division(rings, carriers, span, overhang, taker).run();
}

const isPoint = ({ a, b }: Carrier): boolean => a[0] === b[0] && a[1] === b[1];

/** How far along a carrier its nearest place to a point is, from 0 to 1. */
function shareOf({ a, b }: Carrier, p: Point): number {
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  const size = dx * dx + dy * dy;
  return size === 0 ? 0 : Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / size));
}

/** How far a point is from a carrier. */
function awayFrom(carrier: Carrier, p: Point): number {
  const { a, b } = carrier;
  const share = shareOf(carrier, p);
  const dx = p[0] - a[0] - share * (b[0] - a[0]);
  const dy = p[1] - a[1] - share * (b[1] - a[1]);
  return Math.sqrt(dx * dx + dy * dy);
}

/** Where a line from a point in a direction meets a carrier: how far off that is, to either side; null where never. */
function alongSpan({ a, b }: Carrier, [x, y]: Point, [ux, uy]: Point): { share: number; away: number } | null {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const det = ux * dy - uy * dx;
  if (Math.abs(det) < 1e-9 * Math.hypot(dx, dy)) return null;
  const share = ((x - a[0]) * uy - (y - a[1]) * ux) / -det;
  if (share < -1e-9 || share > 1 + 1e-9) return null;
  return { share: Math.max(0, Math.min(1, share)), away: Math.abs(((a[0] - x) * dy - (a[1] - y) * dx) / det) };
}

class Division {
  private readonly along: Point | null;
  private readonly index: BoxIndex<number>;
  /** Of each carrier what lay ahead of the last part that it took; -1 before. */
  private readonly aheadOf: Int32Array;

  constructor(
    private readonly rings: Rings,
    private readonly carriers: readonly Carrier[],
    span: number | null,
    private readonly overhang: number,
    private readonly taker: Taker,
  ) {
    this.along = span === null ? null : direction(span);
    this.aheadOf = new Int32Array(carriers.length).fill(-1);
    this.index = new BoxIndex([...carriers.keys()], (i) => boxOf([carriers[i].a, carriers[i].b]));
  }

  run(): void {
    const [x1, y1, x2, y2] = boxOf(this.rings.flat());
    const [columns, rows] = [Math.ceil((x2 - x1) / coarse) || 1, Math.ceil((y2 - y1) / coarse) || 1];
    const [width, height] = [(x2 - x1) / columns, (y2 - y1) / rows];
    for (let i = 0; i < columns; i += 1) {
      const strip = below(below(this.rings, -1, 0, -(x1 + i * width)), 1, 0, x1 + (i + 1) * width);
      for (let j = 0; j < rows; j += 1) {
        const [x, y] = [x1 + i * width, y1 + j * height];
        const cell = below(below(strip, 0, -1, -y), 0, 1, y + height);
        const whole = measure(cell);
        if (whole === null) continue;
        const near = this.nearCell([x + width / 2, y + height / 2], Math.hypot(width, height));
        if (near.length === 0) this.taker.lose(whole);
        else if (near.length === 1) this.give(cell, near[0]);
        else this.divide(cell, x, y, width, height, near);
      }
    }
  }

  /** The carriers that may be the nearest somewhere in a cell: looked for further and further away. */
  private nearCell(middle: Point, diagonal: number): number[] {
    if (this.along !== null || this.carriers.length < few) return [...this.carriers.keys()];
    for (let reach = firstReach; ; reach *= 2) {
      const found = this.index.around(middle, reach + diagonal);
      const least = leastOf(found.map((i) => awayFrom(this.carriers[i], middle)));
      // Nothing that was not found is nearer than the reach.
      if (least <= reach) return found.filter((i) => awayFrom(this.carriers[i], middle) <= least + diagonal);
      if (found.length === this.carriers.length) return found;
    }
  }

  private awayOf(i: number, p: Point): number {
    if (this.along === null) return awayFrom(this.carriers[i], p);
    return alongSpan(this.carriers[i], p, this.along)?.away ?? Infinity;
  }

  /** The carrier of a point: of those as near as each other the first. */
  private carrierAt(p: Point, near: readonly number[]): number {
    let [best, least] = [-1, Infinity];
    for (const i of near) {
      const away = this.awayOf(i, p);
      if (away < least - 1e-9) [best, least] = [i, away];
    }
    if (best >= 0 || this.along === null) return best;
    // Nothing lies along the span: what is nearest takes it.
    return near.reduce((nearest, i) =>
      awayFrom(this.carriers[i], p) < awayFrom(this.carriers[nearest], p) ? i : nearest,
    );
  }

  private divide(cell: Rings, x: number, y: number, width: number, height: number, near: readonly number[]): void {
    const at = (i: number, j: number): Point => [x + (width * i) / 2, y + (height * j) / 2];
    const owners = new Set<number>();
    for (let i = 0; i <= 2; i += 1) for (let j = 0; j <= 2; j += 1) owners.add(this.carrierAt(at(i, j), near));
    if (owners.size === 1) {
      this.give(cell, [...owners][0]);
      return;
    }
    if (Math.max(width, height) <= fine) {
      this.cutLeaf(cell, x, y, width, height, [...owners]);
      return;
    }
    for (const i of [0, 1])
      for (const j of [0, 1]) {
        const part = inBox(cell, x + (width * i) / 2, y + (height * j) / 2, width / 2, height / 2);
        if (measure(part) !== null)
          this.divide(part, x + (width * i) / 2, y + (height * j) / 2, width / 2, height / 2, near);
      }
  }

  /** Cuts a small cell along the borders between its owners, each as a chord. */
  private cutLeaf(cell: Rings, x: number, y: number, width: number, height: number, owners: readonly number[]): void {
    let rest: { part: Rings; owner: number }[] = [{ part: cell, owner: owners[0] }];
    for (const owner of owners.slice(1))
      rest = rest.flatMap(({ part, owner: other }) => {
        const line = this.border(other, owner, x, y, width, height);
        if (line === null)
          return [
            {
              part,
              owner:
                this.awayOf(owner, [x + width / 2, y + height / 2]) <
                this.awayOf(other, [x + width / 2, y + height / 2])
                  ? owner
                  : other,
            },
          ];
        const [a, b, c] = line;
        return [
          { part: below(part, a, b, c), owner: other },
          { part: below(part, -a, -b, -c), owner },
        ];
      });
    for (const { part, owner } of rest) this.give(part, owner);
  }

  /** The line on which two carriers are as near as one another, in a cell: a x + b y of at most c is the first's. */
  private border(
    first: number,
    second: number,
    x: number,
    y: number,
    width: number,
    height: number,
  ): [number, number, number] | null {
    // Between two points the squares differ evenly, between two lines the distances themselves do.
    const power = this.along === null && [first, second].every((i) => isPoint(this.carriers[i])) ? 2 : 1;
    const gap = (p: Point): number => this.awayOf(first, p) ** power - this.awayOf(second, p) ** power;
    const middle: Point = [x + width / 2, y + height / 2];
    const [w, e] = [gap([x, middle[1]]), gap([x + width, middle[1]])];
    const [s, n] = [gap([middle[0], y]), gap([middle[0], y + height])];
    if (![w, e, s, n].every(Number.isFinite)) return null;
    const [a, b] = [(e - w) / width, (n - s) / height];
    if (a === 0 && b === 0) return null;
    return [a, b, a * middle[0] + b * middle[1] - (w + e + s + n) / 4];
  }

  /** Gives a part to a carrier, told apart by where along it the part rests. */
  private give(part: Rings, i: number): void {
    const carrier = this.carriers[i];
    if (isPoint(carrier)) {
      this.rest(part, i);
      return;
    }
    const { a, b, cuts } = carrier;
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    // Where a part rests goes square to the carrier, or along the span.
    const [nx, ny] = this.along === null ? [dx, dy] : [-this.along[1], this.along[0]];
    const scale = nx * dx + ny * dy;
    const start = nx * a[0] + ny * a[1];
    let rest = part;
    const sign = Math.sign(scale) || 1;
    const [low, high] = reachAlong(part, nx, ny, start, scale);
    for (const cut of cuts) {
      if (cut <= low) continue;
      if (cut >= high) break;
      const c = start + cut * scale;
      this.rest(below(rest, sign * nx, sign * ny, sign * c), i);
      rest = below(rest, -sign * nx, -sign * ny, -sign * c);
    }
    this.rest(rest, i);
  }

  private rest(part: Rings, i: number): void {
    const own = measure(part);
    if (own === null) return;
    const carrier = this.carriers[i];
    const { a, b } = carrier;
    const found = (this.along === null ? null : alongSpan(carrier, own.centre, this.along)) ?? {
      share: shareOf(carrier, own.centre),
      away: awayFrom(carrier, own.centre),
    };
    const foot: Point = [a[0] + (b[0] - a[0]) * found.share, a[1] + (b[1] - a[1]) * found.share];
    const over = !this.spans(own.centre, foot, i);
    if (over && found.away > this.overhang) this.taker.lose(own);
    else this.taker.take({ area: own.area, centre: own.centre, carrier: i, share: found.share, foot, over }, part);
  }

  /** Whether something else carries ahead of a part, seen from what carries it: looked for further and further away. */
  private spans(p: Point, foot: Point, own: number): boolean {
    const [dx, dy] = [p[0] - foot[0], p[1] - foot[1]];
    const size = Math.hypot(dx, dy);
    if (size < 1e-6) return true;
    // What lay ahead of the last part of this carrier mostly lies ahead of the next one too.
    const before = this.aheadOf[own];
    if (before >= 0 && liesAhead(this.carriers[before], foot, [dx, dy], size)) return true;
    for (let reach = firstReach; ; reach *= 2) {
      const found = this.index.around(foot, size + reach);
      const first = found.find((i) => i !== own && liesAhead(this.carriers[i], foot, [dx, dy], size));
      if (first !== undefined) {
        this.aheadOf[own] = first;
        return true;
      }
      if (found.length === this.carriers.length || reach > farthestAhead) return false;
    }
  }
}

/** From where to where along a carrier a part lies, from 0 to 1. */
function reachAlong(part: Rings, nx: number, ny: number, start: number, scale: number): [low: number, high: number] {
  let [low, high] = [Infinity, -Infinity];
  for (const ring of part)
    for (const [x, y] of ring) {
      const share = (nx * x + ny * y - start) / scale;
      if (share < low) low = share;
      if (share > high) high = share;
    }
  return [low, high];
}

/** Whether a carrier lies ahead of a place, seen from a foot: crossed by the line through both, or a point about it. */
function liesAhead(other: Carrier, [fx, fy]: Point, [dx, dy]: Point, size: number): boolean {
  if (isPoint(other)) {
    const [qx, qy] = [other.a[0] - fx, other.a[1] - fy];
    const away = Math.hypot(qx, qy);
    return away > size && qx * dx + qy * dy >= ahead * away * size;
  }
  const { a, b } = other;
  const [ex, ey] = [b[0] - a[0], b[1] - a[1]];
  const det = dx * ey - dy * ex;
  if (det === 0) return false;
  const t = ((a[0] - fx) * ey - (a[1] - fy) * ex) / det;
  const u = ((a[0] - fx) * dy - (a[1] - fy) * dx) / det;
  return t > 1 && u >= -1e-9 && u <= 1 + 1e-9;
}
