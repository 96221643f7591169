import * as v from 'valibot';
import { arcSagitta, chordCount } from '@/core/geometry/bulge';
import { boxOf } from '@/core/geometry/boxIndex';
import { area } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { Field } from './kind';
import { point, positive } from './limits';

/**
 * A cross-section; the width runs along the rotated x, the depth along the rotated y, an outline about the position.
 * A hollow one has a `wall`, the thickness of its walls in metres; one without is solid.
 */
export type Section =
  | { shape: 'rectangle'; width: number; depth: number; wall?: number }
  | { shape: 'circle'; diameter: number; wall?: number }
  | { shape: 'polygon'; outline: Point[] };

const wall = v.optional(positive);
const solidWords = 'The walls of a hollow section are thinner than half of it.';

export const sectionSchema: v.GenericSchema<unknown, Section> = v.variant('shape', [
  v.pipe(
    v.strictObject({ shape: v.literal('rectangle'), width: positive, depth: positive, wall }),
    v.check(
      (section) => section.wall === undefined || 2 * section.wall < Math.min(section.width, section.depth),
      solidWords,
    ),
  ),
  v.pipe(
    v.strictObject({ shape: v.literal('circle'), diameter: positive, wall }),
    v.check((section) => section.wall === undefined || 2 * section.wall < section.diameter, solidWords),
  ),
  v.strictObject({
    shape: v.literal('polygon'),
    outline: v.pipe(v.array(point), v.minLength(3), v.maxLength(1000)),
  }),
]);

/** How much a section measures along its own x and y, metres. */
export function sectionSize(section: Section): { width: number; depth: number } {
  if (section.shape === 'rectangle') return section;
  if (section.shape === 'circle') return { width: section.diameter, depth: section.diameter };
  const [minX, minY, maxX, maxY] = boxOf(section.outline);
  return { width: maxX - minX, depth: maxY - minY };
}

/** The area of a section, without what is hollow, square metres. */
export function sectionArea(section: Section): number {
  if (section.shape === 'polygon') return Math.abs(area(section.outline));
  const of = (less: number): number =>
    section.shape === 'circle'
      ? (Math.PI / 4) * (section.diameter - less) ** 2
      : (section.width - less) * (section.depth - less);
  return of(0) - (section.wall === undefined ? 0 : of(2 * section.wall));
}

/** A section's size in words, in millimetres: "400 x 400", "round 450", "hollow 200 x 100, walls 8". */
export function sectionName(section: Section): string {
  const mm = (metres: number) => String(Number((metres * 1000).toFixed(1)));
  const { width, depth } = sectionSize(section);
  const across = `${mm(width)} \u00d7 ${mm(depth)}`;
  if (section.shape === 'polygon') return `${section.outline.length} corners, ${across}`;
  const outside = section.shape === 'circle' ? `\u2300 ${mm(width)}` : across;
  return section.wall === undefined ? outside : `hollow ${outside}, walls ${mm(section.wall)}`;
}

function rectangleAbout(width: number, depth: number): Point[] {
  const [x, y] = [width / 2, depth / 2];
  return [
    [-x, -y],
    [x, -y],
    [x, y],
    [-x, y],
  ];
}

/** Columns are small, and are told from polygons of few sides by at least this many. */
const fewestChords = 32;

function circleAbout(diameter: number): Point[] {
  const count = Math.max(fewestChords, chordCount(diameter / 2, 2 * Math.PI, arcSagitta));
  return Array.from({ length: count }, (_, i): Point => {
    const angle = (2 * Math.PI * i) / count;
    return [(diameter / 2) * Math.cos(angle), (diameter / 2) * Math.sin(angle)];
  });
}

/** The outlines of a section about its position: the outer one, and the inner one of a hollow section. */
export function sectionOutlines(section: Section): Point[][] {
  if (section.shape === 'polygon') return [section.outline];
  const of = (less: number): Point[] =>
    section.shape === 'circle'
      ? circleAbout(section.diameter - less)
      : rectangleAbout(section.width - less, section.depth - less);
  return section.wall === undefined ? [of(0)] : [of(0), of(2 * section.wall)];
}

/** A section scaled, and mirrored about its own x. */
export function scaleSection(section: Section, factor: number, mirrored: boolean): Section {
  if (section.shape === 'polygon') {
    const outline = section.outline.map(([x, y]): Point => [x * factor, (mirrored ? -y : y) * factor]);
    return { ...section, outline: mirrored ? outline.reverse() : outline };
  }
  const walls = section.wall === undefined ? {} : { wall: section.wall * factor };
  if (section.shape === 'circle') return { ...section, diameter: section.diameter * factor, ...walls };
  return { ...section, width: section.width * factor, depth: section.depth * factor, ...walls };
}

/** Outlines that can be typed; a polygon is drawn. */
const typedShapes = ['rectangle', 'circle'] as const;

/** A section of another outline, as wide as it was; a circle becomes a square. */
function reshaped(section: Section, shape: string): Section {
  if (section.shape === shape || section.shape === 'polygon') return section;
  const { width } = sectionSize(section);
  const walls = section.wall === undefined ? {} : { wall: section.wall };
  return shape === 'circle'
    ? { shape: 'circle', diameter: width, ...walls }
    : { shape: 'rectangle', width, depth: width, ...walls };
}

/** Sides smaller than this are typing slips, metres. */
const leastSide = 0.02;

/** The sides of a rectangle, or the diameter of a round section; a polygon is drawn, not typed. */
export function sectionFields<K extends 'column' | 'beam'>(section: Section): Field<K>[] {
  const side = (label: string, key: 'width' | 'depth' | 'diameter' | 'wall', least = leastSide): Field<K> => ({
    label,
    kind: 'length',
    least,
    get: (shape) => (shape.section as Partial<Record<typeof key, number>>)[key] ?? null,
    set: (shape, value) => ({ ...shape, section: { ...shape.section, [key]: value } }),
  });
  if (section.shape === 'polygon') return [];
  const outside =
    section.shape === 'circle' ? [side('Diameter', 'diameter')] : [side('Width', 'width'), side('Depth', 'depth')];
  const outline: Field<K> = {
    label: 'Outline',
    kind: 'choice',
    options: typedShapes,
    get: (shape) => shape.section.shape,
    set: (shape, value) => ({ ...shape, section: reshaped(shape.section, value) }),
  };
  return [...outside, outline, ...(section.wall === undefined ? [] : [side('Walls of the section', 'wall', 0.0005)])];
}
