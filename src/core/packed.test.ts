import { pack, unpack } from './packed';

test('numbers survive being packed to the last bit, and what stands around them as it was', () => {
  const value = {
    name: 'Ölbach "7"',
    none: null,
    parts: [{ inner: Float64Array.of(0.1, -0, 1e300, NaN, Infinity) }, { inner: new Float64Array() }],
    more: Float64Array.from({ length: 1001 }, (_, i) => i / 7),
  };
  expect(unpack(pack(value).buffer)).toEqual(value);
  expect(unpack(pack([1, 'two']).buffer)).toEqual([1, 'two']);
});
