import { groupBy } from '@/core/groupBy';
import { centroid } from '@/core/geometry/polygon';
import { elevationOf, found, type Rule } from '../rule';
import { inPlan } from '../subject';

/** Labels of grid lines that are given twice, marks of several sizes, rooms without names. */
export const names: Rule = {
  name: 'names',
  near: false,
  find(subject) {
    const { grids, columns, beams, zones } = subject.model;
    const labels = [
      ...groupBy(
        grids.filter(({ label }) => label !== ''),
        ({ label }) => label,
      ),
    ]
      .filter(([, own]) => own.length > 1)
      .map(([label, own]) => {
        const [first] = own;
        const at = first.kind === 'line' ? first.start : first.centre;
        return found(
          'error',
          own.map(({ id }) => id),
          [at[0], at[1]],
          0,
          [
            `${own.length} grid lines are called ${label}: crossings named by it are not one place.`,
            'Give one of them its own label at Reading, Numbering.',
          ],
        );
      });
    const marked = [
      ...columns.map(({ id, mark, section, position }) => ({ id, mark, section, at: [position[0], position[1], 0] })),
      ...beams.map(({ id, mark, section, start }) => ({ id, mark, section, at: [...start] })),
    ].filter(({ mark }) => mark !== '');
    const marks = [...groupBy(marked, ({ mark }) => mark)].flatMap(([mark, own]) => {
      const sizes = groupBy(own, ({ section }) => JSON.stringify(section));
      if (sizes.size < 2) return [];
      const [x, y, z] = own[0].at;
      return found(
        'warning',
        own.map(({ id }) => id),
        [x, y],
        z,
        [
          `${mark} is the mark of ${own.length} elements of ${sizes.size} different sections.`,
          'Give those of another section another mark, or all of them one section.',
        ],
      );
    });
    const nameless = zones
      .filter(({ name, number }) => name === '' && number === '')
      .map(({ id, level, outline }) => {
        const ring = outline.map(inPlan);
        return found('note', [id], ring.length === 0 ? [0, 0] : centroid(ring), elevationOf(subject, level), [
          'This room has neither a name nor a number: nothing follows from its use.',
          'Give it a name at Tracing, Change.',
        ]);
      });
    return [...labels, ...marks, ...nameless];
  },
};
