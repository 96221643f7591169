import { Others, type Told } from './others';
import type { Here } from '@/core/here';

const told: Told = { station: 'tracing', levelId: null, faceOn: null, selected: [], count: 0, draft: [] };
const tells = () => told;
const here = (window: string, more: Partial<Here> = {}): Here => ({ ...told, window, name: null, ...more });

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

/** Windows that hear one another at once, as through one server. */
function office(...names: string[]): Others[] {
  const windows: Others[] = names.map(
    (name) =>
      new Others(name, (sent) => {
        for (const window of windows) window.hear({ ...sent, name: null });
        return Promise.resolve();
      }),
  );
  return windows;
}

const seenBy = (window: Others): string[] =>
  window.store
    .getState()
    .map((other) => other.window)
    .sort();

test('who comes later is told who was there before, and everybody hears of who comes', () => {
  const [one, two, three] = office('one', 'two', 'three');
  one.tell(tells);
  jest.advanceTimersByTime(5000);
  // Two and three hear it, and have nothing to tell of themselves yet.
  expect([seenBy(one), seenBy(two)]).toEqual([[], ['one']]);
  two.tell(tells);
  three.tell(tells);
  jest.advanceTimersByTime(5000);
  expect([seenBy(one), seenBy(two), seenBy(three)]).toEqual([
    ['three', 'two'],
    ['one', 'three'],
    ['one', 'two'],
  ]);
});

test('what is dragged is told four times a second at most, and its end always', () => {
  const sent: number[] = [];
  const window = new Others('own', ({ count }) => Promise.resolve(sent.push(count)));
  window.hear(here('other'));
  for (let i = 1; i <= 100; i += 1) {
    window.tell(() => ({ ...told, count: i }));
    jest.advanceTimersByTime(10);
  }
  jest.advanceTimersByTime(1000);
  expect(sent.length).toBeLessThanOrEqual(6);
  expect(sent.length).toBeGreaterThanOrEqual(4);
  expect(sent.at(-1)).toBe(100);
});

test('where nobody else is a window tells of itself once, and again when somebody comes', () => {
  let [sent, madeUp] = [0, 0];
  const window = new Others('own', () => Promise.resolve((sent += 1)));
  const stop = window.begin();
  for (let i = 0; i < 50; i += 1) {
    window.tell(() => {
      madeUp += 1;
      return told;
    });
    jest.advanceTimersByTime(2000);
  }
  expect([sent, madeUp]).toEqual([1, 1]);
  window.hear(here('other'));
  jest.advanceTimersByTime(1000);
  expect(sent).toBe(2);
  stop();
});

test('a place is kept while somebody is here, and is free for the next when they have gone', () => {
  const window = new Others('own', () => Promise.resolve());
  const places = () => Object.fromEntries(window.store.getState().map((other) => [other.window, other.place]));
  window.hear(here('a'));
  window.hear(here('b'));
  window.hear(here('b', { count: 3 }));
  expect(places()).toEqual({ a: 0, b: 1 });
  window.left('a');
  expect(places()).toEqual({ b: 1 });
  window.hear(here('c'));
  expect(places()).toEqual({ b: 1, c: 0 });
  window.hear(here('own'));
  expect(Object.keys(places())).toHaveLength(2);
});

test('what found no server is told again with the next beat, also where nobody else is known', async () => {
  let sent = 0;
  const window = new Others('own', () => {
    sent += 1;
    return sent === 1 ? Promise.reject(new Error('away')) : Promise.resolve();
  });
  const stop = window.begin();
  window.tell(tells);
  await jest.advanceTimersByTimeAsync(90_000);
  expect(sent).toBe(2);
  stop();
});

test('a window that says nothing more is gone after some minutes; one that cannot be told of is no failure', () => {
  const window = new Others('own', () => Promise.reject(new Error('away')));
  const stop = window.begin();
  window.tell(tells);
  window.hear(here('silent'));
  window.hear(here('there'));
  for (let i = 0; i < 12; i += 1) {
    jest.advanceTimersByTime(15_000);
    window.hear(here('there'));
  }
  expect(seenBy(window)).toEqual(['there']);
  stop();
  expect(jest.getTimerCount()).toBe(0);
});
