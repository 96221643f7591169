import { put } from '@/core/model/edits';
import { gridLine, planOf } from '@/core/tracing/testing/plan';
import { kilonewtons, placeNames } from './trialWords';

test('newtons are written in kilonewtons, thousands apart, and nothing is no negative nothing', () => {
  expect(kilonewtons(4_310_240)).toBe('4\u2009310.2');
  expect(kilonewtons(-1_234_567_890, 0)).toBe('\u22121\u2009234\u2009568');
  expect(kilonewtons(999.96)).toBe('1.0');
  expect(kilonewtons(-0.4)).toBe('0.0');
});

test('places near a crossing of the grid are called by it, others by their coordinates', () => {
  const model = planOf();
  model.apply([put('element', gridLine(1, 'A', [0, -5], [0, 5])), put('element', gridLine(2, '1', [-5, 0], [5, 0]))]);
  const named = placeNames(model);
  expect(named([0.3, -0.2, 7])).toMatch(/^(A\/1|1\/A)$/);
  expect(named([3, 4, 0])).toBe('3.00, 4.00');
});
