import { oneAhead } from './oneAhead';

/** Work that ends when it is told to, and notes when it begins and ends. */
function ledger() {
  const told: string[] = [];
  const ends = new Map<number, { done: () => void; fail: () => void }>();
  const work = (n: number) =>
    new Promise<void>((resolve, reject) => {
      told.push(`begin ${n}`);
      const after = (end: () => void, word: string) => () => {
        told.push(`${word} ${n}`);
        end();
      };
      ends.set(n, { done: after(resolve, 'end'), fail: after(() => reject(new Error(`${n} failed`)), 'fail') });
    });
  return { told, ends, work };
}

const settle = () => new Promise<void>((resolve) => setImmediate(resolve));

test('the next begins before the last is done, and no other', async () => {
  const { told, ends, work } = ledger();
  const all = oneAhead([1, 2, 3], work);
  await settle();
  expect(told).toEqual(['begin 1', 'begin 2']);
  ends.get(1)!.done();
  await settle();
  expect(told).toEqual(['begin 1', 'begin 2', 'end 1', 'begin 3']);
  ends.get(2)!.done();
  ends.get(3)!.done();
  await expect(all).resolves.toBeUndefined();
});

test('what fails first is thrown once nothing is under way, and nothing more begins', async () => {
  const { told, ends, work } = ledger();
  const all = oneAhead([1, 2, 3], work);
  let thrown = false;
  const caught = all.catch((error: Error) => {
    thrown = true;
    return error.message;
  });
  await settle();
  ends.get(1)!.fail();
  await settle();
  expect(thrown).toBe(false);
  ends.get(2)!.fail();
  expect(await caught).toBe('1 failed');
  expect(told).not.toContain('begin 3');
});

test('of nothing nothing is done', async () => {
  await expect(oneAhead([], () => Promise.reject(new Error('never')))).resolves.toBeUndefined();
});
