import { pushAll } from '@/core/lists';
import { bulgeOfSweep } from '@/core/geometry/bulge';
import { Kind } from '../drawing';
import { HatchEdge } from '../hatchLayout';
import { splineNumbers } from '../splineLayout';
import type { Record } from '../record';
import { beginRow, endRow, planeOf, type EntityBuilder } from './context';

const radian = Math.PI / 180;

/**
 * HATCH: its boundary loops, islands included, with all kinds of edges (DXF reference, hatch boundary path data). The
 * lines of the
 * pattern are not part of the file and are not made.
 */
export const hatch: EntityBuilder = (context) => {
  const { record, rows, decoder } = context;
  const loops: number[][] = [];
  let at = 0;
  while (at < record.length && record.codes[at] !== 91) at += 1;
  if (at === record.length) return 'damaged';
  const wanted = record.values[at];
  const groups = new Groups(record, at + 1);
  while (loops.length < wanted && groups.seek(92)) {
    const flags = groups.take();
    const edges = (flags & 2) === 2 ? polylineLoop(groups) : edgeLoop(groups);
    if (edges.count > 0) loops.push([flags, edges.count, ...edges.numbers]);
  }
  if (loops.length === 0) return 'noGeometry';
  const z = record.number(30, 0);
  const plane = planeOf(context);
  beginRow(context, Kind.hatch, 0, z, plane);
  for (const value of [rows.string(record.string(2, decoder)), record.number(70, 0), loops.length])
    rows.numbers.push(value);
  for (const loop of loops) for (const value of loop) rows.numbers.push(value);
  endRow(rows, z, plane);
  return null;
};

/** Walks along the groups of a record, which a hatch's boundary gives in a fixed order. */
class Groups {
  constructor(
    private record: Record,
    private at: number,
  ) {}

  code(): number {
    return this.at < this.record.length ? this.record.codes[this.at] : -1;
  }
  take(): number {
    this.at += 1;
    return this.record.values[this.at - 1];
  }

  /** Goes to the next group with a code, but not beyond the boundary's end. */
  seek(code: number): boolean {
    while (this.code() !== code) {
      if (this.code() < 0 || this.code() === 75) return false;
      this.at += 1;
    }
    return true;
  }

  /** The value of the next group where it has this code. */
  optional(code: number, fallback: number): number {
    return this.code() === code ? this.take() : fallback;
  }

  /** The next x and y. */
  pair(code: number): [number, number] {
    return [this.optional(code, 0), this.optional(code + 10, 0)];
  }
}

interface Loop {
  count: number;
  numbers: number[];
}

function polylineLoop(groups: Groups): Loop {
  const bulged = groups.optional(72, 0) === 1;
  groups.optional(73, 1);
  const wanted = groups.optional(93, 0);
  const vertices: [number, number, number][] = [];
  while (vertices.length < wanted && groups.code() === 10) {
    const [x, y] = groups.pair(10);
    vertices.push([x, y, bulged ? groups.optional(42, 0) : 0]);
  }
  if (vertices.length < 2) return { count: 0, numbers: [] };
  const numbers = vertices.flatMap(([x, y, bulge], i) => {
    const [nx, ny] = vertices[(i + 1) % vertices.length];
    return [HatchEdge.side, x, y, nx, ny, bulge];
  });
  return { count: vertices.length, numbers };
}

function edgeLoop(groups: Groups): Loop {
  const wanted = groups.optional(93, 0);
  const loop: Loop = { count: 0, numbers: [] };
  const add = (...numbers: number[]) => {
    pushAll(loop.numbers, numbers);
    loop.count += 1;
  };
  for (let i = 0; i < wanted && groups.code() === 72; i += 1) {
    switch (groups.take()) {
      case 1: {
        const [a, b] = [groups.pair(10), groups.pair(11)];
        add(HatchEdge.side, ...a, ...b, 0);
        break;
      }
      case 2: {
        const [cx, cy] = groups.pair(10);
        const radius = groups.optional(40, 0);
        const { start, sweep } = turn(groups);
        // A bulge grows without bound towards a full turn, so no side covers more than a half.
        const sides = Math.abs(sweep) > Math.PI ? 2 : 1;
        const on = (angle: number): [number, number] => [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
        for (let side = 0; side < sides; side += 1)
          add(
            HatchEdge.side,
            ...on(start + (sweep * side) / sides),
            ...on(start + (sweep * (side + 1)) / sides),
            bulgeOfSweep(sweep / sides),
          );
        break;
      }
      case 3: {
        const [cx, cy] = groups.pair(10);
        const [ax, ay] = groups.pair(11);
        const ratio = groups.optional(40, 1);
        const { start, sweep } = turn(groups);
        add(HatchEdge.ellipse, cx, cy, ax, ay, -ay * ratio, ax * ratio, start, start + sweep);
        break;
      }
      case 4: {
        const degree = groups.optional(94, 3);
        groups.optional(73, 0);
        const closed = groups.optional(74, 0) === 1;
        const [knotCount, controlCount] = [groups.optional(95, 0), groups.optional(96, 0)];
        const [knots, controls, weights, fits]: number[][] = [[], [], [], []];
        while (knots.length < knotCount && groups.code() === 40) knots.push(groups.take());
        while (controls.length < 2 * controlCount && groups.code() === 10) {
          pushAll(controls, groups.pair(10));
          if (groups.code() === 42) weights.push(groups.take());
        }
        const fitCount = groups.optional(97, 0);
        while (fits.length < 2 * fitCount && groups.code() === 11) fits.push(...groups.pair(11));
        if (groups.code() === 12) groups.pair(12);
        if (groups.code() === 13) groups.pair(13);
        const numbers = splineNumbers({ degree, closed, knots, controls, weights, fits });
        if (numbers !== null) add(HatchEdge.spline, ...numbers);
        break;
      }
    }
  }
  return loop;
}

/** Start and turn of an arc edge: a clockwise one counts its angles clockwise. */
function turn(groups: Groups): { start: number; sweep: number } {
  const [from, to] = [groups.optional(50, 0) * radian, groups.optional(51, 360) * radian];
  const counterClockwise = groups.optional(73, 1) === 1;
  let sweep = to - from;
  if (sweep <= 1e-12) sweep += 2 * Math.PI;
  return counterClockwise ? { start: from, sweep } : { start: -from, sweep: -sweep };
}
