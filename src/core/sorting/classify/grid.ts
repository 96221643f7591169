import { groupBy } from '@/core/groupBy';
import { leastBy } from '@/core/lists';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, lineCrossing, type Point } from '@/core/geometry/vector';
import { bubbleAt, bubbleOn, findBubbles, strictly, type Bubble } from '@/core/patterns/grid/bubbles';
import type { GridPiece } from '@/core/patterns/grid/joined';
import { endedLines, endsOf, indexOf, type EndedLine } from '@/core/patterns/grid/lines';
import { findOutlines } from '@/core/patterns/outlines';
import type { PlacedPath, PlacedText } from '@/core/placed/placed';
import type { Stepwise } from '@/core/stepwise';
import { defaultTolerance } from '@/core/tolerance';
import type { Primitives } from '@/core/underlay/primitives';
import { column } from './columns';
import type { Drawn } from './drawn';
import type { AllLooks, ArcPiece, Line, Stretch } from './looks';

/** What is said of rings, whose sides are no grid lines. */
const ringWhy = 'a ring about a label at the end of a line';

/** What grid lines are called: one or two letters, a number, or both, with a stroke or a decimal. */
const gridLabel = /^\p{L}{0,2}[-.]?\d{0,3}(?:[.]\d)?\p{Ll}?['\u2032]?$/u;
/** A grid line that is a polyline, with a bend towards its bubble at either end, has at most so many vertices. */
const mostVertices = 4;

/** Where there are smaller ones, larger rings than this are rooms with short names, metres. */
const largestRing = 1.5;
/** A grid line broken by something goes on within this, metres. */
const beyond = 15;

/** Grid lines are longer than this, metres; those whose labels have no ring than that. */
const shortestLine = { ringed: 2, bare: 5 };
/** So many parallel lines with labels of their own, none in a ring, are a grid. */
const fewestBare = 3;
/** An arc runs through its ring within this share of the ring's radius. */
const onArc = 0.15;
/** Of a line's pieces those much shorter than the others are something else that lies in its line, as a share. */
const leastPiece = 0.5;
/** Of so many pieces, dashes, the last may be as short as this. */
const dashed = { fewest: 6, least: 0.1 };

/**
 * Long lines and arcs that end in labelled rings, or, where there are none, several beside one another that end at
 * short texts; the rings, and what leads to them.
 * @param inWalls panes and leaves of walls, which often lie on an axis
 */
export function* gridLines(
  looks: AllLooks,
  drawn: Drawn,
  arcs: readonly ArcPiece[],
  inWalls: ReadonlySet<number>,
): Stepwise<Grid> {
  const open = looks.flatMap((look, path): PlacedPath[] =>
    look === null && !inWalls.has(path) ? [drawn.placed(path)] : [],
  );
  const { bubbles, bare, rest } = findBubbles(open, textsOf(drawn), defaultTolerance.gap);
  yield;
  const rings = bubbles.filter(({ label, even }) => label !== null && even && gridLabel.test(label));
  const small = rings.filter(({ radius }) => radius <= largestRing);
  const labelled = small.length > 0 ? small : rings;
  const closing = closingLines(rest);
  const plain = rest.filter(
    ({ points, closed, handle }) => !closed && points.length <= mostVertices && !closing.has(handle),
  );
  const ringed = ringedLines(plain, labelled);
  yield;
  const onArcs = arcLines(looks, labelled, arcs);
  const used = [...new Set([...onArcs, ...ringed.flatMap(endsOfLine)])];
  mark(looks, drawn.p, ringed, 'a long line that ends in a labelled ring');
  for (const handle of used.flatMap(({ handles }) => handles))
    if (isPath(handle)) looks[Number(handle)] ??= { role: 'grid', why: ringWhy };
  if (ringed.length > 0) return { bubbles: used, axes: ringed.map(axisOf) };
  const texts = bare.filter(({ label }) => gridLabel.test(label!));
  const named = bareLines(endedLines(plain, [], texts, texts, defaultTolerance, strictly), texts);
  mark(looks, drawn.p, named, 'a long line that ends at a short text');
  return { bubbles: named.flatMap(endsOfLine), axes: named.map(axisOf) };
}

/** Single lines that close to a shape as small as a column: the web of a steel section lies in a grid line. */
function closingLines(paths: readonly PlacedPath[]): Set<string> {
  const short = paths.filter(({ points }) => points.length === 2 && distance(points[0], points[1]) <= column.most);
  return new Set(findOutlines(short, defaultTolerance.gap, true).outlines.flatMap(({ handles }) => handles));
}

/** What is known of a plan's grid. */
export interface Grid {
  /** The rings, or the texts, that its lines end in. */
  bubbles: Bubble[];
  /** Its straight lines, each from end to end, whatever pieces it is drawn in. */
  axes: Stretch[];
}

const endsOfLine = ({ ends }: EndedLine): Bubble[] => ends.flatMap((end) => end ?? []);

const axisOf = ({ line: { start, end } }: EndedLine): Stretch => ({ a: start, b: end, length: distance(start, end) });

/** Long lines that end in rings, or run on through one, of a size that others have. */
function ringedLines(paths: readonly PlacedPath[], labelled: readonly Bubble[]): EndedLine[] {
  const lines = endedLines(paths, labelled, [], labelled, defaultTolerance, strictly);
  throughRings(lines, labelled);
  const isUsual = usualSize(lines.flatMap(endsOfLine));
  return lines
    .map((one) => ({ ...one, ends: one.ends.map((end) => (end !== null && isUsual(end) ? end : null)) }))
    .filter((one) => isLong(one.line, shortestLine.ringed) && endsOfLine(one).length > 0);
}

/** Lines that run on through a ring that no line ends in have it for an end. */
function throughRings(lines: EndedLine[], labelled: readonly Bubble[]): void {
  const taken = new Set(lines.flatMap(({ ends }) => ends));
  const free = indexOf(labelled.filter((bubble) => !taken.has(bubble)));
  for (const one of lines)
    if (one.ends.every((end) => end === null) && isLong(one.line, shortestLine.ringed)) {
      const { start, end } = one.line;
      one.ends = [bubbleOn(end, start, free)?.bubble ?? null, bubbleOn(start, end, free)?.bubble ?? null];
    }
}

/** Rings of a size that only one line ends in are tables and tags, where there are so many others. */
const fewestUsual = 3;
/** Sizes that differ by less than this share are one. */
const sameSize = 0.1;

/** Whether a ring is of a size that those of the grid have. */
function usualSize(ended: readonly Bubble[]): (bubble: Bubble) => boolean {
  const sorted = [...ended].sort((a, b) => a.radius - b.radius);
  const isLike = ({ radius }: Bubble, other: Bubble | undefined): boolean =>
    other !== undefined && Math.abs(other.radius - radius) <= sameSize * radius;
  const alone = new Set(sorted.filter((one, i) => !isLike(one, sorted[i - 1]) && !isLike(one, sorted[i + 1])));
  return (bubble) => ended.length < fewestUsual || !alone.has(bubble);
}

/** Texts have handles that no path has. */
const textHandle = 'text ';
const isPath = (handle: string): boolean => !handle.startsWith(textHandle);

const textsOf = (drawn: Drawn): PlacedText[] =>
  drawn.p.texts.map((text, i): PlacedText => {
    const { angle, layer, entity } = text;
    const words = text.text.trim();
    return {
      text: words,
      at: drawn.middleOf(text),
      height: text.height * drawn.k,
      angle,
      handle: `${textHandle}${i}`,
      layer,
      entity,
    };
  });

const isLong = ({ start, end }: EndedLine['line'], least: number): boolean => distance(start, end) > least;

/** Marks the pieces of lines, but for those on other layers than their ends, and short ones that only lie in them. */
function mark(looks: AllLooks, p: Primitives, lines: readonly EndedLine[], why: string): void {
  for (const { line, leaders } of lines) {
    for (const { entity } of leaders)
      looks[entity] ??= { role: 'grid', why: 'it leads from a ring to the end of a long line' };
    const usual = usualLength(line.pieces);
    const least = line.pieces.length >= dashed.fewest ? dashed.least : leastPiece;
    const layers = new Set([line.start, line.end].map((end) => p.layer[pieceAt(line.pieces, end).entity]));
    const isPart = ({ a, b, entity }: GridPiece): boolean =>
      layers.has(p.layer[entity]) && distance(a, b) >= least * usual;
    for (const piece of line.pieces.filter(isPart)) looks[piece.entity] ??= { role: 'grid', why };
  }
}

/** The piece that ends nearest to a point. */
const pieceAt = (pieces: readonly GridPiece[], at: Point): GridPiece =>
  leastBy(pieces, ({ a, b }) => Math.min(distance(a, at), distance(b, at)))!;

/** The length that half of a line is in pieces as long as, or longer, metres. */
function usualLength(pieces: readonly GridPiece[]): number {
  const lengths = pieces.map(({ a, b }) => distance(a, b)).sort((p, q) => q - p);
  let left = lengths.reduce((sum, length) => sum + length, 0) / 2;
  return lengths.find((length) => (left -= length) <= 0) ?? 0;
}

/** Parallel lines that end at short texts, or are led to them, each at another, several of them. */
function bareLines(lines: readonly EndedLine[], bare: readonly Bubble[]): EndedLine[] {
  const texts = indexOf(bare);
  const labelled = lines
    .map((one) => ({ ...one, ends: endsOf(one.line, texts).map((end, i) => end ?? one.ends[i]) }))
    .filter((one) => isLong(one.line, shortestLine.bare) && endsOfLine(one).length > 0);
  const families = groupBy(labelled, ({ line: { start, end } }) => {
    const angle = Math.atan2(end[1] - start[1], end[0] - start[0]);
    return Math.round((((angle % Math.PI) + Math.PI) % Math.PI) / 0.01) % Math.round(Math.PI / 0.01);
  });
  const labelsOf = (own: readonly EndedLine[]): number => new Set(own.map((one) => endsOfLine(one)[0].label)).size;
  const many = [...families.values()].filter((own) => labelsOf(own) >= fewestBare);
  const isAcross = (one: EndedLine): boolean =>
    many.some((own) => own.filter((other) => areCrossing(one.line, other.line)).length >= fewestBare);
  // A long building has two in the other direction, which cross the many.
  const across = [...families.values()].map((own) => (many.includes(own) ? [] : own.filter(isAcross)));
  return [...many, ...across.filter((own) => labelsOf(own) > 1)].flat();
}

/** Whether two lines cross, both between their ends. */
function areCrossing(p: EndedLine['line'], q: EndedLine['line']): boolean {
  const hit = lineCrossing(p.start, p.end, q.start, q.end);
  return hit !== null && hit.t > 0 && hit.t < 1 && hit.u > 0 && hit.u < 1;
}

/** Arcs that end in labelled rings. @returns those rings */
function arcLines(looks: AllLooks, bubbles: readonly Bubble[], arcs: readonly ArcPiece[]): Bubble[] {
  const rings = indexOf(bubbles);
  return arcs.flatMap(({ path, centre, ends, radius }) => {
    if (radius <= 1.5 || looks[path] !== null) return [];
    const found = ends.flatMap((end) => {
      const out: Point = [-(end[1] - centre[1]) / radius, (end[0] - centre[0]) / radius];
      const ring = bubbleAt(end, out, rings) ?? bubbleAt(end, [-out[0], -out[1]], rings);
      // Curved walls run beside an arc of the grid, not through the middle of its ring.
      return ring !== null && Math.abs(distance(ring.centre, centre) - radius) < onArc * ring.radius ? [ring] : [];
    });
    if (found.length > 0) looks[path] = { role: 'grid', why: 'an arc that ends in a labelled ring' };
    return found;
  });
}

/** Lines on the run of those known to be grid lines, on the same layers. @param inWalls panes and leaves of walls */
export function gridRuns(looks: AllLooks, p: Primitives, lines: readonly Line[], inWalls: ReadonlySet<number>): void {
  const known = lines.filter(({ path }) => looks[path]?.role === 'grid' && looks[path].why !== ringWhy);
  const layers = new Set(known.map(({ path }) => p.layer[path]));
  const runs = new BoxIndex(known, ({ a, b }) => boxOf([a, b], beyond));
  for (const { path, a, b, length } of lines)
    if (
      looks[path] === null &&
      !inWalls.has(path) &&
      length > 1 &&
      layers.has(p.layer[path]) &&
      runs.around(a).some((line) => onLine(line, a) && onLine(line, b))
    )
      looks[path] = { role: 'grid', why: 'on the run of a grid line' };
}

/** Whether a point lies on the run of a line, a little beyond its ends too. */
function onLine({ a, b, length }: Line, p: Point): boolean {
  const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const [dx, dy] = [p[0] - a[0], p[1] - a[1]];
  const along = dx * ux + dy * uy;
  return Math.abs(dy * ux - dx * uy) < 0.02 && along > -beyond && along < length + beyond;
}
