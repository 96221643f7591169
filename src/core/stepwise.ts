/** Work in short steps, after which it can be left for a while; the last gives the result. */
export type Stepwise<T> = Generator<undefined, T, undefined>;

/** Things that one step takes: some milliseconds. */
const atATime = 1000;

/** A list in the pieces that steps take. */
export function* pieces<T>(list: readonly T[]): Generator<readonly T[]> {
  for (let i = 0; i < list.length; i += atATime) yield list.slice(i, i + atATime);
}

/** Does all steps one after another. */
export function atOnce<T>(work: Stepwise<T>): T {
  let step = work.next();
  while (!step.done) step = work.next();
  return step.value;
}
