import { arcSagitta, arcOfBulge, chordCount, pointOnArc } from '@/core/geometry/bulge';
import { bulgeThrough } from '@/core/geometry/offsetPath';
import { distance, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { ringsOf } from '@/core/kinds/areas';
import { draggedBy, gripsOf, withShape } from '@/core/kinds/kinds';
import { awayFromLine } from '@/core/kinds/lines';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import type { Joints } from './carried';
import { relined } from './reach';
import { soundEdit } from './refusals';
import { lineOf, withLine } from './restrung';

type Rings = readonly (readonly Point[])[];

/** The outlines of an area, the outer one first; null of what is none. */
const outlinesOf = ({ shape }: ElementRow): Rings | null => ('outline' in shape ? ringsOf(shape) : null);

/** An area with other outlines. */
function withRings(element: ElementRow, rings: Rings): ElementRow {
  const [outline, ...holes] = rings.map((ring) => [...ring]);
  const next = 'holes' in element.shape ? { ...element.shape, outline, holes } : { ...element.shape, outline };
  return withShape(element, next as ElementRow['shape']);
}

/** The place of an outline's edge that is nearest to a point: which ring, and after which corner. */
export function edgeNear(element: ElementRow, p: Point): { ring: number; corner: number; away: number } | null {
  let best: { ring: number; corner: number; away: number } | null = null;
  for (const [ring, points] of (outlinesOf(element) ?? []).entries())
    for (const [corner, a] of points.entries()) {
      const away = awayFromLine([a, points[(corner + 1) % points.length]], p);
      if (best === null || away < best.away) best = { ring, corner, away };
    }
  return best;
}

const noOutline = 'That has no outline: slabs, zones and outdoor surfaces have.';

/** Adds a corner to the nearest edge of an outline, at a point. */
export function addCorner(model: Model, id: string, at: Point): Result<Edit> {
  const element = model.element[id];
  const rings = element && outlinesOf(element);
  const edge = element && edgeNear(element, at);
  if (!rings || !edge) return fail(noOutline);
  const next = rings.map((ring, r) =>
    r === edge.ring ? [...ring.slice(0, edge.corner + 1), at, ...ring.slice(edge.corner + 1)] : ring,
  );
  return soundEdit(model, 'Add a corner', [withRings(element, next)]);
}

/** Takes the corner of an outline away that is nearest to a point. */
export function removeCorner(model: Model, id: string, at: Point): Result<Edit> {
  const element = model.element[id];
  const rings = element && outlinesOf(element);
  if (!rings) return fail(noOutline);
  const places = rings.flatMap((ring, r) => ring.map((p, i) => ({ r, i, away: distance(p, at) })));
  const { r, i } = places.sort((a, b) => a.away - b.away)[0];
  if (rings[r].length <= 3) return fail('An outline keeps at least three corners.');
  const next = rings.map((ring, n) => (n === r ? ring.filter((_, k) => k !== i) : ring));
  return soundEdit(model, 'Remove a corner', [withRings(element, next)]);
}

/** Bends a wall, or the nearest edge of an outline, to an arc through a point; on the straight line it is straight. */
export function bendEdge(model: Model, id: string, through: Point): Result<Edit> {
  const element = model.element[id];
  if (element?.kind === 'wall') {
    const { start, end } = element.shape;
    const row = withLine(element, { start, end, bulge: bulgeThrough(start, end, through) });
    return soundEdit(model, 'Bend a wall', relined(model, [row]));
  }
  const rings = element && outlinesOf(element);
  const edge = element && edgeNear(element, through);
  if (!rings || !edge) return fail('Walls, and edges of slabs, zones and outdoor surfaces can be bent.');
  const ring = rings[edge.ring];
  const [a, b] = [ring[edge.corner], ring[(edge.corner + 1) % ring.length]];
  const between = arcBetween(a, b, bulgeThrough(a, b, through));
  const next = rings.map((points, r) =>
    r === edge.ring ? [...points.slice(0, edge.corner + 1), ...between, ...points.slice(edge.corner + 1)] : points,
  );
  return soundEdit(model, 'Bend an edge', [withRings(element, next)]);
}

/** The points of an arc between its ends; none where it is straight. */
export function arcBetween(a: Point, b: Point, bulge: number): Point[] {
  if (bulge === 0) return [];
  const arc = arcOfBulge(a, b, bulge);
  const chords = Math.max(2, chordCount(arc.radius, arc.sweep, arcSagitta));
  return Array.from({ length: chords - 1 }, (_, i) => pointOnArc(arc, (i + 1) / chords));
}

/**
 * An element with one grip dragged to a point; ends of others at the same node go with it, unless torn.
 * A grip that carries the whole line is a move.
 */
export function gripped(model: Model, id: string, grip: string, to: Point, joints: Joints): ElementRow[] {
  const element = model.element[id];
  if (element === undefined) return [];
  const host = model.index.hostOf(element);
  const from = gripsOf(element, host).find(({ name }) => name === grip)?.at;
  const own = withShape(element, draggedBy(element, grip, to, host));
  const others = from && joints === 'joined' && element.kind !== 'opening' ? atNode(model, element, from, to) : [];
  return relined(model, [own, ...others]);
}

/** What else ends at a node, with that end elsewhere. Columns stay: a beam's end is pulled off them. */
function atNode(model: Model, element: ElementRow, from: Point, to: Point): ElementRow[] {
  return [...model.index.endingAt(element.levelId, from)].flatMap((other): ElementRow[] => {
    const line = lineOf(other);
    if (other.id === element.id || line === null) return [];
    const at = (p: Point): Point => (p[0] === from[0] && p[1] === from[1] ? to : p);
    return [withLine(other, { ...line, start: at(line.start), end: at(line.end) })];
  });
}

/** Drags a grip of an element. */
export function dragGrip(model: Model, id: string, grip: string, to: Point, joints: Joints = 'joined'): Result<Edit> {
  const rows = gripped(model, id, grip, to, joints);
  if (rows.length === 0) return fail('It is not there any more.');
  return soundEdit(model, `Change a ${rows[0].kind === 'grid' ? 'grid line' : rows[0].kind}`, rows);
}
