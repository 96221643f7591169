import { BoxIndex } from '@/core/geometry/boxIndex';
import type { CaseLoads } from '../frame';
import { between, cross3, minus, plus, shareNearest, size3, times, type V3 } from '../vector3';
import { standsAt, type Axis } from './axes';
import type { Carriers } from './carriers';
import { tolerance } from './joints';
import type { Skeleton } from './skeleton';

/** A load reaches down to what lies at most so far below it, metres, */
const reachDown = 1.2;
/** a little above it, */
const reachUp = 0.1;
/** and so far aside. */
const reachAside = 6;
/** A line is looked at about so often, metres; where its carrier changes, to a millimetre. */
const [look, exact] = [0.25, 0.001];

/** A place on an axis. */
interface Found {
  axis: number;
  share: number;
}

/** Takes points and lines to the nearest member at or below them, with the moment of the shift. */
export class LinesDown {
  private readonly index: BoxIndex<number>;

  constructor(
    private readonly skeleton: Skeleton,
    private readonly carriers: Carriers,
  ) {
    this.index = new BoxIndex([...skeleton.axes.keys()], (i) => skeleton.axes[i].box);
  }

  /** The member that takes what acts at a place: one it lies on, else the nearest at or below it. */
  at(place: V3): Found | null {
    const [x, y] = place;
    let best: (Found & { away: number }) | null = null;
    for (const i of this.index.touching([x - reachAside, y - reachAside, x + reachAside, y + reachAside])) {
      const axis = this.skeleton.axes[i];
      // What lies on other floors is told by its height alone.
      const [low, high] = [Math.min(axis.start[2], axis.end[2]), Math.max(axis.start[2], axis.end[2])];
      if (high < place[2] - reachDown || low > place[2] + reachUp) continue;
      const found = this.nearestOn(axis, place);
      if (found !== null && (best === null || found.away < best.away - 1e-9)) best = { axis: i, ...found };
    }
    return best === null ? null : { axis: best.axis, share: best.share };
  }

  private nearestOn(axis: Axis, place: V3): { share: number; away: number } | null {
    const { start, end } = axis;
    if (standsAt(axis, place, tolerance)) {
      const share = shareNearest(start, end, place);
      // What stands there takes it before anything beside it does.
      return { share, away: Math.min(tolerance, size3(minus(place, between(start, end, share)))) };
    }
    const share = shareNearest(start, end, place);
    const on = between(start, end, share);
    const away = size3(minus(place, on));
    if (away <= tolerance) return { share, away };
    const down = place[2] - on[2];
    const aside = Math.hypot(place[0] - on[0], place[1] - on[1]);
    if (down > reachDown || down < -reachUp || aside > reachAside) return null;
    return { share, away };
  }

  /** Adds a force and a moment at a place. @returns whether something takes them */
  point(into: CaseLoads, place: V3, force: V3, moment: V3): boolean {
    const found = this.at(place);
    if (found === null) return false;
    const { start, end, length } = this.skeleton.axes[found.axis];
    const arm = minus(place, between(start, end, found.share));
    const { member, at } = this.carriers.placeOn(found.axis, found.share * length);
    into.places.push({ member, at, force, moment: plus(moment, cross3(arm, force)) });
    return true;
  }

  /** Adds a load along a line, per metre of it. @returns how many metres of it nothing takes */
  line(into: CaseLoads, start: V3, end: V3, q: V3): number {
    const length = size3(minus(end, start));
    if (length === 0) return 0;
    const count = Math.max(2, Math.ceil(length / look));
    const owner = (t: number): number => this.at(between(start, end, t))?.axis ?? -1;
    let lost = 0;
    let [from, own] = [0, owner(0.5 / count)];
    for (let k = 1; k <= count; k += 1) {
      const next = k === count ? null : owner((k + 0.5) / count);
      if (next === own) continue;
      const to = next === null ? 1 : border(owner, own, (k - 0.5) / count, (k + 0.5) / count, exact / length);
      if (own < 0) lost += (to - from) * length;
      else this.stretch(into, own, between(start, end, from), between(start, end, to), q);
      [from, own] = [to, next ?? own];
    }
    return lost;
  }

  /** A stretch of a line on one axis: spread along it where it runs beside it, else at one place. */
  private stretch(into: CaseLoads, i: number, a: V3, b: V3, q: V3): void {
    const axis = this.skeleton.axes[i];
    const size = size3(minus(b, a));
    const shares = [a, b].map((p) => shareNearest(axis.start, axis.end, p));
    const run = Math.abs(shares[1] - shares[0]) * axis.length;
    // Beyond an end, and square to the axis, all of it rests at one place.
    const inside = shares.every((share) => share > 1e-9 && share < 1 - 1e-9);
    if (axis.kind !== 'beam' || run < exact * size || (!inside && run < 0.999 * size)) {
      this.lump(into, i, a, b, q);
      return;
    }
    const [first, last] = shares[0] <= shares[1] ? [a, b] : [b, a];
    const [low, high] = [Math.min(...shares) * axis.length, Math.max(...shares) * axis.length];
    const force = times(q, size / run);
    const momentAt = (along: number): V3 => {
      const p = between(first, last, (along - low) / run);
      return cross3(minus(p, between(axis.start, axis.end, along / axis.length)), force);
    };
    for (const { member, from, to } of this.skeleton.pieces[i]) {
      const [s, e] = [Math.max(from, low), Math.min(to, high)];
      if (e <= s) continue;
      into.spread.push({
        member,
        from: s - from,
        to: e - from,
        force: [force, force],
        moment: [momentAt(s), momentAt(e)],
      });
    }
  }

  /** A stretch in short pieces, each at its place. */
  private lump(into: CaseLoads, i: number, a: V3, b: V3, q: V3): void {
    const { start, end, length } = this.skeleton.axes[i];
    const size = size3(minus(b, a));
    const count = Math.max(1, Math.ceil(size / look));
    for (let k = 0; k < count; k += 1) {
      const p = between(a, b, (k + 0.5) / count);
      const share = shareNearest(start, end, p);
      const force = times(q, size / count);
      const { member, at } = this.carriers.placeOn(i, share * length);
      into.places.push({ member, at, force, moment: cross3(minus(p, between(start, end, share)), force) });
    }
  }
}

/** Where between two places what takes a line changes. */
function border(owner: (t: number) => number, own: number, from: number, to: number, step: number): number {
  let [low, high] = [from, to];
  while (high - low > step) {
    const middle = (low + high) / 2;
    if (owner(middle) === own) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
