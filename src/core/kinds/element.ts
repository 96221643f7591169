import type { AreaLoad } from './areaLoad';
import type { Beam } from './beam';
import type { CalculationArea } from './calculationArea';
import type { Column } from './column';
import type { Contour } from './contour';
import type { GridLine } from './grid';
import type { LineLoad } from './lineLoad';
import type { Luminaire } from './luminaire';
import type { Opening } from './opening';
import type { Outdoor } from './outdoor';
import type { PointLoad } from './pointLoad';
import type { Roof } from './roof';
import type { Slab } from './slab';
import type { Support } from './support';
import type { Wall } from './wall';
import type { Zone } from './zone';

/** What an element of each kind is in itself. Lengths in metres, angles in degrees, in the project's coordinates. */
export interface Shapes {
  grid: GridLine;
  column: Column;
  beam: Beam;
  wall: Wall;
  opening: Opening;
  slab: Slab;
  zone: Zone;
  outdoor: Outdoor;
  roof: Roof;
  support: Support;
  pointLoad: PointLoad;
  lineLoad: LineLoad;
  areaLoad: AreaLoad;
  luminaire: Luminaire;
  calculationArea: CalculationArea;
  contour: Contour;
}

export type ElementKind = keyof Shapes;

/** The kinds that are read from drawings; the others are made by hand. */
export const readKinds = [
  'grid',
  'column',
  'beam',
  'wall',
  'opening',
  'slab',
  'zone',
  'outdoor',
  'luminaire',
  'contour',
] as const satisfies readonly ElementKind[];
export type ReadKind = (typeof readKinds)[number];

export const isReadKind = (kind: ElementKind): kind is ReadKind => readKinds.some((one) => one === kind);

export const elementKinds = [
  ...readKinds,
  'roof',
  'support',
  'pointLoad',
  'lineLoad',
  'areaLoad',
  'calculationArea',
] as const satisfies readonly ElementKind[];

/** The drawing and the entities of it, by their handles, that an element came from. */
export interface Source {
  drawing: string;
  handles: string[];
}

/** An accepted or hand-drawn part of the model, of one kind. */
export interface ElementOf<K extends ElementKind> {
  id: string;
  levelId: string | null;
  source: Source | null;
  /** The library's section or construction that its size comes from. */
  libraryId?: string | null;
  /** Checked by somebody: it stays as it is, there to snap to, until it is let go. */
  held?: true;
  kind: K;
  shape: Shapes[K];
}

export type ElementRow = { [K in ElementKind]: ElementOf<K> }[ElementKind];

/** A kind with a shape of it: what a candidate and an element have in common. */
export type Shaped = { [K in ElementKind]: { kind: K; shape: Shapes[K] } }[ElementKind];
