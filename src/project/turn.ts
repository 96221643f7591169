import type { Stepwise } from '@/core/stepwise';

/** Lets the window do what waits. */
export const turn = () => new Promise<void>((resolve) => setTimeout(resolve));

/** Work goes on without a turn for so long, milliseconds. */
const withoutTurn = 40;

/** Does work step by step with turns for the window between; what is short is done without one. */
export async function inTurns<T>(work: Stepwise<T>): Promise<T> {
  for (let isShort = true; ; isShort = false) {
    const begin = performance.now();
    let step = work.next();
    while (!step.done && performance.now() - begin < withoutTurn) step = work.next();
    if (step.done && isShort) return step.value;
    // The result of long work is used in a turn of its own.
    await turn();
    if (step.done) return step.value;
  }
}
