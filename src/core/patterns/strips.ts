import { pushAll } from '@/core/lists';
import type { From } from '@/core/placed/placed';
import { BoxIndex } from '@/core/geometry/boxIndex';
import type { Face, FaceFamily } from './faces';

/** Two faces that run beside one another at a wall's distance. */
export interface Strip {
  family: FaceFamily;
  /** Of the middle between the faces. */
  offset: number;
  thickness: number;
  from: number;
  to: number;
  sources: From[];
  /** How many further faces lie between the two: the leaves of a cavity wall, or panes. */
  inner: number;
  /** How wide the bundle of faces is that it was parted from, metres; zero where it is a bundle of its own. */
  parted: number;
  /** How much of it has one face alone, metres. */
  oneFaced: number;
}

/** What a wall measures across, metres. */
export interface Across {
  least: number;
  most: number;
  /** Whether faces so far apart, with others between them, are one wall; null where nobody has said so. */
  isOne?: (apart: number) => boolean | null;
}

/** From so many equal steps on a run of lines is a stair. */
const fewestTreads = 5;

interface Active {
  face: number;
  offset: number;
  from: number;
  to: number;
  sources: From[];
  /** How long the face is with what goes on beyond openings and junctions. */ length: number;
}

/**
 * Pairs the faces of a family. The line along is cut wherever a face begins or ends; in each part the faces present
 * that follow one another within a
 * wall's thickness are one bundle, and a bundle is one wall (two faces, or the leaves of a cavity wall), or several.
 * Lines that are much shorter
 * than the others of their bundle are furniture or panes and do not bound a wall; equal steps are stairs.
 */
export function pairFaces(family: FaceFamily, across: Across): { strips: Strip[]; stairs: From[] } {
  const spans = family.faces.flatMap((face: Face, index): Active[] => {
    const lengths = chainLengths(face);
    return face.spans.map((span, i) => ({ face: index, offset: face.offset, length: lengths[i], ...span }));
  });
  const open: Strip[] = [];
  const strips: Strip[] = [];
  const stairs: From[] = [];
  for (const group of neighbours(spans, across.most)) {
    const cuts = [...new Set(group.flatMap(({ from, to }) => [from, to]))].sort((a, b) => a - b);
    const coming = [...group].sort((a, b) => a.from - b.from);
    let present: Active[] = [];
    let next = 0;
    open.length = 0;
    for (let k = 0; k + 1 < cuts.length; k += 1) {
      const [from, to] = [cuts[k], cuts[k + 1]];
      while (next < coming.length && coming[next].from <= from) {
        present.push(coming[next]);
        next += 1;
      }
      present = present.filter((span) => span.to > from);
      for (let i = open.length - 1; i >= 0; i -= 1) if (open[i].to < from - 1e-9) open.splice(i, 1);
      for (const bundle of bundles(present, across.most)) {
        if (isStair(bundle)) {
          pushAll(
            stairs,
            bundle.flatMap(({ sources }) => sources),
          );
          continue;
        }
        for (const { low, high, inner, parted } of wallsOf(bundle, across)) {
          const last = open.find(
            (strip) =>
              Math.abs(strip.to - from) < 1e-9 &&
              strip.offset === (low.offset + high.offset) / 2 &&
              strip.thickness === high.offset - low.offset,
          );
          const sources = [...low.sources, ...high.sources, ...inner.flatMap((span) => span.sources)];
          if (last) {
            last.to = to;
            pushAll(last.sources, sources);
            last.inner = Math.max(last.inner, inner.length);
            continue;
          }
          const strip: Strip = {
            family,
            offset: (low.offset + high.offset) / 2,
            thickness: high.offset - low.offset,
            from,
            to,
            sources,
            inner: inner.length,
            parted,
            oneFaced: 0,
          };
          open.push(strip);
          strips.push(strip);
        }
      }
    }
  }
  const whole = withoutStubs(strips, across.most).map((strip) => ({ ...strip, sources: unique(strip.sources) }));
  return { strips: whole, stairs: unique(stairs) };
}

/** Strips that differ by less than this end where others begin, metres. */
const touches = 1e-6;

/**
 * Where a wall ends on the inner face of another, that face is broken, and the rest of the other's faces go on as a
 * thinner piece as short as the wall is thick: it is the other wall all the same. So is what is left of leaves in a
 * corner.
 * @param most so thick walls are at most, metres
 */
function withoutStubs(strips: readonly Strip[], most: number): Strip[] {
  const kept = new Set(strips);
  /** What strips have become parts of. */
  const wholes = new Map<Strip, Strip>();
  const wholeOf = (strip: Strip): Strip => {
    const whole = wholes.get(strip);
    return whole === undefined ? strip : wholeOf(whole);
  };
  const byStart = new BoxIndex(strips, ({ from, offset }) => [from, offset, from, offset]);
  const byEnd = new BoxIndex(strips, ({ to, offset }) => [to, offset, to, offset]);
  const holds = (outer: Strip, stub: Strip): boolean =>
    outer.thickness > stub.thickness + touches &&
    outer.to - outer.from > stub.to - stub.from &&
    Math.abs(outer.offset - stub.offset) <= (outer.thickness - stub.thickness) / 2 + touches;
  for (const stub of strips) {
    if (stub.to - stub.from > stub.thickness) continue;
    const near = (index: BoxIndex<Strip>, at: number): Strip | undefined =>
      index
        .touching([at - touches, stub.offset - most / 2, at + touches, stub.offset + most / 2])
        .map(wholeOf)
        .find((other) => other !== stub && holds(other, stub));
    const [before, after] = [near(byEnd, stub.from), near(byStart, stub.to)];
    const host = before ?? after;
    if (host === undefined || (stub.inner === 0 && (before === undefined || after === undefined))) continue;
    host.from = Math.min(host.from, stub.from);
    host.to = Math.max(host.to, stub.to);
    pushAll(host.sources, stub.sources);
    kept.delete(stub);
    wholes.set(stub, host);
    if (before === undefined || after === undefined || before === after || !sameBand(before, after)) continue;
    before.to = after.to;
    before.inner = Math.max(before.inner, after.inner);
    pushAll(before.sources, after.sources);
    kept.delete(after);
    wholes.set(after, before);
  }
  return strips.filter((strip) => kept.has(strip));
}

const sameBand = (a: Strip, b: Strip): boolean =>
  Math.abs(a.offset - b.offset) < touches && Math.abs(a.thickness - b.thickness) < touches;

/** Each source once. */
export const unique = (sources: readonly From[]): From[] => [...new Set(sources)];

/** A face goes on beyond openings and junctions up to this long, metres. */
const goesOn = 2.5;

/**
 * The length of every span with those that go on from it: the inner face of an outer wall is in pieces where others end
 * on it, and is one face.
 */
function chainLengths({ spans }: Face): number[] {
  const lengths: number[] = [];
  for (let i = 0; i < spans.length;) {
    let [j, length] = [i + 1, spans[i].to - spans[i].from];
    while (j < spans.length && spans[j].from - spans[j - 1].to <= goesOn) {
      length += spans[j].to - spans[j].from;
      j += 1;
    }
    while (i < j) {
      lengths.push(length);
      i += 1;
    }
  }
  return lengths;
}

/** Spans that can be of one wall, by chains of such: near across and beside one another. */
function neighbours(spans: readonly Active[], most: number): Active[][] {
  const sorted = [...spans].sort((a, b) => a.offset - b.offset);
  const parent = sorted.map((_, i) => i);
  const root = (i: number): number => {
    let r = i;
    while (parent[r] !== r) r = parent[r] = parent[parent[r]];
    return r;
  };
  const index = new BoxIndex(sorted, ({ from, to, offset }) => [from, offset, to, offset]);
  sorted.forEach(({ from, to, offset }, i) => {
    for (const j of index.indices([from, offset, to, offset + most]))
      if (Math.min(to, sorted[j].to) > Math.max(from, sorted[j].from)) parent[root(j)] = root(i);
  });
  const groups = new Map<number, Active[]>();
  sorted.forEach((span, i) => {
    const r = root(i);
    const group = groups.get(r);
    if (group) group.push(span);
    else groups.set(r, [span]);
  });
  return [...groups.values()].filter((group) => group.length > 1);
}

/** Runs of faces, by offset, none further from the one before than a wall is thick. */
function bundles(present: readonly Active[], most: number): Active[][] {
  const runs: Active[][] = [];
  for (const span of [...present].sort((a, b) => a.offset - b.offset)) {
    const run = runs[runs.length - 1];
    if (run && span.offset - run[run.length - 1].offset <= most) run.push(span);
    else runs.push([span]);
  }
  return runs.filter((run) => run.length > 1);
}

function isStair(bundle: readonly Active[]): boolean {
  if (bundle.length < fewestTreads) return false;
  const steps = bundle.slice(1).map((span, i) => span.offset - bundle[i].offset);
  const mean = steps.reduce((sum, step) => sum + step, 0) / steps.length;
  return steps.every((step) => Math.abs(step - mean) < 0.06 * mean) && mean > 0.15;
}

/** So many faces beside one another, none further from the next than a wall is thick, are a pattern and no walls. */
const mostFaces = 60;

/** Faces shorter than this share of the second longest of their bundle bound no wall. */
const boundingShare = 0.45;

/** Faces are compared with one of so many metres at most: leaves may go on from wall to wall. */
const longFace = 8;

/** The faces of one wall of a bundle, and those between them. */
interface Bounding extends Pick<Strip, 'parted'> {
  low: Active;
  high: Active;
  inner: Active[];
}

/** Faces taken two by two as walls of their own; of three the one between bounds two. */
function leavesOf(faces: readonly Active[], least: number, parted: number): Bounding[] {
  const step = faces.length % 2 === 0 ? 2 : 1;
  const leaves: Bounding[] = [];
  for (let i = 0; i + 1 < faces.length; i += step) {
    const [low, high] = [faces[i], faces[i + 1]];
    if (high.offset - low.offset >= least) leaves.push({ low, high, inner: [], parted });
  }
  return leaves;
}

/** The walls of one bundle. */
function wallsOf(bundle: readonly Active[], across: Across): Bounding[] {
  if (bundle.length > mostFaces) return [];
  // A line may run on beside many walls; two faces are what bounds one.
  const [, second] = bundle.map(({ length }) => length).sort((a, b) => b - a);
  const long =
    bundle.length === 2 ? bundle : bundle.filter(({ length }) => length >= boundingShare * Math.min(second, longFace));
  if (long.length < 2) return [];
  const [low, high] = [long[0], long[long.length - 1]];
  const span = high.offset - low.offset;
  const isOne = long.length > 2 ? (across.isOne?.(span) ?? null) : null;
  if (isOne === false) return leavesOf(long, across.least, span);
  if (isOne ?? span <= across.most + 1e-9)
    return span >= across.least ? [{ low, high, inner: long.slice(1, -1), parted: 0 }] : [];
  // Two walls with something narrow between them: parted at the widest gap.
  let widest = 1;
  for (let i = 2; i < long.length; i += 1)
    if (long[i].offset - long[i - 1].offset > long[widest].offset - long[widest - 1].offset) widest = i;
  return [long.slice(0, widest), long.slice(widest)]
    .flatMap((part) => (part.length < 2 ? [] : wallsOf(part, across)))
    .map((one) => ({ ...one, parted: Math.max(one.parted, span) }));
}
