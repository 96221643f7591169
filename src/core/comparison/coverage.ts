import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, footOnLine, pointAlong, type Point } from '@/core/geometry/vector';
import type { ElementKind } from '@/core/kinds/element';
import type { GridLine } from '@/core/kinds/grid';
import { awayFromLine } from '@/core/kinds/lines';
import { awayFrom, kinds, outlinesOf, pointsOf } from '@/core/kinds/kinds';
import type { PlacedPath } from '@/core/placed/placed';
import type { Scene } from '@/core/reading/scene';
import { showsBuilding, roles, type Role } from '@/core/sorting/roles';
import type { Hosted } from './drift';
import { strokesOf } from './strokes';

/** How many metres of lines have a role on a layer, and how many of them some element accounts for. */
export interface Covered {
  role: Role;
  layer: string;
  drawn: number;
  covered: number;
}

export interface Coverage {
  rows: Covered[];
  /** The pieces that no element accounts for. */
  rest: [Point, Point][];
}

/** Kinds that account for the lines of a role by lying there: walls end at columns, and openings are cut into walls. */
const byPlace: Partial<Record<Role, readonly ElementKind[]>> = {
  column: ['column'],
  beam: ['beam', 'column', 'wall'],
  wall: ['wall', 'opening', 'column'],
  door: ['opening'],
  window: ['opening'],
  slab: ['slab', 'roof', 'wall'],
  slabOpening: ['slab'],
  zone: ['zone', 'wall', 'outdoor'],
  outdoor: ['outdoor', 'wall'],
};
/**
 * Kinds that account for all of a line that they were made of, wherever it lies: leaves of doors, bubbles of grid
 * lines. The others may be made of a part of a long line, so that only what lies at them counts.
 */
const bySource: ReadonlySet<ElementKind> = new Set(['grid', 'column', 'opening', 'zone', 'outdoor']);

/** Lines this near to an element are its own, metres: sizes are rounded, corners cut. */
const near = 0.03;
/** Lines are asked at points so far apart, metres, and each piece at no more than so many. */
const [apart, most] = [0.2, 200];

/** Whether a point lies on a grid line or beyond its ends, where its label stands. */
const onGridLine = (line: GridLine, p: Point): boolean =>
  line.kind === 'line' && distance(footOnLine(line.start, line.end, p), p) <= near;

/** Whether a point lies in an element or on its edge; of an area on its edge alone. */
function holds({ row, host }: Hosted, p: Point): boolean {
  if (row.kind === 'grid' && onGridLine(row.shape, p)) return true;
  if (row.kind === 'grid' || !kinds[row.kind].style.area || bandsAndPoints.has(row.kind))
    return awayFrom(row, p, host) <= near;
  return outlinesOf(row, host).some((ring) => awayFromLine([...ring, ring[0]], p) <= near);
}
const bandsAndPoints: ReadonlySet<ElementKind> = new Set(['column', 'beam', 'wall', 'opening']);

/** Held against each role: what was made of a line, and what lies about a point. */
function measure(hosted: readonly Hosted[], drawingId: string) {
  const made = new Set(
    hosted.flatMap(({ row: { kind, source } }) =>
      source?.drawing === drawingId && bySource.has(kind) ? source.handles : [],
    ),
  );
  const indices = new Map<Role, BoxIndex<Hosted>>();
  const indexOf = (role: Role): BoxIndex<Hosted> => {
    const known = indices.get(role);
    if (known !== undefined) return known;
    const kindsOf = byPlace[role] ?? [];
    const own = hosted.filter(({ row, host }) => kindsOf.includes(row.kind) && pointsOf(row, host).length > 0);
    const index = new BoxIndex(own, ({ row, host }) => boxOf(pointsOf(row, host), near));
    indices.set(role, index);
    return index;
  };
  // Grid lines go on beyond their ends, so that no box holds them; there are few.
  const grids = hosted.filter(({ row }) => row.kind === 'grid');
  const at = (role: Role, p: Point): readonly Hosted[] => (role === 'grid' ? grids : indexOf(role).around(p));
  return { made, about: (role: Role, p: Point) => at(role, p).some((one) => holds(one, p)) };
}

/** How much of the lines with a role the elements of their storey account for, by role and layer. */
export function coverageOf(scene: Scene, drawingId: string, hosted: readonly Hosted[]): Coverage {
  const { made, about } = measure(hosted, drawingId);
  const rows = new Map<string, Covered>();
  const rest: [Point, Point][] = [];
  const rowOf = (role: Role, layer: number): Covered => {
    const key = `${role} ${layer}`;
    const known = rows.get(key);
    if (known !== undefined) return known;
    const row: Covered = { role, layer: scene.drawing.layers[layer].name, drawn: 0, covered: 0 };
    rows.set(key, row);
    return row;
  };
  const weigh = (role: Role, path: PlacedPath) => {
    const row = rowOf(role, path.layer);
    // A ring belongs to the line that its middle lies on.
    const whole = made.has(path.handle) || (role === 'grid' && path.closed && about(role, middleOf(path)));
    for (const { a, b } of strokesOf(path)) {
      const [length, count] = [distance(a, b), countOf(distance(a, b))];
      for (let i = 0; i < count; i += 1) {
        const found = whole || about(role, pointAlong(a, b, (i + 0.5) / count));
        row.drawn += length / count;
        if (found) row.covered += length / count;
        else rest.push([pointAlong(a, b, i / count), pointAlong(a, b, (i + 1) / count)]);
      }
    }
  };
  for (const role of roles.filter(showsBuilding)) for (const path of scene.paths(role)) weigh(role, path);
  const told = [...rows.values()].sort((a, b) => roles.indexOf(a.role) - roles.indexOf(b.role) || b.drawn - a.drawn);
  return { rows: told, rest };
}

/** The middle of the box round a path, arcs as chords. */
function middleOf(path: PlacedPath): Point {
  const [x1, y1, x2, y2] = boxOf(strokesOf(path).flatMap(({ a, b }) => [a, b]));
  return [(x1 + x2) / 2, (y1 + y2) / 2];
}

const countOf = (length: number): number => Math.min(most, Math.max(1, Math.ceil(length / apart)));
