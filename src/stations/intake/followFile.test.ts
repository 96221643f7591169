import { canFollow, useFollowed } from './followFile';

const disk = { name: 'plan.dxf', lastModified: 1, gone: false };
const handle = {
  name: disk.name,
  getFile: async () => {
    if (disk.gone) throw new Error('gone');
    return { name: disk.name, lastModified: disk.lastModified } as File;
  },
};

beforeEach(() => {
  Object.assign(disk, { lastModified: 1, gone: false });
  jest.useFakeTimers();
});
afterEach(() => {
  useFollowed.getState().stop('d');
  jest.useRealTimers();
  Reflect.deleteProperty(globalThis, 'window');
});
const offer = (picker: unknown) => Object.assign(globalThis, { window: { showOpenFilePicker: picker } });
const wait = () => jest.advanceTimersByTimeAsync(1600);
const followed = () => useFollowed.getState().files.d;

test('it is offered only where the browser can keep hold of a file', () => {
  expect(canFollow()).toBe(false);
  offer(async () => [handle]);
  expect(canFollow()).toBe(true);
});

test('a file that changes on the disk is told once, and counts as seen when it is taken', async () => {
  offer(async () => [handle]);
  expect(await useFollowed.getState().follow('d')).toBe(true);
  await wait();
  expect(followed().changed).toBe(false);
  disk.lastModified = 2;
  await wait();
  expect(followed().changed).toBe(true);
  expect((await useFollowed.getState().take('d'))?.name).toBe('plan.dxf');
  expect(followed().changed).toBe(false);
  await wait();
  expect(followed().changed).toBe(false);
});

test('a file that was moved is told in a sentence, and looked for again', async () => {
  offer(async () => [handle]);
  await useFollowed.getState().follow('d');
  disk.gone = true;
  await wait();
  expect(followed().problem).toMatch(/plan\.dxf cannot be looked at any more/);
  Object.assign(disk, { gone: false, lastModified: 3 });
  await wait();
  expect(followed()).toMatchObject({ changed: true, problem: null });
});

test('a person who chooses nothing follows nothing, and stopping ends it', async () => {
  offer(async () => {
    throw new DOMException('The user aborted a request.', 'AbortError');
  });
  expect(await useFollowed.getState().follow('d')).toBe(false);
  expect(followed()).toBeUndefined();
  offer(async () => [handle]);
  await useFollowed.getState().follow('d');
  useFollowed.getState().stop('d');
  disk.lastModified = 9;
  await wait();
  expect(followed()).toBeUndefined();
  expect(await useFollowed.getState().take('d')).toBeNull();
});
