import { groupBy } from '@/core/groupBy';
import { area, pointWithin } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { ringsOf, type Area } from '@/core/kinds/areas';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import { defaultTolerance } from '@/core/tolerance';
import { regionsOn } from './making/rooms';
import { soundEdit } from './refusals';

/** A point inside of an area and outside of its holes. */
export const pointInside = (shape: Area): Point => pointWithin(ringsOf(shape));

/** Areas closer than this are one, square metres. */
const sameArea = 1e-6;

/** Whether two areas are one: as large, with corners in the same places. */
function sameAreas(a: Area, b: Area): boolean {
  const [p, q] = [ringsOf(a), ringsOf(b)];
  return (
    p.length === q.length &&
    p.every((ring, i) => Math.abs(Math.abs(area(ring)) - Math.abs(area(q[i]))) < sameArea) &&
    p[0].every((corner) => q[0].some((other) => distance(corner, other) < defaultTolerance.coincidence))
  );
}

/** Puts zones to the walls that are about them now; those that no walls bound stay as they are. */
export function fitZones(model: Model, ids: Iterable<string>, gap: number): Result<Edit> {
  const zones = [...ids].flatMap((id): ElementOf<'zone'>[] => {
    const element = model.element[id];
    return element?.kind === 'zone' ? [element] : [];
  });
  if (zones.length === 0) return fail('No zone is selected.');
  let open = 0;
  const rows: ElementRow[] = [];
  for (const [levelId, own] of groupBy(zones, (zone) => zone.levelId)) {
    const find = regionsOn(model, levelId, gap);
    for (const zone of own) {
      const found = find(pointInside(zone.shape));
      if (found.kind !== 'region') open += 1;
      else if (!sameAreas(found.region, zone.shape)) rows.push({ ...zone, shape: { ...zone.shape, ...found.region } });
    }
  }
  if (rows.length > 0)
    return soundEdit(model, `Fit ${rows.length === 1 ? 'a zone' : `${rows.length} zones`} to walls`, rows);
  return fail(
    open === 0
      ? 'The zones fit their walls already.'
      : `The walls about ${open === 1 ? 'the zone' : `${open} zones`} leave gaps: close them, or allow larger gaps at Make under Zone.`,
  );
}
