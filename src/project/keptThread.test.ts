import { KeptThread } from './keptThread';
import { Answering } from './testing/answering';
import { threadOf } from './thread';

interface Asked {
  name(): string;
}

function threads() {
  const made: Answering[] = [];
  const kept = new KeptThread<Asked>((gone) => {
    const worker = new Answering(true);
    made.push(worker);
    return threadOf<Asked>(worker as unknown as Worker, gone);
  });
  return { made, kept, ask: (ending?: AbortSignal) => kept.ask((remote) => remote.name(), ending) };
}

const ended = (made: readonly Answering[]) => made.map((worker) => worker.ended);

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

/** What comes of questions, once all timers but the longest have run. */
async function answers<T>(...asked: Promise<T>[]): Promise<T[]> {
  await jest.advanceTimersByTimeAsync(1000);
  return Promise.all(asked);
}

test('the next question goes to the thread that answered the last one', async () => {
  const { made, ask } = threads();
  expect(await answers(ask())).toEqual(['answer to name']);
  await answers(ask());
  expect(ended(made)).toEqual([false]);
});

test('of two that were asked at once one is kept', async () => {
  const { made, ask } = threads();
  await answers(ask(), ask());
  expect(ended(made).sort()).toEqual([false, true]);
});

test('one that is cancelled is ended, and another stands ready', async () => {
  const { made, kept, ask } = threads();
  const ending = new AbortController();
  const cancelled = expect(kept.ask(() => new Promise(() => undefined), ending.signal)).rejects.toThrow('cancelled');
  ending.abort();
  await cancelled;
  expect(ended(made)).toEqual([true, false]);
  await answers(ask());
  expect(made).toHaveLength(2);
});

test('one that failed is not asked again, one that was lost while nobody asked neither', async () => {
  const { made, kept, ask } = threads();
  await expect(kept.ask(() => Promise.reject(new Error('no such zone')))).rejects.toThrow('no such zone');
  await answers(ask());
  made[1].dispatchEvent(new Event('error'));
  await answers(ask());
  expect(ended(made)).toEqual([true, true, false]);
});

test('after two minutes without a question it is ended', async () => {
  const { made, ask } = threads();
  await answers(ask());
  await jest.advanceTimersByTimeAsync(118_000);
  expect(ended(made)).toEqual([false]);
  await jest.advanceTimersByTimeAsync(2_000);
  expect(ended(made)).toEqual([true]);
});
