import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, middle, type Point } from '@/core/geometry/vector';
import { leastOf, mostOf } from '@/core/lists';
import { defaultSettings } from '@/core/patterns/settings';
import type { AllLooks, Line } from './looks';

const middleOf = ({ a, b }: Line): Point => middle(a, b);

/** Panes are so long, and those of one window as long as one another within that, metres. */
const pane = { least: 0.4, most: 5, even: 0.02 };

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
/** Lines this near to one another across are one, metres. */
const across = 0.005;
/** A wall that goes on beside a window is looked for so far beyond its end, metres. */
const beyondEnd = 0.08;

/**
 * Three or more lines between common ends, within a wall's thickness. Where what lies between the outer two ends for
 * good, at the corner of a building, only leaves of the wall do so: the panes of a row of windows have wall beyond.
 * @param sides straight sides of outlines, which may be walls
 */
export function windows(looks: AllLooks, lines: readonly Line[], sides: readonly Line[]): void {
  const isOpen = ({ path }: Line): boolean => looks[path] === null;
  const open = lines.filter((line) => isOpen(line) && line.length > pane.least && line.length < pane.most);
  const drawn = new BoxIndex([...lines, ...sides].filter(isOpen), ({ a, b }) => boxOf([a, b], across));
  for (const bundle of bundlesOf(open)) {
    const { isInWall, isAlone } = surroundings(bundle, drawn);
    if (isInWall)
      for (const { path } of bundle.lines)
        looks[path] = { role: 'window', why: `${bundle.lines.length} lines between common ends` };
    else if (isAlone && isClosed(bundle, drawn))
      for (const { path } of bundle.lines) looks[path] = { role: 'ignore', why: 'lines in a box, as of furniture' };
  }
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

/**
 * Whether a wall goes on beyond one of the ends of what lies in line with the inner lines of a bundle, and whether
 * nothing else lies there.
 */
function surroundings({ lines, inner }: Bundle, drawn: BoxIndex<Line>): { isInWall: boolean; isAlone: boolean } {
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
  const inLine = drawn.touching(boxOf([inPlan(-series, 0), inPlan(series, 0)])).flatMap((line) => {
    const [p, q] = [local(line.a), local(line.b)];
    return Math.abs(p[1]) < across && Math.abs(q[1]) < across && line.length > pane.least ? [p[0], q[0]] : [];
  });
  const isAlone = mostOf(inLine) - leastOf(inLine) < first.length + across;
  const isInWall = [leastOf(inLine) - beyondEnd, mostOf(inLine) + beyondEnd].some((along) => {
    const faces = drawn.around(inPlan(along, centre), defaultSettings.wall.most / 2).filter((line) => {
      const [p, q] = [local(line.a), local(line.b)];
      const isLevel = Math.abs(p[1] - q[1]) < across && Math.abs(p[1] - centre) <= defaultSettings.wall.most / 2;
      return isLevel && Math.min(p[0], q[0]) < along && Math.max(p[0], q[0]) > along;
    });
    return faces.length >= 2;
  });
  return { isInWall, isAlone };
}

const unit = ({ a, b, length }: Line): Point => [(b[0] - a[0]) / length, (b[1] - a[1]) / length];

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
    const beside = index.around(at, defaultSettings.wall.most).filter((other) => {
      const [x, y] = middleOf(other);
      const along = (x - at[0]) * ux + (y - at[1]) * uy;
      const turn = Math.abs(ux * (other.b[1] - other.a[1]) - uy * (other.b[0] - other.a[0])) / other.length;
      return Math.abs(other.length - line.length) < pane.even && turn < turned && Math.abs(along) < pane.even;
    });
    if (beside.length < 3) return [];
    const offsets = beside.map(offset);
    const [low, high] = [leastOf(offsets) + across, mostOf(offsets) - across];
    if (high - low > defaultSettings.wall.most) for (const other of beside) spread.add(other);
    return [{ lines: beside, inner: beside.filter((_, i) => offsets[i] > low && offsets[i] < high) }];
  });
  return bundles.filter(({ lines: own }) => !own.some((line) => spread.has(line)));
}
