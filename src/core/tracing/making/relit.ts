import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { ElementOf } from '@/core/kinds/element';
import { put, remove, type Edit } from '@/core/model/edits';
import { counted } from '@/core/model/counted';
import type { Model } from '@/core/model/model';

/** A field of one luminaire: where each hangs, turned by degrees, metres above the level. */
export interface LuminaireField {
  places: readonly Point[];
  rotation: number;
  rise: number;
  photometry: string;
}

/** The luminaires that hang over a zone. */
export function luminairesIn(model: Model, { levelId, shape }: ElementOf<'zone'>): ElementOf<'luminaire'>[] {
  const within = ([x, y]: Point): boolean =>
    contains(shape.outline, [x, y]) && !shape.holes.some((hole) => contains(hole, [x, y]));
  return [...model.ofKind('luminaire')].filter((one) => one.levelId === levelId && within(one.shape.position));
}

/** Hangs a field of luminaires in a zone, in the place of those that hang there. @param newId gives a fresh UUID */
export function relit(
  model: Model,
  zone: ElementOf<'zone'>,
  { places, rotation, rise, photometry }: LuminaireField,
  newId: () => string,
): Edit {
  const made = places.map((position) => {
    const shape = { position, rise, rotation, tilt: 0, photometry, output: 1 };
    return put('element', { id: newId(), levelId: zone.levelId, source: null, kind: 'luminaire', shape });
  });
  const gone = luminairesIn(model, zone).map(({ id }) => remove('element', id));
  return {
    label: `Light ${zone.shape.name || zone.shape.number || 'a room'} by ${counted(places.length, 'luminaire')}`,
    changes: [...gone, ...made],
  };
}
