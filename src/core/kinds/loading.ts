import * as v from 'valibot';
import { radians } from '@/core/geometry/vector';
import type { ElementKind, Shapes } from './element';
import type { EvenMap } from './evenMap';
import type { Field } from './kind';
import { finite, textUpTo } from './limits';

/** A force, a moment, or a force per metre: along x, y and z of the project; z is upward. */
export type Vector3 = [x: number, y: number, z: number];

/** More than this is a slip of the decimal point: 1 GN, GNm or GN/m. */
const mostForce = 1e9;
const component = v.pipe(finite, v.minValue(-mostForce), v.maxValue(mostForce));
export const vector3 = v.strictTuple([component, component, component]);
/** Newtons per square metre. */
export const pressure = component;
/** The name of a load case, such as G or Q. */
export const loadCase = v.pipe(textUpTo(40), v.trim(), v.minLength(1, 'A load belongs to a load case.'));

/** What people think in, of what is stored. */
const kilo = 1000;

/** A vector carried by a map: turned and mirrored with what it acts on. */
export function turnedVector([x, y, z]: Vector3, { turned, mirrored }: EvenMap): Vector3 {
  const turn = radians(turned(0));
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const across = mirrored ? -y : y;
  return [c * x - s * across, s * x + c * across, z];
}

/** A moment is turned like a force, and changes its sense in a mirror. */
export function turnedMoment(moment: Vector3, map: EvenMap): Vector3 {
  const [x, y, z] = turnedVector(moment, map);
  return map.mirrored ? [-x, -y, -z] : [x, y, z];
}

const axes = ['x', 'y', 'z'] as const;

/** The three components of a vector of a shape, in kilo-units. */
export const components = <K extends ElementKind>(
  word: string,
  unit: string,
  get: (shape: Shapes[K]) => Vector3,
  set: (shape: Shapes[K], to: Vector3) => Shapes[K],
): Field<K>[] =>
  axes.map((axis, i) => ({
    label: `${word} ${axis}`,
    kind: 'number',
    unit,
    least: -mostForce / kilo,
    most: mostForce / kilo,
    get: (shape) => get(shape)[i] / kilo,
    set: (shape, value) => {
      const [x, y, z] = get(shape);
      const next: Vector3 = [x, y, z];
      next[i] = value * kilo;
      return set(shape, next);
    },
  }));

const figure = (value: number): string => String(Number((value / kilo).toFixed(3)));

/** A vector in words: "z −10 kN"; what is zero is left out. */
export function vectorWords(vector: Vector3, unit: string): string {
  const parts = axes.flatMap((axis, i) => (vector[i] === 0 ? [] : [`${axis} ${figure(vector[i])} ${unit}`]));
  return parts.length === 0 ? `0 ${unit}` : parts.join(', ');
}

/** A pressure in words. */
export const pressureWords = (value: number): string => `${figure(value)} kN/m\u00b2`;

export const isZero = (vector: Vector3): boolean => vector.every((value) => value === 0);

/** What is wrong with a load in itself: it acts with nothing, or belongs to no case. */
export const loadChecks = (load: { case: string }, ...acting: readonly Vector3[]): string[] => [
  ...(acting.every(isZero) ? ['It loads nothing: type a value other than zero.'] : []),
  ...(load.case.trim() === '' ? ['It belongs to no load case: type one, such as G or Q.'] : []),
];
