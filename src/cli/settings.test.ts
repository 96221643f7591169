import { parseSettings } from './settings';

test('nothing said means: unit and roles by themselves, a ground level of three metres', () => {
  expect(parseSettings('{}')).toEqual({
    ok: true,
    value: { unit: 'auto', level: { name: 'Ground', elevation: 0, height: 3 }, roles: 'auto', recipe: [] },
  });
});

test('the settings of the documents are taken as they are', () => {
  const result = parseSettings(
    '{ "unit": "mm", "level": { "name": "Ground", "elevation": 0, "height": 3.9 }, "roles": { "A-GRID*": "grid", "*": "ignore" } }',
  );
  expect(result).toMatchObject({
    ok: true,
    value: { unit: 'mm', level: { height: 3.9 }, roles: { 'A-GRID*': 'grid', '*': 'ignore' } },
  });
});

test('a recipe is taken, its steps on and numbered where that is not said', () => {
  const result = parseSettings(
    '{ "recipe": [{ "step": { "kind": "strays" } }, { "id": "g", "on": false, "step": { "kind": "closeGaps", "tolerance": 0.01 } }] }',
  );
  expect(result).toMatchObject({
    ok: true,
    value: {
      recipe: [
        { id: '0', on: true, step: { kind: 'strays' } },
        { id: 'g', on: false },
      ],
    },
  });
});

test.each([
  ['{ "unit": "yd" }', '"unit"'],
  ['{ "level": { "height": 0 } }', '"level.height"'],
  ['{ "roles": { "A": "roof" } }', '"roles'],
  ['{ "units": "mm" }', '"units"'],
  ['{ "recipe": [{ "step": { "kind": "closeGaps", "tolerance": -1 } }] }', '"recipe'],
  ['[]', 'top'],
  ['{', 'not JSON'],
])('%s is refused, naming the place', (text, place) => {
  const result = parseSettings(text);
  expect(result.ok).toBe(false);
  if (!result.ok) expect(result.message).toContain(place);
});
