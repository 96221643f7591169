import { Model } from '@/core/model/model';
import { emptyState } from '@/core/model/state';
import type { Finding, Severity } from '@/core/proof/finding';
import { column } from '@/core/tracing/testing/plan';
import { railStations, type Proven } from './railStations';

const finding = (severity: Severity): Finding => ({
  rule: 'doubled',
  severity,
  elements: [],
  position: [0, 0, 0],
  message: '',
  remedy: '',
});

const one = column(1, [0, 0]);
const proof = (proven: Proven, empty = false) => {
  const model = new Model(empty ? emptyState : { ...emptyState, element: { [one.id]: one } });
  const { state, begun } = railStations(model, [], { toJudge: 0, proven }).find(({ name }) => name === 'proof')!;
  return [state, begun];
};

test('Proof counts errors before anything else, and calls nothing sound that has changed since', () => {
  expect(proof({ findings: [finding('warning'), finding('error')], stale: true })).toEqual(['1 error', false]);
  expect(proof({ findings: [finding('warning'), finding('note')], stale: false })).toEqual(['2 findings', false]);
  expect(proof({ findings: [], stale: false })).toEqual(['sound', true]);
  expect(proof({ findings: [], stale: true })).toEqual(['looking again', false]);
  expect(proof({ findings: null, stale: true })).toEqual(['', false]);
  expect(proof({ findings: [], stale: false }, true)).toEqual(['', false]);
});
