import { pushAll } from '@/core/lists';
import type { Wall } from '@/core/kinds/wall';
import { openingOutline } from '@/core/kinds/opening';
import type { From, PlacedText } from '@/core/placed/placed';
import { bulgeOfSweep } from '@/core/geometry/bulge';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import type { Tolerance } from '@/core/tolerance';
import {
  confidenceOf,
  keyAt,
  type Evidence,
  type OpeningCandidate,
  type Unread,
  type WallCandidate,
} from '../candidate';
import type { Scene } from '../scene';
import { questions, told, type Answer, type Asked } from '@/core/sorting/answers';
import type { ReadingSettings } from '@/core/patterns/settings';
import { cornersOf, joinBends, pairArcs, partsOfBend, type Bend } from './bends';
import { withChordsBent } from '@/core/patterns/chords';
import { doubled, facesOf } from '@/core/patterns/faces';
import { addDrawnOver } from './drawnOver';
import { joinNetwork, type Segment } from './network';
import type { Obstacle } from './obstacle';
import { markOuter } from './outer';
import { writtenSizes } from './openingTexts';
import { joinStrips, type Mark } from './runs';
import { filledByColumns, stopsOf } from './stops';
import { thickestWall } from './thickest';
import { meantThickness } from './thickness';
import { pairFaces, unique } from '@/core/patterns/strips';

export interface WallReading {
  walls: WallCandidate[];
  /** The layers that each of them is drawn on, by their numbers. */
  layers: number[][];
  openings: OpeningCandidate[];
  segments: Segment[];
  unread: Unread[];
}

/**
 * Reads walls from the layers with that role: parallel pairs of faces, straight or curved, joined across openings and
 * where others cross, parted and
 * joined at shared nodes; and the openings in them, from what is drawn as doors and windows, and from jambs. Before
 * each stage it says what comes.
 * @param answers what was said of faces between those of a wall
 */
export function* wallStages(
  scene: Scene,
  obstacles: readonly Obstacle[],
  settings: ReadingSettings,
  tolerance: Tolerance,
  answers: readonly Answer[] = [],
): Generator<string, WallReading> {
  yield 'faces of walls';
  const paths = withChordsBent(scene.paths('wall'));
  const { families, curved } = facesOf(paths, tolerance.offAxis, doubled, tolerance.gap);
  const isOne = (apart: number): boolean | null => {
    const way = told(answers, 'leaves', apart);
    return way === null ? null : way === questions.leaves[0];
  };
  const across = { ...settings.wall, most: thickestWall(families, settings.wall.most), isOne };
  const paired = families.map((family) => pairFaces(family, across));
  const strips = paired.flatMap(({ strips: own }) => own);
  yield 'walls and openings';
  const marks = marksOf(scene);
  const bends = joinBends(pairArcs(curved, settings.wall), marks, filledByColumns(obstacles));
  const runs = joinStrips(strips, families, marks, stopsOf(strips, bends, obstacles));
  addDrawnOver(runs, bends, marks);
  yield 'nodes of walls';
  const network = joinNetwork(runs, bends, obstacles);
  const parts = bends.flatMap((bend, i) => partsOfBend(bend, network.ends[i], network.bendCuts[i]));
  const bent = parts.map(({ bend, ends }) => piecesOf(bend, ends));
  const all = markOuter([...network.segments, ...bent.flat()]);
  const segments = all.slice(0, network.segments.length);
  const { meant, lengthOf } = meantThickness(segments, tolerance);
  const walls = segments.map((segment) => wallOf(segment, meant, lengthOf));
  const openings = segments.flatMap((segment, i) =>
    segment.gaps.map((gap) => openingOf({ ...segment, height: null, bulge: 0 }, gap, walls[i].key, settings)),
  );
  const outside = new Set(all.filter(({ outer }) => outer).map(({ run }) => run));
  const curvedOnes = parts.map(({ bend, ends }, i) => curvedWall(bend, ends, outside.has(bent[i][0].run), meant));
  openings.push(
    ...curvedOnes.flatMap(({ element, key }, i) =>
      parts[i].bend.gaps.map((gap) => openingOf(element, gap, key, settings)),
    ),
  );
  withWritten(openings, scene.texts('door', 'window', 'label'));
  const used = new Set([...segments.flatMap(({ run }) => run.sources), ...bends.flatMap(({ sources }) => sources)]);
  const stairs = new Set(paired.flatMap((found) => found.stairs));
  const jambs = new Set(shortFaces(families));
  const unread = unique(paths.flatMap(({ source, parts }) => parts ?? [source]))
    .filter((source) => !used.has(source) && !jambs.has(source))
    .map((source): Unread => ({
      role: 'wall',
      ...source,
      why: stairs.has(source) ? 'equal steps, as of a stair' : 'a line without a second face',
    }));
  const hosted = new Set([...segments, ...bends].flatMap(({ gaps }) => gaps.flatMap(({ sources }) => sources)));
  const stray = straysOf(marks, hosted);
  const layers = [...segments.map(({ run }) => run.sources), ...parts.map(({ bend }) => bend.sources)].map(
    (sources) => [...new Set(sources.map(({ layer }) => layer))],
  );
  return { walls: [...walls, ...curvedOnes], layers, openings, segments: all, unread: [...unread, ...stray] };
}

/** What is drawn as doors and windows: everything that came by one insert together, else path by path. */
function marksOf(scene: Scene): Mark[] {
  return (['door', 'window'] as const).flatMap((kind) => {
    const groups = new Map<string, Mark>();
    // What came by one insert has its handle.
    for (const { points, handle, source } of scene.paths(kind)) {
      const mark = groups.get(handle);
      if (mark) pushAll(mark.points, points);
      else groups.set(handle, { kind, points: [...points], source });
    }
    return [...groups.values()];
  });
}

/** A text further than this from an opening's middle is not about it, metres. */
const besideOpening = 1.5;

/** Gives openings the sills and heights that are written beside them, each text to the nearest. */
function withWritten(openings: OpeningCandidate[], texts: readonly PlacedText[]): void {
  if (openings.length === 0) return;
  const index = new BoxIndex(openings, ({ at }) => boxOf([at]));
  for (const { text, at, handle } of texts) {
    const nearest = index.around(at, besideOpening).sort((a, b) => distance(a.at, at) - distance(b.at, at))[0];
    if (!nearest) continue;
    const { element } = nearest;
    const {
      sill = element.sill,
      head,
      height = head === undefined ? element.height : head - sill,
    } = writtenSizes(text, element.width);
    if ((sill === element.sill && height === element.height) || height <= 0) continue;
    element.sill = sill;
    element.height = Number(height.toFixed(6));
    nearest.evidence.push({ text: `"${text.slice(0, 40)}" written beside it`, weight: 0.5 });
    nearest.confidence = confidenceOf('opening', nearest.evidence);
    if (!nearest.handles.includes(handle)) nearest.handles.push(handle);
  }
}

/**
 * What is drawn as a door or a window and stands in no wall, but for what touches one that does: its leaf, its frame.
 */
function straysOf(marks: readonly Mark[], used: ReadonlySet<From>): Unread[] {
  const hosted = new BoxIndex(
    marks.filter(({ source }) => used.has(source)),
    ({ points }) => boxOf(points, 0.05),
  );
  return marks
    .filter(
      ({ kind, source, points }) =>
        !used.has(source) && !hosted.touching(boxOf(points)).some((other) => other.kind === kind),
    )
    .map(({ kind, source }): Unread => ({ role: kind, ...source, why: `a ${kind} that stands in no wall` }));
}

/** Sources of faces short enough to be jambs and ends of walls: they bound no wall of their own, and are understood. */
const shortFaces = (families: ReturnType<typeof facesOf>['families']): From[] =>
  families.flatMap(({ faces }) =>
    faces.flatMap(({ spans }) => spans.filter(({ from, to }) => to - from < 0.65).flatMap(({ sources }) => sources)),
  );

function wallOf(
  { run, start, end, thickness, outer, gaps }: Segment,
  meant: (thickness: number) => number,
  lengthOf: (thickness: number) => number,
): WallCandidate {
  const length = distance(start, end);
  const size = meant(thickness);
  const evidence: Evidence[] = [
    { text: `two faces beside one another over ${length.toFixed(2)} m`, weight: length > 1 ? 2 : 0.5 },
    { text: `${(size * 1000).toFixed(0)} mm thick`, weight: lengthOf(size) > 6 ? 1 : 0 },
  ];
  if (gaps.length > 0)
    evidence.push({ text: `${gaps.length} ${gaps.length === 1 ? 'opening' : 'openings'}`, weight: 0.5 });
  if (run.inner > 0)
    evidence.push({
      text: `${run.inner} ${run.inner === 1 ? 'line' : 'lines'} between its faces: leaves of one wall`,
      weight: 0,
    });
  const doubts = [
    ...(length < 2 * thickness ? ['very short'] : []),
    ...(Math.abs(size - thickness) > 0.001 ? ['thickness rounded'] : []),
    ...(run.oneFaced > 0 ? ['a face missing'] : []),
  ];
  if (run.oneFaced > 0)
    evidence.push({ text: `one face alone over ${run.oneFaced.toFixed(2)} m, up to a jamb`, weight: -0.5 });
  if (length < 2 * thickness) evidence.push({ text: 'hardly longer than thick', weight: -1.5 });
  const handles = [...new Set(run.sources.map(({ handle }) => handle))];
  const middle: Point = [(start[0] + end[0]) / 2, (start[1] + end[1]) / 2];
  return {
    kind: 'wall',
    key: keyAt('wall', handles, middle),
    element: { start, end, thickness: size, height: null, bulge: 0, outer },
    raw: { thickness },
    evidence,
    confidence: confidenceOf('wall', evidence),
    handles,
    doubt: doubts.join(', ') || null,
    asks: leavesAsked(run, thickness),
  };
}

/** Faces further apart than this are not offered as those of one wall, metres. */
const widestOffered = 1.2;

/** Whether faces were taken as leaves of one wall, or parted although they may be. */
function leavesAsked({ inner, parted }: Segment['run'], thickness: number): Asked | null {
  if (inner > 0) return { asks: 'leaves', size: thickness, take: 'one wall' };
  return parted > 0 && parted <= widestOffered ? { asks: 'leaves', size: parted, take: 'walls of their own' } : null;
}

function openingOf(
  wall: Wall,
  gap: Segment['gaps'][number],
  host: string,
  settings: ReadingSettings,
): OpeningCandidate {
  const use = gap.kind === 'window' ? 'window' : 'door';
  const width = gap.to - gap.from;
  const outline = openingOutline({ offset: gap.from, width }, wall);
  const at: Point = [
    outline.reduce((sum, [x]) => sum + x, 0) / outline.length,
    outline.reduce((sum, [, y]) => sum + y, 0) / outline.length,
  ];
  const evidence: Evidence[] =
    gap.kind === 'opening'
      ? [{ text: 'jambs on both sides, and nothing drawn between them', weight: 0.5 }]
      : [
          gap.over
            ? { text: `a ${gap.kind} drawn over the wall, whose faces go on`, weight: 1.5 }
            : { text: `a ${gap.kind} drawn in the gap between the wall's faces`, weight: 3 },
        ];
  if (width > 3.5 && use === 'door') evidence.push({ text: `${width.toFixed(2)} m wide`, weight: -1 });
  const handles = [...new Set(gap.sources.map(({ handle }) => handle))];
  const sizes =
    use === 'door'
      ? { height: settings.door.height, sill: 0 }
      : { height: settings.window.height, sill: settings.window.sill };
  return {
    kind: 'opening',
    key: keyAt('opening', handles, at),
    element: { wall: '', use, offset: tidy(gap.from), width: tidy(width), ...sizes },
    host,
    at,
    outline,
    evidence,
    confidence: confidenceOf('opening', evidence),
    handles,
    doubt: gap.kind === 'opening' ? 'no leaf drawn' : overWords(gap.over),
  };
}

const overWords = (over: boolean | undefined): string | null => (over ? 'faces go on' : null);

const tidy = (metres: number): number => Number(metres.toFixed(6));

/** A curved wall as short straight pieces, for what asks for straight ones: rooms, and the outside. */
function piecesOf(bend: Bend, [start, end]: readonly [Point, Point]): Segment[] {
  const run = { sources: bend.sources, inner: 0, parted: 0, oneFaced: 0 };
  const points = [start, ...cornersOf(bend), end];
  return points.slice(1).map((point, i): Segment => ({
    run,
    start: points[i],
    end: point,
    thickness: bend.thickness,
    gaps: [],
    outer: false,
  }));
}

function curvedWall(
  { radius, sweep, thickness, sources, ...bend }: Bend,
  [start, end]: readonly [Point, Point],
  outer: boolean,
  meant: (thickness: number) => number,
): WallCandidate {
  const evidence: Evidence[] = [{ text: `two arcs about one centre, of ${radius.toFixed(2)} m radius`, weight: 2 }];
  const handles = [...new Set(sources.map(({ handle }) => handle))];
  const middle: Point = [
    bend.centre[0] + radius * Math.cos(bend.start + sweep / 2),
    bend.centre[1] + radius * Math.sin(bend.start + sweep / 2),
  ];
  return {
    kind: 'wall',
    key: keyAt('wall', handles, middle),
    element: { start, end, thickness: meant(thickness), height: null, bulge: bulgeOfSweep(sweep), outer },
    raw: { thickness },
    evidence,
    confidence: confidenceOf('wall', evidence),
    handles,
    doubt: null,
  };
}
