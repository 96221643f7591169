import { withArcs, type Drawn } from '@/core/geometry/arcsOfChords';
import { PointGrid } from '@/core/geometry/pointGrid';
import { distance, type Point } from '@/core/geometry/vector';
import type { From, PlacedPath } from '@/core/placed/placed';

/** Faces drawn in chords: their corners may be rounded to a millimetre, and longer chords are walls with corners. */
export const chordsOfFaces: Drawn = { onCircle: 1e-3, sagitta: 0.02 };
/** Loose chords meet within this, metres, and are no longer than that. */
const loose = { meet: 2e-3, longest: 2 };
/** Fewer lines in a row are no chords. */
const fewest = 4;

/** Faces with their arcs, where runs of chords were drawn for them, in one path or as loose lines. */
export function withChordsBent(paths: readonly PlacedPath[]): PlacedPath[] {
  const single = paths.filter(isLoose);
  const arcs = rowsOf(single).flatMap(arcsOfRow);
  const joined = new Set(arcs.flatMap(({ lines }) => lines));
  return [...paths.filter((path) => !joined.has(path)).map(bentAlone), ...arcs.map(({ arc }) => arc)];
}

function bentAlone(path: PlacedPath): PlacedPath {
  if (path.bulges.some((bulge) => bulge !== 0)) return path;
  const { points, bulges } = withArcs(path.points, path.closed, chordsOfFaces);
  return points.length === path.points.length ? path : { ...path, points, bulges };
}

const isLoose = ({ points, bulges, closed }: PlacedPath): boolean =>
  points.length === 2 && !closed && bulges[0] === 0 && distance(points[0], points[1]) <= loose.longest;

/** Lines in a row, with the points that they go through. */
interface Row {
  lines: PlacedPath[];
  points: Point[];
}

/** Rows of lines each of which meets one other at an end, and no third. */
function rowsOf(lines: readonly PlacedPath[]): Row[] {
  const grid = new PointGrid(loose.meet, 2 * lines.length);
  const at = (end: number): Point => lines[end >> 1].points[end & 1];
  for (let end = 0; end < 2 * lines.length; end += 1) grid.add(end, ...at(end));
  /** The one other end that meets an end; null where there is none, or more. */
  const meeting = (end: number): number | null => {
    const found: number[] = [];
    grid.near(...at(end), (other) => {
      if (other >> 1 !== end >> 1 && distance(at(other), at(end)) <= loose.meet) found.push(other);
    });
    return found.length === 1 ? found[0] : null;
  };
  const done = new Set<number>();
  const rows: Row[] = [];
  for (let i = 0; i < lines.length; i += 1) {
    if (done.has(i)) continue;
    const back = walk(2 * i + 1, meeting);
    const row = walk(back[back.length - 1] ^ 1, meeting);
    for (const end of row) done.add(end >> 1);
    if (row.length >= fewest)
      rows.push({ lines: row.map((end) => lines[end >> 1]), points: [at(row[0]), ...row.map((end) => at(end ^ 1))] });
  }
  return rows;
}

/** From line to line, each by the end that it is entered at, as long as there is one to go on to. */
function walk(first: number, meeting: (end: number) => number | null): number[] {
  const row = [first];
  const seen = new Set([first >> 1]);
  for (let next = meeting(first ^ 1); next !== null && !seen.has(next >> 1); next = meeting(next ^ 1)) {
    row.push(next);
    seen.add(next >> 1);
  }
  return row;
}

/** The arcs that runs of a row's lines were drawn for, with those lines. */
function arcsOfRow({ lines, points }: Row): { arc: PlacedPath; lines: PlacedPath[] }[] {
  const bent = withArcs(points, false, chordsOfFaces);
  const placeOf = new Map(points.map((point, i) => [point, i]));
  return bent.bulges.flatMap((bulge, i) => {
    if (bulge === 0) return [];
    const [from, to] = [bent.points[i], bent.points[i + 1]];
    const own = lines.slice(placeOf.get(from), placeOf.get(to));
    const parts = own.map(({ source }): From => source);
    return [{ arc: { ...own[0], points: [from, to], bulges: [bulge, 0], parts }, lines: own }];
  });
}
