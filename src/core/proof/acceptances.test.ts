import { Model } from '@/core/model/model';
import { emptyState } from '@/core/model/state';
import { acceptFinding, judged, reopenFinding } from './acceptances';
import type { Finding } from './finding';

const finding = (message: string, ...elements: string[]): Finding => ({
  rule: 'doubled',
  severity: 'error',
  elements,
  position: [0, 0, 0],
  message,
  remedy: '',
});
const id = '00000000-0000-4000-8000-000000000001';

test('an accepted finding keeps its reason, in whatever order its elements come, and is open again on request', () => {
  const model = new Model(emptyState);
  model.apply(acceptFinding(finding('0.300 m', 'a', 'b'), 'A joint between two buildings.', () => id).changes);
  const [same] = judged([finding('0.300 m', 'b', 'a')], model);
  expect(same.accepted?.reason).toBe('A joint between two buildings.');
  // Another length, or another element, is another finding.
  expect(
    judged([finding('0.400 m', 'a', 'b'), finding('0.300 m', 'a')], model).map(({ accepted }) => accepted),
  ).toEqual([null, null]);
  model.apply(reopenFinding(same.accepted!).changes);
  expect(judged([finding('0.300 m', 'a', 'b')], model)[0].accepted).toBeNull();
});

test('of very long lists of elements the first count', () => {
  const many = Array.from({ length: 3000 }, (_, i) => `e${i}`);
  const model = new Model(emptyState);
  const edit = acceptFinding(finding('m', ...many), 'why', () => id);
  model.apply(edit.changes);
  expect(judged([finding('m', ...many)], model)[0].accepted).not.toBeNull();
});
