import fc from 'fast-check';
import { squeeze, squeezeRising, unsqueeze, unsqueezeRising } from './squeeze';

test('numbers come back to the last bit, whatever they are', () => {
  const number = fc.oneof(
    fc.double(),
    fc.integer({ min: -200, max: 200 }),
    fc.float(),
    fc.constantFrom(0, -0, NaN, Infinity, -Infinity, 127, 128, -128, -129, 1e-320),
  );
  fc.assert(
    fc.property(fc.array(number, { maxLength: 60 }), (list) => {
      const numbers = Float64Array.from(list);
      expect(unsqueeze(squeeze(numbers), numbers.length)).toEqual(numbers);
    }),
  );
});

test('each number takes the bytes it needs: none, one, four or eight', () => {
  expect(squeeze(Float64Array.of(0, 7, -100, 250, 0.5, 0.1)).body.length).toBe(0 + 1 + 1 + 4 + 4 + 8);
  expect(squeeze(Float64Array.of(0, 7, -100, 250, 0.5, 0.1)).tags.length).toBe(2);
});

test('rising numbers come back from their steps', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 0, max: 60_000_000 })), { maxLength: 50 }),
      (steps) => {
        let sum = 0;
        const values = Uint32Array.from(steps, (step) => {
          sum += step;
          return sum;
        });
        expect(unsqueezeRising(squeezeRising(values), values.length)).toEqual(values);
      },
    ),
  );
  expect(squeezeRising(Uint32Array.of(0, 4, 131, 400)).length).toBe(1 + 1 + 1 + 2);
});
