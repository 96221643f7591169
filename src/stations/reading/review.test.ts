import type { Candidate } from '@/core/reading/candidate';
import { kindsShown, lookThrough, type Judged, type Looking, promise } from './review';

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
