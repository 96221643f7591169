import { leastOf, mostOf, pushAll } from '@/core/lists';
import type { From } from '@/core/placed/placed';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { dot, type Point } from '@/core/geometry/vector';
import { inFamily, inPlan, type FaceFamily } from '@/core/patterns/faces';
import { unique, type Strip } from '@/core/patterns/strips';
import { facesByOffset, oneFaced } from './oneFaced';

/** A stretch of a run where the wall is open, along the run's family. */
export interface Gap {
  from: number;
  to: number;
  kind: 'door' | 'window' | 'opening';
  sources: From[];
  /** Whether it is drawn over faces that go on. */ over?: true;
}

/** Strips of one thickness on one line, joined across openings and where other walls or columns interrupt the faces. */
export interface Run {
  family: FaceFamily;
  offset: number;
  thickness: number;
  from: number;
  to: number;
  gaps: Gap[];
  sources: From[];
  inner: number;
  /** How wide the bundle of faces is that it was parted from, metres; zero where it was not. */
  parted: number;
  /** How much of it has one face alone, metres. */
  oneFaced: number;
}

/** Something drawn on the roles of doors or windows: its points, and its source. */
export interface Mark {
  kind: 'door' | 'window';
  points: Point[];
  source: From;
}

/** Strips whose middles lie within this on one line, of thicknesses within this, are one wall; metres. */
const sameLine = 0.012;
/** No opening is narrower than this, metres, and none wider, unless it is drawn so from end to end. */
export const openingWidth = { least: 0.4, most: 6.5 };
/** A jamb is as long as a wall is thick. */
const longestJamb = 1.2;
/** A strip shorter than its thickness is the ends of other walls, unless it goes on. */
const leastAspect = 1;
/** Directions whose cosine is below are square to one another. */
const square = 0.1;

/** What explains that the faces of a wall stop. */
export interface Stops {
  /** Whether columns and walls that pass fill the place between two points of a wall that is so thick, metres. */
  filled: (a: Point, b: Point, across: number) => boolean;
  /** Whether a wall of a direction that ends at a point ends on another, or on a column. */
  abuts: (at: Point, u: Point) => boolean;
}

/**
 * Joins strips into runs.
 * @param marks what is drawn on the roles of doors and windows
 */
export function joinStrips(
  strips: readonly Strip[],
  families: readonly FaceFamily[],
  marks: readonly Mark[],
  stops: Stops,
): Run[] {
  const byFamily = new Map<FaceFamily, Strip[]>();
  for (const strip of strips) {
    const list = byFamily.get(strip.family);
    if (list) list.push(strip);
    else byFamily.set(strip.family, [strip]);
  }
  const drawn = new BoxIndex(marks, ({ points }) => boxOf(points));
  const isPier = piersAmong(strips);
  const runs: Run[] = [];
  for (const [family, own] of byFamily) {
    const jambs = jambsOf(family, families);
    const faces = facesByOffset(family);
    const abuts = (along: number, offset: number) => stops.abuts(inPlan(family, along, offset), family.u);
    for (const strips of linesOf(own)) {
      // Beside a door a piece of the wall itself may be shorter than thick: its line has longer ones.
      if (strips.every(isPier)) continue;
      const missed = oneFaced(strips, { family, faces, marks: drawn, jambs, abuts });
      const line = [...strips, ...missed].sort((a, b) => a.from - b.from);
      let run: Run | null = null;
      for (const strip of line) {
        const gap: Gap | null = run === null ? null : gapBetween(run, strip, drawn, jambs, stops);
        if (run !== null && gap !== null) {
          run.to = Math.max(run.to, strip.to);
          pushAll(run.sources, strip.sources);
          run.inner = Math.max(run.inner, strip.inner);
          run.parted = Math.max(run.parted, strip.parted);
          run.oneFaced += strip.oneFaced;
          if (gap.to - gap.from > 1e-9 && gap.sources.length + (gap.kind === 'opening' ? 1 : 0) > 0) run.gaps.push(gap);
          continue;
        }
        run = {
          family,
          offset: strip.offset,
          thickness: strip.thickness,
          from: strip.from,
          to: strip.to,
          gaps: [],
          sources: [...strip.sources],
          inner: strip.inner,
          parted: strip.parted,
          oneFaced: strip.oneFaced,
        };
        runs.push(run);
      }
    }
  }
  return withoutLeaves(
    runs
      .map((run) => ({ ...run, sources: unique(run.sources) }))
      .filter(({ from, to, thickness }) => to - from >= leastAspect * thickness - 1e-6),
  );
}

/** The middle of a strip in the plan. */
const middleOf = ({ family, from, to, offset }: Strip): Point => inPlan(family, (from + to) / 2, offset);

/** A piece of another wall fills at least this share of a strip that is only it, seen across. */
const seenShare = 0.15;
/** Such a piece is at least this long, as a share of its thickness: it may be what is left beside a door. */
const leastPiece = 0.3;

/**
 * Tells strips that are a piece of another wall seen across: its jamb, as a face, with its other jamb or what it ends
 * on, and the piece's own thickness for a length. Piers that face one another over a corridor, or over a room, would
 * else be a thick wall through it.
 */
function piersAmong(strips: readonly Strip[]): (strip: Strip) => boolean {
  const pieces = strips.filter(({ from, to, thickness }) => to - from > leastPiece * thickness);
  const index = new BoxIndex(pieces, ({ family, from, to, offset }) =>
    boxOf([inPlan(family, from, offset), inPlan(family, to, offset)], sameLine),
  );
  const isSeenAcross = (strip: Strip, other: Strip): boolean => {
    const [middle, offset] = inFamily(other.family, middleOf(strip));
    // A column may have cut a part of what is seen of it.
    const beyond = Math.abs(offset - other.offset) + (strip.to - strip.from) / 2 - other.thickness / 2;
    if (beyond > sameLine) return false;
    const [low, high] = [middle - strip.thickness / 2, middle + strip.thickness / 2];
    const common = Math.min(high, other.to) - Math.max(low, other.from);
    const hasJamb = Math.abs(other.from - low) < 2 * sameLine || Math.abs(other.to - high) < 2 * sameLine;
    return hasJamb && common >= seenShare * strip.thickness;
  };
  return (strip) => {
    if (strip.to - strip.from > strip.thickness) return false;
    const [low, high] = [-strip.thickness / 2, strip.thickness / 2].map((aside) =>
      inPlan(strip.family, (strip.from + strip.to) / 2, strip.offset + aside),
    );
    return index
      .touching(boxOf([low, high]))
      .some((other) => Math.abs(dot(strip.family.u, other.family.u)) < square && isSeenAcross(strip, other));
  };
}

/**
 * Leaves out runs that lie within a thicker one, or are no longer than it is thick and lie beside its end: leaves of a
 * wall that go on where its face is broken by a junction, and corners of fillings.
 */
function withoutLeaves(runs: readonly Run[]): Run[] {
  const byFamily = new Map<FaceFamily, Run[]>();
  for (const run of runs) {
    const list = byFamily.get(run.family);
    if (list) list.push(run);
    else byFamily.set(run.family, [run]);
  }
  const beyond = (run: Run, other: Run): number =>
    run.to - run.from <= other.thickness + sameLine ? other.thickness + sameLine : sameLine;
  const within = (run: Run, other: Run): boolean =>
    other.thickness > run.thickness + sameLine &&
    Math.abs(other.offset - run.offset) + run.thickness / 2 <= other.thickness / 2 + sameLine &&
    other.from <= run.from + beyond(run, other) &&
    other.to >= run.to - beyond(run, other);
  const index = new Map(
    [...byFamily].map(([family, own]) => [
      family,
      new BoxIndex(own, ({ from, to, offset, thickness }) => [
        from,
        offset - thickness / 2,
        to,
        offset + thickness / 2,
      ]),
    ]),
  );
  return runs.filter(
    (run) =>
      !index
        .get(run.family)!
        .touching([run.from - run.thickness * 3, run.offset - 1e-6, run.to + run.thickness * 3, run.offset + 1e-6])
        .some((other) => within(run, other)),
  );
}

/** Strips of one line and thickness, in their order along; long ones say where the line is. */
function linesOf(strips: readonly Strip[]): Strip[][] {
  const lines: { offset: number; thickness: number; strips: Strip[] }[] = [];
  const cells = new Map<number, typeof lines>();
  for (const strip of [...strips].sort((a, b) => b.to - b.from - (a.to - a.from))) {
    const cell = Math.floor(strip.offset / sameLine);
    const line = [cell - 1, cell, cell + 1]
      .flatMap((c) => cells.get(c) ?? [])
      .find(
        ({ offset, thickness }) =>
          Math.abs(offset - strip.offset) <= sameLine && Math.abs(thickness - strip.thickness) <= sameLine,
      );
    if (line) {
      line.strips.push(strip);
      continue;
    }
    const fresh = { offset: strip.offset, thickness: strip.thickness, strips: [strip] };
    lines.push(fresh);
    const own = cells.get(cell);
    if (own) own.push(fresh);
    else cells.set(cell, [fresh]);
  }
  return lines.map(({ offset, thickness, strips: own }) =>
    own.map((strip) => ({ ...strip, offset, thickness })).sort((a, b) => a.from - b.from),
  );
}

/** Short faces square to a family, as jambs are: where they stand along it, and what they span across. */
export type Jambs = (along: number, offset: number, thickness: number) => boolean;

function jambsOf(family: FaceFamily, families: readonly FaceFamily[]): Jambs {
  const found: { along: number; low: number; high: number }[] = [];
  for (const other of families) {
    if (Math.abs(family.u[0] * other.u[0] + family.u[1] * other.u[1]) > 0.05) continue;
    for (const face of other.faces)
      for (const span of face.spans) {
        if (span.to - span.from > longestJamb) continue;
        const [a, b] = [
          inFamily(family, inPlan(other, span.from, face.offset)),
          inFamily(family, inPlan(other, span.to, face.offset)),
        ];
        found.push({ along: (a[0] + b[0]) / 2, low: Math.min(a[1], b[1]), high: Math.max(a[1], b[1]) });
      }
  }
  found.sort((a, b) => a.along - b.along);
  return (along, offset, thickness) => {
    let [low, high] = [0, found.length];
    while (low < high) {
      const mid = (low + high) >> 1;
      if (found[mid].along < along - 0.03) low = mid + 1;
      else high = mid;
    }
    for (let i = low; i < found.length && found[i].along <= along + 0.03; i += 1)
      if (
        found[i].low <= offset - 0.3 * thickness &&
        found[i].high >= offset + 0.3 * thickness &&
        found[i].high - found[i].low < 1.6 * thickness + 0.05
      )
        return true;
    return false;
  };
}

/**
 * What lies between the end of a run and the next strip: an opening, an interruption that is none (a gap without
 * sources), or null where they are two walls.
 */
function gapBetween(run: Run, strip: Strip, drawn: BoxIndex<Mark>, jambs: Jambs, { filled, abuts }: Stops): Gap | null {
  const [from, to] = [run.to, strip.from];
  const width = to - from;
  if (width <= 0.025) return { from, to: from, kind: 'opening', sources: [] };
  const [a, b] = [inPlan(run.family, from, run.offset), inPlan(run.family, to, run.offset)];
  if (width >= openingWidth.least) {
    const inside = drawn
      .touching(boxOf([a, b], run.thickness + 0.1))
      .filter(({ points }) => standsIn(points, run, from, to));
    const doors = inside.filter(({ kind }) => kind === 'door');
    const shown = doors.length > 0 ? doors : inside;
    if (width > openingWidth.most && !spans(shown, run, from, to)) return null;
    if (shown.length > 0)
      return {
        from,
        to,
        kind: doors.length > 0 ? 'door' : 'window',
        sources: unique(shown.map(({ source }) => source)),
      };
    // Jambs at a column are the ends of walls that meet there.
    if (filled(a, b, run.thickness)) return { from, to: from, kind: 'opening', sources: [] };
    // Two walls in one line that end on walls to both sides of a room have the room between them, not an opening.
    if (
      jambs(from, run.offset, run.thickness) &&
      jambs(to, run.offset, run.thickness) &&
      !(abuts(a, run.family.u) && abuts(b, run.family.u))
    )
      return { from, to, kind: 'opening', sources: [] };
  }
  return filled(a, b, run.thickness) ? { from, to: from, kind: 'opening', sources: [] } : null;
}

/** What is drawn from one end of a gap to the other reaches this near to them, metres. */
const atEnds = 0.15;

/** Whether what is drawn in a gap goes from one of its ends to the other: such an opening may be of any width. */
function spans(marks: readonly Mark[], run: Run, from: number, to: number): boolean {
  const along = marks.flatMap(({ points }) => points.map((p) => inFamily(run.family, p)[0]));
  return along.length > 0 && leastOf(along) <= from + atEnds && mostOf(along) >= to - atEnds;
}

/** Whether something is drawn in a gap: most of its extent along the wall lies in it, and it reaches into the wall. */
function standsIn(points: readonly Point[], run: Run, from: number, to: number): boolean {
  const local = points.map((p) => inFamily(run.family, p));
  const along = local.map(([x]) => x);
  const offsets = local.map(([, y]) => y - run.offset);
  const [low, high] = [leastOf(along), mostOf(along)];
  const overlap = Math.min(high, to) - Math.max(low, from);
  const half = run.thickness / 2 + 0.06;
  return (
    overlap > 0.5 * (high - low) && overlap > 0.3 * (to - from) && leastOf(offsets) <= half && mostOf(offsets) >= -half
  );
}
