import { later } from './later';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('a part is fetched once, however often it is made ready, and again where it did not come', async () => {
  let [asked, away] = [0, 2];
  const { ready } = later(async () => {
    asked += 1;
    if (away-- > 0) throw new Error('Failed to load chunk');
    return () => null;
  });
  expect(asked).toBe(0);
  ready();
  ready();
  await jest.advanceTimersByTimeAsync(1400);
  expect(asked).toBe(1);
  await jest.advanceTimersByTimeAsync(10_000);
  ready();
  expect(asked).toBe(3);
});
