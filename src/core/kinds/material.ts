import * as v from 'valibot';
import type { ElementKind, Shapes } from './element';
import type { Field } from './kind';
import { finite, name } from './limits';

/** What things are made of: kg/m3, Pa, W/(m K). */
export interface Material {
  id: string;
  name: string;
  kind: 'concrete' | 'steel' | 'timber' | 'masonry' | 'other';
  density: number;
  youngsModulus: number;
  poissonsRatio: number;
  conductivity: number;
}

const concrete = { kind: 'concrete', density: 2500, poissonsRatio: 0.2, conductivity: 2.3 } as const;
const steel = { kind: 'steel', density: 7850, youngsModulus: 210e9, poissonsRatio: 0.3, conductivity: 50 } as const;
const timber = { kind: 'timber', poissonsRatio: 0.3, conductivity: 0.13 } as const;
const masonry = { kind: 'masonry', poissonsRatio: 0.2 } as const;

/**
 * Usual materials. Concrete: secant moduli of EN 1992-1-1 table 3.1, weight with bars of EN 1991-1-1 table A.1. Steel:
 * EN 1993-1-1, 3.2.6. Timber: mean moduli and densities of EN 338 and EN 14080. Masonry: EN 1996-1-1, 3.7.2, of usual
 * strengths. Conductivities: EN ISO 10456 table 3, masonry by its density.
 */
export const usualMaterials: readonly Material[] = [
  { id: 'C25/30', name: 'Concrete C25/30', ...concrete, youngsModulus: 31e9 },
  { id: 'C30/37', name: 'Concrete C30/37', ...concrete, youngsModulus: 33e9 },
  { id: 'C35/45', name: 'Concrete C35/45', ...concrete, youngsModulus: 34e9 },
  { id: 'C40/50', name: 'Concrete C40/50', ...concrete, youngsModulus: 35e9 },
  { id: 'S235', name: 'Steel S235', ...steel },
  { id: 'S355', name: 'Steel S355', ...steel },
  { id: 'C24', name: 'Timber C24', ...timber, density: 420, youngsModulus: 11e9 },
  { id: 'GL24h', name: 'Glued timber GL24h', ...timber, density: 420, youngsModulus: 11.5e9 },
  { id: 'brick', name: 'Brickwork', ...masonry, density: 1800, youngsModulus: 5e9, conductivity: 0.81 },
  { id: 'block', name: 'Lightweight blocks', ...masonry, density: 700, youngsModulus: 2e9, conductivity: 0.2 },
];

/** The id of a material, the project's own or a usual one; left out where the kind's is taken. */
export const materialId = v.optional(v.pipe(v.string(), v.minLength(1), v.maxLength(40)));

/** A project's own material, with the limits of what is one. */
export const ownMaterial = v.strictObject({
  id: v.pipe(v.string(), v.minLength(1), v.maxLength(40)),
  name,
  kind: v.picklist(['concrete', 'steel', 'timber', 'masonry', 'other']),
  density: v.pipe(finite, v.minValue(1), v.maxValue(25_000)),
  youngsModulus: v.pipe(finite, v.minValue(1e6), v.maxValue(1e13)),
  poissonsRatio: v.pipe(finite, v.minValue(0), v.maxValue(0.499)),
  conductivity: v.pipe(finite, v.minValue(0.001), v.maxValue(1000)),
});

/** Kinds that are made of something that carries. */
export const madeKinds = ['column', 'beam', 'wall', 'slab'] as const satisfies readonly ElementKind[];
export type MadeKind = (typeof madeKinds)[number];

/** The word for what is made of its kind's material. */
const ofKind = 'as its kind';

const nameOf = (id: string): string => usualMaterials.find((one) => one.id === id)?.name ?? id;

/** The field of an element's material: one of the usual ones, or what its kind has. */
export const materialField = <K extends MadeKind>(
  get: (shape: Shapes[K]) => string | undefined,
  set: (shape: Shapes[K], material: string | undefined) => Shapes[K],
): Field<K> => ({
  label: 'Material',
  kind: 'choice',
  options: [ofKind, ...usualMaterials.map((one) => one.name)],
  get: (shape) => {
    const id = get(shape);
    return id === undefined ? ofKind : nameOf(id);
  },
  set: (shape, word) => set(shape, usualMaterials.find((one) => one.name === word)?.id),
});
