import * as v from 'valibot';
import { finite, name, positive, textUpTo, uuid } from './limits';
import { sectionSchema } from './section';

const pane = v.pipe(finite, v.minValue(0), v.maxValue(1));
const layersOfConstruction = v.pipe(
  v.array(
    v.strictObject({
      name: textUpTo(120),
      thickness: positive,
      /** W/(m K). */ conductivity: v.nullable(v.pipe(finite, v.gtValue(0), v.maxValue(1000))),
      /** kg/m3. */ density: v.optional(v.pipe(finite, v.gtValue(0), v.maxValue(25_000))),
      /** J/(kg K). */ heatCapacity: v.optional(v.pipe(finite, v.gtValue(0), v.maxValue(10_000))),
    }),
  ),
  v.maxLength(40),
);

/** Photometric files are tens of kilobytes; one of half degrees all around has a few hundred. */
export const mostIes = 1_000_000;

/** A section, a construction or a photometric file of the project's library; U-values in W/(m2 K). */
export const libraryRow = v.variant('kind', [
  v.strictObject({ id: uuid, name, kind: v.literal('section'), section: sectionSchema }),
  v.strictObject({ id: uuid, name, kind: v.literal('wall'), thickness: positive, layers: layersOfConstruction }),
  v.strictObject({ id: uuid, name, kind: v.literal('slab'), thickness: positive, layers: layersOfConstruction }),
  v.strictObject({
    id: uuid,
    name,
    kind: v.literal('glazing'),
    uValue: v.pipe(finite, v.gtValue(0), v.maxValue(20)),
    gValue: pane,
    transmittance: pane,
  }),
  /** A photometric file as it came. */
  v.strictObject({ id: uuid, name, kind: v.literal('photometry'), ies: v.pipe(textUpTo(mostIes), v.minLength(1)) }),
]);

export type LibraryRow = v.InferOutput<typeof libraryRow>;
/** What elements are made of: entries with a size or with panes. */
export type MadeRow = Exclude<LibraryRow, { kind: 'photometry' }>;
