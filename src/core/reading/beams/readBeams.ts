import { pushAll } from '@/core/lists';
import type { From } from '@/core/placed/placed';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { cross, distance, dot, lineCrossing, middle, scale, subtract, type Point } from '@/core/geometry/vector';
import type { Tolerance } from '@/core/tolerance';
import type { LengthUnit } from '@/core/units/length';
import { confidenceOf, keyAt, type BeamCandidate, type Evidence, type Unread } from '../candidate';
import type { Scene } from '../scene';
import type { FirstNumber, ReadingSettings } from '@/core/patterns/settings';
import { facesOf, inPlan } from '@/core/patterns/faces';
import type { Segment } from '../walls/network';
import type { Obstacle } from '../walls/obstacle';
import { joinStrips } from '../walls/runs';
import { pairFaces, unique } from '@/core/patterns/strips';
import { healed } from '@/core/patterns/dashes';
import { firstNumberOf, nearMark, sizeOf, type Size } from './marks';
import { detailRows } from './details';
import { groupCells, scheduled, scheduleRows, tableRowsOf, type Scheduled, type ScheduleSheet } from './schedule';

/** A beam's axis before its ends reach their supports. */
interface Axis {
  a: Point;
  b: Point;
  width: number | null;
  sources: From[];
  pieces: number;
}

/** Single lines shorter than this are marks of something else, metres. */
const shortest = 1;

/**
 * Reads beams from the layers with that role: pairs of parallel lines, else single ones, broken and dashed ones joined
 * where columns and other beams
 * interrupt them. The ends go on to the middle of the column, or to the centre line of the wall or beam, that carries
 * them. Marks and sizes come from the
 * text beside a beam, or from a schedule by the mark.
 * @param linked the schedules of other sheets
 */
export function readBeams(
  scene: Scene,
  columns: readonly Obstacle[],
  walls: readonly Segment[],
  settings: ReadingSettings,
  tolerance: Tolerance,
  linked: readonly ScheduleSheet[] = [],
): { candidates: BeamCandidate[]; unread: Unread[] } {
  const paths = scene.paths('beam');
  if (paths.length === 0) return { candidates: [], unread: [] };
  const posts = new BoxIndex(columns, ({ at, reach }) => boxOf([at], reach));
  const atColumn = (a: Point, b: Point) => {
    const between = middle(a, b);
    return posts.around(between).some(({ at, reach }) => distance(at, between) < reach);
  };
  const families = facesOf(paths, tolerance.offAxis, 0.005, tolerance.gap).families.map((family) =>
    healed(family, (offset, from, to) => atColumn(inPlan(family, from, offset), inPlan(family, to, offset))),
  );
  const strips = families.flatMap(
    (family) => pairFaces(family, { least: settings.beam.least, most: settings.beam.most }).strips,
  );
  // Where both lines stop at a column two beams end; where another beam passes, one goes on.
  const across = new BoxIndex(
    strips.map((strip) => ({
      strip,
      c: inPlan(strip.family, strip.from - 0.3, strip.offset),
      d: inPlan(strip.family, strip.to + 0.3, strip.offset),
    })),
    ({ c, d }) => boxOf([c, d]),
  );
  const passed = (a: Point, b: Point) =>
    across.touching(boxOf([a, b], 0.1)).some(({ strip, c, d }) => {
      const hit =
        Math.abs(cross(strip.family.u, subtract(b, a))) < 0.1 * distance(a, b) ? null : lineCrossing(a, b, c, d);
      return (
        hit !== null &&
        hit.t > -0.1 &&
        hit.t < 1.1 &&
        hit.u >= 0 &&
        hit.u <= 1 &&
        distance(a, b) < strip.thickness + 0.15
      );
    });
  const axes: Axis[] = joinStrips(strips, [], [], {
    filled: (a, b) => passed(a, b) && !atColumn(a, b),
    abuts: () => false,
  }).map(({ family, offset, from, to, thickness, sources }) => ({
    a: inPlan(family, from, offset),
    b: inPlan(family, to, offset),
    width: thickness,
    sources,
    pieces: Math.floor(unique(sources).length / 2),
  }));
  const used = new Set(axes.flatMap(({ sources }) => sources));
  for (const family of families)
    for (const face of family.faces)
      axes.push(
        ...singles(
          face.spans.filter(({ sources }) => sources.every((source) => !used.has(source))),
          (from, to) => atColumn(inPlan(family, from, face.offset), inPlan(family, to, face.offset)),
        ).map(({ from, to, sources, pieces }): Axis => ({
          a: inPlan(family, from, face.offset),
          b: inPlan(family, to, face.offset),
          width: null,
          sources,
          pieces,
        })),
      );
  const long = axes.flatMap((axis) => partedAtColumns(axis, posts)).filter(({ a, b }) => distance(a, b) >= shortest);
  const carried = reachSupports(long, posts, walls);
  const texts = scene.texts('beam', 'label');
  const written = new BoxIndex(texts, ({ at }) => boxOf([at]));
  const { drawing, primitives } = scene;
  const details = groupCells(detailRows(primitives, () => tableRowsOf(drawing, primitives)));
  const sheets: ScheduleSheet[] = [
    { sheet: null, rows: scheduleRows(texts) },
    { sheet: 'this drawing', rows: details },
    ...linked,
  ];
  const drawnIn = scene.placement.unit;
  const marked = carried.map((axis): Marked => {
    const mark = nearMark(written.touching(boxOf([axis.a, axis.b], 2)), axis.a, axis.b, {
      drawn: axis.width,
      least: settings.beam.least,
      drawnIn,
    });
    const bySchedule = mark === null || mark.size !== null ? [] : scheduled(mark.text, sheets);
    return { mark, bySchedule, words: mark?.size ?? bySchedule[0]?.words ?? null };
  });
  const order = orderOf(carried, marked, drawnIn, settings.beam.first);
  const candidates = carried.map((axis, i) =>
    candidateOf(axis, long[i], sizeBy(marked[i], axis.width, drawnIn, order), settings, tolerance),
  );
  const read = new Set(long.flatMap(({ sources }) => sources));
  const ends = new Set(
    families.flatMap(({ faces }) =>
      faces.flatMap(({ spans }) =>
        spans.filter(({ from, to }) => to - from <= settings.beam.most).flatMap(({ sources }) => sources),
      ),
    ),
  );
  const unread = unique(paths.map(({ source }) => source))
    .filter((source) => !read.has(source) && !ends.has(source))
    .map((source): Unread => ({ role: 'beam', ...source, why: 'a line that is no beam' }));
  return { candidates, unread };
}

/** Spans of one line as beams: dashes with short gaps are one. */
function singles(
  spans: readonly { from: number; to: number; sources: From[] }[],
  atColumn: (from: number, to: number) => boolean,
): { from: number; to: number; sources: From[]; pieces: number }[] {
  const joined: { from: number; to: number; sources: From[]; pieces: number }[] = [];
  for (const { from, to, sources } of [...spans].sort((p, q) => p.from - q.from)) {
    const last = joined[joined.length - 1];
    if (last && from - last.to <= 0.8 && !(from - last.to > 0.02 && atColumn(last.to, from))) {
      last.to = Math.max(last.to, to);
      pushAll(last.sources, sources);
      last.pieces += sources.length;
    } else joined.push({ from, to, sources: [...sources], pieces: sources.length });
  }
  return joined;
}

/** A beam that runs over a column is two, which end on it. */
function partedAtColumns(axis: Axis, columns: BoxIndex<Obstacle>): Axis[] {
  const length = distance(axis.a, axis.b);
  const u: Point = [(axis.b[0] - axis.a[0]) / length, (axis.b[1] - axis.a[1]) / length];
  const over = columns
    .touching(boxOf([axis.a, axis.b]))
    .filter(({ at, reach }) => {
      const along = dot(subtract(at, axis.a), u);
      return Math.abs(cross(u, subtract(at, axis.a))) < 0.1 && along > reach + slack && along < length - reach - slack;
    })
    .map(({ at }) => dot(subtract(at, axis.a), u))
    .sort((p, q) => p - q);
  const stops = [0, ...over, length].map((along): Point => [axis.a[0] + u[0] * along, axis.a[1] + u[1] * along]);
  return stops.slice(1).map((b, i) => ({ ...axis, a: stops[i], b }));
}

/** How far beyond what a support's size explains an end may stop, metres. */
const slack = 0.12;
/** The last dash of a dashed line ends up to this much sooner. */
const dashSlack = 0.45;

interface Support {
  words: string;
  point: Point;
}

/** Carries both ends of each axis on to what supports them: columns first, then walls, then other beams. */
function reachSupports(
  axes: readonly Axis[],
  columns: BoxIndex<Obstacle>,
  walls: readonly Segment[],
): (Axis & { supports: (string | null)[] })[] {
  const lines: { a: Point; b: Point; width: number; words: string; own: Axis | null }[] = [
    ...walls.map(({ start, end, thickness }) => ({ a: start, b: end, width: thickness, words: 'wall', own: null })),
    ...axes.map((axis) => ({ a: axis.a, b: axis.b, width: axis.width ?? 0.3, words: 'beam', own: axis })),
  ];
  const carriers = new BoxIndex(lines, ({ a, b }) => boxOf([a, b], 0.3));
  return axes.map((axis) => {
    const u = scale(subtract(axis.b, axis.a), 1 / distance(axis.a, axis.b));
    const reach = axis.pieces > 2 ? dashSlack : slack;
    const end = (at: Point, out: Point): Support | null => {
      const column = columns
        .around(at, 1.5)
        .map((c) => ({ c, along: dot(subtract(c.at, at), out), across: Math.abs(cross(out, subtract(c.at, at))) }))
        .filter(({ c, along, across }) => across < c.reach && Math.abs(along) < c.reach + reach)
        .sort((p, q) => Math.abs(p.along) - Math.abs(q.along))[0];
      if (column)
        return {
          words: 'column',
          point: column.across < 0.06 ? column.c.at : [at[0] + out[0] * column.along, at[1] + out[1] * column.along],
        };
      let best: (Support & { away: number }) | null = null;
      for (const line of carriers.around(at, 1)) {
        if (line.own === axis) continue;
        const sine = Math.abs(cross(u, subtract(line.b, line.a))) / distance(line.a, line.b);
        const hit = sine < 0.1 ? null : lineCrossing(axis.a, axis.b, line.a, line.b);
        if (hit === null) continue;
        const away = Math.abs(dot(subtract(hit.point, at), out));
        const margin = slack / distance(line.a, line.b);
        if (
          away <= line.width / 2 / sine + reach &&
          hit.u > -margin &&
          hit.u < 1 + margin &&
          (best === null || away < best.away)
        )
          best = { words: line.words, point: hit.point, away };
      }
      return best;
    };
    const [from, to] = [end(axis.a, [-u[0], -u[1]]), end(axis.b, u)];
    return {
      ...axis,
      a: from?.point ?? axis.a,
      b: to?.point ?? axis.b,
      supports: [from?.words ?? null, to?.words ?? null],
    };
  });
}

/** What is written of a beam: beside it, and by its mark in schedules; `words` say its size. */
interface Marked {
  mark: ReturnType<typeof nearMark>;
  bySchedule: Scheduled[];
  words: string | null;
}

/** Which written number is the width in this drawing: what most beams drawn with two lines say, else as told. */
function orderOf(
  axes: readonly Axis[],
  marked: readonly Marked[],
  drawnIn: LengthUnit,
  told: FirstNumber,
): FirstNumber {
  const votes = { width: 0, depth: 0 };
  for (const [i, { width }] of axes.entries()) {
    const { words } = marked[i];
    const first = width === null || words === null ? null : firstNumberOf(words, width, drawnIn);
    if (first !== null) votes[first] += 1;
  }
  if (votes.width === votes.depth) return told;
  return votes.width > votes.depth ? 'width' : 'depth';
}

/** A beam's mark, its size, how that is known, and what contradicts. */
interface Sized {
  mark: string | null;
  handles: string[];
  size: Size | null;
  hops: string[];
  doubts: string[];
}

/** The size of a beam by what is written of it, and which sheets and beams say otherwise. */
function sizeBy(
  { mark, bySchedule, words }: Marked,
  width: number | null,
  drawnIn: LengthUnit,
  order: FirstNumber,
): Sized {
  const size = words === null ? null : sizeOf(words, width, drawnIn, order);
  const doubts: string[] = [];
  if (words !== null && width !== null && firstNumberOf(words, width, drawnIn) === otherNumber[order])
    doubts.push(`${words}: the ${order} is written second here`);
  const others = new Set(bySchedule.filter((other) => other.words !== words).map(({ hops }) => hops.join(', ')));
  if (others.size > 0) doubts.push(`also ${[...others].join('; ')}`);
  return { mark: mark?.text ?? null, handles: mark?.handles ?? [], size, hops: bySchedule[0]?.hops ?? [], doubts };
}

const otherNumber: Record<FirstNumber, FirstNumber> = { width: 'depth', depth: 'width' };

function candidateOf(
  axis: Axis & { supports: (string | null)[] },
  drawn: Axis,
  { mark, handles: markHandles, size, hops, doubts: written }: Sized,
  settings: ReadingSettings,
  tolerance: Tolerance,
): BeamCandidate {
  const evidence: Evidence[] = [
    {
      text: drawnAs(axis.width, drawn.pieces),
      weight: axis.width === null ? 0.5 : 2,
    },
  ];
  const doubts: string[] = [];
  const carried = axis.supports.filter((support) => support !== null).length;
  evidence.push({
    text: carried === 0 ? 'no support at either end' : `carried by ${axis.supports.filter(Boolean).join(' and ')}`,
    weight: carried - 1,
  });
  if (carried < 2) doubts.push(carried === 0 ? 'no support' : 'a free end');
  const name = mark ?? '';
  if (mark !== null) {
    const sized = size ? `, ${(size.width * 1000).toFixed(0)} \u00d7 ${(size.depth * 1000).toFixed(0)}` : '';
    evidence.push({
      text: `marked ${name}${sized}${size !== null && hops.length > 0 ? ' by the schedule' : ''}`,
      weight: 1.5,
    });
  }
  for (const text of hops) evidence.push({ text, weight: 0 });
  const round = (value: number) => {
    const rounded = Math.round(value / tolerance.roundingModule) * tolerance.roundingModule;
    return Math.abs(rounded - value) <= tolerance.rounding + 1e-9 ? Number(rounded.toFixed(9)) : value;
  };
  if (size && axis.width !== null && Math.abs(size.width - axis.width) > 0.011)
    doubts.push(`drawn ${(axis.width * 1000).toFixed(0)} mm wide`);
  if (!size) doubts.push('depth by default');
  pushAll(doubts, written);
  const section = {
    shape: 'rectangle' as const,
    width: size?.width ?? (axis.width === null ? 0.3 : round(axis.width)),
    depth: size?.depth ?? settings.beam.depth,
    ...(size?.wall === undefined ? {} : { wall: size.wall }),
  };
  const handles = [...new Set([...axis.sources.map(({ handle }) => handle), ...markHandles])];
  const middle: Point = [(axis.a[0] + axis.b[0]) / 2, (axis.a[1] + axis.b[1]) / 2];
  return {
    kind: 'beam',
    key: keyAt(
      'beam',
      axis.sources.map(({ handle }) => handle),
      middle,
    ),
    element: { start: axis.a, end: axis.b, section, mark: name },
    evidence,
    confidence: confidenceOf('beam', evidence),
    handles,
    doubt: doubts.join(', ') || null,
  };
}

/** How a beam is drawn, in words. @param width between its two lines, metres; null where there is one */
function drawnAs(width: number | null, pieces: number): string {
  if (width !== null) return `two lines ${(width * 1000).toFixed(0)} mm apart`;
  return pieces > 2 ? `a dashed line of ${pieces} pieces` : 'a single line';
}
