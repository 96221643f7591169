import type { Place } from '@/core/bodies/shell';
import type { Point } from '@/core/geometry/vector';
import type { Fix, Found, Severity } from './finding';
import type { Subject } from './subject';

/** A rule by its name, and what it finds. */
export interface Rule {
  name: string;
  /** Whether it looks only at what lies near an element, so that a change elsewhere changes nothing of it. */
  near: boolean;
  find: (subject: Subject) => Found[];
}

/** Metres as findings write them. */
export const metres = (value: number): string => `${value.toFixed(3)} m`;

/** Something found at a place. */
export function found(
  severity: Severity,
  elements: string[],
  [x, y]: Point,
  z: number,
  [message, remedy]: readonly [message: string, remedy: string],
  fix?: Fix,
): Found {
  const position: Place = [x, y, z];
  return { severity, elements, position, message, remedy, ...(fix === undefined ? {} : { fix }) };
}

/** The elevation of a level; zero of one that is not there. */
export const elevationOf = ({ levels }: Pick<Subject, 'levels'>, level: string): number =>
  levels.get(level)?.elevation ?? 0;

/** Pairs of a list that are next to one another by boxes, each pair once. */
export function* pairsNear<T extends { box: readonly [number, number, number, number] }>(
  items: readonly T[],
  near: (one: T) => readonly T[],
): Generator<[T, T]> {
  const order = new Map(items.map((item, i) => [item, i]));
  for (const item of items)
    for (const other of near(item)) if (order.get(other)! > order.get(item)!) yield [item, other];
}
