import { emptyState } from '@/core/model/state';
import { askEarly, openProject } from './openProject';

const [one, other] = ['0000000a-0000-4000-8000-000000000001', '0000000b-0000-4000-8000-000000000002'];

/** What is answered by the last word of a path. */
const answers: Record<string, object> = {
  state: { state: emptyState, history: { version: 7, undo: null, redo: null } },
  intakes: { intakes: [] },
  people: { self: null },
};

let asked: string[] = [];
let away = false;
beforeEach(() => {
  asked = [];
  away = false;
  Object.assign(globalThis, {
    sessionStorage: { getItem: () => null, setItem: () => undefined },
    fetch: async (path: string) => {
      asked.push(path);
      if (away) throw new TypeError('fetch failed');
      return Response.json(answers[path.split('/').pop()!]);
    },
  });
});

const pathsOf = (id: string) => ['state', 'intakes', 'people'].map((word) => `/api/projects/${id}/${word}`);

test('what was asked for before the page came to life is taken once, by its own project', async () => {
  askEarly(`/projects/${one}`);
  expect(asked).toEqual(pathsOf(one));
  expect((await openProject(one)).facts.getState().history.version).toBe(7);
  expect(asked).toHaveLength(3);
  await openProject(one);
  expect(asked).toHaveLength(6);
  askEarly(`/projects/${one}`);
  await openProject(other);
  expect(asked.slice(9)).toEqual(pathsOf(other));
});

test('at another address nothing is asked for', () => {
  for (const path of ['/', '/sign-in', `/projects/${one}/report`, '/projects/none']) askEarly(path);
  expect(asked).toEqual([]);
});

test('who opens a project hears why what was asked for early did not come, and may ask again', async () => {
  away = true;
  askEarly(`/projects/${one}`);
  await new Promise((resolve) => setTimeout(resolve));
  await expect(openProject(one)).rejects.toThrow('The server does not answer.');
  away = false;
  expect((await openProject(one)).id).toBe(one);
});
