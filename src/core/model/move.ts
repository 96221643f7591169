import { apply, determinant, evenScale, turnDirection, type Transform } from '@/core/geometry/transform';
import { degrees, type Point } from '@/core/geometry/vector';
import type { ElementRow, GridLine, Section } from './elements';

/** An element carried by a map that turns, shifts, mirrors and scales evenly. */
export function moveElement(element: ElementRow, map: Transform): ElementRow {
  const factor = evenScale(map);
  if (factor === null) throw new Error('An element can only be carried by a map that keeps angles');
  const mirrored = determinant(map) < 0;
  const at = (p: Point): Point => apply(map, p);
  const turned = (angle: number): number => {
    const turn = degrees(turnDirection(map, 0));
    return mirrored ? turn - angle : turn + angle;
  };
  const ring = (points: readonly Point[]): Point[] => {
    const moved = points.map(at);
    return mirrored ? moved.reverse() : moved;
  };
  switch (element.kind) {
    case 'grid':
      return { ...element, shape: moveGridLine(element.shape, at, turned, factor, mirrored) };
    case 'column': {
      const { position, rotation, section, mark } = element.shape;
      return {
        ...element,
        shape: {
          position: at(position),
          rotation: turned(rotation),
          section: scaleSection(section, factor, mirrored),
          mark,
        },
      };
    }
    case 'beam':
      return {
        ...element,
        shape: {
          ...element.shape,
          ...(mirrored && element.shape.justification ? { justification: otherSide[element.shape.justification] } : {}),
          start: at(element.shape.start),
          end: at(element.shape.end),
          section: scaleSection(element.shape.section, factor, mirrored),
        },
      };
    case 'wall':
      return {
        ...element,
        shape: {
          ...element.shape,
          start: at(element.shape.start),
          end: at(element.shape.end),
          thickness: element.shape.thickness * factor,
          bulge: mirrored ? -element.shape.bulge : element.shape.bulge,
        },
      };
    case 'opening':
      return {
        ...element,
        shape: { ...element.shape, offset: element.shape.offset * factor, width: element.shape.width * factor },
      };
    case 'slab':
    case 'zone':
      return {
        ...element,
        shape: { ...element.shape, outline: ring(element.shape.outline), holes: element.shape.holes.map(ring) },
      } as ElementRow;
    default:
      return { ...element, shape: { ...element.shape, outline: ring(element.shape.outline) } };
  }
}

/** Left and right change places in a mirror. */
const otherSide = { left: 'right', right: 'left', centre: 'centre' } as const;

function moveGridLine(
  line: GridLine,
  at: (p: Point) => Point,
  turned: (angle: number) => number,
  factor: number,
  mirrored: boolean,
): GridLine {
  if (line.kind === 'line') return { ...line, start: at(line.start), end: at(line.end) };
  // A mirrored arc runs the other way round.
  const [from, to] = mirrored ? [line.endAngle, line.startAngle] : [line.startAngle, line.endAngle];
  return {
    ...line,
    centre: at(line.centre),
    radius: line.radius * factor,
    startAngle: turned(from),
    endAngle: turned(to),
  };
}

function scaleSection(section: Section, factor: number, mirrored: boolean): Section {
  if (section.shape === 'rectangle')
    return { ...section, width: section.width * factor, depth: section.depth * factor };
  if (section.shape === 'circle') return { ...section, diameter: section.diameter * factor };
  const outline = section.outline.map(([x, y]): Point => [x * factor, (mirrored ? -y : y) * factor]);
  return { ...section, outline: mirrored ? outline.reverse() : outline };
}
