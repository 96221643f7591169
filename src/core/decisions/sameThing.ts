import { area } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import type { Shaped } from '@/core/kinds/element';
import { millimetres } from '@/core/kinds/figures';
import { pointsOf, sizeWords } from '@/core/kinds/kinds';
import { sectionSize, type Section } from '@/core/kinds/section';

/** Middles closer than this are one place, metres. */
export const onePlace = 0.1;
/** Sizes further apart than this are not the same, metres. */
const sameSize = 0.005;
/** Areas further apart than this share are not the same. */
const sameArea = 0.02;

/** The middle of what something is drawn by; null where it is drawn by nothing. */
function middleOf(points: readonly Point[]): Point | null {
  if (points.length === 0) return null;
  const sum = points.reduce(([x, y], p): Point => [x + p[0], y + p[1]], [0, 0]);
  return [sum[0] / points.length, sum[1] / points.length];
}

export const placeOf = (thing: Shaped): Point | null => middleOf(pointsOf(thing));

/** Width and depth in the plan's own directions, where a section is turned by a quarter or not. */
function sizeInPlan(section: Section, rotation: number): [number, number] {
  const { width, depth } = sectionSize(section);
  return Math.round(rotation / 90) % 2 === 0 ? [width, depth] : [depth, width];
}

const near = (a: readonly number[], b: readonly number[]): boolean =>
  a.every((value, i) => Math.abs(value - b[i]) <= sameSize);

/** Whether two things of one kind in one place have one size. */
function oneSize(a: Shaped, b: Shaped): boolean {
  if (a.kind === 'column' && b.kind === 'column') {
    const [one, other] = [a, b].map(({ shape }) => sizeInPlan(shape.section, shape.rotation));
    return near(one, other);
  }
  if (a.kind === 'beam' && b.kind === 'beam') {
    const [one, other] = [a, b].map(({ shape }) => sectionSize(shape.section));
    return near([one.width, one.depth], [other.width, other.depth]);
  }
  if (a.kind === 'wall' && b.kind === 'wall') return near([a.shape.thickness], [b.shape.thickness]);
  if (a.kind === 'opening' && b.kind === 'opening')
    return a.shape.use === b.shape.use && near([a.shape.width], [b.shape.width]);
  if (a.kind === 'zone' && b.kind === 'zone')
    return a.shape.number === b.shape.number && Math.abs(area(a.shape.outline) / area(b.shape.outline) - 1) <= sameArea;
  if (a.kind === 'slab' && b.kind === 'slab') return near([a.shape.thickness], [b.shape.thickness]);
  return true;
}

/** The size of the second of two things in one place, in words, where it has another one than the first. */
export function otherSize(a: Shaped, b: Shaped): string | null {
  if (oneSize(a, b)) return null;
  // Walls may be parted differently: their lengths say nothing.
  return b.kind === 'wall' ? millimetres(b.shape.thickness) : sizeWords(b);
}

/** Whether the places of two things are one. */
export const together = (a: Point, b: Point): boolean => distance(a, b) < onePlace;
