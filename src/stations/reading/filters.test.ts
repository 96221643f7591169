import type { Shapes } from '@/core/kinds/element';
import type { Candidate } from '@/core/reading/candidate';
import { filtersFor, passes } from './filters';

const column = (key: string, width: number, away: number | null, doubt: string | null = null) =>
  ({
    kind: 'column',
    key,
    doubt,
    crossing: away === null ? null : { name: 'A/1', point: [0, 0], distance: away },
    element: {
      position: [0, 0],
      rotation: 0,
      section: { shape: 'rectangle', width, depth: 0.4 },
      mark: '',
    } satisfies Shapes['column'],
  }) as unknown as Candidate;

test('filters leave what they name, each with its count; those that leave nothing are not offered', () => {
  const columns = [
    column('1', 0.4, 0),
    column('2', 0.4, 0.004, '4.0 mm off'),
    column('3', 0.25, 1.2),
    column('4', 0.25, null),
  ];
  const told = {
    conflicts: new Map([['3', 'the model has a column here already']]),
    unlike: new Map([['4', 'not in S-plan']]),
  };
  expect(filtersFor(columns, told, 0.025).map(({ word, count }) => `${word} ${count}`)).toEqual([
    'All 4',
    'Doubtful 1',
    'In conflict 1',
    'Otherwise elsewhere 1',
    'Off the grid 2',
    '250 \u00d7 400 2',
    '400 \u00d7 400 2',
  ]);
  expect(columns.filter((one) => passes(one, 'off grid', told, 0.025)).map(({ key }) => key)).toEqual(['3', '4']);
  expect(filtersFor([], told, 0.025)).toEqual([{ name: 'all', word: 'All', count: 0 }]);
});
