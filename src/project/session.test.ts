import fc from 'fast-check';
import { put, remove, type Change } from '@/core/model/edits';
import { plainLevel } from '@/core/model/levels';
import { Model } from '@/core/model/model';
import { emptyState, type LevelRow } from '@/core/model/state';
import { commitInTurns } from './commitInTurns';
import { Session } from './session';
import { FakeServer, rowsOf } from './testing/fakeServer';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const level = (n: number, name: string): LevelRow => ({ ...plainLevel, id: uuid(n), name, elevation: n, height: 3 });
const adding = (n: number, name: string) => ({ label: `Add ${name}`, changes: [put('level', level(n, name))] });
const names = (session: Session) => Object.values(session.model.level).map(({ name }) => name);

/** Each project has a server of its own behind one address, as windows see it. */
const servers = new Map<string, FakeServer>();
beforeEach(() => {
  servers.clear();
  Object.assign(globalThis, {
    fetch: (path: string, init?: { body?: string }) =>
      servers.get(/projects\/([^/]+)/.exec(path)![1])!.fetch(path, init),
  });
});

function open(project = 'p'): { server: FakeServer; session: Session } {
  if (!servers.has(project)) servers.set(project, new FakeServer(emptyState));
  const server = servers.get(project)!;
  return {
    server,
    session: new Session(project, {
      state: rowsOf(server.model),
      history: server.history,
      intakes: [],
      right: 'owner',
    }),
  };
}

const silent = () => {
  throw new TypeError('fetch failed');
};
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

test('edits apply here at once, and go out one after another, each with the version the one before made', async () => {
  const { server, session } = open();
  const all = [1, 2, 3].map((n) => session.commit(() => adding(n, `L${n}`)));
  expect(names(session)).toEqual(['L1', 'L2', 'L3']);
  expect(session.facts.getState()).toMatchObject({ pending: 3, history: { undo: 'Add L3' } });
  expect(await Promise.all(all)).toEqual([true, true, true]);
  expect(server.asked.map(({ body }) => body!.seen)).toEqual([0, 1, 2]);
  expect(session.facts.getState()).toMatchObject({ pending: 0, history: { version: 3, undo: 'Add L3' } });
});

test('who goes on at once hears at once whether an edit is applied here, before the server has it', async () => {
  const { server, session } = open();
  expect(session.apply(() => adding(1, 'L1'))).toBe(true);
  expect(names(session)).toEqual(['L1']);
  expect(session.apply(() => null)).toBe(false);
  expect(session.apply(() => ({ label: 'Nothing', changes: [] }))).toBe(false);
  expect(server.asked).toHaveLength(0);
  while (session.facts.getState().pending > 0) await settled();
  expect(server.asked).toHaveLength(1);
});

test('a large edit is made in turns, and what was made is what is committed', async () => {
  const { session } = open();
  let made = 0;
  const done = commitInTurns(session, function* make() {
    made += 1;
    yield;
    return adding(1, 'L1');
  });
  expect(names(session)).toEqual([]);
  expect(await done).toBe(true);
  expect([made, names(session)]).toEqual([1, ['L1']]);
});

test('a large edit is made anew where the model changed while it was made', async () => {
  const { session } = open();
  const seen: string[][] = [];
  const done = commitInTurns(session, function* make(model) {
    seen.push(Object.values(model.level).map(({ name }) => name));
    yield;
    return adding(2, `after ${seen[seen.length - 1].join()}`);
  });
  await session.commit(() => adding(1, 'L1'));
  expect(await done).toBe(true);
  expect(seen).toEqual([[], ['L1']]);
  expect(names(session)).toEqual(['L1', 'after L1']);
});

test('one edit is told once', async () => {
  const { session } = open();
  let heard = 0;
  session.model.subscribe(() => (heard += 1));
  await session.commit(() => adding(1, 'L1'));
  expect(heard).toBe(1);
});

test('an edit that changes nothing is not sent, and one that the server would not take is told and not applied', async () => {
  const { server, session } = open();
  expect(await session.commit(() => ({ label: 'nothing', changes: [] }))).toBe(false);
  expect(await session.commit(() => adding(1, '  '))).toBe(false);
  expect([server.asked, names(session)]).toEqual([[], []]);
  expect(session.facts.getState().messages.map(({ text }) => text)).toEqual(['A name needs at least one character.']);
});

test('a step without an answer is sent again, the same, until it is confirmed; it counts once', async () => {
  const { server, session } = open();
  const answer = server.fetch;
  let lost = 1;
  // The step arrives, its answer does not.
  Object.assign(globalThis, {
    fetch: async (path: string, init?: { body?: string }) => {
      const response = await answer(path, init);
      return lost-- > 0 ? silent() : response;
    },
  });
  const done = session.commit(() => adding(1, 'L1'));
  await settled();
  await settled();
  expect(session.facts.getState().connection).toBe('away');
  expect(await done).toBe(true);
  expect(session.facts.getState().connection).toBe('ok');
  expect(server.asked[0].body).toEqual(server.asked[1].body);
  expect([server.log.length, names(session)]).toEqual([1, ['L1']]);
});

test('what others did goes before the own step, which lands on top of it', async () => {
  const { server, session } = open();
  server.other('Theirs', [put('level', level(9, 'Theirs'))]);
  expect(await session.commit(() => adding(1, 'Mine'))).toBe(true);
  expect(names(session).sort()).toEqual(['Mine', 'Theirs']);
  expect(server.log.map(({ label }) => label)).toEqual(['Theirs', 'Add Mine']);
  expect(rowsOf(session.model)).toEqual(rowsOf(server.model));
});

test('a step that contradicts what others did is refused with a sentence, and so is what was built on it; the rest lands', async () => {
  const { server, session } = open();
  await session.commit(() => adding(1, 'Ground'));
  server.other('Theirs', [put('level', level(1, 'Theirs'))]);
  const rename = (name: string) =>
    session.commit((model) => ({
      label: `Call it ${name}`,
      changes: [put('level', { ...model.level[uuid(1)], name })],
    }));
  const steps = [rename('Mine'), rename('Mine too'), session.commit(() => adding(2, 'Roof'))];
  expect(await Promise.all(steps)).toEqual([false, false, true]);
  expect(session.facts.getState().messages.map(({ text }) => text.slice(0, 18))).toEqual([
    '\u201cCall it Mine\u201d was',
    '\u201cCall it Mine too\u201d',
  ]);
  expect(names(session).sort()).toEqual(['Roof', 'Theirs']);
  expect(rowsOf(session.model)).toEqual(rowsOf(server.model));
});

test('a step that the server refuses for another reason is taken back, and later ones stand', async () => {
  const { server, session } = open();
  const answer = server.fetch;
  Object.assign(globalThis, {
    fetch: (path: string, init?: { body?: string }) =>
      init?.body?.includes('Bad')
        ? Promise.resolve(new Response(JSON.stringify({ message: 'The disk is full.' }), { status: 507 }))
        : answer(path, init),
  });
  const steps = [session.commit(() => adding(1, 'Bad')), session.commit(() => adding(2, 'Good'))];
  expect(await Promise.all(steps)).toEqual([false, true]);
  expect(names(session)).toEqual(['Good']);
  expect(session.facts.getState().messages.map(({ text }) => text)).toEqual(['The disk is full.']);
});

test('undo takes the last step back at once where its way back is known, and redo does it again', async () => {
  const { server, session } = open();
  await session.commit(() => adding(1, 'L1'));
  await session.commit(() => adding(2, 'L2'));
  const undone = session.undo();
  expect(names(session)).toEqual(['L1']);
  expect(await undone).toBe(true);
  await session.undo();
  expect([names(session), session.facts.getState().history.undo]).toEqual([[], null]);
  expect(await session.undo()).toBe(false);
  const redone = session.redo();
  expect(names(session)).toEqual(['L1']);
  await redone;
  await session.redo();
  expect(names(session)).toEqual(['L1', 'L2']);
  expect(rowsOf(session.model)).toEqual(rowsOf(server.model));
});

test('undo in a window that has just opened waits for the server\u2019s word', async () => {
  const { session: earlier } = open();
  await earlier.commit(() => adding(1, 'L1'));
  const { session } = open();
  expect(await session.undo()).toBe(true);
  expect(names(session)).toEqual([]);
});

test('a step queued while the server was away goes to its own project, whatever project is opened meanwhile', async () => {
  const { server: first, session: a } = open('a');
  const { server: second, session: b } = open('b');
  first.before = silent;
  const queued = a.commit(() => adding(1, 'Of A'));
  await settled();
  first.before = () => undefined;
  await b.commit(() => adding(2, 'Of B'));
  expect(await queued).toBe(true);
  expect([names(a), names(b)]).toEqual([['Of A'], ['Of B']]);
  expect([first, second].map(({ log }) => log.map(({ label }) => label))).toEqual([['Add Of A'], ['Add Of B']]);
});

test('a window that has missed too much loads the project anew, with its own steps on top', async () => {
  const { server, session } = open();
  const answer = server.fetch;
  server.other('Far ahead', [put('level', level(5, 'Whole'))]);
  Object.assign(globalThis, {
    // As the server does where the log is longer than one answer.
    fetch: async (path: string, init?: { body?: string }) => {
      const response = await answer(path, init);
      if (!path.includes('edits')) return response;
      const body = (await response.json()) as { edits: unknown[] };
      return new Response(JSON.stringify({ ...body, edits: [] }));
    },
  });
  expect(await session.commit(() => adding(1, 'Mine'))).toBe(true);
  expect(names(session).sort()).toEqual(['Mine', 'Whole']);
  expect(rowsOf(session.model)).toEqual(rowsOf(server.model));
});

test('what is heard of while a step is on its way is asked for afterwards', async () => {
  const source = { onmessage: (_: { data: string }): void => undefined, close: () => undefined, readyState: 1 };
  Object.assign(globalThis, { EventSource: jest.fn(() => source) });
  const { server, session } = open();
  session.listen();
  const answer = server.fetch;
  Object.assign(globalThis, {
    fetch: async (path: string, init?: { body?: string }) => {
      const response = await answer(path, init);
      // Somebody else's edit lands after the answer was made, and is told of before that has come.
      if (init?.body && server.log.length === 1) {
        server.other('Theirs', [put('level', level(7, 'Theirs'))]);
        source.onmessage({ data: JSON.stringify({ version: 2 }) });
      }
      return response;
    },
  });
  await session.commit(() => adding(1, 'Mine'));
  await settled();
  await settled();
  expect(names(session).sort()).toEqual(['Mine', 'Theirs']);
});

test('what others do while their earlier doings are asked for is asked for once more', async () => {
  const { server, session } = open();
  const answer = server.fetch;
  const held: (() => void)[] = [];
  // The answer is what the server had when it was asked, and comes later.
  Object.assign(globalThis, {
    fetch: async (path: string, init?: { body?: string }) => {
      const response = await answer(path, init);
      await new Promise<void>((resolve) => held.push(resolve));
      return response;
    },
  });
  const first = session.pull();
  await settled();
  server.other('Theirs', [put('level', level(9, 'Theirs'))]);
  const second = session.pull();
  held.shift()!();
  await first;
  expect(names(session)).toEqual([]);
  await settled();
  held.shift()!();
  await second;
  expect([names(session), held]).toEqual([['Theirs'], []]);
});

test('a step on its way stays what was sent, though news come in between that would make it anew', async () => {
  const { server, session } = open();
  const answer = server.fetch;
  let made = 10;
  Object.assign(globalThis, {
    fetch: async (path: string, init?: { body?: string }) => {
      if (!init?.body) return answer(path, init);
      // The window hears of news while its step is on its way to the server.
      server.other('Theirs', [put('level', level(7, 'Theirs'))]);
      await session.pull();
      return answer(path, init);
    },
  });
  expect(
    await session.commit(() => {
      made += 1;
      return adding(made, `Made ${made}`);
    }),
  ).toBe(true);
  expect(rowsOf(session.model)).toEqual(rowsOf(server.model));
});

test('a window whose stream is open hears that its project was deleted', async () => {
  const source = { onmessage: (_: { data: string }): void => undefined, close: () => undefined, readyState: 1 };
  Object.assign(globalThis, { EventSource: jest.fn(() => source) });
  const { session } = open();
  session.listen();
  const answer = new Response(JSON.stringify({ message: 'This project is not there any more.' }), { status: 404 });
  Object.assign(globalThis, { fetch: () => Promise.resolve(answer) });
  // As the server tells it (setDeleted).
  source.onmessage({ data: JSON.stringify({ version: -1 }) });
  await settled();
  await settled();
  expect(session.facts.getState().gone).toBe('This project is not there any more.');
});

test('a project that was deleted elsewhere says so', async () => {
  const { session } = open();
  Object.assign(globalThis, {
    fetch: () =>
      Promise.resolve(
        new Response(JSON.stringify({ message: 'This project is not there any more.' }), { status: 404 }),
      ),
  });
  expect(await session.commit(() => adding(1, 'L1'))).toBe(false);
  expect(session.facts.getState().gone).toBe('This project is not there any more.');
  expect(names(session)).toEqual([]);
});

test('any edits, undos and redos of two windows end in one state in both, which the log replayed gives too', async () => {
  const change = fc
    .tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 3 }), fc.boolean())
    .map(([n, name, gone]): Change => (gone ? remove('level', uuid(n)) : put('level', level(n, `N${name}`))));
  // One edit changes a row once.
  const changes = fc.uniqueArray(change, { minLength: 1, maxLength: 3, selector: ({ id }) => id });
  type Act = { window: number; what: Change[] | 'undo' | 'redo'; pause: boolean };
  const act: fc.Arbitrary<Act> = fc.record({
    window: fc.integer({ min: 0, max: 1 }),
    what: fc.oneof(
      { weight: 4, arbitrary: changes },
      { weight: 1, arbitrary: fc.constantFrom<'undo' | 'redo'>('undo', 'redo') },
    ),
    pause: fc.boolean(),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 1, maxLength: 14 }), async (acts) => {
      servers.clear();
      const { server, session: first } = open();
      const windows = [first, open().session];
      const waiting: Promise<boolean>[] = [];
      for (const { window, what, pause } of acts) {
        const session = windows[window];
        waiting.push(
          typeof what === 'string' ? session[what]() : session.commit(() => ({ label: 'edit', changes: what })),
        );
        if (pause) await settled();
      }
      await Promise.all(waiting);
      // Both hear of what the other did last.
      for (const session of windows) await session.pull();
      const replayed = new Model(server.first);
      for (const logged of server.log) replayed.apply(logged.changes);
      const last = rowsOf(replayed);
      for (const session of windows) expect(rowsOf(session.model)).toEqual(last);
    }),
    { numRuns: 120 },
  );
});
