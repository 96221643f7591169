import { contours, ticks } from 'd3';
import { common, type Region } from '@/core/geometry/clipping';
import { contains } from '@/core/geometry/polygon';
import { lineCrossing, middle, pointAlong, type Point } from '@/core/geometry/vector';
import type { LitArea } from './light';

/** A part of an area with at least so much light, lux, and the lines on which there is just so much. */
export interface Band {
  lux: number;
  region: Region;
  lines: [Point, Point][];
}

/** About so many steps of light are told apart over an area. */
const aboutBands = 6;
/** A line through the grid's edge is no iso line but where the grid ends, cells. */
const atEdge = 1e-6;

/** Round figures of light that an area has on it, lux. */
export const levelsOf = ({ least, greatest }: Pick<LitArea, 'least' | 'greatest'>): number[] =>
  ticks(least, greatest, aboutBands).filter((lux) => lux > least && lux < greatest);

/** The values of a whole grid: where no point was asked, that of the nearest one, so that lines run on to the walls. */
function wholeGrid({ lattice: { columns, rows, cells }, total }: LitArea): Float64Array {
  const [wide, high] = [columns + 2, rows + 2];
  const values = new Float64Array(wide * high).fill(NaN);
  cells.forEach((cell, i) => {
    values[(Math.floor(cell / columns) + 1) * wide + (cell % columns) + 1] = total[i];
  });
  let open = values.reduce((count, value) => count + Number(Number.isNaN(value)), 0);
  while (open > 0) {
    const before = values.slice();
    const left = open;
    for (let k = 0; k < values.length; k += 1) {
      if (!Number.isNaN(before[k])) continue;
      const beside = neighboursOf(k, wide, high).map((n) => before[n]);
      const known = beside.filter((value) => !Number.isNaN(value));
      if (known.length === 0) continue;
      values[k] = known.reduce((sum, value) => sum + value, 0) / known.length;
      open -= 1;
    }
    if (open === left) break;
  }
  return values;
}

function neighboursOf(k: number, wide: number, high: number): number[] {
  const [i, j] = [k % wide, Math.floor(k / wide)];
  return [
    ...(i > 0 ? [k - 1] : []),
    ...(i + 1 < wide ? [k + 1] : []),
    ...(j > 0 ? [k - wide] : []),
    ...(j + 1 < high ? [k + wide] : []),
  ];
}

/** The pieces of a line that lie in an area. */
function within({ outline, holes }: LitArea, a: Point, b: Point): [Point, Point][] {
  const cuts = [outline, ...holes].flatMap((ring) =>
    ring.flatMap((p, i) => {
      const met = lineCrossing(a, b, p, ring[(i + 1) % ring.length]);
      return met !== null && met.t > 0 && met.t < 1 && met.u >= 0 && met.u <= 1 ? [met.t] : [];
    }),
  );
  const shares = [0, ...cuts.sort((one, other) => one - other), 1];
  return shares.slice(1).flatMap((to, i): [Point, Point][] => {
    const [p, q] = [pointAlong(a, b, shares[i]), pointAlong(a, b, to)];
    const m = middle(p, q);
    return contains(outline, m) && !holes.some((hole) => contains(hole, m)) ? [[p, q]] : [];
  });
}

/** The light over an area in steps, each clipped to it, and the iso lines between them. */
export function bandsOf(area: LitArea): Band[] {
  const { columns, rows, origin, across, up } = area.lattice;
  if (area.points.length === 0) return [];
  const [wide, high] = [columns + 2, rows + 2];
  // Values stand at the middles of cells; a border of one cell lies about them.
  const place = ([u, v]: readonly number[]): Point => [
    origin[0] + (u - 1) * across[0] + (v - 1) * up[0],
    origin[1] + (u - 1) * across[1] + (v - 1) * up[1],
  ];
  const edge = ([u, v]: readonly number[]): boolean =>
    u <= 0.5 + atEdge || v <= 0.5 + atEdge || u >= wide - 0.5 - atEdge || v >= high - 0.5 - atEdge;
  const own: Region = [{ outline: area.outline, holes: area.holes }];
  const made = contours().size([wide, high]).thresholds(levelsOf(area))(Array.from(wholeGrid(area)));
  return made.map(({ value, coordinates }): Band => {
    const shapes = coordinates.map(([outline, ...holes]) => ({
      outline: outline.slice(0, -1).map(place),
      holes: holes.map((hole) => hole.slice(0, -1).map(place)),
    }));
    const lines = coordinates.flat().flatMap((ring) =>
      ring.slice(1).flatMap((to, i): [Point, Point][] => {
        const from = ring[i];
        if (edge(from) && edge(to)) return [];
        return within(area, place(from), place(to));
      }),
    );
    return { lux: value, region: common(shapes, own), lines };
  });
}
