import { freshStep, stepKinds, stepWords } from '@/core/underlay/recipe/steps';
import { bytes, count } from './format';
import { smallLength, stepDetail } from './stepDetail';

test('a tolerance is told in millimetres in metric projects and in inches in others', () => {
  expect([
    smallLength(0.01, 'm'),
    smallLength(0.0005, 'cm'),
    smallLength(0.01, 'mm'),
    smallLength(0.0254 / 4, 'ft-in'),
    smallLength(0.0254, 'ft'),
  ]).toEqual(['10 mm', '0.5 mm', '10 mm', '0.25"', '1"']);
});

test('the line of a step says its values, in words that a person gave or would give', () => {
  expect(stepDetail({ kind: 'leaveOutKinds', groups: ['dimensions', 'hatches'] }, 'm')).toBe(
    'dimensions, hatches and fills',
  );
  expect(stepDetail({ kind: 'leaveOutBlocks', patterns: ['CHAIR*', 'DESK'] }, 'm')).toBe('CHAIR*, DESK');
  expect(
    stepDetail(
      {
        kind: 'region',
        keep: 'outside',
        polygon: [
          [0, 0],
          [1, 0],
          [1, 1],
        ],
      },
      'm',
    ),
  ).toBe('drop inside 3 corners');
  expect(stepDetail({ kind: 'closeGaps', tolerance: 0.008 }, 'm')).toBe('up to 8 mm');
  expect(stepDetail({ kind: 'straighten', angle: 0.3 }, 'm')).toBe('within 0.3\u00b0');
  expect(stepDetail({ kind: 'chopArcs', by: 'angle', value: 15 }, 'm')).toBe('every 15\u00b0');
  expect(stepDetail({ kind: 'chopArcs', by: 'sagitta', value: 0.005 }, 'm')).toBe('within 5 mm');
  expect(stepDetail({ kind: 'strays' }, 'm')).toBe('');
});

test('every kind of step has a name of its own and a sentence about it', () => {
  expect(new Set(stepKinds.map((kind) => stepWords[kind].name)).size).toBe(stepKinds.length);
  for (const kind of stepKinds) {
    expect(stepWords[kind].about).toMatch(/^[A-Z].*\.$/);
    expect(freshStep(kind).kind).toBe(kind);
  }
});

test('sizes and counts for people', () => {
  expect([bytes(812), bytes(8_120), bytes(81_200), bytes(8_120_000), bytes(275_532_201)]).toEqual([
    '812 bytes',
    '8.1 kB',
    '81 kB',
    '8.1 MB',
    '276 MB',
  ]);
  expect([count(1, 'step'), count(0, 'step'), count(1234, 'line')]).toEqual(['1 step', '0 steps', '1,234 lines']);
});
