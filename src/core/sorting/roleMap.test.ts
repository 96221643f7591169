import fc from 'fast-check';
import { applyRoleMap, readRoleMap, roleMapOf } from './roleMap';
import { roles, type Role } from './roles';

const layers: { layer: string; role: Role | null }[] = [
  { layer: 'A-WALL', role: 'wall' },
  { layer: 'A-WALL-FULL', role: 'wall' },
  { layer: 'A-DOOR', role: 'door' },
  { layer: 'A-DOOR-TEXT', role: 'label' },
  { layer: '0', role: null },
];

test('a map has a rule with a star where all that begin so agree, and exact ones where they do not', () => {
  expect(roleMapOf('Office', layers).rules).toEqual([
    { pattern: 'A-DOOR-TEXT', role: 'label', of: 'layer' },
    { pattern: 'A-WALL*', role: 'wall', of: 'layer' },
    { pattern: 'A-DOOR', role: 'door', of: 'layer' },
  ]);
});

test('a map applied to other layers says what matched, what did not, and which rules were not needed', () => {
  const {
    roles: found,
    unmatched,
    unused,
  } = applyRoleMap(roleMapOf('Office', layers), ['a-wall-new', 'A-DOOR', 'FURNITURE']);
  expect([...found].map(([layer, { role, pattern }]) => [layer, role, pattern])).toEqual([
    ['a-wall-new', 'wall', 'A-WALL*'],
    ['A-DOOR', 'door', 'A-DOOR'],
  ]);
  expect([unmatched, unused]).toEqual([['FURNITURE'], ['A-DOOR-TEXT']]);
});

test('applied to the layers it came from a map gives each its role back, and is read back from its file', () => {
  const layer = fc.record({
    layer: fc.stringMatching(/^[A-C][-_][A-C]{1,3}([-_][A-C]{1,2})?$/),
    role: fc.option(fc.constantFrom(...roles)),
  });
  fc.assert(
    fc.property(fc.uniqueArray(layer, { selector: (one) => one.layer, maxLength: 12 }), (list) => {
      const map = roleMapOf('Any', list);
      const { roles: found } = applyRoleMap(
        map,
        list.map((one) => one.layer),
      );
      for (const { layer: name, role } of list)
        if (role !== null) expect([name, found.get(name)?.role]).toEqual([name, role]);
      const back = readRoleMap(JSON.stringify(map));
      expect(back.ok && back.value).toEqual(map);
    }),
  );
});

test.each([
  ['no json', /not JSON/],
  ['{"format":"x"}', /not a role map: format/],
  [
    '{"format":"zircon-frame-roles","version":1,"name":"A","rules":[{"pattern":"*","role":"chimney"}]}',
    /not a role map: rules\.0\.role/,
  ],
  ['{"format":"zircon-frame-roles","version":2,"name":"A","rules":[]}', /version/],
])('a file that is no role map is refused with a sentence: %s', (text, words) => {
  const result = readRoleMap(text);
  expect(result.ok ? '' : result.message).toMatch(words);
});

test('a map keeps lessons and which number is the width, and one from before has neither', () => {
  const like = { form: 'circle', corners: null, layer: null, colour: null, size: [1.2, 0.1], written: null } as const;
  const lessons = [{ role: 'column' as const, like: { ...like, size: [1.2, 0.1] as [number, number] } }];
  const answers = [{ asks: 'finish' as const, size: 0.02, take: 'part of the column' as const }];
  const map = roleMapOf('Office', layers, [], { lessons, answers, firstNumber: 'depth' });
  const back = readRoleMap(JSON.stringify(map));
  expect(back.ok && back.value).toEqual(map);
  const { lessons: _, answers: __, firstNumber: ___, ...before } = map;
  const old = readRoleMap(JSON.stringify(before));
  expect(old.ok && [old.value.lessons, old.value.answers, old.value.firstNumber]).toEqual([[], [], null]);
});
