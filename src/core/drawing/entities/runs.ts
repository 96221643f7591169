import { Kind } from '../drawing';
import type { LeftOutReason } from '../account';
import type { Record } from '../record';
import { beginRow, endRow, planeOf, type EntityBuilder, type EntityContext } from './context';
import { writeText } from './texts';
import { plainMultilineText } from '../strings';

/** Straight lines from point to point. */
export interface Run {
  points: [number, number][];
  closed: boolean;
}

/** Writes a row of runs; those with fewer than two points are dropped. */
export function writeRuns(
  context: EntityContext,
  kind: number,
  runs: readonly Run[],
  z = 0,
  plane = -1,
): LeftOutReason | null {
  const drawn = runs.filter(({ points }) => points.length >= 2);
  if (drawn.length === 0) return 'noGeometry';
  const { rows } = context;
  beginRow(context, kind, 0, z, plane);
  rows.numbers.push(drawn.length);
  for (const { points, closed } of drawn) {
    rows.numbers.push(points.length);
    rows.numbers.push(closed ? 1 : 0);
    for (const [x, y] of points) {
      rows.numbers.push(x);
      rows.numbers.push(y);
    }
  }
  endRow(rows, z, plane);
  return null;
}

const corner = (record: Record, i: number): [number, number] => [record.number(10 + i, 0), record.number(20 + i, 0)];

/** SOLID and TRACE: the third and fourth corners are crossed over. */
const quadrilateral =
  (kind: number): EntityBuilder =>
  (context) => {
    const { record } = context;
    if (!record.has(10) || !record.has(11) || !record.has(12)) return 'damaged';
    const points = record.has(13) ? [0, 1, 3, 2] : [0, 1, 2];
    return writeRuns(
      context,
      kind,
      [{ points: distinct(points.map((i) => corner(record, i))), closed: true }],
      record.number(30, 0),
      planeOf(context),
    );
  };

export const solid = quadrilateral(Kind.solid);
export const trace = quadrilateral(Kind.trace);

const distinct = (points: [number, number][]) =>
  points.filter(([x, y], i) => i === 0 || x !== points[i - 1][0] || y !== points[i - 1][1]);

/** 3DFACE: bits of 70 hide sides. */
export const face: EntityBuilder = (context) => {
  const { record } = context;
  if (!record.has(10) || !record.has(11) || !record.has(12)) return 'damaged';
  const hidden = record.number(70, 0);
  const points = [0, 1, 2, ...(record.has(13) ? [3] : [])].map((i) => corner(record, i));
  if ((hidden & 15) === 0) return writeRuns(context, Kind.face, [{ points: distinct(points), closed: true }]);
  const sides = points.flatMap((a, i): Run[] => {
    const b = points[(i + 1) % points.length];
    return ((hidden >> i) & 1) === 1 || (a[0] === b[0] && a[1] === b[1]) ? [] : [{ points: [a, b], closed: false }];
  });
  return writeRuns(context, Kind.face, sides);
};

/** The points under a code, in their order. */
function pointsOf(record: Record, code: number): [number, number][] {
  const points: [number, number][] = [];
  for (let i = 0; i < record.length; i += 1) {
    if (record.codes[i] === code) points.push([record.values[i], 0]);
    else if (record.codes[i] === code + 10 && points.length > 0) points[points.length - 1][1] = record.values[i];
  }
  return points;
}

export const leader: EntityBuilder = (context) =>
  writeRuns(context, Kind.leader, [{ points: pointsOf(context.record, 10), closed: false }]);

/**
 * MULTILEADER: its leader lines, each from its arrow to the landing, and its text. The context data nest:
 * 302 LEADER{ ... 304 LEADER_LINE{ 10 20 ... 305 } ... 303 }.
 */
export const multiLeader: EntityBuilder = (context) => {
  const { record, decoder } = context;
  const runs: Run[] = [];
  let line: Run | null = null;
  let landing: [number, number] | null = null;
  let open: Run[] = [];
  let text = '';
  let [height, x, y, angle] = [0, NaN, NaN, 0];
  let depth: 'context' | 'leader' | 'line' | 'outside' = 'outside';
  for (let i = 0; i < record.length; i += 1) {
    const code = record.codes[i];
    const value = record.values[i];
    if (code === 300 && depth === 'outside') depth = 'context';
    else if (code === 302 && depth === 'context') {
      depth = 'leader';
      landing = null;
      open = [];
    } else if (code === 304 && depth === 'leader') {
      depth = 'line';
      line = { points: [], closed: false };
    } else if (code === 304 && depth === 'context') text = decoder.decode(record.bytesAt(i));
    else if (code === 305 && line) {
      open.push(line);
      line = null;
      depth = 'leader';
    } else if (code === 303) {
      for (const run of open) {
        if (landing) run.points.push(landing);
        runs.push(run);
      }
      depth = 'context';
    } else if (code === 301) depth = 'outside';
    else if (depth === 'line' && line) {
      if (code === 10) line.points.push([value, 0]);
      else if (code === 20 && line.points.length > 0) line.points[line.points.length - 1][1] = value;
    } else if (depth === 'leader') {
      if (code === 10) landing = [value, 0];
      else if (code === 20 && landing) landing[1] = value;
    } else if (depth === 'context') {
      if (code === 12) x = value;
      else if (code === 22) y = value;
      else if (code === 41) height = value;
      else if (code === 42) angle = value;
    }
  }
  const words = plainMultilineText(text).trim();
  const drawn = writeRuns(context, Kind.multiLeader, runs);
  if (words !== '' && Number.isFinite(x + y)) {
    writeText(
      context,
      Kind.multiLeaderText,
      { x, y, height: height || 1, angle, width: 1, across: 0, up: 3, text: words },
      0,
      -1,
    );
    return null;
  }
  return drawn;
};

/**
 * MLINE as its lines: vertex (11), direction along its miter (13), and for each element its offset along the miter and
 * the
 * lengths along the segment at which it starts and stops (41).
 */
export const multiLine: EntityBuilder = (context) => {
  const { record } = context;
  interface Joint {
    at: [number, number];
    along: [number, number];
    miter: [number, number];
    elements: number[][];
  }
  const joints: Joint[] = [];
  for (let i = 0; i < record.length; i += 1) {
    const [code, value, joint] = [record.codes[i], record.values[i], joints[joints.length - 1] as Joint | undefined];
    if (code === 11) joints.push({ at: [value, 0], along: [0, 0], miter: [0, 0], elements: [] });
    else if (!joint) continue;
    else if (code === 21) joint.at[1] = value;
    else if (code === 12) joint.along[0] = value;
    else if (code === 22) joint.along[1] = value;
    else if (code === 13) joint.miter[0] = value;
    else if (code === 23) joint.miter[1] = value;
    else if (code === 74) joint.elements.push([]);
    else if (code === 41) joint.elements[joint.elements.length - 1]?.push(value);
  }
  if (joints.length < 2) return 'noGeometry';
  const closed = (record.number(71, 0) & 2) === 2;
  const runs: Run[] = [];
  const shifted = ({ at, miter }: Joint, offset: number): [number, number] => [
    at[0] + miter[0] * offset,
    at[1] + miter[1] * offset,
  ];
  for (let element = 0; element < joints[0].elements.length; element += 1) {
    let open: Run | null = null;
    for (let i = 0; i < joints.length - (closed ? 0 : 1); i += 1) {
      const [from, to] = [joints[i], joints[(i + 1) % joints.length]];
      const [offset = 0, , ...cuts] = from.elements[element] ?? [];
      const [a, b] = [shifted(from, offset), shifted(to, to.elements[element]?.[0] ?? 0)];
      open ??= { points: [a], closed: false };
      // The line stops at the first cut, starts again at the second, and so on.
      cuts.forEach((length, k) => {
        const p: [number, number] = [a[0] + from.along[0] * length, a[1] + from.along[1] * length];
        if (k % 2 === 0) {
          open!.points.push(p);
          runs.push(open!);
          open = null;
        } else open = { points: [p], closed: false };
      });
      (open as Run | null)?.points.push(b);
    }
    if (open) runs.push(open);
  }
  return writeRuns(context, Kind.multiLine, runs);
};

/**
 * IMAGE and WIPEOUT: the frame. A point of the clip boundary (14), in pixels from the upper left corner's middle,
 * stands at
 * the insertion point + u (x + 1/2) + v (rows - y - 1/2).
 */
const frame =
  (kind: number): EntityBuilder =>
  (context) => {
    const { record } = context;
    if (!record.has(10) || !record.has(11) || !record.has(12)) return 'damaged';
    const [[ox, oy], [ux, uy], [vx, vy]] = [corner(record, 0), corner(record, 1), corner(record, 2)];
    const [columns, rows] = [record.number(13, 1), record.number(23, 1)];
    const at = ([x, y]: [number, number]): [number, number] => [
      ox + ux * (x + 0.5) + vx * (rows - y - 0.5),
      oy + uy * (x + 0.5) + vy * (rows - y - 0.5),
    ];
    let clip = pointsOf(record, 14);
    const clipped = record.number(280, 1) !== 0 && clip.length >= 2;
    if (!clipped)
      clip = [
        [-0.5, -0.5],
        [columns - 0.5, rows - 0.5],
      ];
    const points =
      clip.length === 2
        ? ([
            [clip[0][0], clip[0][1]],
            [clip[1][0], clip[0][1]],
            [clip[1][0], clip[1][1]],
            [clip[0][0], clip[1][1]],
          ] as [number, number][])
        : clip;
    return writeRuns(context, kind, [{ points: points.map(at), closed: true }]);
  };

export const image = frame(Kind.image);
export const wipeout = frame(Kind.wipeout);

/** VIEWPORT outside paper space: its frame. */
export const viewport: EntityBuilder = (context) => {
  const { record } = context;
  const [[x, y], w, h] = [corner(record, 0), record.number(40, 0) / 2, record.number(41, 0) / 2];
  if (w <= 0 || h <= 0) return 'noGeometry';
  return writeRuns(context, Kind.viewport, [
    {
      points: [
        [x - w, y - h],
        [x + w, y - h],
        [x + w, y + h],
        [x - w, y + h],
      ],
      closed: true,
    },
  ]);
};
