import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import { lazily } from '@/core/lazily';
import { leastOf, mostOf } from '@/core/lists';
import { defaultSettings } from '@/core/patterns/settings';
import { formOf, shareOfWindows, isOneForm, middleOf, oneFace, unit, windowForms } from './forms';
import type { AllLooks, Line } from './looks';
import type { PaneLine } from './panes';

/** A wall is so thick at most, metres. */
const widest = defaultSettings.wall.most;

/** Panes are so long, and those of one window as long as one another within that, metres. */
const pane = { least: 0.4, most: 5, even: 0.02 };

/** The panes of a window, or a wall with leaves, are so many lines. */
const fewestLines = 3;

/** Lines between common ends, within a wall's thickness: the panes of a window, or the leaves of a piece of wall. */
interface Bundle {
  lines: Line[];
  /** Those that neither are outermost nor lie on them. */
  inner: Line[];
}

/** Directions whose sine is below are one. */
const turned = 0.02;
/** Pieces of one wall lie in one line within this, metres. */
const series = 30;
/** How pieces of one line are told: how far they lie off it, metres; whether bundles of other forms are left out. */
interface Way {
  off: number;
  alone: boolean;
}

/**
 * Hands are careless by a centimetre. Panes may lie in one line with the leaves of a wall, or half a centimetre beside
 * them: the first way by which something is a window is taken.
 */
const ways: Way[] = [
  { off: 0.01, alone: false },
  { off: 0.01, alone: true },
  { off: 0.005, alone: false },
];
/** Where windows are less than this share of all bundles another way may see more. */
const fewWindows = 0.1;
/** What lies between two pieces of one line, an opening, is no longer, metres. */
const between = 4;
/** Lines this near to one another across are one, metres. */
const across = 0.005;
/** A wall that goes on beside a window is looked for so far beyond its end, metres. */
const beyondEnd = 0.08;

/**
 * Three or more lines between common ends, within a wall's thickness. Where what lies between the outer two ends for
 * good, at the corner of a building, only leaves of the wall do so: the panes of a row of windows have wall beyond.
 * @param sides straight sides of outlines, which may be walls
 */
export function windows(looks: AllLooks, lines: readonly Line[], sides: readonly Line[], known: Known): void {
  const isOpen = ({ path }: Line): boolean => looks[path] === null;
  const open = lines.filter((line) => isOpen(line) && isPaneLong(line));
  const drawn = new BoxIndex([...lines, ...sides].filter(isOpen), ({ a, b }) => boxOf([a, b], across));
  const bundles = bundlesOf(open);
  if (drawnOtherwise(looks, bundles, known)) return;
  // Of two faces one of which is drawn twice there are three lines too.
  const formed = bundles
    .map((bundle) => ({ ...bundle, form: formOf(bundle.lines) }))
    .filter(({ form }) => form.length >= fewestLines);
  const forms = new Map(formed.flatMap(({ lines: own, form }) => own.map((line) => [line, form])));
  const seenBy = ({ off, alone }: Way) =>
    formed.map((bundle) => {
      const isAlike = (line: Line): boolean => !alone || isOneForm(forms.get(line) ?? bundle.form, bundle.form);
      const around = surroundings(bundle, drawn, off, isAlike);
      // Without its windows a wall seems to go on beyond its leaves too: they are what ends at columns and corners.
      return { ...bundle, ...around, isLast: alone && around.isLast };
    });
  const seen = ways.map((way) => lazily(() => seenBy(way)));
  const found = (
    seen.find((bundlesSeen) => shareOfWindows(bundlesSeen()) >= fewWindows) ??
    seen.find((bundlesSeen) => shareOfWindows(bundlesSeen()) > 0) ??
    seen[0]
  )();
  const areWindows = windowForms(found);
  for (const bundle of found) {
    const { lines: own, isInWall, isAlone } = bundle;
    if (isInWall && areWindows(bundle.form))
      for (const { path } of own) looks[path] = { role: 'window', why: `${own.length} lines between common ends` };
    else if (isAlone && isClosed(bundle, drawn))
      for (const { path } of own) looks[path] = { role: 'ignore', why: 'lines in a box, as of furniture' };
  }
}

/** Lines from jamb to jamb, and how many blocks are called windows. */
interface Known {
  panes: readonly PaneLine[];
  blocks: number;
}

/**
 * Two lines from jamb to jamb this far apart are faces of a wall between columns, metres; nearer ones are where they
 * are this share of the jamb apart, a little less than a quarter, as three leaves are.
 */
const faces = { always: 0.095, least: 0.075, share: 0.24 };

/** From so many windows on that are drawn in another way, lines between common ends are leaves of walls. */
const fewestOthers = 4;

/** Whether the windows of a drawing are blocks, rectangles or single panes: one hand draws all in one way. */
function drawnOtherwise(looks: AllLooks, bundles: readonly Bundle[], { panes, blocks }: Known): boolean {
  const bundled = new Set(bundles.flatMap((bundle) => bundle.lines.map(({ path }) => path)));
  const index = new BoxIndex(panes, (line) => boxOf([middleOf(line)]));
  const isFace = (line: PaneLine): boolean =>
    index.around(middleOf(line), widest).some((other) => {
      const away = distance(middleOf(other), middleOf(line));
      const least = Math.min(faces.always, Math.max(faces.least, faces.share * line.across));
      return away >= least && Math.abs(other.length - line.length) < pane.even;
    });
  const single = panes.filter((line) => !bundled.has(line.path) && !isFace(line)).length;
  const outlined = looks.filter((look) => look?.role === 'window').length;
  return blocks + outlined + single >= fewestOthers;
}

/** Whether lines across both ends of a bundle make a box of it. */
function isClosed({ lines }: Bundle, drawn: BoxIndex<Line>): boolean {
  const [first] = lines;
  const u = unit(first);
  const aside = (line: Line): number => (line.a[1] - first.a[1]) * u[0] - (line.a[0] - first.a[0]) * u[1];
  const sorted = [...lines].sort((p, q) => aside(p) - aside(q));
  const endsOf = ({ a, b }: Line): Point[] => ((b[0] - a[0]) * u[0] + (b[1] - a[1]) * u[1] > 0 ? [a, b] : [b, a]);
  const [low, high] = [endsOf(sorted[0]), endsOf(sorted[sorted.length - 1])];
  const isDrawn = (p: Point, q: Point): boolean =>
    drawn.around(p, 2 * across).some(({ a, b }) => (near(a, p) && near(b, q)) || (near(b, p) && near(a, q)));
  return isDrawn(low[0], high[0]) && isDrawn(low[1], high[1]);
}

const near = (p: Point, q: Point): boolean => distance(p, q) <= 2 * across;

/** How a bundle lies among what is in line with its inner lines. */
interface Surroundings {
  /** Whether a wall goes on beyond one of the ends of all that. */
  isInWall: boolean;
  /** Whether nothing else lies there. */
  isAlone: boolean;
  /** Whether beyond one of its own ends nothing goes on: a corner, a column, a gap. */
  isLast: boolean;
}

/** How a bundle lies. @param isAlike whether a line is part of no bundle of another form */
function surroundings(
  { lines, inner }: Bundle,
  drawn: BoxIndex<Line>,
  off: number,
  isAlike: (line: Line) => boolean,
): Surroundings {
  const [first] = inner.length > 0 ? inner : lines;
  const u = unit(first);
  const [x, y] = middleOf(first);
  const local = ([px, py]: Point): Point => [(px - x) * u[0] + (py - y) * u[1], (py - y) * u[0] - (px - x) * u[1]];
  const inPlan = (along: number, offset: number): Point => [
    x + u[0] * along - u[1] * offset,
    y + u[1] * along + u[0] * offset,
  ];
  const offsets = lines.map((line) => local(middleOf(line))[1]);
  const centre = (leastOf(offsets) + mostOf(offsets)) / 2;
  // Of the leaves of a wall one runs on to the corner where the others end before it: the furthest of them counts.
  const within = (inner.length > 0 ? inner : lines).map((line) => local(middleOf(line))[1]);
  const pieces = drawn
    .touching(boxOf([inPlan(-series, centre), inPlan(series, centre)], widest / 2))
    .flatMap((line) => {
      const [p, q] = [local(line.a), local(line.b)];
      const isOne = within.some((offset) => Math.abs(p[1] - offset) < off && Math.abs(q[1] - offset) < off);
      return isOne && line.length > pane.least && isAlike(line)
        ? [[Math.min(p[0], q[0]), Math.max(p[0], q[0])] as const]
        : [];
    });
  const [start, end] = reachOf(pieces, first.length / 2);
  const isAlone = end - start < first.length + across;
  const isWallAt = (along: number): boolean => {
    const faces = drawn.around(inPlan(along, centre), widest / 2).flatMap((line) => {
      const [p, q] = [local(line.a), local(line.b)];
      const isLevel = Math.abs(p[1] - q[1]) < across && Math.abs(p[1] - centre) <= widest / 2;
      return isLevel && Math.min(p[0], q[0]) < along && Math.max(p[0], q[0]) > along ? [p[1]] : [];
    });
    return mostOf(faces) - leastOf(faces) > oneFace;
  };
  const half = first.length / 2 + beyondEnd;
  return {
    isInWall: isWallAt(start - beyondEnd) || isWallAt(end + beyondEnd),
    isAlone,
    isLast: !isWallAt(-half) || !isWallAt(half),
  };
}

/** How far pieces of one line reach to either side of its middle, over whatever lies between them. */
function reachOf(pieces: readonly (readonly [number, number])[], half: number): [number, number] {
  let [start, end] = [-half, half];
  for (const [from, to] of [...pieces].sort((p, q) => p[0] - q[0])) if (from <= end + between) end = Math.max(end, to);
  for (const [from, to] of [...pieces].sort((p, q) => q[1] - p[1]))
    if (to >= start - between) start = Math.min(start, from);
  return [start, end];
}

/** Lines that lie with two others or more between common ends: panes, or leaves of a wall, and no axis. */
export const bundled = (lines: readonly Line[]): Line[] =>
  bundlesOf(lines.filter(isPaneLong)).flatMap((bundle) =>
    formOf(bundle.lines).length < fewestLines ? [] : bundle.lines,
  );

const isPaneLong = ({ length }: Line): boolean => length > pane.least && length < pane.most;

function bundlesOf(open: readonly Line[]): Bundle[] {
  const index = new BoxIndex(open, (line) => boxOf([middleOf(line)]));
  /** Lines with others beside them further than a wall is thick: treads of stairs, and patterns. */
  const spread = new Set<Line>();
  const bundles = open.flatMap((line): Bundle[] => {
    const at = middleOf(line);
    const [ux, uy] = unit(line);
    const offset = (other: Line): number => {
      const [x, y] = middleOf(other);
      return (y - at[1]) * ux - (x - at[0]) * uy;
    };
    const beside = index.around(at, widest).filter((other) => {
      const [x, y] = middleOf(other);
      const along = (x - at[0]) * ux + (y - at[1]) * uy;
      const turn = Math.abs(ux * (other.b[1] - other.a[1]) - uy * (other.b[0] - other.a[0])) / other.length;
      return Math.abs(other.length - line.length) < pane.even && turn < turned && Math.abs(along) < pane.even;
    });
    if (beside.length < fewestLines) return [];
    const offsets = beside.map(offset);
    const [low, high] = [leastOf(offsets) + across, mostOf(offsets) - across];
    if (high - low > widest) for (const other of beside) spread.add(other);
    return [{ lines: beside, inner: beside.filter((_, i) => offsets[i] > low && offsets[i] < high) }];
  });
  return bundles.filter(({ lines: own }) => !own.some((line) => spread.has(line)));
}
