import type { From, PlacedPath } from '@/core/placed/placed';
import { Kind, type Drawing } from '@/core/drawing/drawing';
import { arcOfBulge } from '@/core/geometry/bulge';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { leastRectangle } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { findOutlines } from '@/core/patterns/outlines';
import { doubled, facesOf } from '@/core/patterns/faces';
import { pairFaces } from '@/core/patterns/strips';
import { defaultSettings } from '@/core/patterns/settings';
import { defaultTolerance } from '@/core/tolerance';
import { PathFlag, pathCount, type Primitives } from '@/core/underlay/primitives';
import { centreOfText } from '@/core/underlay/textBox';
import { suggestRole } from './suggest';
import type { Role } from './roles';

/** Kinds that annotate. */
const annotation = new Set<number>([
  Kind.dimension,
  Kind.leader,
  Kind.multiLeader,
  Kind.table,
  Kind.hatch,
  Kind.solid,
  Kind.image,
  Kind.wipeout,
  Kind.construction,
  Kind.ray,
  Kind.point,
]);

/** What a column measures across, metres, and how many of one size make a set. */
const column = { least: 0.15, most: 1.3, fewest: 4 };
/** A door's leaf, metres. */
const leaf = { least: 0.5, most: 1.6 };
/** Ends, jambs and other short pieces of walls are at most this long, metres. */
const shortPiece = 0.65;
/** A grid line broken by something goes on within this, metres. */
const beyond = 15;
/** The label of a grid line. */
const gridLabel = /^[A-Z]{0,3}\d{0,3}['.]?\d{0,2}$/i;

/** What one path looks like, and why. */
export interface Looks {
  role: Role;
  why: string;
}

/** A path as its own source. */
function pathSource(path: number): From & { source: From } {
  const source = { entity: path, layer: 0, handle: String(path) };
  return { ...source, source };
}

interface Line {
  path: number;
  a: Point;
  b: Point;
  length: number;
}

/**
 * What every path of a drawing looks like by its geometry alone: bubbles with labels and the long lines that end in
 * them are grid; small shapes of one
 * size, four of them or more, columns; quarter arcs with a leaf doors; three or more lines between common ends, close
 * together, windows; lines in pairs at a
 * wall's distance walls. What came by a block is what the block's name or its geometry says, else furniture.
 * @param metresPerUnit true metres of one drawing unit
 */
export function classify(drawing: Drawing, p: Primitives, metresPerUnit: number): (Looks | null)[] {
  const looks: (Looks | null)[] = Array.from({ length: pathCount(p) }, () => null);
  const at = (v: number): Point => [p.xy[2 * v] * metresPerUnit, p.xy[2 * v + 1] * metresPerUnit];
  const blockRoles = new Map<number, Looks>();
  const outermost = (chain: number): number => {
    let c = chain;
    while (c > 0 && p.chains[c].parent > 0) c = p.chains[c].parent;
    return p.chains[c].block;
  };
  const labels = new BoxIndex(
    p.texts
      .filter(({ text }) => text.trim() !== '' && gridLabel.test(text.trim()))
      .map((text) => {
        const [x, y] = centreOfText(text);
        return [x * metresPerUnit, y * metresPerUnit] as Point;
      }),
    (point) => boxOf([point]),
  );
  const bubbles: { centre: Point; radius: number }[] = [];
  const lines: Line[] = [];
  const arcs: { path: number; centre: Point; radius: number; ends: [Point, Point]; sweep: number }[] = [];
  const shapes = new Map<string, number[]>();

  for (let path = 0; path < looks.length; path += 1) {
    const [first, end] = [p.start[path], p.start[path + 1]];
    const count = end - first;
    if (annotation.has(p.kind[path])) {
      looks[path] = { role: 'ignore', why: 'an annotation' };
      continue;
    }
    const closed = (p.flags[path] & PathFlag.closed) !== 0;
    if ((p.flags[path] & PathFlag.circle) !== 0) {
      const [a, b] = [at(first), at(first + 1)];
      const [centre, radius]: [Point, number] = [[(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], distance(a, b) / 2];
      if (
        radius > 0.1 &&
        radius < 1.5 &&
        labels.around(centre, radius).some((point) => distance(point, centre) < 0.6 * radius)
      ) {
        looks[path] = { role: 'grid', why: 'a ring with a label' };
        bubbles.push({ centre, radius });
        continue;
      }
      if (p.chain[path] === 0 && 2 * radius >= column.least && 2 * radius <= column.most)
        push(shapes, `round ${(2 * radius).toFixed(2)}`, path);
      continue;
    }
    if (p.chain[path] !== 0) continue;
    if (closed && count === 4) {
      const box = leastRectangle([0, 1, 2, 3].map((k) => at(first + k)));
      if (box && Math.min(box.width, box.depth) >= column.least && Math.max(box.width, box.depth) <= column.most)
        push(shapes, sizeKey(box), path);
    }
    for (let v = first; v + 1 < end + (closed ? 1 : 0); v += 1) {
      const [a, b] = [at(v), at(v + 1 < end ? v + 1 : first)];
      if (p.bulge[v] === 0) {
        if (count === 2) lines.push({ path, a, b, length: distance(a, b) });
        continue;
      }
      const arc = arcOfBulge(a, b, p.bulge[v]);
      arcs.push({ path, centre: arc.centre, radius: arc.radius, ends: [a, b], sweep: Math.abs(arc.sweep) });
    }
  }
  for (const [size, paths] of shapes)
    if (paths.length >= column.fewest)
      for (const path of paths)
        looks[path] = { role: 'column', why: `${paths.length} shapes of one size, ${size.replace(' ', ' by ')} m` };
  const rings = new BoxIndex(bubbles, ({ centre, radius }) => boxOf([centre], 1.2 * radius));
  for (const { path, a, b, length } of lines)
    if (
      length > 2 &&
      [a, b].some((end) =>
        rings.around(end).some(({ centre, radius }) => Math.abs(distance(centre, end) - radius) < 0.25 * radius + 0.05),
      )
    )
      looks[path] = { role: 'grid', why: 'a long line that ends in a labelled ring' };
  for (const { path, centre: middle, ends, radius } of arcs)
    if (
      radius > 1.5 &&
      ends.some((end) =>
        rings
          .around(end, 0.1)
          .some(
            ({ centre, radius: ring }) =>
              Math.abs(distance(centre, middle) - radius) < 0.15 * ring &&
              Math.abs(distance(centre, end) - ring) < 0.25 * ring + 0.05,
          ),
      )
    )
      looks[path] = { role: 'grid', why: 'an arc that ends in a labelled ring' };
  looseColumns(
    looks,
    lines,
    [...shapes].filter(([, paths]) => paths.length >= column.fewest).map(([size]) => size),
  );
  doors(looks, arcs, lines);
  windows(looks, lines);
  panes(looks, lines);
  const gridParts = lines.filter(({ path }) => looks[path]?.role === 'grid');
  const runs = new BoxIndex(gridParts, ({ a, b }) => boxOf([a, b], beyond));
  for (const { path, a, b, length } of lines)
    if (looks[path] === null && length > 1 && runs.around(a).some((line) => onLine(line, a) && onLine(line, b)))
      looks[path] = { role: 'grid', why: 'on the run of a grid line' };
  blockColumns(looks, p, metresPerUnit, gridParts, outermost);
  walls(looks, p, metresPerUnit);
  for (const { path, length } of lines)
    if (looks[path] === null && length <= shortPiece) looks[path] = { role: 'wall', why: 'as long as a wall is thick' };
  for (let path = 0; path < looks.length; path += 1) {
    if (p.chain[path] === 0 || looks[path] !== null) continue;
    const block = outermost(p.chain[path]);
    const known = blockRoles.get(block) ?? blockLooks(drawing.blocks[block]?.name ?? '');
    blockRoles.set(block, known);
    looks[path] = known;
  }
  return looks;
}

/** A size to two centimetres. */
const sizeKey = ({ width, depth }: { width: number; depth: number }): string =>
  [width, depth]
    .sort((a, b) => a - b)
    .map((side) => (Math.round(side * 50) / 50).toFixed(2))
    .join(' ');

function push(groups: Map<string, number[]>, key: string, path: number): void {
  const group = groups.get(key);
  if (group) group.push(path);
  else groups.set(key, [path]);
}

/** What a block's name says; most blocks of a plan are furniture. */
function blockLooks(name: string): Looks {
  const suggestion = suggestRole(name);
  return suggestion
    ? { role: suggestion.role, why: `the block is called ${name}` }
    : { role: 'ignore', why: 'came by a block' };
}

/** Whether a point lies on the run of a line, a little beyond its ends too. */
function onLine({ a, b, length }: Line, p: Point): boolean {
  const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const [dx, dy] = [p[0] - a[0], p[1] - a[1]];
  const along = dx * ux + dy * uy;
  return Math.abs(dy * ux - dx * uy) < 0.02 && along > -beyond && along < length + beyond;
}

/** Loose lines that close to a shape of a size that the plan's columns have. */
function looseColumns(looks: (Looks | null)[], lines: readonly Line[], sizes: readonly string[]): void {
  const short = lines.filter(({ path, length }) => looks[path] === null && length <= column.most);
  const { outlines } = findOutlines(
    short.map(({ path, a, b }): PlacedPath => ({
      points: [a, b],
      bulges: [0, 0],
      closed: false,
      circle: false,
      ...pathSource(path),
    })),
    defaultTolerance.gap,
  );
  const boxes = outlines.map(({ points, handles }) => ({ handles, box: leastRectangle(points) }));
  const counts = new Map<string, number>();
  for (const { box } of boxes)
    if (box && Math.min(box.width, box.depth) >= column.least && Math.max(box.width, box.depth) <= column.most)
      counts.set(sizeKey(box), (counts.get(sizeKey(box)) ?? 0) + 1);
  for (const { handles, box } of boxes) {
    if (box && (sizes.includes(sizeKey(box)) || (counts.get(sizeKey(box)) ?? 0) >= column.fewest))
      for (const handle of handles)
        looks[Number(handle)] = { role: 'column', why: 'lines that close to a column\u2019s size' };
  }
}

/** Most of what a block is inserted for stands this near to crossings of grid lines, metres, where it is a column. */
const nearCrossing = { within: 0.3, share: 0.6 };

/** Blocks of a column's size, most of whose inserts stand on crossings of grid lines: everything that came by them. */
function blockColumns(
  looks: (Looks | null)[],
  p: Primitives,
  k: number,
  grid: readonly Line[],
  outermost: (chain: number) => number,
): void {
  const inserts = new Map<number, Map<number, { box: [number, number, number, number]; paths: number[] }>>();
  for (let path = 0; path < looks.length; path += 1) {
    if (p.chain[path] === 0 || looks[path] !== null) continue;
    const block = outermost(p.chain[path]);
    const tops = inserts.get(block) ?? new Map<number, { box: [number, number, number, number]; paths: number[] }>();
    inserts.set(block, tops);
    const one = tops.get(p.top[path]) ?? { box: [Infinity, Infinity, -Infinity, -Infinity], paths: [] };
    tops.set(p.top[path], one);
    one.paths.push(path);
    for (let v = p.start[path]; v < p.start[path + 1]; v += 1) {
      const [x, y] = [p.xy[2 * v] * k, p.xy[2 * v + 1] * k];
      one.box = [Math.min(one.box[0], x), Math.min(one.box[1], y), Math.max(one.box[2], x), Math.max(one.box[3], y)];
    }
  }
  const runs = new BoxIndex(grid, ({ a, b }) => boxOf([a, b], nearCrossing.within));
  const crosses = (at: Point): boolean => {
    const by = runs
      .around(at)
      .filter(
        ({ a, b, length }) =>
          Math.abs((b[0] - a[0]) * (at[1] - a[1]) - (b[1] - a[1]) * (at[0] - a[0])) / length < nearCrossing.within,
      );
    return by.some((one) =>
      by.some(
        (other) =>
          Math.abs(
            (one.b[0] - one.a[0]) * (other.b[1] - other.a[1]) - (one.b[1] - one.a[1]) * (other.b[0] - other.a[0]),
          ) >
          0.3 * one.length * other.length,
      ),
    );
  };
  for (const tops of inserts.values()) {
    const all = [...tops.values()];
    const sized = all.every(
      ({ box: [x0, y0, x1, y1] }) =>
        Math.max(x1 - x0, y1 - y0) <= column.most && Math.min(x1 - x0, y1 - y0) >= column.least,
    );
    if (all.length < column.fewest || !sized) continue;
    const standing = all.filter(({ box: [x0, y0, x1, y1] }) => crosses([(x0 + x1) / 2, (y0 + y1) / 2])).length;
    if (standing >= nearCrossing.share * all.length)
      for (const { paths } of all)
        for (const path of paths)
          looks[path] = { role: 'column', why: `${standing} of ${all.length} inserts of its block on crossings` };
  }
}

function doors(
  looks: (Looks | null)[],
  arcs: readonly { path: number; centre: Point; radius: number; ends: [Point, Point]; sweep: number }[],
  lines: readonly Line[],
): void {
  const index = new BoxIndex(lines, ({ a, b }) => boxOf([a, b]));
  for (const { path, centre, radius, ends, sweep } of arcs) {
    if (looks[path] !== null || radius < leaf.least || radius > leaf.most || sweep < 1 || sweep > 2) continue;
    const own = index
      .around(centre, 0.06 * radius)
      .find(
        ({ a, b, length }) =>
          Math.abs(length - radius) < 0.08 * radius &&
          ends.some((end) => Math.min(distance(a, end), distance(b, end)) < 0.12 * radius),
      );
    if (!own) continue;
    looks[path] = { role: 'door', why: 'a quarter arc with a leaf' };
    looks[own.path] = { role: 'door', why: 'the leaf of a quarter arc' };
  }
}

/** Three or more lines between common ends, within a wall's thickness. */
function windows(looks: (Looks | null)[], lines: readonly Line[]): void {
  const open = lines.filter(({ path, length }) => looks[path] === null && length > 0.4 && length < 5);
  const index = new BoxIndex(open, ({ a, b }) => boxOf([[(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]]));
  for (const { a, b, length } of open) {
    const middle: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
    const beside = index.around(middle, defaultSettings.wall.most).filter((other) => {
      const [mx, my] = [(other.a[0] + other.b[0]) / 2 - middle[0], (other.a[1] + other.b[1]) / 2 - middle[1]];
      const turn = Math.abs(ux * (other.b[1] - other.a[1]) - uy * (other.b[0] - other.a[0])) / other.length;
      return Math.abs(other.length - length) < 0.02 && turn < 0.02 && Math.abs(mx * ux + my * uy) < 0.02;
    });
    if (beside.length >= 3)
      for (const { path } of beside)
        looks[path] = { role: 'window', why: `${beside.length} lines between common ends` };
  }
}

/** Ends this near to a jamb are on it, metres. */
const onJamb = 0.02;

/** Lines from the middle part of one jamb to that of another, with no face between the jambs' ends: single panes. */
function panes(looks: (Looks | null)[], lines: readonly Line[]): void {
  const open = lines.filter(({ path }) => looks[path] === null);
  const jambs = open.filter(
    ({ length }) => length >= defaultSettings.wall.least && length <= defaultSettings.wall.most,
  );
  const index = new BoxIndex(jambs, ({ a, b }) => boxOf([a, b], onJamb));
  const ends = new BoxIndex(open, ({ a, b }) => boxOf([a, b], onJamb));
  /** Where a point lies on a jamb that is square to a line: 0 and 1 are its ends. */
  const jambAt = (p: Point, line: Line): Line | undefined =>
    index.around(p).find((jamb) => {
      const [ux, uy] = [(jamb.b[0] - jamb.a[0]) / jamb.length, (jamb.b[1] - jamb.a[1]) / jamb.length];
      const [dx, dy] = [p[0] - jamb.a[0], p[1] - jamb.a[1]];
      const along = (dx * ux + dy * uy) / jamb.length;
      const square = Math.abs(ux * (line.b[0] - line.a[0]) + uy * (line.b[1] - line.a[1])) < 0.05 * line.length;
      return square && Math.abs(dy * ux - dx * uy) < onJamb && along > 0.2 && along < 0.8;
    });
  for (const line of open) {
    if (line.length < 0.4 || line.length > 3.5) continue;
    const [from, to] = [jambAt(line.a, line), jambAt(line.b, line)];
    if (!from || !to || from === to) continue;
    // A face from jamb to jamb makes the stretch a wall with leaves.
    const faced = [from.a, from.b].some((corner) =>
      ends
        .around(corner)
        .some(
          (face) =>
            face !== from &&
            Math.abs(face.length - line.length) < 2 * onJamb &&
            [face.a, face.b].some((p) => distance(p, corner) < onJamb) &&
            [face.a, face.b].some((p) => [to.a, to.b].some((q) => distance(p, q) < onJamb)),
        ),
    );
    if (!faced) looks[line.path] = { role: 'window', why: 'a line from jamb to jamb' };
  }
}

/** Lines and arcs in pairs at a wall's distance. */
function walls(looks: (Looks | null)[], p: Primitives, k: number): void {
  const rest: PlacedPath[] = [];
  for (let path = 0; path < looks.length; path += 1) {
    if (looks[path] !== null || p.chain[path] !== 0 || (p.flags[path] & PathFlag.circle) !== 0) continue;
    const vertices = Array.from({ length: p.start[path + 1] - p.start[path] }, (_, i) => p.start[path] + i);
    rest.push({
      points: vertices.map((v): Point => [p.xy[2 * v] * k, p.xy[2 * v + 1] * k]),
      bulges: vertices.map((v) => p.bulge[v]),
      closed: (p.flags[path] & PathFlag.closed) !== 0,
      circle: false,
      ...pathSource(path),
    });
  }
  const { families, curved } = facesOf(rest, defaultTolerance.offAxis, doubled, defaultTolerance.gap);
  for (const family of families)
    for (const { sources, thickness, from, to } of pairFaces(family, defaultSettings.wall).strips)
      if (to - from > 1.5 * thickness)
        for (const { entity } of sources)
          looks[entity] = { role: 'wall', why: 'a pair of lines at a wall\u2019s distance' };
  const centres = new BoxIndex(curved, ({ centre }) => boxOf([centre]));
  for (const arc of curved)
    if (
      centres
        .around(arc.centre, 0.02)
        .some(
          (other) =>
            other !== arc &&
            distance(other.centre, arc.centre) < 0.02 &&
            Math.abs(other.radius - arc.radius) <= defaultSettings.wall.most &&
            Math.abs(other.radius - arc.radius) >= defaultSettings.wall.least,
        )
    )
      looks[arc.source.entity] = { role: 'wall', why: 'two arcs about one centre' };
}
