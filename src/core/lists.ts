/**
 * Adds all of some things to a list, however many they are: spread into a call, a few hundred thousand are too many.
 */
export function pushAll<T>(list: T[], more: Iterable<T>): void {
  for (const thing of more) list.push(thing);
}

/** The least of some numbers, however many they are; infinity where there are none. */
export const leastOf = (values: Iterable<number>): number => {
  let least = Infinity;
  for (const value of values) if (value < least) least = value;
  return least;
};

/** The greatest of some numbers, however many they are; minus infinity where there are none. */
export const mostOf = (values: Iterable<number>): number => {
  let most = -Infinity;
  for (const value of values) if (value > most) most = value;
  return most;
};

/** The thing for which a value is least, the first of such; null where there is none. */
export function leastBy<T>(things: Iterable<T>, valueOf: (thing: T) => number): T | null {
  let [best, least]: [T | null, number] = [null, Infinity];
  for (const thing of things) {
    const value = valueOf(thing);
    if (value < least) [best, least] = [thing, value];
  }
  return best;
}
