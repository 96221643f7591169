import { applyChanges } from './model';
import type { GridLine } from '@/core/kinds/grid';
import fc from 'fast-check';
import { put } from './edits';
import { gridFamilies, labelsBy, relabel, type NumberingRule } from './numbering';
import { emptyState } from './state';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const stateOf = (lines: GridLine[]) =>
  applyChanges(
    emptyState,
    lines.map((shape, i) =>
      put('element', { id: uuid(i + 1), levelId: null, source: null, libraryId: null, kind: 'grid', shape } as never),
    ),
  ).state;
const upright = (label: string, x: number): GridLine => ({ label, kind: 'line', start: [x, 0], end: [x, 20] });
const across = (label: string, y: number): GridLine => ({ label, kind: 'line', start: [30, y], end: [0, y] });
const rule: NumberingRule = { style: 'numbers', from: 'low', first: '1', prefix: '', skip: true, between: true };
const of = (lines: GridLine[], change: Partial<NumberingRule>) => {
  const result = labelsBy({ ...rule, ...change }, gridFamilies(stateOf(lines))[0]);
  return result.ok ? result.value : result.message;
};

test('families: by direction, a turned wing for itself, arcs about their centre; each from the left, from below or from inside', () => {
  const wing = (label: string, d: number): GridLine => {
    const [c, s] = [Math.cos(0.3), Math.sin(0.3)];
    return { label, kind: 'line', start: [100 + c * d, s * d], end: [100 + c * d - 9 * s, s * d + 9 * c] };
  };
  const arc = (label: string, radius: number): GridLine => ({
    label,
    kind: 'arc',
    centre: [50, 50],
    radius,
    startAngle: 0,
    endAngle: 90,
  });
  const families = gridFamilies(
    stateOf([
      upright('3', 12),
      upright('1', 0),
      upright('2', 6),
      across('B', 5),
      across('A', 0),
      wing('W2', 4),
      wing('W1', 0),
      arc('R2', 9),
      arc('R1', 6),
    ]),
  );
  expect(families.map(({ kind, way, lines }) => [kind, way, lines.map(({ label }) => label).join(' ')])).toEqual([
    ['line', 'left to right', '1 2 3'],
    ['line', 'bottom to top', 'A B'],
    ['line', 'left to right', 'W1 W2'],
    ['arc', 'inside to outside', 'R1 R2'],
  ]);
  // Distances across the wing's lines are its spacings: 4 m.
  expect(families[2].lines[1].at - families[2].lines[0].at).toBeCloseTo(4, 9);
});

test('numbers and letters, from either side, from any first label, with a prefix', () => {
  const lines = [upright('x', 0), upright('y', 6), upright('z', 12)];
  expect(of(lines, {})).toEqual(['1', '2', '3']);
  expect(of(lines, { from: 'high', first: '10', prefix: 'N' })).toEqual(['N12', 'N11', 'N10']);
  expect(of(lines, { style: 'letters', first: 'H' })).toEqual(['H', 'J', 'K']);
  expect(of(lines, { style: 'letters', first: 'h', skip: false })).toEqual(['H', 'I', 'J']);
  expect(of(lines, { style: 'letters', first: 'Z' })).toEqual(['Z', 'AA', 'AB']);
  expect(of(lines, { first: 'A' })).toBe('The first label is "A"; numbers begin with a whole number such as 1.');
  expect(of(lines, { style: 'letters', first: 'I' })).toContain('without I and O');
});

test('lines between others keep what tells them apart, if asked', () => {
  const lines = [upright('A', 0), upright("A'", 3), upright('B', 6), upright('B.1', 8)];
  expect(of(lines, {})).toEqual(['1', "1'", '2', '2.1']);
  expect(of(lines, { between: false })).toEqual(['1', '2', '3', '4']);
});

test('no two lines come to have one label, and none comes to have none', () => {
  const state = stateOf([upright('1', 0), upright('2', 6), across('A', 0)]);
  expect(relabel(state, new Map([[uuid(1), 'A']]))).toEqual({
    ok: false,
    message: 'Two grid lines would be called A. Begin with another label, or give a prefix.',
  });
  expect(relabel(state, new Map([[uuid(1), ' ']])).ok).toBe(false);
  // Labels may change places.
  const swapped = relabel(
    state,
    new Map([
      [uuid(1), '2'],
      [uuid(2), '1'],
    ]),
  );
  if (!swapped.ok) throw new Error(swapped.message);
  const { state: after, inverse } = applyChanges(state, swapped.value.changes);
  expect(
    [after.element[uuid(1)], after.element[uuid(2)]].map((element) => element.kind === 'grid' && element.shape.label),
  ).toEqual(['2', '1']);
  expect(applyChanges(after, inverse).state).toEqual(state);
});

test('whatever the rule, no two lines of a family get one label, and they follow one another from the side asked for', () => {
  const places = fc.uniqueArray(fc.integer({ min: 0, max: 300 }), { minLength: 1, maxLength: 60 });
  fc.assert(
    fc.property(
      places,
      fc.constantFrom('numbers' as const, 'letters' as const),
      fc.constantFrom('low' as const, 'high' as const),
      fc.boolean(),
      fc.integer({ min: 1, max: 90 }),
      (at, style, from, skip, first) => {
        const state = stateOf(at.map((x, i) => upright(`L${i}`, x)));
        const [family] = gridFamilies(state);
        const result = labelsBy(
          { ...rule, style, from, skip, first: style === 'numbers' ? String(first) : 'A', between: false },
          family,
        );
        if (!result.ok) throw new Error(result.message);
        expect(new Set(result.value).size).toBe(at.length);
        if (skip && style === 'letters') expect(result.value.some((label) => /[IO]/.test(label))).toBe(false);
        const along = from === 'low' ? result.value : [...result.value].reverse();
        if (style === 'numbers') expect(along.map(Number)).toEqual(at.map((_, i) => first + i));
        const edit = relabel(state, new Map(family.lines.map(({ id }, i) => [id, result.value[i]])));
        if (!edit.ok) throw new Error(edit.message);
        expect(gridFamilies(applyChanges(state, edit.value.changes).state)[0].lines.map(({ label }) => label)).toEqual(
          result.value,
        );
      },
    ),
    { numRuns: 60 },
  );
});
