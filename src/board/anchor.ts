import { centroid } from '@/core/geometry/polygon';
import { direction, radians, type Point } from '@/core/geometry/vector';
import { wallLine } from '@/core/model/outlines';
import type { Candidate } from '@/core/reading/candidate';

/** The point a candidate is looked for at. */
export function anchorOf(candidate: Candidate): Point {
  switch (candidate.kind) {
    case 'column':
      return candidate.element.position;
    case 'opening':
      return candidate.at;
    case 'wall': {
      const line = wallLine(candidate.element);
      return line.length === 2 ? middle(line[0], line[1]) : line[line.length >> 1];
    }
    case 'beam':
      return middle(candidate.element.start, candidate.element.end);
    case 'grid': {
      const line = candidate.element;
      if (line.kind === 'line') return middle(line.start, line.end);
      const [c, s] = direction(radians((line.startAngle + line.endAngle) / 2));
      return [line.centre[0] + line.radius * c, line.centre[1] + line.radius * s];
    }
    default:
      return centroid(candidate.element.outline);
  }
}

const middle = (a: Point, b: Point): Point => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
