import * as v from 'valibot';
import { contains } from '@/core/geometry/polygon';
import { radians, type Point } from '@/core/geometry/vector';
import { coordinates, words } from './fields';
import type { Kind } from './kind';
import { inDegrees, label, point } from './limits';
import { awayFromLine } from './lines';
import { materialField, materialId } from './material';
import { scaleSection, sectionFields, sectionName, sectionOutlines, sectionSchema, type Section } from './section';
import { standingTies, type StandingTies } from './tie';

/** A column by its position in plan; the rotation of its section in degrees, counter-clockwise. */
export interface Column {
  position: Point;
  rotation: number;
  section: Section;
  mark: string;
  /** Left out where its kind's is taken. */
  material?: string;
  ties?: StandingTies;
}

/** The outlines of a column in the project's coordinates: the outer one, and the inner one of a hollow section. */
export function columnOutlines({ position, rotation, section }: Column): Point[][] {
  const [c, s] = [Math.cos(radians(rotation)), Math.sin(radians(rotation))];
  const placed = ([x, y]: Point): Point => [position[0] + c * x - s * y, position[1] + s * x + c * y];
  return sectionOutlines(section).map((outline) => outline.map(placed));
}

/** The corners of a column's outer outline. */
export const columnOutline = (column: Column): Point[] => columnOutlines(column)[0];

export const column: Kind<'column'> = {
  kind: 'column',
  names: ['column', 'columns'],
  schema: v.strictObject({
    position: point,
    rotation: inDegrees,
    section: sectionSchema,
    mark: label,
    material: materialId,
    ties: standingTies,
  }),
  roles: { own: ['column'], from: ['column'] },
  style: { area: true, place: 7 },
  outlines: columnOutlines,
  points: columnOutline,
  anchor: ({ position }) => position,
  ends: ({ position }) => [position],
  away(shape, p) {
    const outline = columnOutline(shape);
    return contains(outline, p) ? 0 : awayFromLine([...outline, outline[0]], p);
  },
  standsBack: 0,
  grips: ({ position }) => [{ name: 'position', at: position }],
  drag: (shape, _, to) => ({ ...shape, position: to }),
  move: ({ position, rotation, section, ...rest }, { at, turned, factor, mirrored }) => ({
    ...rest,
    position: at(position),
    rotation: turned(rotation),
    section: scaleSection(section, factor, mirrored),
  }),
  name: ({ mark }) => mark,
  size: ({ section }) => sectionName(section),
  facts: () => '',
  fields: ({ section }) => [
    ...sectionFields<'column'>(section),
    words<'column'>('Mark', 'mark'),
    materialField<'column'>(
      ({ material }) => material,
      (shape, material) => ({ ...shape, material }),
    ),
    ...coordinates<'column'>(
      'Middle',
      ({ position }) => position,
      (shape, position) => ({ ...shape, position }),
    ),
  ],
  checks: () => [],
};
