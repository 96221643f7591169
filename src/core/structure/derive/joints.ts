import { BoxIndex, type Box } from '@/core/geometry/boxIndex';
import { contains } from '@/core/geometry/polygon';
import { cross, lineCrossing, subtract, type Point } from '@/core/geometry/vector';
import { between, minus, nearestShares, shareNearest, size3, type V3 } from '../vector3';
import { standsAt, type Axis } from './axes';

/** Axes meet within this, metres. */
export const tolerance = 0.025;
/** Axes that pass within this and do not meet are told, metres. */
export const nearMiss = 0.15;

/** A place on an axis where something meets it. */
export interface Hook {
  axis: number;
  /** Metres from the axis's start. */
  at: number;
}

/** Two axes that pass one another closely without meeting. */
export interface Miss {
  axes: [number, number];
  away: number;
  at: V3;
}

/** Where axes meet: hooks on axes, joined into joints. */
export class Joints {
  readonly hooks: Hook[] = [];
  private readonly root: number[] = [];
  private readonly onAxis: number[][];
  private readonly index: BoxIndex<number>;
  readonly misses: Miss[] = [];
  /** How many ends were led to an axis by a rigid arm, by what they lie in. */
  readonly arms = { column: 0, wall: 0 };

  constructor(readonly axes: readonly Axis[]) {
    this.onAxis = axes.map(() => []);
    this.index = new BoxIndex([...axes.keys()], (i) => wider(axes[i].box, nearMiss));
    for (const i of axes.keys()) {
      this.hook(i, 0);
      this.hook(i, axes[i].length);
    }
    for (const i of axes.keys()) for (const j of this.index.touching(axes[i].box)) if (j !== i) this.meet(i, j);
  }

  /** The axes whose boxes touch a box in plan. */
  near(box: Box): number[] {
    return this.index.touching(box);
  }

  placeOf(axis: number, at: number): V3 {
    const { start, end, length } = this.axes[axis];
    return between(start, end, at / length);
  }

  /** A hook on an axis: one that is there within the tolerance, an end, or a new one. */
  hook(axis: number, at: number): number {
    const { length } = this.axes[axis];
    const own = this.onAxis[axis];
    const before = own.find((h) => Math.abs(this.hooks[h].at - at) <= Math.min(tolerance, length / 2));
    if (before !== undefined) return before;
    this.hooks.push({ axis, at });
    this.root.push(this.hooks.length - 1);
    own.push(this.hooks.length - 1);
    return this.hooks.length - 1;
  }

  /** The hooks of an axis from its start to its end. */
  along(axis: number): number[] {
    return [...this.onAxis[axis]].sort((a, b) => this.hooks[a].at - this.hooks[b].at);
  }

  join(a: number, b: number): void {
    this.root[this.jointOf(a)] = this.jointOf(b);
  }

  jointOf(hook: number): number {
    let at = hook;
    while (this.root[at] !== at) {
      this.root[at] = this.root[this.root[at]];
      at = this.root[at];
    }
    return at;
  }

  /** Whether two axes have a joint in common. */
  areJoined(i: number, j: number): boolean {
    const joints = new Set(this.onAxis[i].map((hook) => this.jointOf(hook)));
    return this.onAxis[j].some((hook) => joints.has(this.jointOf(hook)));
  }

  /** Joins an axis with another: its ends each time, where they cross once for both. */
  private meet(i: number, j: number): void {
    const [a, b] = [this.axes[i], this.axes[j]];
    const met = [0, a.length].filter((at) => this.meetEnd(i, at, j));
    if (met.length > 0 || j < i) return;
    const [s, t] = nearestShares(a.start, a.end, b.start, b.end);
    const place = between(a.start, a.end, s);
    const away = size3(minus(place, between(b.start, b.end, t)));
    if (away <= tolerance) this.join(this.hook(i, s * a.length), this.hook(j, t * b.length));
    else if (a.kind === 'wall' || b.kind === 'wall') this.meetWall(i, j);
    else if (away <= nearMiss) this.misses.push({ axes: [i, j], away, at: place });
  }

  /** Joins an end of an axis with another that it lies on, or in whose outline it lies. */
  private meetEnd(i: number, at: number, j: number): boolean {
    const [a, b] = [this.axes[i], this.axes[j]];
    const end = at === 0 ? a.start : a.end;
    const share = shareNearest(b.start, b.end, end);
    const away = size3(minus(end, between(b.start, b.end, share)));
    const within = away > tolerance && this.endsIn(i, at, j);
    if (away > tolerance && !within) return false;
    this.join(this.hook(i, at), this.hook(j, share * b.length));
    if (within && b.kind !== 'beam') this.arms[b.kind] += 1;
    return true;
  }

  /**
   * Whether an end lies in what stands there. A wall takes it only where no column does; of what stands itself only a
   * foot rests on a head, since what stands side by side over one height goes its own way down.
   */
  private endsIn(i: number, at: number, j: number): boolean {
    const [a, b] = [this.axes[i], this.axes[j]];
    const end = at === 0 ? a.start : a.end;
    const inside = standsAt(b, end, tolerance);
    if (b.kind === 'wall' && this.inColumn(i, end)) return false;
    if (a.outline === null) return inside;
    return restsOn(a, at, b) && (inside || covers(a, b));
  }

  private inColumn(i: number, end: V3): boolean {
    const [x, y] = end;
    return this.index
      .touching([x, y, x, y])
      .some((k) => k !== i && this.axes[k].kind === 'column' && standsAt(this.axes[k], end, tolerance));
  }

  /** Joins a wall with a beam that lies on it: where it crosses the wall's centre line. */
  private meetWall(i: number, j: number): void {
    const [w, m] = this.axes[i].kind === 'wall' ? [i, j] : [j, i];
    const [wall, beam] = [this.axes[w], this.axes[m]];
    if (beam.kind !== 'beam' || wall.line === null) return;
    const [p, q]: Point[] = [beam.start, beam.end].map(([x, y]): Point => [x, y]);
    const crossing = lineCrossing(p, q, ...wall.line);
    if (crossing === null || Math.min(crossing.t, crossing.u) < 0 || Math.max(crossing.t, crossing.u) > 1) return;
    const [, , z] = between(beam.start, beam.end, crossing.t);
    const up = z - wall.start[2];
    if (up < -tolerance || up > wall.length + tolerance) return;
    this.join(this.hook(m, crossing.t * beam.length), this.hook(w, Math.max(0, Math.min(wall.length, up))));
    this.arms.wall += 1;
  }
}

const wider = ([a, b, c, d]: Box, by: number): Box => [a - by, b - by, c + by, d + by];

/** Whether an end of something that stands meets the other end of something else: a foot a head, a head a foot. */
function restsOn(a: Axis, at: number, b: Axis): boolean {
  const [z, other] = at === 0 ? [a.start[2], a.end[2]] : [a.end[2], a.start[2]];
  const foot = z < other;
  const meets = foot ? Math.max(b.start[2], b.end[2]) : Math.min(b.start[2], b.end[2]);
  return Math.abs(meets - z) <= tolerance;
}

/** Walls that lean by less than this against one another run along one line, as a sine. */
const oneLine = 0.1;

/** Whether two things that stand lie over one another: the middle of one in the other, or walls along one line. */
function covers(a: Axis, b: Axis): boolean {
  if (a.outline === null || b.outline === null) return false;
  const [p, q]: Point[] = [a.start, b.start].map(([x, y]): Point => [x, y]);
  if (contains(b.outline, p) || contains(a.outline, q)) return true;
  if (a.line === null || b.line === null) return false;
  const [u, v] = [a.line, b.line].map(([from, to]): Point => subtract(to, from));
  if (Math.abs(cross(u, v)) > oneLine * Math.hypot(...u) * Math.hypot(...v)) return false;
  const other = b.outline;
  return a.outline.some((corner) => contains(other, corner));
}
