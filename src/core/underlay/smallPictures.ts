import { Kind, type Drawing } from '@/core/drawing/drawing';
import { mainContent, mainContentOf } from './mainContent';
import { outlineOf } from './outline';
import type { Primitives } from './primitives';

/** At most so many paths, texts and vertices make one small picture. */
const most = { paths: 160, texts: 60, vertices: 1200 };

/** A block that is inserted: at how many places of the model space, and a picture of one of them. */
export interface BlockUse {
  name: string;
  places: number;
  lines: Float32Array;
}

/** Every nth of a list, so that at most some are left. */
const thin = (list: readonly number[], limit: number): number[] => {
  const step = Math.ceil(list.length / limit);
  return step <= 1 ? [...list] : list.filter((_, i) => i % step === 0);
};

/**
 * The straight lines that show what lies on each layer, about the origin; strays are left out where there is anything
 * else.
 */
export function layerPictures(p: Primitives, layers: number): Float32Array[] {
  const box = mainContent(p);
  const [paths, outside, texts]: number[][][] = [[], [], []].map(() => Array.from({ length: layers }, () => []));
  for (let path = 0; path < p.layer.length; path += 1) {
    const [x, y] = [p.xy[2 * p.start[path]] + p.origin[0], p.xy[2 * p.start[path] + 1] + p.origin[1]];
    const inside = box !== null && x >= box[0][0] && x <= box[1][0] && y >= box[0][1] && y <= box[1][1];
    (inside ? paths : outside)[p.layer[path]].push(path);
  }
  p.texts.forEach(({ layer }, i) => texts[layer].push(i));
  return paths.map((own, layer) =>
    outlineOf(
      p,
      thin(own.length > 0 ? own : outside[layer], most.paths),
      thin(texts[layer], most.texts),
      most.vertices,
    ),
  );
}

/** At most so many paths and vertices make the small picture of a whole drawing. */
const mostOfDrawing = { paths: 700, vertices: 1600 };

/**
 * The straight lines that show the building in a drawing, as whole thousandths of its width.
 * @param building 1 for each layer that shows it
 */
export function drawingPicture(p: Primitives, building: Uint8Array): number[] {
  const box = mainContentOf(p, building);
  if (box === null) return [];
  const [[left, low], [right, high]] = box;
  const [ox, oy] = p.origin;
  const inside = (path: number): boolean => {
    const [x, y] = [p.xy[2 * p.start[path]] + ox, p.xy[2 * p.start[path] + 1] + oy];
    return x >= left && x <= right && y >= low && y <= high;
  };
  const paths = Array.from({ length: p.layer.length }, (_, path) => path).filter(inside);
  const lines = outlineOf(p, thin(paths, mostOfDrawing.paths), [], mostOfDrawing.vertices);
  const unit = Math.max(right - left, high - low) / 1000 || 1;
  return Array.from(lines, (value, i) => Math.round((value + (i % 2 === 0 ? ox - left : oy - low)) / unit));
}

/** The blocks that the model space shows, by how often. */
export function blockUses(drawing: Drawing, p: Primitives): BlockUse[] {
  /** The blocks on the way to each chain's end. */
  const onTheWay: number[][] = [];
  for (const [i, { block, parent }] of p.chains.entries()) onTheWay.push(i === 0 ? [] : [...onTheWay[parent], block]);
  const uses = new Map<number, { places: number; last: number; first: number; paths: number[] }>();
  for (let path = 0; path < p.layer.length; path += 1) {
    const top = p.top[path];
    if (drawing.kind[top] !== Kind.insert) continue;
    for (const block of onTheWay[p.chain[path]]) {
      const use = uses.get(block);
      if (!use) {
        uses.set(block, { places: 1, last: top, first: top, paths: [path] });
        continue;
      }
      if (use.last !== top) {
        use.places += 1;
        use.last = top;
      }
      if (use.first === top && use.paths.length < most.paths) use.paths.push(path);
    }
  }
  return [...uses]
    .map(([block, { places, paths }]) => ({
      name: drawing.blocks[block].name,
      places,
      lines: outlineOf(p, paths, [], most.vertices),
    }))
    .sort((a, b) => b.places - a.places || a.name.localeCompare(b.name));
}

/** A small picture of a plan is made of at most so many paths and vertices. */
const mostInBox = { paths: 1500, vertices: 6000 };

/** A small picture of what begins in a box about the origin. */
export function boxPicture(p: Primitives, box: [number, number, number, number]): Float32Array {
  const inside: number[] = [];
  for (let path = 0; path < p.layer.length; path += 1) {
    const v = p.start[path];
    if (p.xy[2 * v] >= box[0] && p.xy[2 * v] <= box[2] && p.xy[2 * v + 1] >= box[1] && p.xy[2 * v + 1] <= box[3])
      inside.push(path);
  }
  return outlineOf(p, thin(inside, mostInBox.paths), [], mostInBox.vertices);
}
