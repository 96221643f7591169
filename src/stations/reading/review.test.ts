import type { Candidate } from '@/core/reading/candidate';
import { asDrawn } from '@/core/datum/placement';
import { alikeAsked, kindsShown, leaksOf, lookThrough, promise, type Judged, type Looking } from './review';
import { unlikeIn } from '@/project/useBeside';

/** A round column that stands so far from its crossing, metres. */
const column = (key: string, confidence: number, off: number, doubt: string | null = null): Candidate => ({
  kind: 'column',
  key,
  confidence,
  doubt,
  evidence: [],
  handles: [key],
  crossing: { name: key.toUpperCase(), point: [0, 0], distance: off },
  raw: { width: 0.4, depth: 0.4 },
  element: { position: [off, 0], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: `C-${key}` },
});

const all: Judged[] = [
  { candidate: column('a1', 0.95, 0), verdict: 'open' },
  { candidate: column('a2', 0.9, 0.02), verdict: 'open' },
  { candidate: column('b1', 0.3, 3, 'far from the grid'), verdict: 'open' },
  { candidate: column('b2', 0.99, 0), verdict: 'accepted' },
];
const looking: Looking = {
  kind: 'column',
  verdict: 'open',
  find: '',
  filter: 'all',
  threshold: 0.5,
  chosen: new Set(),
  told: { conflicts: new Map([['a2', 'is in the model already']]), unlike: new Map<string, string>() },
  crossing: 0.05,
};
const keys = (candidates: readonly Candidate[]) => candidates.map(({ key }) => key);

describe('what is listed and acted on', () => {
  it('acts on what is sure enough and not in the model already', () => {
    const look = lookThrough(all, looking);
    expect(keys(look.listed)).toEqual(['a1', 'a2', 'b1']);
    expect(keys(look.acted)).toEqual(['a1']);
    expect(keys(look.everything)).toEqual(['a1']);
    expect(keys(look.doubtful)).toEqual(['b1']);
  });

  it('acts on what was chosen, whatever it is', () => {
    expect(keys(lookThrough(all, { ...looking, chosen: new Set(['a2', 'b1']) }).acted)).toEqual(['a2', 'b1']);
  });

  it('narrows down by words and by trouble, and acts within that', () => {
    expect(keys(lookThrough(all, { ...looking, find: 'c-b1', threshold: 0.2 }).acted)).toEqual(['b1']);
    expect(keys(lookThrough(all, { ...looking, filter: 'conflict' }).acted)).toEqual(['a2']);
    // A filter that leaves nothing gives way to all.
    expect(lookThrough(all, { ...looking, verdict: 'accepted', filter: 'conflict' }).filter).toBe('all');
  });

  it('judges again what is listed of the decided', () => {
    expect(keys(lookThrough(all, { ...looking, verdict: 'accepted' }).acted)).toEqual(['b2']);
  });

  it('tells columns that stand close to their crossing and not on it', () => {
    expect(keys(lookThrough(all, looking).near)).toEqual(['a2']);
  });

  it('has tabs for grid and columns, and for what was found beside', () => {
    expect(kindsShown(all, null, 'grid')).toEqual(['grid', 'column']);
    expect(kindsShown([], null, 'zone')).toEqual(['grid', 'column', 'zone']);
  });
});

test('what is accepted from a threshold on says how many of it are wrong, by what was said of each', () => {
  // Ten at 0.9 have one wrong among them, three at 0.99 none.
  const many = (n: number, confidence: number) => Array.from({ length: n }, (_, i) => column(String(i), confidence, 0));
  expect(promise(many(10, 0.9))).toBe('Accept from here: 10, about 1 of them wrong');
  expect(promise(many(3, 0.99))).toBe('Accept from here: 3, about none of them wrong');
});

test('as many more are told to be alike as leave the same open, of the same size and the other kinds aside', () => {
  const asking = (key: string, asks: Candidate['asks']): Candidate => ({ ...column(key, 0.9, 0), asks });
  const first = asking('1', { asks: 'finish', size: 0.02, take: 'the finish about it' });
  const others = [
    asking('2', { asks: 'finish', size: 0.022, take: 'the finish about it' }),
    asking('3', { asks: 'finish', size: 0.04, take: 'the finish about it' }),
    asking('4', { asks: 'void', size: 0.02, take: 'a column' }),
    asking('5', null),
  ];
  expect(alikeAsked([first, ...others], first)).toBe(1);
  expect(alikeAsked([first, ...others], others[3])).toBe(0);
});

test('where names are open is shown in the drawing: a metre is a thousand of its units, about its own origin', () => {
  const why = 'a name that stands in no closed room';
  const open = { role: 'zone' as const, entity: 1, handle: '1', layer: 0, why };
  const lines = leaksOf(
    [
      {
        ...open,
        leak: [
          [1, 2],
          [3, 2],
        ],
      },
      open,
    ],
    asDrawn('mm'),
    [500, 1000],
  );
  expect([...lines]).toEqual([500, 1000, 2500, 1000]);
});

test('what several drawings say of one candidate stands together', () => {
  const said = (name: string, ...keys: string[]) => ({
    id: name,
    name,
    alike: new Map(),
    onlyThere: [],
    unlike: new Map(keys.map((key) => [key, { words: `not in ${name}`, missing: true }])),
  });
  expect([...unlikeIn([said('S-1', 'a', 'b'), said('S-2', 'b')])]).toEqual([
    ['a', 'not in S-1'],
    ['b', 'not in S-1; not in S-2'],
  ]);
});
