import { mainContent } from '../mainContent';
import { eachSide } from '../pieces';
import { pathCount, type Primitives } from '../primitives';

/** A group of content that stands apart. Coordinates about the primitives' origin. */
export interface Cluster {
  box: [number, number, number, number];
  paths: number[];
  texts: number[];
}

/** Content further apart than this share of the main content's larger side is not one thing. */
const apart = 1 / 40;
const far = 2 ** 24;
const keyOf = (cx: number, cy: number): number => cx * 2 ** 26 + cy;

/** One side is followed through at most this many cells. */
const longest = 4000;

/**
 * The clusters of a drawing, the largest first: the drawn lines are laid on a grid whose cells are as wide as the
 * least distance between clusters, and neighbouring cells that hold something belong together. The grid follows the
 * main content, not the
 * whole, so that a stray a kilometre away changes nothing. Texts go with the cluster they stand in.
 */
export function findClusters(p: Primitives): Cluster[] {
  const main = mainContent(p);
  if (main === null) return [];
  const size = Math.max(main[1][0] - main[0][0], main[1][1] - main[0][1]);
  const cell = size > 0 ? size * apart : 1;
  // Beyond some ten million cells nothing needs to be told apart any more.
  const cellOf = (value: number) => Math.min(far, Math.max(-far, Math.floor(value / cell)));
  const cells = new Map<number, number>();
  const parent: number[] = [];
  const find = (i: number): number => {
    let root = i;
    while (parent[root] !== root) root = parent[root];
    while (parent[i] !== root) [parent[i], i] = [root, parent[i]];
    return root;
  };
  const join = (a: number, b: number) => {
    parent[find(a)] = find(b);
  };
  // Most sides begin where the last one ended: what was looked up last is at hand.
  let last = { key: NaN, index: -1 };
  const at = (x: number, y: number): number => {
    const [cx, cy] = [cellOf(x), cellOf(y)];
    const key = keyOf(cx, cy);
    if (key === last.key) return last.index;
    const index = cells.get(key) ?? add(cx, cy, key);
    last = { key, index };
    return index;
  };
  const add = (cx: number, cy: number, key: number): number => {
    const index = parent.length;
    parent.push(index);
    cells.set(key, index);
    for (let dx = -1; dx <= 1; dx += 1)
      for (let dy = -1; dy <= 1; dy += 1) {
        const near = cells.get(keyOf(cx + dx, cy + dy));
        if (near !== undefined && near !== index) join(near, index);
      }
    return index;
  };
  const cellOfPath = new Int32Array(pathCount(p)).fill(-1);
  eachSide(p, (path, v, next) => {
    const [x1, y1, x2, y2] = [p.xy[2 * v], p.xy[2 * v + 1], p.xy[2 * next], p.xy[2 * next + 1]];
    const steps = Math.min(longest, Math.ceil(Math.hypot(x2 - x1, y2 - y1) / (cell * 0.7)));
    for (let i = 0; i <= steps; i += 1) {
      const t = steps === 0 ? 0 : i / steps;
      const here = at(x1 + (x2 - x1) * t, y1 + (y2 - y1) * t);
      if (here === cellOfPath[path]) continue;
      if (cellOfPath[path] >= 0) join(cellOfPath[path], here);
      cellOfPath[path] = here;
    }
  });
  const cellOfText = p.texts.map((text) => at(text.x, text.y));
  const found = new Map<number, Cluster>();
  const clusterOf = (index: number): Cluster => {
    const root = find(index);
    return (
      found.get(root) ??
      found.set(root, { box: [Infinity, Infinity, -Infinity, -Infinity], paths: [], texts: [] }).get(root)!
    );
  };
  for (let path = 0; path < pathCount(p); path += 1) {
    if (cellOfPath[path] < 0) continue;
    const cluster = clusterOf(cellOfPath[path]);
    cluster.paths.push(path);
    for (let v = p.start[path]; v < p.start[path + 1]; v += 1) grow(cluster.box, p.xy[2 * v], p.xy[2 * v + 1]);
  }
  p.texts.forEach((text, i) => {
    const cluster = clusterOf(cellOfText[i]);
    cluster.texts.push(i);
    grow(cluster.box, text.x, text.y);
  });
  return [...found.values()].sort((a, b) => b.paths.length - a.paths.length || b.texts.length - a.texts.length);
}

function grow(box: Cluster['box'], x: number, y: number): void {
  if (x < box[0]) box[0] = x;
  if (y < box[1]) box[1] = y;
  if (x > box[2]) box[2] = x;
  if (y > box[3]) box[3] = y;
}

const sideOf = ({ box }: Cluster): number => Math.max(box[2] - box[0], box[3] - box[1]);

/** The distance between two boxes, zero where they overlap. */
export const between = (a: Cluster['box'], b: Cluster['box']): number =>
  Math.hypot(Math.max(0, a[0] - b[2], b[0] - a[2]), Math.max(0, a[1] - b[3], b[1] - a[3]));

/** A cluster is content of its own from this share of the largest one's paths on. */
const weighty = 0.02;

/**
 * The clusters that are weighty, and those that are small and far from all of these: further than half the nearest's
 * larger side.
 */
export function sortClusters(clusters: readonly Cluster[]): {
  weighty: Cluster[];
  strays: { cluster: Cluster; away: number }[];
} {
  if (clusters.length === 0) return { weighty: [], strays: [] };
  const heavy = clusters.filter((cluster) => cluster.paths.length >= Math.max(2, weighty * clusters[0].paths.length));
  if (heavy.length === 0) return { weighty: [clusters[0]], strays: [] };
  const strays = clusters
    .filter((cluster) => !heavy.includes(cluster))
    .flatMap((cluster) => {
      const [away, nearest] = heavy
        .map((other): [number, Cluster] => [between(cluster.box, other.box), other])
        .reduce((a, b) => (b[0] < a[0] ? b : a));
      return away > 0.5 * sideOf(nearest) && sideOf(cluster) < 0.5 * sideOf(nearest) ? [{ cluster, away }] : [];
    });
  return { weighty: heavy, strays };
}

/** A plan on a sheet: its box about the origin, and how many paths it has. */
export interface PlanOnSheet {
  box: [number, number, number, number];
  paths: number;
}

/**
 * The plans on a sheet: weighty clusters, each with the small pieces round it. A frame that runs round others is no
 * plan.
 */
export function findPlans(p: Primitives): PlanOnSheet[] {
  const clusters = findClusters(p);
  const { weighty: heavy } = sortClusters(clusters);
  const holds = (outer: Cluster, inner: Cluster) =>
    outer !== inner &&
    outer.box[0] <= inner.box[0] &&
    outer.box[1] <= inner.box[1] &&
    outer.box[2] >= inner.box[2] &&
    outer.box[3] >= inner.box[3];
  const plans = heavy.filter(
    (cluster) => cluster.paths.length >= 8 && !heavy.some((other) => holds(cluster, other) && other.paths.length >= 8),
  );
  const grown = plans.map(({ box, paths }): PlanOnSheet => ({ box: [...box], paths: paths.length }));
  for (const cluster of clusters) {
    if (plans.includes(cluster) || heavy.some((other) => holds(cluster, other))) continue;
    const near = plans
      .map((plan, i): [number, number] => [between(plan.box, cluster.box), i])
      .reduce<[number, number]>((a, b) => (b[0] < a[0] ? b : a), [Infinity, -1]);
    if (near[1] < 0 || near[0] > 0.12 * sideOf(plans[near[1]])) continue;
    const plan = grown[near[1]];
    for (const [x, y] of [
      [cluster.box[0], cluster.box[1]],
      [cluster.box[2], cluster.box[3]],
    ])
      grow(plan.box, x, y);
    plan.paths += cluster.paths.length;
  }
  return grown;
}
