import { scoredKinds, scorePlans } from './reading';

test.each([
  ['tidy', false, 0.98],
  ['dirty', true, 0.95],
] as const)(
  'on %s plans of many styles and units recall and precision reach their goals, with roles given and suggested',
  (_, dirty, goal) => {
    for (const roles of ['given', 'suggested'] as const) {
      const scores = scorePlans(10, dirty, roles, 500);
      for (const kind of scoredKinds) {
        const { truth, found, read, right, labels, position, size } = scores[kind];
        expect([kind, found / truth >= goal, right / read >= goal, labels / found >= goal]).toEqual([
          kind,
          true,
          true,
          true,
        ]);
        if (!dirty) expect([kind, position < 0.001, size < 0.001]).toEqual([kind, true, true]);
      }
    }
  },
);

test('by geometry alone, as of a drawing on one layer, grid lines and columns are told and most walls; what is lower is said by the bench', () => {
  const scores = scorePlans(10, false, 'by geometry', 500);
  const recall = (kind: keyof typeof scores) => scores[kind].found / scores[kind].truth;
  expect([recall('grid lines') >= 0.99, recall('columns') >= 0.9, recall('walls') >= 0.8]).toEqual([true, true, true]);
});
