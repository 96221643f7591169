import type { ElementKind, Shapes } from '@/core/kinds/element';
import type { Field } from '@/core/kinds/kind';
import { kinds } from '@/core/kinds/kinds';
import type { Candidate } from '@/core/reading/candidate';

/** What can be put right of an element, by its kind. */
export const fieldsOf = <K extends ElementKind>(kind: K, shape: Shapes[K]): Field<K>[] => kinds[kind].fields(shape);

/** A shape with one field changed; a value of the wrong type changes nothing. */
function changed<K extends ElementKind>(field: Field<K>, shape: Shapes[K], value: string | number): Shapes[K] {
  if (field.kind === 'length') return typeof value === 'number' ? field.set(shape, value) : shape;
  return typeof value === 'string' ? field.set(shape, value) : shape;
}

/** A shape with fields changed, by their labels; what it has not got stays as it is. */
function withChanges<K extends ElementKind>(
  kind: K,
  shape: Shapes[K],
  changes: ReadonlyMap<string, string | number>,
): Shapes[K] {
  return fieldsOf(kind, shape).reduce((now, field) => {
    const value = changes.get(field.label);
    return value === undefined ? now : changed(field, now, value);
  }, shape);
}

/**
 * A candidate with things put right, by the labels of their fields; what its kind of section has not got stays as it
 * is.
 */
export function putRight<C extends Candidate>(candidate: C, changes: ReadonlyMap<string, string | number>): C {
  const element = withChanges(candidate.kind, candidate.element, changes);
  return { ...candidate, element, asRead: candidate.asRead ?? candidate.element };
}

const valueOf = <K extends ElementKind>(kind: K, shape: Shapes[K], label: string): string | number | null =>
  fieldsOf(kind, shape)
    .find((field) => field.label === label)
    ?.get(shape) ?? null;

/** What some candidates have in common under a field; null where they differ. */
export function commonOf(candidates: readonly Candidate[], label: string): string | number | null {
  const values = new Set(candidates.map(({ kind, element }) => valueOf(kind, element, label)));
  return values.size === 1 ? [...values][0] : null;
}
