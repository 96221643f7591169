/**
 * Does the same with each of a list, in order, beginning the next before the last is done: while the database is at one
 * group of rows the next is written out.
 * @throws what the first that fails throws, once nothing is under way any more
 */
export async function oneAhead<T>(list: Iterable<T>, work: (item: T) => Promise<void>): Promise<void> {
  let last = Promise.resolve();
  for (const item of list) {
    const next = work(item);
    try {
      await last;
    } catch (error) {
      await next.catch(() => undefined);
      throw error;
    }
    last = next;
  }
  await last;
}
