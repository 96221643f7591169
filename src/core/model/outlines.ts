import { arcOfBulge, pointOnArc } from '@/core/geometry/bulge';
import { direction, radians, type Point } from '@/core/geometry/vector';
import {
  columnOutline,
  type Beam,
  type ElementKind,
  type ElementRow,
  type Opening,
  type Shapes,
  type Wall,
} from './elements';

/** The centre line of a wall as points: its ends, or chords of its arc. */
export function wallLine({ start, end, bulge }: Wall): Point[] {
  if (bulge === 0) return [start, end];
  const arc = arcOfBulge(start, end, bulge);
  const chords = Math.max(2, Math.ceil((Math.abs(arc.sweep) / Math.PI) * 24));
  return Array.from({ length: chords + 1 }, (_, i) =>
    i === 0 ? start : i === chords ? end : pointOnArc(arc, i / chords),
  );
}

/** A band about a line of points, as an outline. */
export function bandOutline(line: readonly Point[], width: number): Point[] {
  const side = (by: number): Point[] =>
    line.map((p, i) => {
      const [a, b] = [line[Math.max(0, i - 1)], line[Math.min(line.length - 1, i + 1)]];
      const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
      return [p[0] - ((b[1] - a[1]) / length) * by, p[1] + ((b[0] - a[0]) / length) * by];
    });
  return [...side(width / 2), ...side(-width / 2).reverse()];
}

/** The outline of an opening across its wall. */
export function openingOutline({ offset, width }: Pick<Opening, 'offset' | 'width'>, wall: Wall): Point[] {
  if (wall.bulge !== 0) {
    // Along the arc of the centre line, in chords.
    const arc = arcOfBulge(wall.start, wall.end, wall.bulge);
    const whole = Math.abs(arc.sweep) * arc.radius;
    return bandOutline(
      Array.from({ length: 7 }, (_, i) => pointOnArc(arc, (offset + (width * i) / 6) / whole)),
      wall.thickness,
    );
  }
  const length = Math.hypot(wall.end[0] - wall.start[0], wall.end[1] - wall.start[1]) || 1;
  const at = (along: number): Point => [
    wall.start[0] + ((wall.end[0] - wall.start[0]) * along) / length,
    wall.start[1] + ((wall.end[1] - wall.start[1]) * along) / length,
  ];
  return bandOutline([at(offset), at(offset + width)], wall.thickness);
}

/** The middle of a beam's width: its line, or beside it where that is one of its sides. */
function middleOfBeam(beam: Beam): [Point, Point] {
  const { start, end, justification } = beam;
  const length = Math.hypot(end[0] - start[0], end[1] - start[1]);
  // A line on the left side has the beam to its right.
  const by = justification === 'left' ? -beamWidth(beam) / 2 : justification === 'right' ? beamWidth(beam) / 2 : 0;
  if (by === 0 || length === 0) return [start, end];
  const [nx, ny] = [(-(end[1] - start[1]) / length) * by, ((end[0] - start[0]) / length) * by];
  return [
    [start[0] + nx, start[1] + ny],
    [end[0] + nx, end[1] + ny],
  ];
}

const beamWidth = ({ section }: Beam): number =>
  section.shape === 'rectangle' ? section.width : section.shape === 'circle' ? section.diameter : 0.3;

/** The outlines of an element in plan; none of a grid line, whose shape is no area. */
export function outlinesOf<K extends ElementKind>(kind: K, shape: Shapes[K], wall: Wall | null = null): Point[][] {
  switch (kind) {
    case 'grid':
      return [];
    case 'column':
      return [columnOutline(shape as Shapes['column'])];
    case 'beam': {
      const beam = shape as Beam;
      return [bandOutline(middleOfBeam(beam), beamWidth(beam))];
    }
    case 'wall':
      return [bandOutline(wallLine(shape as Wall), (shape as Wall).thickness)];
    case 'opening':
      return wall === null ? [] : [openingOutline(shape as Opening, wall)];
    case 'slab':
    case 'zone': {
      const { outline, holes } = shape as Shapes['slab'] | Shapes['zone'];
      return [outline, ...holes];
    }
    default:
      return [(shape as Shapes['outdoor']).outline];
  }
}

/** Some points of an element, enough for a box round it. */
export function pointsOf({ kind, shape }: Pick<ElementRow, 'kind' | 'shape'>): Point[] {
  if (kind !== 'grid') return outlinesOf(kind, shape as never).flat();
  const line = shape as Shapes['grid'];
  if (line.kind === 'line') return [line.start, line.end];
  return [line.startAngle, (line.startAngle + line.endAngle) / 2, line.endAngle].map((angle) => {
    const [c, s] = direction(radians(angle));
    return [line.centre[0] + line.radius * c, line.centre[1] + line.radius * s];
  });
}
