import { actAt, actNames, acts, keyOf, keyRefusal, pressed, shownKey, useKeys, viewKeyRefusal } from './keys';

const press = (key: string, held: Partial<Record<'ctrlKey' | 'altKey' | 'shiftKey', true>> = {}, code = '') =>
  pressed({ key, code, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held });

afterEach(() => useKeys.setState({ chosen: {} }));

test('no two acts have one key to begin with, and each key may be chosen for its act', () => {
  const keys = actNames.map((name) => acts[name].key);
  expect(new Set(keys).size).toBe(keys.length);
  for (const name of actNames) expect(keyRefusal(name, acts[name].key)).toBeNull();
});

test('what is pressed is told with what is held; a sign typed with Shift is the sign, a digit stays the digit', () => {
  expect(press('Z', { ctrlKey: true, shiftKey: true })).toBe('ctrl shift z');
  expect(press(';', { ctrlKey: true })).toBe('ctrl ;');
  expect(press('?', { shiftKey: true })).toBe('?');
  expect(press('!', { altKey: true, shiftKey: true }, 'Digit1')).toBe('alt shift 1');
  expect(press('F1')).toBe('f1');
  expect(press('v')).toBe('v');
  expect(shownKey('ctrl shift z')).toBe('Ctrl Shift Z');
});

test('a key of another act, of the browser or of the wrong sort is refused with the reason', () => {
  expect(keyRefusal('loupe', 'n')).toMatch(/taken by .The next thing/);
  expect(keyRefusal('loupe', '5')).toMatch(/Choose a letter/);
  expect(keyRefusal('find', 'q')).toMatch(/Ctrl or Alt/);
  expect(keyRefusal('find', 'ctrl w')).toMatch(/browser/);
  expect(viewKeyRefusal('v')).toMatch(/key of .The model in space/);
  expect(viewKeyRefusal('1')).toMatch(/letter/);
  // A letter that accepts at Reading must not move the view there as well.
  expect(viewKeyRefusal('a')).toMatch(/accepting at Reading/);
  expect(keyRefusal('loupe', 'j')).toMatch(/next of a list/);
  expect(viewKeyRefusal('q')).toBeNull();
});

test('a chosen key does it, and the one before is free', () => {
  useKeys.getState().choose('loupe', 'y');
  expect([actAt('y'), actAt('l'), keyOf('loupe')]).toEqual(['loupe', null, 'y']);
  expect(keyRefusal('again', 'l')).toBeNull();
  useKeys.getState().reset();
  expect(actAt('l')).toBe('loupe');
});
