import { bulgeOfSweep } from '@/core/geometry/bulge';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { cross, distance, lineCrossing, type Point } from '@/core/geometry/vector';
import { openingOutline } from '@/core/model/outlines';
import type { Tolerance } from '@/core/tolerance';
import { confidenceOf, keyAt, type Evidence, type OpeningCandidate, type Unread, type WallCandidate } from '../candidate';
import type { Scene } from '../scene';
import type { ReadingSettings } from '../settings';
import { facesOf, inPlan, type CurvedFace, type From } from './faces';
import { joinNetwork, type Segment } from './network';
import { markOuter } from './outer';
import { joinStrips, type Mark } from './runs';
import { pairFaces, unique, type Strip } from './strips';

/** A column that may interrupt a wall: its middle, and how far it reaches. */
export interface Obstacle { at: Point; reach: number }

export interface WallReading { walls: WallCandidate[]; openings: OpeningCandidate[]; segments: Segment[]; unread: Unread[] }

/** Faces drawn this far from one another on purpose are one, metres. */
const doubled = 0.008;

/**
 * Reads walls from the layers with that role: parallel pairs of faces, straight or curved, joined across openings and where others cross, parted and
 * joined at shared nodes; and the openings in them, from what is drawn as doors and windows, and from jambs. Before each stage it says what comes.
 */
export function* wallStages(scene: Scene, obstacles: readonly Obstacle[], settings: ReadingSettings, tolerance: Tolerance): Generator<string, WallReading> {
  yield 'faces of walls';
  const paths = scene.paths('wall');
  const { families, curved } = facesOf(paths, tolerance.offAxis, doubled, tolerance.gap);
  const paired = families.map((family) => pairFaces(family, settings.wall));
  const strips = paired.flatMap(({ strips: own }) => own);
  yield 'walls and openings';
  const runs = joinStrips(strips, families, marksOf(scene), interruptions(strips, obstacles));
  yield 'nodes of walls';
  const segments = markOuter(joinNetwork(runs));
  const round = (thickness: number) => { const rounded = Math.round(thickness / tolerance.roundingModule) * tolerance.roundingModule; return Math.abs(rounded - thickness) <= tolerance.rounding + 1e-9 ? Number(rounded.toFixed(9)) : thickness; };
  const common = new Map<number, number>();
  for (const { thickness, start, end } of segments) common.set(round(thickness), (common.get(round(thickness)) ?? 0) + distance(start, end));
  const walls = segments.map((segment) => wallOf(segment, round, common));
  const openings = segments.flatMap((segment, i) => segment.gaps.map((gap) => openingOf(segment, gap, walls[i].key, settings)));
  const bent = curvedWalls(curved, settings, round);
  const used = new Set([...segments.flatMap(({ run }) => run.sources), ...bent.sources].map(({ handle, entity }) => `${handle}/${entity}`));
  const stairs = new Set(paired.flatMap((found) => found.stairs.map(({ handle, entity }) => `${handle}/${entity}`)));
  const jambs = new Set(shortFaces(families).map(({ handle, entity }) => `${handle}/${entity}`));
  const unread = unique(paths.map(({ handle, entity, layer }): From => ({ handle, entity, layer }))).filter(({ handle, entity }) => !used.has(`${handle}/${entity}`) && !jambs.has(`${handle}/${entity}`))
    .map(({ handle, entity, layer }): Unread => ({ role: 'wall', entity, handle, layer, why: stairs.has(`${handle}/${entity}`) ? 'equal steps, as of a stair' : 'a line without a second face' }));
  return { walls: [...walls, ...bent.walls], openings, segments, unread };
}

/** What is drawn as doors and windows: everything that came by one insert together, else path by path. */
function marksOf(scene: Scene): Mark[] {
  return (['door', 'window'] as const).flatMap((kind) => {
    const groups = new Map<string, Mark>();
    // What came by one insert has its handle.
    for (const { points, handle, entity, layer } of scene.paths(kind)) {
      const mark = groups.get(handle);
      if (mark) mark.points.push(...points); else groups.set(handle, { kind, points: [...points], source: { handle, entity, layer } });
    }
    return [...groups.values()];
  });
}

/** Whether a wall that crosses, or a column, explains that faces stop between two points. */
function interruptions(strips: readonly Strip[], obstacles: readonly Obstacle[]): (a: Point, b: Point, thickness: number) => boolean {
  const ends = strips.map((strip) => ({ strip, a: inPlan(strip.family, strip.from - 0.4, strip.offset), b: inPlan(strip.family, strip.to + 0.4, strip.offset) }));
  const index = new BoxIndex(ends, ({ a, b }) => boxOf([a, b]));
  const near = new BoxIndex(obstacles, ({ at, reach }) => boxOf([at], reach));
  return (a, b) => {
    const width = distance(a, b);
    const [mx, my] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    if (near.around([mx, my]).some(({ at, reach }) => Math.hypot(at[0] - mx, at[1] - my) < reach && width < 2 * reach + 0.05)) return true;
    const u: Point = [(b[0] - a[0]) / width, (b[1] - a[1]) / width];
    return index.touching(boxOf([a, b], 0.2 * width)).some(({ strip, a: c, b: d }) => {
      const sine = Math.abs(cross(u, strip.family.u));
      if (sine < 0.1 || width > strip.thickness / sine + 0.1) return false;
      const hit = lineCrossing(a, b, c, d);
      return hit !== null && hit.t > -0.2 && hit.t < 1.2 && hit.u >= 0 && hit.u <= 1;
    });
  };
}

/** Sources of faces short enough to be jambs and ends of walls: they bound no wall of their own, and are understood. */
const shortFaces = (families: ReturnType<typeof facesOf>['families']): From[] => families.flatMap(({ faces }) => faces.flatMap(({ spans }) => spans.filter(({ from, to }) => to - from < 0.65).flatMap(({ sources }) => sources)));

function wallOf({ run, start, end, thickness, outer, gaps }: Segment, round: (thickness: number) => number, common: ReadonlyMap<number, number>): WallCandidate {
  const length = distance(start, end);
  const size = round(thickness);
  const evidence: Evidence[] = [{ text: `two faces beside one another over ${length.toFixed(2)} m`, weight: length > 1 ? 2 : 0.5 }, { text: `${(size * 1000).toFixed(0)} mm thick`, weight: (common.get(size) ?? 0) > 6 ? 1 : 0 }];
  if (gaps.length > 0) evidence.push({ text: `${gaps.length} ${gaps.length === 1 ? 'opening' : 'openings'}`, weight: 0.5 });
  if (run.inner > 0) evidence.push({ text: `${run.inner} ${run.inner === 1 ? 'line' : 'lines'} between its faces: leaves of one wall`, weight: 0 });
  const doubts = [...(length < 2 * thickness ? ['very short'] : []), ...(Math.abs(size - thickness) > 0.001 ? ['thickness rounded'] : [])];
  if (length < 2 * thickness) evidence.push({ text: 'hardly longer than thick', weight: -1.5 });
  const handles = [...new Set(run.sources.map(({ handle }) => handle))];
  const middle: Point = [(start[0] + end[0]) / 2, (start[1] + end[1]) / 2];
  return { kind: 'wall', key: keyAt('wall', handles, middle), element: { start, end, thickness: size, height: null, bulge: 0, outer }, raw: { thickness }, evidence, confidence: confidenceOf(evidence), handles, doubt: doubts.join(', ') || null };
}

function openingOf({ start, end, thickness, outer }: Segment, gap: Segment['gaps'][number], host: string, settings: ReadingSettings): OpeningCandidate {
  const length = distance(start, end);
  const t = (gap.from + gap.to) / 2 / length;
  const at: Point = [start[0] + (end[0] - start[0]) * t, start[1] + (end[1] - start[1]) * t];
  const use = gap.kind === 'window' ? 'window' : 'door';
  const width = gap.to - gap.from;
  const evidence: Evidence[] = gap.kind === 'opening'
    ? [{ text: 'jambs on both sides, and nothing drawn between them', weight: 0.5 }]
    : [{ text: `a ${gap.kind} drawn in the gap between the wall's faces`, weight: 3 }];
  if (width > 3.5 && use === 'door') evidence.push({ text: `${width.toFixed(2)} m wide`, weight: -1 });
  const handles = [...new Set(gap.sources.map(({ handle }) => handle))];
  const sizes = use === 'door' ? { height: settings.door.height, sill: 0 } : { height: settings.window.height, sill: settings.window.sill };
  return { kind: 'opening', key: keyAt('opening', handles, at), element: { wall: '', use, offset: tidy(gap.from), width: tidy(width), ...sizes }, host, at, outline: openingOutline({ offset: gap.from, width }, { start, end, thickness, height: null, bulge: 0, outer }), evidence, confidence: confidenceOf(evidence), handles, doubt: gap.kind === 'opening' ? 'no leaf drawn' : null };
}

const tidy = (metres: number): number => Number(metres.toFixed(6));

/** Pairs of arcs about one centre, at a wall's distance. */
function curvedWalls(arcs: readonly CurvedFace[], settings: ReadingSettings, round: (thickness: number) => number): { walls: WallCandidate[]; sources: From[] } {
  const walls: WallCandidate[] = [];
  const sources: From[] = [];
  const sorted = [...arcs].sort((a, b) => a.radius - b.radius);
  const taken = new Set<CurvedFace>();
  for (const [i, inner] of sorted.entries()) {
    if (taken.has(inner)) continue;
    const outer = sorted.slice(i + 1).find((other) => !taken.has(other) && other.radius - inner.radius >= settings.wall.least && other.radius - inner.radius <= settings.wall.most && distance(other.centre, inner.centre) < 0.02 && Math.abs(angle(other.start - inner.start)) * inner.radius < 1 && other.sweep > 0.5 * inner.sweep);
    if (!outer) continue;
    taken.add(inner);
    taken.add(outer);
    const [from, to] = [Math.max(0, angle(outer.start - inner.start)), Math.min(inner.sweep, angle(outer.start - inner.start) + outer.sweep)];
    const radius = (inner.radius + outer.radius) / 2;
    const at = (turn: number): Point => [inner.centre[0] + radius * Math.cos(inner.start + turn), inner.centre[1] + radius * Math.sin(inner.start + turn)];
    const thickness = outer.radius - inner.radius;
    const evidence: Evidence[] = [{ text: `two arcs about one centre, of ${radius.toFixed(2)} m radius`, weight: 2 }];
    const handles = [...new Set([inner.source.handle, outer.source.handle])];
    sources.push(inner.source, outer.source);
    walls.push({ kind: 'wall', key: keyAt('wall', handles, at((from + to) / 2)), element: { start: at(from), end: at(to), thickness: round(thickness), height: null, bulge: bulgeOfSweep(to - from), outer: false }, raw: { thickness }, evidence, confidence: confidenceOf(evidence), handles, doubt: null });
  }
  return { walls, sources };
}

const angle = (turn: number): number => Math.atan2(Math.sin(turn), Math.cos(turn));
