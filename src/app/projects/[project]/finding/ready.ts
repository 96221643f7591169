import type { Model } from '@/core/model/model';
import { readyToFind } from '@/core/tracing/findElements';
import { loweredTexts } from '@/core/underlay/findTexts';
import { underlayOf, type useUnderlays } from '@/project/underlays';

/** Elements made ready in one go. */
const atOnce = 400;

/** Makes the search ready bit by bit, while nobody needs the window. @returns the way to stop */
export function readyToSearch(model: Model, entries: ReturnType<typeof useUnderlays.getState>['entries']): () => void {
  const work = steps(model, entries);
  let asked = 0;
  const proceed = (deadline: IdleDeadline) => {
    let done = false;
    do done = work.next().done === true;
    while (!done && deadline.timeRemaining() > 1);
    if (!done) asked = requestIdleCallback(proceed);
  };
  asked = requestIdleCallback(proceed);
  return () => cancelIdleCallback(asked);
}

function* steps(model: Model, entries: Parameters<typeof readyToSearch>[1]): Generator<void> {
  for (const id of Object.keys(entries)) {
    const underlay = underlayOf(entries, id);
    if (underlay !== null) loweredTexts(underlay.primitives);
    yield;
  }
  const elements = Object.values(model.element);
  for (let i = 0; i < elements.length; i += atOnce) {
    readyToFind(elements.slice(i, i + atOnce));
    yield;
  }
}
