import type { ElementKind, Shaped, Shapes } from './element';
import type { Field } from './kind';
import { kinds } from './kinds';

/** What can be put right of something, by its kind. */
export const fieldsOf = <K extends ElementKind>(kind: K, shape: Shapes[K]): Field<K>[] => kinds[kind].fields(shape);

/** A shape with one field changed; a value of the wrong type changes nothing. */
function changed<K extends ElementKind>(field: Field<K>, shape: Shapes[K], value: string | number): Shapes[K] {
  if (field.kind === 'length' || field.kind === 'number')
    return typeof value === 'number' ? field.set(shape, value) : shape;
  return typeof value === 'string' ? field.set(shape, value) : shape;
}

/** A shape with fields changed, by their labels; what it has not got stays as it is. */
export function withChanges<K extends ElementKind>(
  { kind, shape }: { kind: K; shape: Shapes[K] },
  changes: ReadonlyMap<string, string | number>,
): Shapes[K] {
  return fieldsOf(kind, shape).reduce((now, field) => {
    const value = changes.get(field.label);
    return value === undefined ? now : changed(field, now, value);
  }, shape);
}

const valueOf = <K extends ElementKind>({ kind, shape }: { kind: K; shape: Shapes[K] }, label: string) =>
  fieldsOf(kind, shape)
    .find((field) => field.label === label)
    ?.get(shape) ?? null;

/** What some things have in common under a field; null where they differ. */
export function commonOf(things: readonly Shaped[], label: string): string | number | null {
  const values = new Set(things.map((thing) => valueOf(thing, label)));
  return values.size === 1 ? [...values][0] : null;
}
