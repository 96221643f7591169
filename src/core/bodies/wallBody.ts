import { pointAlong, distance, type Point } from '@/core/geometry/vector';
import { wallLength, wallLine } from '@/core/kinds/wall';
import type { PlacedOpening, PlacedWall } from '@/core/resolved/building';
import type { Place, Shell } from './shell';

/** A station along a wall: how far from its start, and its points on the left face, the axis and the right face. */
interface Station {
  along: number;
  left: Point;
  middle: Point;
  right: Point;
}

/** Stations closer than this are one, metres. */
const together = 1e-6;

/** Heights between which a wall is solid; what reaches its top is endless. */
type Solid = [from: number, to: number];

/** A piece of a wall between two stations, with its heights at each. */
interface Strip {
  from: Station;
  to: Station;
  top: [number, number];
  solids: Solid[];
}

/** A wall with its openings cut out, and its axis plane. Bent walls are followed by chords. */
export function addWall(shell: Shell, wall: PlacedWall): void {
  const strips = stripsOf(wall);
  strips.forEach((strip, i) => {
    for (const solid of strip.solids) addBlock(shell, strip, solid);
    if (i === 0) addReveals(shell, strip.from, below(strip.solids, strip.top[0]), false);
    // Where the next piece is open beside this one, or lower, the reveal is seen; at the end all of it.
    const next = strips[i + 1];
    const [here, there] = [below(strip.solids, strip.top[1]), next ? below(next.solids, next.top[0]) : []];
    addReveals(shell, strip.to, difference(here, there), true);
    addReveals(shell, strip.to, difference(there, here), false);
  });
  addOutlines(shell, wall, strips);
}

/** The plane of an opening, in the middle of its wall. */
export function addOpening(shell: Shell, wall: PlacedWall, opening: PlacedOpening): void {
  const { offset, width } = opening.shape;
  const [low, high] = heightsOf(wall, opening);
  const stations = stationsWithin(wall, offset, offset + width);
  const at = ({ middle }: Station, z: number): Place => [middle[0], middle[1], z];
  stations.slice(1).forEach((to, i) => {
    const from = stations[i];
    shell.quad(at(from, low), at(to, low), at(to, high), at(from, high));
    shell.quad(at(to, low), at(from, low), at(from, high), at(to, high));
    shell.edge(at(from, low), at(to, low));
    shell.edge(at(from, high), at(to, high));
  });
  for (const end of [stations[0], stations[stations.length - 1]]) {
    if (end === undefined) continue;
    shell.edge(at(end, low), at(end, high));
    shell.axis(at(end, low), at(end, high));
  }
}

const heightsOf = ({ base }: PlacedWall, { shape: { sill, height } }: PlacedOpening): Solid => [
  base + sill,
  base + sill + height,
];

/** The stations of a wall: its ends, its chords, where its top bends, and further places. */
function stationsOf(wall: PlacedWall, further: readonly number[]): Station[] {
  const line = wallLine(wall.shape);
  const reach = [0];
  for (let i = 1; i < line.length; i += 1) reach.push(reach[i - 1] + distance(line[i - 1], line[i]));
  // Lengths along the arc are a little longer than along its chords.
  const stretch = reach[reach.length - 1] / (wallLength(wall.shape) || 1);
  const wanted = [...reach, ...further.map((at) => at * stretch), ...(wall.profile ?? []).map(([along]) => along)];
  const sorted = wanted
    .filter((at) => at >= 0 && at <= reach[reach.length - 1] + together)
    .sort((a, b) => a - b)
    .filter((at, i, all) => i === 0 || at - all[i - 1] > together);
  return sorted.map((at) => stationAt(line, reach, at, wall.shape.thickness / 2, stretch));
}

function stationAt(
  line: readonly Point[],
  reach: readonly number[],
  at: number,
  half: number,
  stretch: number,
): Station {
  let i = 1;
  while (i + 1 < line.length && reach[i] < at - together) i += 1;
  const size = reach[i] - reach[i - 1] || 1;
  const middle = pointAlong(line[i - 1], line[i], (at - reach[i - 1]) / size);
  const onCorner = Math.abs(reach[i] - at) <= together && i + 1 < line.length;
  const [a, b] = onCorner ? [line[i - 1], line[i + 1]] : [line[i - 1], line[i]];
  const away = distance(a, b) || 1;
  const [nx, ny] = [(-(b[1] - a[1]) / away) * half, ((b[0] - a[0]) / away) * half];
  return {
    along: at / (stretch || 1),
    left: [middle[0] + nx, middle[1] + ny],
    middle,
    right: [middle[0] - nx, middle[1] - ny],
  };
}

/** The stations of a wall from one place along it to another, both of them too. */
const stationsWithin = (wall: PlacedWall, from: number, to: number): Station[] =>
  stationsOf(wall, [from, to]).filter(({ along }) => along >= from - together && along <= to + together);

/** The height of a wall's top at a station, seen from one side of it where it jumps there. */
function topAt({ profile, top }: PlacedWall, along: number, before: boolean): number {
  if (profile === null || profile.length === 0) return top;
  const pairs = profile.slice(1).map((to, i) => [profile[i], to] as const);
  const holds = pairs.filter(
    ([from, to]) => to[0] - from[0] > together && along >= from[0] - together && along <= to[0] + together,
  );
  const pair = before ? holds[0] : holds[holds.length - 1];
  if (pair === undefined) return top;
  const [from, to] = pair;
  return from[1] + ((to[1] - from[1]) * (along - from[0])) / (to[0] - from[0]);
}

function stripsOf(wall: PlacedWall): Strip[] {
  const edges = wall.openings.flatMap(({ shape: { offset, width } }) => [offset, offset + width]);
  const stations = stationsOf(wall, edges);
  return stations.slice(1).map((to, i) => {
    const from = stations[i];
    const middle = (from.along + to.along) / 2;
    const cuts = wall.openings
      .filter(({ shape: { offset, width } }) => middle > offset && middle < offset + width)
      .map((opening) => heightsOf(wall, opening));
    const top: [number, number] = [topAt(wall, from.along, false), topAt(wall, to.along, true)];
    return { from, to, top, solids: difference([[wall.base, Infinity]], cuts) };
  });
}

/** What is left of heights when others are taken out of them. */
function difference(from: readonly Solid[], cuts: readonly Solid[]): Solid[] {
  return cuts.reduce<Solid[]>(
    (left, [low, high]) =>
      left.flatMap(([a, b]): Solid[] =>
        high <= a || low >= b
          ? [[a, b]]
          : [...(low > a ? [[a, low] as Solid] : []), ...(high < b ? [[high, b] as Solid] : [])],
      ),
    [...from],
  );
}

/** What of solids lies below a height. */
const below = (solids: readonly Solid[], top: number): Solid[] =>
  solids.flatMap(([low, high]): Solid[] => (low < top ? [[low, Math.min(high, top)]] : []));

const up = ([x, y]: Point, z: number): Place => [x, y, z];

/** Both faces of a solid piece, what covers it and what it stands on. */
function addBlock(shell: Shell, { from, to, top }: Strip, [low, high]: Solid): void {
  const [a, b] = top.map((z) => Math.max(low, Math.min(high, z)));
  shell.quad(up(from.right, low), up(to.right, low), up(to.right, b), up(from.right, a));
  shell.quad(up(to.left, low), up(from.left, low), up(from.left, a), up(to.left, b));
  shell.quad(up(from.right, a), up(to.right, b), up(to.left, b), up(from.left, a));
  shell.quad(up(from.left, low), up(to.left, low), up(to.right, low), up(from.right, low));
}

/** Upright faces across a wall. @param forward whether they look along it */
function addReveals(shell: Shell, { left, right }: Station, solids: readonly Solid[], forward: boolean): void {
  for (const [low, high] of solids) {
    const [a, b] = forward ? [right, left] : [left, right];
    shell.quad(up(a, low), up(b, low), up(b, high), up(a, high));
  }
}

/** The edges of a wall and of the openings in it, and its axis plane. */
function addOutlines(shell: Shell, wall: PlacedWall, strips: readonly Strip[]): void {
  strips.forEach(({ from, to, top }, i) => {
    for (const side of ['left', 'right'] as const) {
      shell.edge(up(from[side], wall.base), up(to[side], wall.base));
      shell.edge(up(from[side], top[0]), up(to[side], top[1]));
    }
    shell.axis(up(from.middle, wall.base), up(to.middle, wall.base));
    shell.axis(up(from.middle, top[0]), up(to.middle, top[1]));
    if (i === 0) addEnd(shell, from, wall.base, top[0]);
    if (i === strips.length - 1) addEnd(shell, to, wall.base, top[1]);
  });
  for (const opening of wall.openings) addFrame(shell, wall, opening);
}

function addEnd(shell: Shell, { left, middle, right }: Station, low: number, high: number): void {
  shell.edge(up(left, low), up(left, high));
  shell.edge(up(right, low), up(right, high));
  shell.edge(up(left, low), up(right, low));
  shell.edge(up(left, high), up(right, high));
  shell.axis(up(middle, low), up(middle, high));
}

/** The edges of the hole that an opening makes, on both faces. */
function addFrame(shell: Shell, wall: PlacedWall, opening: PlacedOpening): void {
  const { offset, width } = opening.shape;
  const [low, high] = heightsOf(wall, opening);
  const stations = stationsWithin(wall, offset, offset + width);
  for (const side of ['left', 'right'] as const) {
    stations.slice(1).forEach((to, i) => {
      for (const z of [low, high]) shell.edge(up(stations[i][side], z), up(to[side], z));
    });
    for (const end of [stations[0], stations[stations.length - 1]])
      if (end !== undefined) shell.edge(up(end[side], low), up(end[side], high));
  }
}
