import * as v from 'valibot';

type Options<T> = Readonly<Record<string, v.GenericSchema<unknown, T>>>;

/**
 * Of several schemas the one that a value's own word names. A variant asks its options one after another: of tens of
 * thousands of rows with a dozen options each that is most of what checking them takes.
 * @param word what names the schema, such as `kind`
 * @param options the schemas by what the word may say
 */
export function chosenBy<T>(word: string, options: Options<T>): v.GenericSchema<unknown, T> {
  const known = new Map(Object.entries(options));
  const expected = [...known.keys()].join(', ');
  const neither = v.custom<never>(() => false, `${word} says none of: ${expected}.`);
  return v.lazy((value) => {
    const said: unknown = typeof value === 'object' && value !== null ? Reflect.get(value, word) : undefined;
    return (typeof said === 'string' ? known.get(said) : undefined) ?? neither;
  });
}
