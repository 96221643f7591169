import type { GenericSchema } from 'valibot';
import type { Point } from '@/core/geometry/vector';
import type { Role } from '@/core/sorting/roles';
import type { ElementKind, Shapes } from './element';
import type { EvenMap } from './evenMap';
import type { Wall } from './wall';

/** A point of an element that can be dragged by itself; its name tells it from the others of the element. */
export interface Grip {
  name: string;
  at: Point;
}

/**
 * Something of an element that a person may put right: words, one of some, a length in metres, or a number with its
 * unit. Ends are of one element only, never of many at once.
 */
export type Field<K extends ElementKind> = { label: string; end?: true } & (
  | { kind: 'words'; get: (shape: Shapes[K]) => string; set: (shape: Shapes[K], value: string) => Shapes[K] }
  | {
      kind: 'choice';
      options: readonly string[];
      get: (shape: Shapes[K]) => string;
      set: (shape: Shapes[K], value: string) => Shapes[K];
    }
  | {
      kind: 'length';
      least: number;
      get: (shape: Shapes[K]) => number | null;
      set: (shape: Shapes[K], value: number) => Shapes[K];
    }
  | {
      kind: 'number';
      /** What it is typed and shown in; empty of a bare number. */
      unit: string;
      least: number;
      most: number;
      get: (shape: Shapes[K]) => number | null;
      set: (shape: Shapes[K], value: number) => Shapes[K];
    }
);

/** How a kind is drawn: areas are filled, lines are not; what has a lower place lies below. */
export interface DrawingStyle {
  area: boolean;
  place: number;
}

/**
 * Everything the program knows of a kind of element. `host` is the wall that an opening is in; it is null for every
 * other kind, and for an opening whose wall is not there.
 */
export interface Kind<K extends ElementKind> {
  kind: K;
  /** One and many. */
  names: readonly [one: string, many: string];
  /** The limits of a shape that comes from outside. */
  schema: GenericSchema<unknown, Shapes[K]>;
  /** The roles whose lines are this kind's to account for, and those that it is read from. */
  roles: { own: readonly Role[]; from: readonly Role[] };
  style: DrawingStyle;
  /** Outlines in plan, the outer one first, then holes; none of a line, or where there is no host to lie in. */
  outlines: (shape: Shapes[K], host: Wall | null) => Point[][];
  /** Points enough for a box round it; none where it has no place. */
  points: (shape: Shapes[K], host: Wall | null) => Point[];
  /** The point that it is looked for at; null where it has no place. */
  anchor: (shape: Shapes[K], host: Wall | null) => Point | null;
  /** The ends at which it meets others. */
  ends: (shape: Shapes[K]) => Point[];
  /** Metres from a point to it; zero on it, infinite where it is not to be hit from there. */
  away: (shape: Shapes[K], p: Point, host: Wall | null) => number;
  /** By how many pixels it stands back behind what lies just as near: small things come before large ones. */
  standsBack: number;
  grips: (shape: Shapes[K], host: Wall | null) => Grip[];
  /** The shape with one grip dragged to a point. */
  drag: (shape: Shapes[K], grip: string, to: Point, host: Wall | null) => Shapes[K];
  move: (shape: Shapes[K], map: EvenMap) => Shapes[K];
  /** What it is called in lists; empty where it has no name of its own. */
  name: (shape: Shapes[K]) => string;
  /** Its size in a few figures. */
  size: (shape: Shapes[K]) => string;
  /** What there is to say of it, in a sentence. */
  facts: (shape: Shapes[K]) => string;
  fields: (shape: Shapes[K]) => Field<K>[];
  /** What is wrong with the shape in itself, in sentences; none where it is sound. */
  checks: (shape: Shapes[K], host: Wall | null) => string[];
}
