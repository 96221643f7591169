import type { PlacedPath } from '@/core/placed/placed';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { area, centroid, contains } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { confidenceOf, keyAt, type Evidence, type OutdoorCandidate, type Unread } from '../candidate';
import { fenceOutline, plainFence } from '@/core/kinds/outdoor';
import { findOutlines, pathPoints } from '@/core/patterns/outlines';
import type { Scene } from '../scene';
import type { ReadingSettings } from '@/core/patterns/settings';

/** Two open lines further apart than this bound no road, metres. */
const widestRoad = 14;

/**
 * Reads outdoor surfaces: closed outlines, and pairs of open lines of one layer that run beside one another, as roads
 * and paths are drawn. The name is the
 * text inside, a height the one written in it.
 */
export function readOutdoor(
  scene: Scene,
  settings: ReadingSettings,
  gap: number,
): { candidates: OutdoorCandidate[]; unread: Unread[] } {
  const paths = scene.paths('outdoor');
  const open = paths.filter(
    ({ points, closed, circle }) =>
      !closed && !circle && points.length >= 2 && distance(points[0], points[points.length - 1]) > gap,
  );
  const isOpen = new Set(open);
  const { outlines } = findOutlines(
    paths.filter((path) => !isOpen.has(path)),
    gap,
  );
  const found = outlines
    .filter(({ points }) => Math.abs(area(points)) > 0.05)
    .map(({ points, handles }) => ({ outline: points, handles, between: false }));
  const paired = pairs(open);
  for (const { a, b, turned } of paired)
    found.push({
      outline: [...pathPoints(a), ...(turned ? pathPoints(b) : pathPoints(b).reverse())],
      handles: [a.handle, b.handle],
      between: true,
    });
  const fences = open.filter((path) => !paired.some(({ a, b }) => a === path || b === path) && isFence(scene, path));
  const texts = scene.texts('outdoor', 'label');
  const textIndex = new BoxIndex(texts, ({ at }) => boxOf([at]));
  const used = new Set([...paired.flatMap(({ a, b }) => [a, b]), ...fences]);
  const surfaces = found.map(({ outline, handles, between }): OutdoorCandidate => {
    const inside = textIndex.touching(boxOf(outline)).filter(({ at }) => contains(outline, at));
    const noted = inside.map(({ text }) => /h\s*=\s*(\d+(?:[.,]\d+)?)/i.exec(text)?.[1]).find(Boolean);
    const name =
      inside
        .map(({ text }) => text.replace(/\n/g, ' '))
        .find((text) => /\p{L}{2}/u.test(text) && !/h\s*=/.test(text)) ?? '';
    const evidence: Evidence[] = [
      { text: between ? 'two lines beside one another' : 'a closed outline', weight: between ? 1 : 2 },
      ...(name ? [{ text: `\u201c${name}\u201d written in it`, weight: 1 }] : []),
    ];
    const ring = area(outline) < 0 ? [...outline].reverse() : outline;
    return {
      kind: 'outdoor',
      key: keyAt('outdoor', handles, centroid(ring)),
      element: { name, outline: ring, height: noted ? Number(noted.replace(',', '.')) : settings.outdoor.height },
      evidence,
      confidence: confidenceOf('outdoor', evidence),
      handles,
      doubt: null,
    };
  });
  return {
    candidates: [...surfaces, ...fences.map((path) => fenceOf(path))],
    unread: open
      .filter((path) => !used.has(path))
      .map(({ entity, handle, layer }) => ({
        role: 'outdoor',
        entity,
        handle,
        layer,
        why: 'an open line without another beside it',
      })),
  };
}

/** Words of layers that fences are drawn on. */
const fenceLayer = /fence|zaun|cl[o\u00f4]ture|valla|recinzion|hekwerk|st\u00e4ngsel|stangsel|ogrodzen|gjerde|hegn/i;
/** A fence is so high where nothing says it, metres. */
const fenceHeight = 1.8;

const isFence = (scene: Scene, { layer }: PlacedPath): boolean => fenceLayer.test(scene.drawing.layers[layer].name);

/** An open line on a layer of fences. */
function fenceOf(path: PlacedPath): OutdoorCandidate {
  const line = pathPoints(path);
  const evidence: Evidence[] = [
    { text: 'an open line', weight: 1 },
    { text: 'on a layer of fences', weight: 2 },
  ];
  return {
    kind: 'outdoor',
    key: keyAt('outdoor', [path.handle], line[0]),
    element: { name: '', outline: fenceOutline(line, plainFence), height: fenceHeight, use: 'fence' },
    evidence,
    confidence: confidenceOf('outdoor', evidence),
    handles: [path.handle],
    doubt: null,
  };
}

const lengthOf = (points: readonly Point[]): number =>
  points.slice(1).reduce((sum, p, i) => sum + distance(points[i], p), 0);

/** Sides of a road nearer than this are one line drawn twice, metres. */
const narrowestRoad = 0.2;

/** An open line by its ends and its length; `turned` where it is looked at from its end. */
interface Side {
  path: PlacedPath;
  start: Point;
  end: Point;
  length: number;
  turned: boolean;
}

/** A line as it is drawn, and the other way: the sides of a road may run in opposite directions. */
function bothWays(path: PlacedPath): Side[] {
  const { points } = path;
  const [start, end] = [points[0], points[points.length - 1]];
  const length = lengthOf(points);
  return [
    { path, start, end, length, turned: false },
    { path, start: end, end: start, length, turned: true },
  ];
}

/** How far two lines lie apart at their ends, on average; null where they are no sides of one road. */
function roadWidth(a: Side, b: Side): number | null {
  const apart = (distance(a.start, b.start) + distance(a.end, b.end)) / 2;
  const ratio = a.length / b.length;
  const beside = apart > narrowestRoad && apart < widestRoad && apart < a.length;
  return beside && ratio > 0.5 && ratio < 2 ? apart : null;
}

/** Two sides of a road; the second is to be read from its end where it is `turned`. */
interface Pair {
  a: PlacedPath;
  b: PlacedPath;
  turned: boolean;
}

/** Open lines of one layer whose ends lie beside one another, the nearest first; each is taken once. */
function pairs(open: readonly PlacedPath[]): Pair[] {
  const order = new Map(open.map((path, i) => [path, i]));
  const sides = open.flatMap(bothWays);
  // The mean of both ends is less than the widest road only where one end at least is.
  const starts = new BoxIndex(sides, ({ start }) => boxOf([start]));
  const found = sides
    .filter(({ turned }) => !turned)
    .flatMap((a) =>
      [...starts.around(a.start, 2 * widestRoad)]
        .filter(({ path }) => path.layer === a.path.layer && order.get(path)! > order.get(a.path)!)
        .flatMap((b) => {
          const apart = roadWidth(a, b);
          return apart === null ? [] : [{ a: a.path, b: b.path, turned: b.turned, apart }];
        }),
    );
  const taken = new Set<PlacedPath>();
  return found
    .sort((one, other) => one.apart - other.apart)
    .filter(({ a, b }) => {
      if (taken.has(a) || taken.has(b)) return false;
      taken.add(a).add(b);
      return true;
    });
}
