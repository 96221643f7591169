import { emptyState, type LevelRow, type ProjectState } from '@/core/model/state';
import { put } from '@/core/model/edits';
import { plainLevel } from '@/core/model/levels';
import { useProject } from './store';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const level = (n: number, name: string): LevelRow => ({ ...plainLevel, id: uuid(n), name, elevation: n, height: 3 });
const history = (version: number) => ({ version, undo: version > 0 ? 'x' : null, redo: null, savedAt: null });

type Sent = { path: string; body: { seen: number; clientId: string; edit?: { label: string } } | null };
const sent: Sent[] = [];
let respond: (request: Sent) => Response | 'silence';

class SilentEvents {
  onmessage: unknown;
  onopen: unknown;
  onerror: unknown;
  close() {
    /* Nothing is open. */
  }
}

beforeEach(() => {
  sent.length = 0;
  Object.assign(globalThis, {
    EventSource: SilentEvents,
    fetch: async (path: string, init?: { body?: string }) => {
      const request: Sent = {
        path: path.replace(/.*\/projects\/[^/]+\//, ''),
        body: init?.body ? (JSON.parse(init.body) as Sent['body']) : null,
      };
      sent.push(request);
      const answer = respond(request);
      if (answer === 'silence') throw new TypeError('fetch failed');
      return answer;
    },
  });
  useProject.getState().open('p', { state: emptyState, history: history(0), intakes: [] });
});

const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
const addLevel = (n: number, name: string) =>
  useProject.getState().commit(() => ({ label: `Add ${name}`, changes: [put('level', level(n, name))] }));
const names = (state: ProjectState) => Object.values(state.level).map((row) => row.name);

test('steps go out one after another, each with the version the one before made', async () => {
  let version = 0;
  respond = () => {
    version += 1;
    return json({
      edits: [{ seq: version, label: '', changes: [put('level', level(version, `L${version}`))] }],
      history: history(version),
    });
  };
  await Promise.all([addLevel(1, 'L1'), addLevel(2, 'L2'), addLevel(3, 'L3')]);
  expect(sent.map((request) => request.body!.seen)).toEqual([0, 1, 2]);
  expect(names(useProject.getState().state)).toEqual(['L1', 'L2', 'L3']);
  expect(useProject.getState().pending).toBe(0);
});

test('a step is made from the state at its turn, and one that changes nothing is not sent', async () => {
  respond = () =>
    json({ edits: [{ seq: 1, label: '', changes: [put('level', level(1, 'L1'))] }], history: history(1) });
  const first = addLevel(1, 'L1');
  let seen: string[] = [];
  const second = useProject.getState().commit((state) => {
    seen = names(state);
    return { label: 'nothing', changes: [] };
  });
  expect([await first, await second]).toEqual([true, false]);
  expect(seen).toEqual(['L1']);
  expect(sent).toHaveLength(1);
});

test('a step without an answer is sent again, the same, until it is confirmed', async () => {
  let silent = 1;
  respond = () =>
    silent-- > 0
      ? 'silence'
      : json({ edits: [{ seq: 1, label: '', changes: [put('level', level(1, 'L1'))] }], history: history(1) });
  const done = addLevel(1, 'L1');
  await new Promise((wait) => setTimeout(wait, 50));
  expect(useProject.getState().connection).toBe('away');
  expect(await done).toBe(true);
  expect(useProject.getState().connection).toBe('ok');
  expect(sent[0].body).toEqual(sent[1].body);
});

test('a refused step is told, and what changed meanwhile is fetched and shown', async () => {
  respond = (request) =>
    request.body !== null
      ? json({ message: 'Not applied: the project changed.', version: 1 }, 409)
      : json({
          edits: [{ seq: 1, label: 'Theirs', changes: [put('level', level(9, 'Theirs'))] }],
          history: history(1),
        });
  expect(await addLevel(1, 'Mine')).toBe(false);
  const {
    state,
    messages,
    history: { version },
  } = useProject.getState();
  expect([names(state), messages[messages.length - 1].text, version]).toEqual([
    ['Theirs'],
    'Not applied: the project changed.',
    1,
  ]);
});

test('edits that do not follow on one another make the window load the project anew', async () => {
  respond = (request) =>
    request.path === 'state'
      ? json({ state: { ...emptyState, level: { [uuid(5)]: level(5, 'Whole') } }, history: history(7), intakes: [] })
      : json({ edits: [{ seq: 7, label: '', changes: [] }], history: history(7) });
  await addLevel(1, 'L1');
  await new Promise((wait) => setTimeout(wait, 20));
  expect(names(useProject.getState().state)).toEqual(['Whole']);
  expect(useProject.getState().history.version).toBe(7);
});

test('a project that is gone is said to be gone', async () => {
  respond = () => json({ message: 'This project is not there any more.' }, 404);
  await addLevel(1, 'L1');
  expect(useProject.getState().gone).toBe('This project is not there any more.');
});

test('undo with nothing to undo asks nobody', async () => {
  respond = () => json({});
  expect(await useProject.getState().undo()).toBe(false);
  expect(sent).toEqual([]);
});
