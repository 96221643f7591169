import { add, cross, direction, dot, subtract, type Point } from '@/core/geometry/vector';

/** How a point is typed: by length and direction or by two distances from the last one, or by its coordinates. */
export const typedForms = ['length and turn', 'across and up', 'coordinates'] as const;
export type TypedForm = (typeof typedForms)[number];

/** A value at the cursor: lengths in metres, angles in radians, counts. */
export interface TypedField {
  name: string;
  label: string;
  kind: 'length' | 'angle' | 'count';
  value: number | null;
  /** Whether a person has typed it: then it stays, whatever the pointer does. */
  typed: boolean;
}

/** The axes that distances and turns are told along. */
export interface TypingAxes {
  origin: Point;
  /** Radians. */
  angle: number;
}

const fieldNames: Record<TypedForm, readonly [string, string]> = {
  'length and turn': ['length', 'turned'],
  'across and up': ['across', 'up'],
  coordinates: ['east', 'north'],
};

/** A turn within half a turn either way, radians. */
const halfTurns = (angle: number): number => Math.atan2(Math.sin(angle), Math.cos(angle));

/** What is typed of the next point; what is not typed follows the pointer. */
export class TypedPoint {
  form: TypedForm = 'length and turn';
  private readonly values = new Map<string, number>();

  get typed(): boolean {
    return this.values.size > 0;
  }

  clear(): void {
    this.values.clear();
  }

  /** @param value null lets it follow the pointer again */
  set(name: string, value: number | null): void {
    if (value === null) this.values.delete(name);
    else this.values.set(name, value);
  }

  /** Turns to the next form; what was typed in another is dropped. */
  turn(base: Point | null): void {
    if (base === null) return;
    this.form = typedForms[(typedForms.indexOf(this.form) + 1) % typedForms.length];
    this.clear();
  }

  /** Without a last point there is nothing to measure from. */
  private formFor(base: Point | null): TypedForm {
    return base === null ? 'coordinates' : this.form;
  }

  /** The point, where the pointer is at one and the last one is another. */
  place(at: Point, base: Point | null, axes: TypingAxes): Point {
    const [first, second] = fieldNames[this.formFor(base)].map((name) => this.values.get(name));
    if (first === undefined && second === undefined) return at;
    if (this.formFor(base) === 'length and turn') return polar(at, base!, axes.angle, first, second);
    const from = this.formFor(base) === 'coordinates' ? axes.origin : base!;
    const [u, v] = [direction(axes.angle), direction(axes.angle + Math.PI / 2)];
    const d = subtract(at, from);
    const [x, y] = [first ?? dot(d, u), second ?? dot(d, v)];
    return [from[0] + x * u[0] + y * v[0], from[1] + x * u[1] + y * v[1]];
  }

  /** What stands in the fields, with the point at a place. */
  fields(at: Point, base: Point | null, axes: TypingAxes): TypedField[] {
    const form = this.formFor(base);
    const from = form === 'coordinates' ? axes.origin : base!;
    const d = subtract(at, from);
    const u = direction(axes.angle);
    const shown =
      form === 'length and turn'
        ? [Math.hypot(...d), halfTurns(Math.atan2(d[1], d[0]) - axes.angle)]
        : [dot(d, u), cross(u, d)];
    return fieldNames[form].map((name, i) => ({
      name,
      label: name,
      kind: name === 'turned' ? 'angle' : 'length',
      value: this.values.get(name) ?? shown[i],
      typed: this.values.has(name),
    }));
  }
}

function polar(at: Point, base: Point, axes: number, length: number | undefined, turned: number | undefined): Point {
  const d = subtract(at, base);
  if (turned !== undefined) {
    const u = direction(axes + turned);
    const along = length ?? dot(d, u);
    return add(base, [along * u[0], along * u[1]]);
  }
  const away = Math.hypot(...d);
  // Where the pointer lies on the last point there is no direction yet: along the axes.
  const u: Point = away === 0 ? direction(axes) : [d[0] / away, d[1] / away];
  return add(base, [length! * u[0], length! * u[1]]);
}
