import { askThread, threadOf, type Thread } from './thread';
import { Answering } from './testing/answering';

interface Asked {
  name(): string;
}

/** Threads of which the first so many cannot be loaded, as while their server is away. */
function threads(failing: number) {
  const made: Answering[] = [];
  let current: Thread<Asked> | null = null;
  const thread = (): Thread<Asked> => {
    if (current === null) {
      const worker = new Answering(made.length >= failing);
      made.push(worker);
      current = threadOf<Asked>(worker as unknown as Worker, () => (current = null));
    }
    return current;
  };
  return { made, thread };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('a thread that could not be loaded is begun anew, and the question is answered', async () => {
  const { made, thread } = threads(3);
  const answer = askThread(thread, (remote) => remote.name());
  await jest.runAllTimersAsync();
  expect(await answer).toBe('answer to name');
  expect(made.map(({ ended }) => ended)).toEqual([true, true, true, false]);
});

test('one that can never be loaded is told after some tries, and nobody waits for ever', async () => {
  const { made, thread } = threads(Infinity);
  const answer = expect(askThread(thread, (remote) => remote.name())).rejects.toThrow(/could not be loaded/);
  await jest.runAllTimersAsync();
  await answer;
  expect(made).toHaveLength(8);
});

test('what a question throws is thrown at once', async () => {
  const { made, thread } = threads(0);
  await expect(askThread(thread, () => Promise.reject(new Error('no such drawing')))).rejects.toThrow(
    'no such drawing',
  );
  expect(made).toHaveLength(1);
});
