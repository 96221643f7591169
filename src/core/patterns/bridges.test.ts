import fc from 'fast-check';
import { bridgesOf } from './bridges';

type Edge = { from: number; to: number };

const atNodes = (edges: readonly Edge[]): Map<number, number[]> => {
  const at = new Map<number, number[]>();
  edges.forEach(({ from, to }, i) => {
    for (const node of new Set([from, to])) at.set(node, [...(at.get(node) ?? []), i]);
  });
  return at;
};

/** Whether two nodes hang together without an edge. */
function connected(edges: readonly Edge[], without: number): boolean {
  const { from, to } = edges[without];
  const reached = new Set([from]);
  for (const node of reached)
    edges.forEach((edge, i) => {
      if (i === without) return;
      if (edge.from === node) reached.add(edge.to);
      if (edge.to === node) reached.add(edge.from);
    });
  return reached.has(to);
}

test('what leads from one ring to another, and what ends free, lies on no loop', () => {
  const ring = (first: number): Edge[] => [0, 1, 2].map((k) => ({ from: first + k, to: first + ((k + 1) % 3) }));
  const edges = [...ring(0), ...ring(10), { from: 2, to: 5 }, { from: 5, to: 10 }, { from: 11, to: 20 }];
  expect([...bridgesOf(edges, atNodes(edges))].sort()).toEqual([6, 7, 8]);
});

test('two edges between the same nodes are a loop', () => {
  const edges = [
    { from: 0, to: 1 },
    { from: 1, to: 0 },
    { from: 1, to: 2 },
  ];
  expect([...bridgesOf(edges, atNodes(edges))]).toEqual([2]);
});

test('of any network those are found without which two ends hang together no more', () => {
  const edge = fc.record({ from: fc.nat(9), to: fc.nat(9) }).filter(({ from, to }) => from !== to);
  fc.assert(
    fc.property(fc.array(edge, { minLength: 1, maxLength: 16 }), (edges) => {
      const expected = edges.flatMap((_, i) => (connected(edges, i) ? [] : [i]));
      expect([...bridgesOf(edges, atNodes(edges))].sort((a, b) => a - b)).toEqual(expected);
    }),
  );
});

test('a chain of a hundred thousand does not grow the stack', () => {
  const edges = Array.from({ length: 100_000 }, (_, i) => ({ from: i, to: i + 1 }));
  expect(bridgesOf(edges, atNodes(edges)).size).toBe(100_000);
});
