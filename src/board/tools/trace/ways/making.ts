import { arcBetween } from '@/core/tracing/corners';
import { distance, type Point } from '@/core/geometry/vector';
import type { ElementKind, ElementOf, Shaped } from '@/core/kinds/element';
import type { Edit } from '@/core/model/edits';
import { ok, type Result } from '@/core/result';
import { makeElements } from '@/core/tracing/making/made';
import type { Given, Seeks, Way } from '../way';

/** The shapes that a way makes of what is given; a sentence where it cannot. */
export type Shapes = (given: Given) => Result<Shaped[]>;

const seekPoints = (): Seeks => 'points';

/** A way that makes elements. */
export const making = (
  prompt: Way['prompt'],
  points: Way['points'],
  shapes: Shapes,
  more: Partial<Pick<Way, 'seeks' | 'closes' | 'bends' | 'box' | 'length' | 'settle' | 'about' | 'leak'>> = {},
): Way => ({
  prompt,
  points,
  seeks: seekPoints,
  ...more,
  preview(given) {
    const made = shapes(given);
    return made.ok ? made.value : [];
  },
  edit(given): Result<Edit> {
    const made = shapes(given);
    return made.ok ? makeElements(given.model, made.value, given) : made;
  },
});

/** What is asked for at each point, the last again and again. */
export const prompts =
  (...words: string[]): Way['prompt'] =>
  (count) =>
    words[Math.min(count, words.length - 1)];

/** Looks for elements of some kinds from the first click on. */
export const seekElements =
  (...elements: ElementKind[]) =>
  (): Seeks => ({ elements });

/** The corners of an outline, with arcs as chords; two corners make a rectangle along the axes. */
export function outlineOf(given: Given): Point[] {
  const points = given.points.map(({ at }) => at);
  if (points.length === 2 && given.bulges.every((bulge) => bulge === 0)) return rectangle(points[0], points[1], given);
  return points.flatMap((p, i) => {
    const next = points[(i + 1) % points.length];
    return [p, ...arcBetween(p, next, given.bulges[i] ?? 0)];
  });
}

/** A rectangle along the working axes by two opposite corners. */
function rectangle([x1, y1]: Point, [x2, y2]: Point, { axes }: Given): Point[] {
  const [c, s] = [Math.cos(axes.angle), Math.sin(axes.angle)];
  const along = (x2 - x1) * c + (y2 - y1) * s;
  return [
    [x1, y1],
    [x1 + along * c, y1 + along * s],
    [x2, y2],
    [x2 - along * c, y2 - along * s],
  ];
}

/** One shape of a kind. */
export const one = <K extends ElementKind>(kind: K, shape: ElementOf<K>['shape']): Result<Shaped[]> =>
  ok([{ kind, shape } as Shaped]);

/** Several shapes of a kind. */
export const many = <K extends ElementKind>(kind: K, shapes: readonly ElementOf<K>['shape'][]): Result<Shaped[]> =>
  ok(shapes.map((shape) => ({ kind, shape }) as Shaped));

/** The sides of a chain of points that have a length. */
export const sidesOf = (points: readonly Point[]): [Point, Point][] =>
  points
    .slice(1)
    .map((p, i): [Point, Point] => [points[i], p])
    .filter(([a, b]) => distance(a, b) > 0);
