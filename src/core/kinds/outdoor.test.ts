import { outdoorLux, outdoorReflectance, outdoorTarget } from './outdoorUse';
import { fenceOutline, type Outdoor } from './outdoor';
import { fieldsOf } from './putRight';

const fence: Outdoor = {
  name: '',
  use: 'fence',
  height: 1.8,
  outline: fenceOutline(
    [
      [0, 0],
      [10, 0],
      [10, 6],
    ],
    0.1,
  ),
};
const field = (shape: Outdoor, label: string) => fieldsOf('outdoor', shape).find((one) => one.label === label)!;

test('a fence is as thick as is said, about the line that it runs along', () => {
  const thickness = field(fence, 'Thickness');
  expect(thickness.get(fence)).toBeCloseTo(0.1, 9);
  const thicker = thickness.kind === 'length' ? thickness.set(fence, 0.3) : fence;
  expect(thickness.get(thicker)).toBeCloseTo(0.3, 9);
  // The ends of its middle line stay.
  const [first, last] = [thicker.outline[0], thicker.outline[5]];
  expect([(first[0] + last[0]) / 2, (first[1] + last[1]) / 2]).toEqual([0, 0].map((value) => expect.closeTo(value, 9)));
  expect(fieldsOf('outdoor', { ...fence, use: 'road' }).some(({ label }) => label === 'Thickness')).toBe(false);
});

test('what a surface is says what light it asks for and throws back, unless it says so itself', () => {
  // EN 12464-2, table 5.1: regular traffic up to 40 km/h.
  expect(outdoorTarget({ use: 'road' })).toEqual({ lux: 20, uniformity: 0.4 });
  expect(outdoorTarget({ use: 'grass' })).toBeNull();
  expect(outdoorTarget({ use: 'grass', lux: 3 })).toEqual({ lux: 3, uniformity: 0.25 });
  expect(outdoorTarget({ use: 'road', lux: 0 })).toBeNull();
  expect([outdoorLux({}), outdoorReflectance({}), outdoorReflectance({ use: 'road', reflectance: 0.35 })]).toEqual([
    null,
    null,
    0.35,
  ]);
  const road: Outdoor = { name: '', use: 'road', height: 0, outline: fence.outline };
  const [asked, back] = ['Light asked for', 'Throws back'].map((label) => field(road, label));
  expect([asked.get(road), back.get(road)]).toEqual([20, 10]);
  expect(back.kind === 'number' && back.set(road, 35)).toMatchObject({ reflectance: 0.35 });
});
