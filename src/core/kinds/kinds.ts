import { boxOf, type Box } from '@/core/geometry/boxIndex';
import type { Transform } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { areaLoad } from './areaLoad';
import { beam } from './beam';
import { calculationArea } from './calculationArea';
import { column } from './column';
import { contour } from './contour';
import type { ElementKind, ElementRow, Shaped, Shapes } from './element';
import { evenMap } from './evenMap';
import { grid } from './grid';
import type { Grip, Kind } from './kind';
import { lineLoad } from './lineLoad';
import { luminaire } from './luminaire';
import { opening } from './opening';
import { outdoor } from './outdoor';
import { pointLoad } from './pointLoad';
import { roof } from './roof';
import { slab } from './slab';
import { support } from './support';
import { wall, type Wall } from './wall';
import { zone } from './zone';

/**
 * What the program knows of each kind. A kind that lacks a part does not compile, nor does a registry that lacks a
 * kind.
 */
export const kinds: { readonly [K in ElementKind]: Kind<K> } = {
  grid,
  column,
  beam,
  wall,
  opening,
  slab,
  zone,
  outdoor,
  roof,
  support,
  pointLoad,
  lineLoad,
  areaLoad,
  contour,
  luminaire,
  calculationArea,
};

/** The kinds from what lies lowest on the board to what lies on top. */
export const kindsUp: readonly ElementKind[] = Object.values(kinds)
  .sort((a, b) => a.style.place - b.style.place)
  .map(({ kind }) => kind);

/** What is known of a kind, for a shape of that kind. */
const known = <K extends ElementKind>(kind: K): Kind<K> => kinds[kind];

/** The functions of a kind on something of that kind; the kind and the shape of it always belong together. */
export function outlinesOf<K extends ElementKind>(
  of: { kind: K; shape: Shapes[K] },
  host: Wall | null = null,
): Point[][] {
  return known(of.kind).outlines(of.shape, host);
}

export function pointsOf<K extends ElementKind>(of: { kind: K; shape: Shapes[K] }, host: Wall | null = null): Point[] {
  return known(of.kind).points(of.shape, host);
}

export function anchorOf<K extends ElementKind>(
  of: { kind: K; shape: Shapes[K] },
  host: Wall | null = null,
): Point | null {
  return known(of.kind).anchor(of.shape, host);
}

/** What something is called; empty where it has no name of its own. */
export function nameWords<K extends ElementKind>(of: { kind: K; shape: Shapes[K] }): string {
  return known(of.kind).name(of.shape);
}

/** The size of something in a few figures. */
export function sizeWords<K extends ElementKind>(of: { kind: K; shape: Shapes[K] }): string {
  return known(of.kind).size(of.shape);
}

/** Metres from a point to something of a kind; zero on it. */
export function awayFrom<K extends ElementKind>(
  of: { kind: K; shape: Shapes[K] },
  p: Point,
  host: Wall | null,
): number {
  return known(of.kind).away(of.shape, p, host);
}

/** The points of something of a kind that can be dragged by themselves. */
export function gripsOf<K extends ElementKind>(of: { kind: K; shape: Shapes[K] }, host: Wall | null): Grip[] {
  return known(of.kind).grips(of.shape, host);
}

/** What is wrong with something of a kind in itself, in sentences. */
export function checksOf<K extends ElementKind>(of: { kind: K; shape: Shapes[K] }, host: Wall | null): string[] {
  return known(of.kind).checks(of.shape, host);
}

/** The ends at which something of a kind meets others. */
export function endsOf<K extends ElementKind>(of: { kind: K; shape: Shapes[K] }): Point[] {
  return known(of.kind).ends(of.shape);
}

/** Something of a kind with one of its grips dragged to a point. */
export function draggedBy<K extends ElementKind>(
  of: { kind: K; shape: Shapes[K] },
  grip: string,
  to: Point,
  host: Wall | null,
): Shapes[K] {
  return known(of.kind).drag(of.shape, grip, to, host);
}

/** The box round an element in plan; null where it has no place. */
export function boxOfElement<K extends ElementKind>(
  of: { kind: K; shape: Shapes[K] },
  host: Wall | null = null,
): Box | null {
  const points = pointsOf(of, host);
  return points.length === 0 ? null : boxOf(points);
}

function moved<K extends ElementKind>(kind: K, shape: Shapes[K], map: ReturnType<typeof evenMap>): Shapes[K] {
  return known(kind).move(shape, map);
}

/** An element carried by a map that turns, shifts, mirrors and scales evenly. */
export function moveElement(element: ElementRow, map: Transform): ElementRow {
  const even = evenMap(map);
  return withShape(element, moved(element.kind, element.shape, even));
}

/** An element with another shape of its own kind. */
export function withShape<E extends Shaped>(element: E, shape: E['shape']): E {
  return { ...element, shape };
}
