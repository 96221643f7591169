/** A connection of two nodes of a network. */
interface Connection {
  from: number;
  to: number;
}

/** A node on the way of the search: the edge that it was come by, and which of its own comes next. */
interface Visit {
  node: number;
  by: number;
  next: number;
}

/**
 * The edges of a network that lie on no loop: without one of them its two ends would not hang together. In the time of
 * one walk over the network, by the order of the first visits and the earliest that can be reached back from each
 * (Tarjan, *A note on finding the bridges of a graph*, 1974), without recursion.
 * @param atNode the edges at each node, by their places in the list
 */
export function bridgesOf(edges: readonly Connection[], atNode: ReadonlyMap<number, readonly number[]>): Set<number> {
  const order = new Map<number, number>();
  const back = new Map<number, number>();
  const bridges = new Set<number>();
  const begin = (node: number, by: number): Visit => {
    back.set(node, order.size);
    order.set(node, order.size);
    return { node, by, next: 0 };
  };
  const reach = (node: number, to: number): void => void back.set(node, Math.min(back.get(node)!, to));
  for (const root of atNode.keys()) {
    if (order.has(root)) continue;
    const way = [begin(root, -1)];
    while (way.length > 0) {
      const visit = way[way.length - 1];
      const edge = atNode.get(visit.node)![visit.next];
      visit.next += 1;
      if (edge === undefined) {
        way.pop();
        if (way.length === 0) continue;
        const before = way[way.length - 1].node;
        reach(before, back.get(visit.node)!);
        if (back.get(visit.node)! > order.get(before)!) bridges.add(visit.by);
      } else if (edge !== visit.by) {
        const other = edges[edge].from === visit.node ? edges[edge].to : edges[edge].from;
        const been = order.get(other);
        if (been === undefined) way.push(begin(other, edge));
        else reach(visit.node, been);
      }
    }
  }
  return bridges;
}
