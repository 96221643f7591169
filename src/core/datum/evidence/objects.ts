import { Kind } from '@/core/drawing/drawing';
import { arcOfBulge } from '@/core/geometry/bulge';
import { leastRectangle } from '@/core/geometry/polygon';
import { PointGrid } from '@/core/geometry/pointGrid';
import type { Point } from '@/core/geometry/vector';
import { eachSide } from '@/core/underlay/pieces';
import { PathFlag, pathCount, type Primitives } from '@/core/underlay/primitives';
import { isBuilding, type Parallels, type Side } from './sides';
import { median, type Observation, type SizeCue } from './sizes';

/** Observations kept of one kind. */
const most = 400;

const degree = Math.PI / 180;

/**
 * Door leaves: arcs of about a quarter, with a straight line of the radius' length from the centre to an end of the
 * arc.
 */
export function doorLeaves(p: Primitives, sides: readonly Side[]): SizeCue {
  const arcs: { radius: number; centre: Point; ends: [Point, Point]; block: number }[] = [];
  eachSide(p, (path, v, w) => {
    // An arc of more than a half turn comes in two sides, neither of which is one of a door.
    if (
      p.bulge[v] === 0 ||
      v === w ||
      !isBuilding(p, path) ||
      arcs.length >= most * 4 ||
      (p.kind[path] === Kind.arc && p.start[path + 1] - p.start[path] > 2)
    )
      return;
    const ends: [Point, Point] = [
      [p.xy[2 * v], p.xy[2 * v + 1]],
      [p.xy[2 * w], p.xy[2 * w + 1]],
    ];
    const arc = arcOfBulge(...ends, p.bulge[v]);
    const turn = Math.abs(arc.sweep) / degree;
    if (turn > 60 && turn < 110)
      arcs.push({ radius: arc.radius, centre: arc.centre, ends, block: p.chains[p.chain[path]].block });
  });
  const reach = median(arcs.map(({ radius }) => radius)) * 0.06 || 1;
  const grid = new PointGrid(reach, sides.length * 2);
  sides.forEach((side, i) => {
    grid.add(2 * i, side.x1, side.y1);
    grid.add(2 * i + 1, side.x2, side.y2);
  });
  const observations = arcs.flatMap(({ radius, centre, ends, block }): Observation[] => {
    let leaf = false;
    grid.near(centre[0], centre[1], (i) => {
      const side = sides[i >> 1];
      const [nx, ny, fx, fy] =
        i % 2 === 0 ? [side.x1, side.y1, side.x2, side.y2] : [side.x2, side.y2, side.x1, side.y1];
      const near = 0.06 * radius;
      if (
        Math.hypot(nx - centre[0], ny - centre[1]) < near &&
        Math.abs(side.length - radius) < near &&
        ends.some(([x, y]) => Math.hypot(fx - x, fy - y) < 2 * near)
      )
        leaf = true;
    });
    return leaf ? [{ value: radius, at: drawn(p, centre), block }] : [];
  });
  return { cue: 'door leaves', observations: observations.slice(0, most), usual: 0.87, spread: 0.2 };
}

/** Columns: small closed shapes of one size, at least four of them on a layer. */
export function columnSides(p: Primitives): SizeCue {
  const groups = new Map<string, Observation[]>();
  for (let path = 0; path < pathCount(p); path += 1) {
    const n = p.start[path + 1] - p.start[path];
    if (n !== 4 || (p.flags[path] & PathFlag.closed) === 0 || p.chain[path] !== 0 || !isBuilding(p, path)) continue;
    const corners = Array.from({ length: 4 }, (_, k): Point => [
      p.xy[2 * (p.start[path] + k)],
      p.xy[2 * (p.start[path] + k) + 1],
    ]);
    const box = leastRectangle(corners);
    if (
      !box ||
      Math.min(box.width, box.depth) <= 0 ||
      Math.max(box.width, box.depth) > 3.2 * Math.min(box.width, box.depth)
    )
      continue;
    const [value, other] = [Math.max(box.width, box.depth), Math.min(box.width, box.depth)];
    const key = `${p.layer[path]}/${Math.round(Math.log(value) * 12)}`;
    const group = groups.get(key);
    if (group) {
      if (group.length < most) group.push({ value, other, at: drawn(p, box.centre) });
    } else groups.set(key, [{ value, other, at: drawn(p, box.centre) }]);
  }
  const observations = [...groups.values()]
    .filter((group) => group.length >= 4)
    .reduce<Observation[]>((best, group) => (group.length > best.length ? group : best), []);
  return { cue: 'column sides', observations, usual: 0.4, spread: 0.42 };
}

/**
 * Wall thicknesses: gaps between neighbouring parallel sides that run beside one another for at least five times the
 * gap.
 */
export function wallPairs(p: Primitives, families: readonly Parallels[]): SizeCue {
  const observations: Observation[] = [];
  for (const { strips } of families) {
    for (let i = 0; i < strips.length; i += 1) {
      for (let j = i + 1; j < Math.min(strips.length, i + 24); j += 1) {
        const [a, b] = [strips[i], strips[j]];
        const gap = b.offset - a.offset;
        const beside = Math.min(a.to, b.to) - Math.max(a.from, b.from);
        if (gap <= 1e-9 * (Math.abs(a.offset) + 1) || beside < 0.5 * Math.min(a.side.length, b.side.length)) continue;
        if (beside < 5 * gap) break;
        observations.push({ value: gap, at: drawn(p, [(a.side.x1 + b.side.x2) / 2, (a.side.y1 + b.side.y2) / 2]) });
        break;
      }
    }
  }
  // The common gaps are the walls; lines of a window and double lines of furniture are fewer.
  const bins = new Map<number, Observation[]>();
  for (const observation of observations) {
    const bin = Math.round(Math.log(observation.value) * 8);
    const list = bins.get(bin);
    if (list) list.push(observation);
    else bins.set(bin, [observation]);
  }
  const common = [...bins.values()]
    .sort((a, b) => b.length - a.length)
    .slice(0, 3)
    .filter((bin) => bin.length >= 3)
    .flat();
  return { cue: 'wall pairs', observations: common.slice(0, most), usual: 0.18, spread: 0.6 };
}

/** Stair goings: runs of at least six equal treads, three to twelve times as wide as deep. */
export function stairGoings(p: Primitives, families: readonly Parallels[]): SizeCue {
  const observations: Observation[] = [];
  for (const { strips } of families) {
    for (let first = 0; first + 5 < strips.length;) {
      const going = strips[first + 1].offset - strips[first].offset;
      let end = first + 1;
      const fits = (k: number) =>
        Math.abs(strips[k].offset - strips[k - 1].offset - going) < 0.03 * going &&
        Math.abs(strips[k].side.length - strips[first].side.length) < 0.05 * strips[first].side.length &&
        Math.abs(strips[k].from - strips[first].from) < going;
      if (going > 1e-9 && strips[first].side.length > 3 * going && strips[first].side.length < 12 * going)
        while (end < strips.length && fits(end)) end += 1;
      if (end - first >= 6 && end - first <= 30)
        observations.push({ value: going, at: drawn(p, [strips[first].side.x1, strips[first].side.y1]) });
      first = Math.max(end, first + 1);
    }
  }
  return { cue: 'stair goings', observations, usual: 0.28, spread: 0.13 };
}

/** Grid spacings: distances between neighbours among equal circles with short texts in them that stand in a row. */
export function gridSpacings(p: Primitives): SizeCue {
  const bubbles: { at: Point; radius: number }[] = [];
  const labels = p.texts.filter(({ text }) => /^[A-Za-z]{0,2}\d{0,3}['.]?\d?$/.test(text.trim()) && text.trim() !== '');
  for (let path = 0; path < pathCount(p); path += 1) {
    if ((p.flags[path] & PathFlag.circle) === 0 || bubbles.length > 2000) continue;
    const v = p.start[path];
    const [x1, y1, x2, y2] = [p.xy[2 * v], p.xy[2 * v + 1], p.xy[2 * v + 2], p.xy[2 * v + 3]];
    bubbles.push({ at: [(x1 + x2) / 2, (y1 + y2) / 2], radius: Math.hypot(x2 - x1, y2 - y1) / 2 });
  }
  const labelled = bubbles.filter(({ at, radius }) =>
    labels.some((text) => Math.hypot(text.x - at[0], text.y - at[1]) < radius && text.height < 1.6 * radius),
  );
  const size = median(labelled.map(({ radius }) => radius));
  const equal = labelled.filter(({ radius }) => Math.abs(radius - size) < 0.02 * size);
  const observations: Observation[] = [];
  for (const axis of [0, 1] as const) {
    const rows = [...equal].sort((a, b) => a.at[1 - axis] - b.at[1 - axis] || a.at[axis] - b.at[axis]);
    for (let first = 0; first < rows.length;) {
      let end = first + 1;
      while (end < rows.length && Math.abs(rows[end].at[1 - axis] - rows[first].at[1 - axis]) < 0.5 * size) end += 1;
      const row = rows.slice(first, end).sort((a, b) => a.at[axis] - b.at[axis]);
      if (row.length >= 3)
        for (let i = 1; i < row.length; i += 1)
          observations.push({ value: row[i].at[axis] - row[i - 1].at[axis], at: drawn(p, row[i].at) });
      first = end;
    }
  }
  return {
    cue: 'grid spacings',
    observations: observations.filter(({ value }) => value > 2 * size).slice(0, most),
    usual: 5.2,
    spread: 0.5,
  };
}

/** Text heights; with a scale note they are of a usual size on paper. */
export function textHeights(p: Primitives): SizeCue {
  const scale = scaleNote(p);
  const observations = p.texts
    .filter(({ height, chain }) => height > 0 && chain === 0)
    .slice(0, most)
    .map(({ height, x, y }): Observation => ({ value: height, at: drawn(p, [x, y]) }));
  return scale === null
    ? { cue: 'text heights', observations, usual: 0.26, spread: 0.75 }
    : { cue: `text heights at 1:${scale}`, observations, usual: 0.003 * scale, spread: 0.55 };
}

/** The scale that most notes of the form 1:100 name. */
export function scaleNote({ texts }: Primitives): number | null {
  const counts = new Map<number, number>();
  for (const { text } of texts)
    for (const match of text.matchAll(/\b1\s?:\s?(\d{2,4})\b/g)) {
      const scale = Number(match[1]);
      if (scale >= 10 && scale <= 2000) counts.set(scale, (counts.get(scale) ?? 0) + 1);
    }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

const drawn = ({ origin }: Primitives, [x, y]: Point): Point => [x + origin[0], y + origin[1]];
