import * as v from 'valibot';
import { chosenBy } from './chosenBy';

const shape = chosenBy<unknown>('kind', {
  circle: v.strictObject({ kind: v.literal('circle'), diameter: v.number() }),
  square: v.strictObject({ kind: v.literal('square'), side: v.number() }),
});

test.each([
  [{ kind: 'circle', diameter: 2 }, true],
  [{ kind: 'square', side: 2 }, true],
  [{ kind: 'square', diameter: 2 }, false],
  [{ kind: 'toString', side: 2 }, false],
  [{ kind: 3 }, false],
  [{}, false],
  [null, false],
  ['circle', false],
])('%j is taken: %s', (value, taken) => {
  expect(v.is(shape, value)).toBe(taken);
});

test('what names no schema is told with what it may say', () => {
  const result = v.safeParse(shape, { kind: 'oval' });
  expect(result.issues?.map(({ message }) => message)).toEqual(['kind says none of: circle, square.']);
});
