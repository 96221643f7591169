import * as v from 'valibot';
import { coordinate, drawnName, finite, inRadians, name, positive, uuid } from '@/core/kinds/limits';

const camera = v.strictObject({ x: coordinate, y: coordinate, metresPerPixel: positive });
const orbit = v.strictObject({
  turn: inRadians,
  tilt: inRadians,
  x: coordinate,
  y: coordinate,
  z: coordinate,
  metresPerPixel: positive,
});

/**
 * What is looked at, and how. Ids of what has gone meanwhile are left out when it is looked at again; what is null is
 * left as it is.
 */
export const lookSchema = v.strictObject({
  levelId: v.nullable(uuid),
  /** The upright drawing that is seen face on. */
  faceOn: v.nullable(uuid),
  camera: v.nullable(camera),
  /** The drawings that are seen; null is all. */
  drawings: v.nullable(v.pipe(v.array(uuid), v.maxLength(1000))),
  /** Layers seen alone. */
  isolated: v.pipe(
    v.array(v.strictObject({ drawing: uuid, layers: v.pipe(v.array(drawnName), v.maxLength(1000)) })),
    v.maxLength(1000),
  ),
  /** The drawing in the second view. */
  beside: v.nullable(uuid),
  inSpace: v.boolean(),
  orbit: v.nullable(orbit),
  space: v.strictObject({
    alone: v.boolean(),
    cut: v.nullable(finite),
    through: v.boolean(),
    axes: v.boolean(),
  }),
});
export type Look = v.InferOutput<typeof lookSchema>;

/** A look that has a name, shared in the project; a letter recalls it. */
export const viewRow = v.strictObject({
  id: uuid,
  name,
  key: v.nullable(v.pipe(v.string(), v.regex(/^[a-z]$/, 'The key of a view is a small letter.'))),
  look: lookSchema,
});
export type ViewRow = v.InferOutput<typeof viewRow>;
