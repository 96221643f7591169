import { applyChanges, Model } from './model';
import { put } from './edits';
import { plainLevel } from './levels';
import { emptyState } from './state';
import { fitsPattern, profileOf, roomsByRule, usualProfileRules, usualProfiles, withProfiles } from './usualProfiles';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const zone = (n: number, name: string, more = {}) =>
  put('element', {
    id: uuid(n),
    levelId: uuid(1),
    source: null,
    kind: 'zone',
    shape: {
      name,
      number: '',
      outline: [
        [0, 0],
        [1, 0],
        [1, 1],
      ],
      holes: [],
      height: null,
      ...more,
    },
  });

test('a star stands for anything, letters of either case, and what is no star for itself', () => {
  expect(fitsPattern('*wash*', 'Wash Room 2')).toBe(true);
  expect(fitsPattern('wash*', 'The wash')).toBe(false);
  expect(fitsPattern('lab (wet)', 'Lab (Wet)')).toBe(true);
  expect(fitsPattern('a.c', 'abc')).toBe(false);
  expect(fitsPattern('*', '')).toBe(true);
});

test('the first rule that fits counts, and rooms of no rule stay as they are', () => {
  const rules = [
    { pattern: '*wash*', profile: 'Bath, changing' },
    { pattern: '*', profile: 'Unheated' },
  ];
  expect(profileOf('Wash Room', rules, usualProfiles)?.temperature).toBe(24);
  expect(profileOf('Shed', rules, usualProfiles)?.temperature).toBeNull();
  expect(profileOf('Shed', usualProfileRules, usualProfiles)).toBeNull();
  const changes = [
    put('level', { ...plainLevel, id: uuid(1), name: 'Ground', elevation: 0, height: 3 }),
    zone(2, 'Wash Room'),
    zone(3, 'Tanks', { temperature: 5 }),
    zone(4, 'Corridor', { temperature: 15, airChange: 0.5, gains: 1 }),
  ];
  const model = new Model(applyChanges(emptyState, changes).state);
  const edit = withProfiles(model, usualProfileRules, usualProfiles);
  // The corridor has its values already, of the tanks nothing is known.
  expect(edit.label).toBe('Use of 1 room by name');
  const after = applyChanges(model, edit.changes).state;
  expect(after.element[uuid(2)].shape).toMatchObject({ temperature: 24, airChange: 1.5, gains: 2 });
  expect(after.element[uuid(3)].shape).toMatchObject({ temperature: 5 });
  expect(roomsByRule(model, usualProfileRules).get(-1)).toBe(1);
});
