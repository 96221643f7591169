import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { thinned } from '@/core/geometry/thinned';
import { distance, middle, type Point } from '@/core/geometry/vector';
import { awayFromLine, lengthOfLine } from '@/core/kinds/lines';
import { pathPoints } from '@/core/patterns/outlines';
import type { PlacedPath, PlacedText } from '@/core/placed/placed';
import { confidenceOf, keyAt, type ContourCandidate, type Evidence, type Unread } from '../candidate';
import type { Scene } from '../scene';
import { countedBetween, type Known } from './counted';

/** What is drawn shorter than this marks a point, metres. */
const longestMark = 1.5;
/** Lines of as much height are kept to this, metres. */
const tolerance = 0.05;
/** The ends of two pieces of one line lie no farther apart, metres. */
const joined = 0.1;

/** A line of as much height, while its height is looked for. */
interface Line {
  path: PlacedPath;
  points: Point[];
  known: Known | null;
}

/** A number as heights are written; its value in metres. */
function writtenHeight(text: string): number | null {
  const found = /^([+\-\u2212\u00b1])?\s*(\d{1,4}(?:[.,]\d{1,3})?)\s*m?$/.exec(text.trim());
  if (found === null) return null;
  const size = Number(found[2].replace(',', '.'));
  return found[1] === '-' || found[1] === '\u2212' ? -size : size;
}

/** Half of what a text takes along its line with the gap about it, metres: a letter is some 0.7 of its height wide. */
const halfWidth = ({ text, height }: PlacedText): number => height * (0.35 * text.length + 1.2);
/** A line through a text, or beneath it, lies no farther from its middle, in heights of its letters. */
const beneath = 1.8;

/**
 * Reads the ground of a site drawing: lines of one height, which lie at it, have it written on them, or are counted
 * between two that have; and spot heights, written beside a mark or by themselves.
 * @param zero the elevation of the project's zero in the survey, metres: heights nearer to it than to nought are above
 * the survey's zero
 */
export function readTerrain(scene: Scene, zero = 0): { candidates: ContourCandidate[]; unread: Unread[] } {
  const above = (height: number): number => (Math.abs(height - zero) < Math.abs(height) ? height - zero : height);
  const marks: PlacedPath[] = [];
  const lines: Line[] = [];
  for (const path of scene.paths('terrain')) {
    const points = pathPoints(path);
    const known: Known | null =
      path.elevation === undefined ? null : { height: above(path.elevation), why: 'drawn', weight: 3 };
    if (points.length > 1 && lengthOfLine(points) > longestMark)
      lines.push({ path, points: thinned(path.closed ? [...points, points[0]] : points, tolerance), known });
    else marks.push(path);
  }
  if (lines.length === 0 && marks.length === 0 && scene.ownTexts('terrain').length === 0)
    return { candidates: [], unread: [] };
  const spots = assignWritten(scene, lines, marks, above);
  joinPieces(lines);
  countedBetween(lines);
  return {
    candidates: [...lines.flatMap((line) => (line.known === null ? [] : [lineCandidate(line, line.known)])), ...spots],
    unread: lines.flatMap(({ path: { entity, handle, layer }, known }) =>
      known !== null
        ? []
        : [{ role: 'terrain', entity, handle, layer, why: 'a line without a height, or one beside it that has one' }],
    ),
  };
}

/** Gives each written height to the line that it stands on, or to the mark beside it; those by themselves are spots. */
function assignWritten(
  scene: Scene,
  lines: readonly Line[],
  marks: readonly PlacedPath[],
  above: (height: number) => number,
): ContourCandidate[] {
  const lineIndex = new BoxIndex([...lines.keys()], (i) => boxOf(lines[i].points));
  const markIndex = new BoxIndex([...marks.keys()], (i) => boxOf(marks[i].points));
  const own = new Set(scene.ownTexts('terrain').map(({ entity }) => entity));
  const spots: ContourCandidate[] = [];
  for (const text of scene.texts('terrain', 'label')) {
    const height = writtenHeight(text.text);
    if (height === null) continue;
    const reach = halfWidth(text);
    const nearMarks = markIndex.around(text.at, 2 * reach);
    if (nearMarks.length > 0) {
      const nearest = nearMarks.map((i) => marks[i]).sort((a, b) => awayFrom(a, text) - awayFrom(b, text))[0];
      const at = boxMiddle(nearest.points);
      const handles = marks
        .filter(({ points }) => distance(boxMiddle(points), at) < joined)
        .map(({ handle }) => handle);
      spots.push(spotCandidate(at, above(height), [...handles, text.handle], 'a mark beside it'));
      continue;
    }
    const near = lineIndex.around(text.at, reach).map((i) => lines[i]);
    const crossed = nearestLine(near, text);
    // Else the line is broken where its height is written.
    const on = crossed === null ? near.filter(({ points }) => awayFromEnds(points, text.at) <= reach) : [crossed];
    for (const line of on) if (line.known?.why !== 'drawn') line.known = writtenOn(text, above(height));
    // A number among other words, not on a layer of the ground, may be anything.
    const decimals = /[.,]/.test(text.text);
    if (on.length === 0 && own.has(text.entity) && decimals)
      spots.push(spotCandidate(text.at, above(height), [text.handle], null));
  }
  return spots;
}

const writtenOn = ({ text }: PlacedText, height: number): Known => ({
  height,
  why: `\u201c${text}\u201d written on it`,
  weight: 3,
});

/** The line that a text stands on, not at its end. */
function nearestLine(lines: readonly Line[], { at, height }: PlacedText): Line | null {
  let [nearest, least]: [Line | null, number] = [null, beneath * height];
  for (const line of lines) {
    const away = awayFromLine(line.points, at);
    if (away < Math.min(least, awayFromEnds(line.points, at))) [nearest, least] = [line, away];
  }
  return nearest;
}

const awayFromEnds = (points: readonly Point[], p: Point): number =>
  Math.min(distance(points[0], p), distance(points[points.length - 1], p));

const awayFrom = ({ points }: PlacedPath, { at }: PlacedText): number => distance(boxMiddle(points), at);

function boxMiddle(points: readonly Point[]): Point {
  const [x1, y1, x2, y2] = boxOf(points);
  return middle([x1, y1], [x2, y2]);
}

/** Pieces that end where another begins are one line: of the height that one of them has. */
function joinPieces(lines: readonly Line[]): void {
  const ends = lines.flatMap((line) =>
    [line.points[0], line.points[line.points.length - 1]].map((at) => ({ at, line })),
  );
  const index = new BoxIndex(ends, ({ at }) => boxOf([at]));
  const open = lines.filter(({ known }) => known !== null);
  for (let line = open.pop(); line !== undefined; line = open.pop())
    for (const end of [line.points[0], line.points[line.points.length - 1]])
      for (const { at, line: other } of index.around(end, joined))
        if (other.known === null && line.known !== null && distance(at, end) <= joined) {
          other.known = { height: line.known.height, why: 'goes on from one that has its height', weight: 2 };
          open.push(other);
        }
}

function lineCandidate({ path, points }: Line, { height, why, weight }: Known): ContourCandidate {
  const evidence: Evidence[] = [{ text: why === 'drawn' ? 'it lies at its height in the drawing' : why, weight }];
  return {
    kind: 'contour',
    key: keyAt('contour', [path.handle], points[0]),
    element: { points, elevation: height },
    evidence,
    confidence: confidenceOf('contour', evidence),
    handles: [path.handle],
    doubt: weight < 2 ? why : null,
  };
}

function spotCandidate(at: Point, height: number, handles: string[], why: string | null): ContourCandidate {
  const evidence: Evidence[] = [
    { text: 'a height is written', weight: 1 },
    ...(why === null ? [] : [{ text: why, weight: 2 }]),
  ];
  return {
    kind: 'contour',
    key: keyAt('contour', handles, at),
    element: { points: [at], elevation: height },
    evidence,
    confidence: confidenceOf('contour', evidence),
    handles,
    doubt: why === null ? 'no mark: it is taken to be measured where it is written' : null,
  };
}
