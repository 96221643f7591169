/**
 * A fill-reducing order of a graph: approximate minimum degree on the quotient graph, with absorption of elements
 * (Amestoy, Davis and Duff 1996; Davis, Direct Methods for Sparse Linear Systems, 2006, chapter 7).
 * Vertices that are joined with very many others, such as what keeps a whole floor in its plan, come at the end.
 * @param cliques vertices that are joined with one another, such as the nodes of a member
 * @returns the vertices in the order in which they are eliminated
 */
export function eliminationOrder(count: number, cliques: readonly (readonly number[])[]): Int32Array {
  const crowded = crowdedIn(count, cliques);
  const rest = crowded.size === 0 ? cliques : cliques.map((clique) => clique.filter((v) => !crowded.has(v)));
  const order = new QuotientGraph(count, rest).order();
  return crowded.size === 0 ? order : Int32Array.from([...order.filter((v) => !crowded.has(v)), ...crowded]);
}

/** More than so many times the root of their number, and than so many at all, is very many (Amestoy and others). */
const [crowdedFrom, crowdedAtLeast] = [10, 16];

/** The vertices that are in very many cliques. */
function crowdedIn(count: number, cliques: readonly (readonly number[])[]): Set<number> {
  const many = Math.max(crowdedAtLeast, crowdedFrom * Math.sqrt(count));
  const joined = new Int32Array(count);
  for (const clique of cliques) for (const v of clique) joined[v] += 1;
  const crowded = new Set<number>();
  joined.forEach((times, v) => {
    if (times > many) crowded.add(v);
  });
  return crowded;
}

/** Vertices that are left, each with its vertices and elements; an eliminated vertex becomes an element. */
class QuotientGraph {
  private readonly vertices: number[][];
  private readonly elements: number[][];
  /** Of an eliminated vertex, those that its elimination joined; null before, and once it is absorbed. */
  private readonly joined: (number[] | null)[];
  private readonly degree: Int32Array;
  private readonly gone: Uint8Array;
  private readonly mark: Int32Array;
  private stamp = 0;
  /** How many of an element's vertices lie outside the newest element, and for which elimination that was counted. */
  private readonly outside: Int32Array;
  private readonly counted: Int32Array;
  private readonly queue: DegreeQueue;

  constructor(count: number, cliques: readonly (readonly number[])[]) {
    this.vertices = neighbours(count, cliques);
    this.elements = Array.from({ length: count }, () => []);
    this.joined = new Array<number[] | null>(count).fill(null);
    this.degree = Int32Array.from(this.vertices, ({ length }) => length);
    this.gone = new Uint8Array(count);
    this.mark = new Int32Array(count);
    this.outside = new Int32Array(count);
    this.counted = new Int32Array(count).fill(-1);
    this.queue = new DegreeQueue(this.degree);
  }

  order(): Int32Array {
    const { length: count } = this.vertices;
    const order = new Int32Array(count);
    for (let step = 0; step < count; step += 1) {
      const pivot = this.queue.least();
      order[step] = pivot;
      this.eliminate(pivot, step);
    }
    return order;
  }

  private eliminate(pivot: number, step: number): void {
    this.gone[pivot] = 1;
    const front = this.frontOf(pivot);
    this.joined[pivot] = front;
    this.countOutside(front, step);
    this.stamp += 1;
    for (const i of front) this.mark[i] = this.stamp;
    for (const i of front) {
      this.elements[i] = this.elements[i].filter((e) => this.joined[e] !== null && this.outside[e] > 0);
      this.vertices[i] = this.vertices[i].filter((v) => this.gone[v] === 0 && this.mark[v] !== this.stamp);
      const beyond = this.elements[i].reduce((sum, e) => sum + this.outside[e], 0);
      this.elements[i].push(pivot);
      this.degree[i] = Math.min(front.length - 1 + this.vertices[i].length + beyond, this.vertices.length);
      this.queue.moved(i);
    }
  }

  /** All that is joined with a vertex, by itself and by its elements, which are absorbed. */
  private frontOf(pivot: number): number[] {
    this.stamp += 1;
    this.mark[pivot] = this.stamp;
    const front: number[] = [];
    const take = (v: number): void => {
      if (this.gone[v] === 1 || this.mark[v] === this.stamp) return;
      this.mark[v] = this.stamp;
      front.push(v);
    };
    this.vertices[pivot].forEach(take);
    for (const e of this.elements[pivot]) {
      this.joined[e]?.forEach(take);
      this.joined[e] = null;
    }
    this.vertices[pivot] = [];
    this.elements[pivot] = [];
    return front;
  }

  /** Counts for each element about the front how many of its vertices lie outside it. */
  private countOutside(front: readonly number[], step: number): void {
    for (const i of front)
      for (const e of this.elements[i]) {
        const own = this.joined[e];
        if (own === null) continue;
        if (this.counted[e] !== step) {
          this.counted[e] = step;
          this.outside[e] = own.reduce((sum, v) => sum + 1 - this.gone[v], 0);
        }
        this.outside[e] -= 1;
      }
  }
}

function neighbours(count: number, cliques: readonly (readonly number[])[]): number[][] {
  const sets = Array.from({ length: count }, () => new Set<number>());
  for (const clique of cliques) for (const a of clique) for (const b of clique) if (a !== b) sets[a].add(b);
  return sets.map((set) => [...set]);
}

/** Vertices by their degree, in lists that are linked both ways. */
class DegreeQueue {
  private readonly first: Int32Array;
  private readonly next: Int32Array;
  private readonly before: Int32Array;
  private readonly at: Int32Array;
  private lowest = 0;

  constructor(private readonly degree: Int32Array) {
    const { length } = degree;
    this.first = new Int32Array(length + 1).fill(-1);
    this.next = new Int32Array(length).fill(-1);
    this.before = new Int32Array(length).fill(-1);
    this.at = new Int32Array(length);
    for (let v = length - 1; v >= 0; v -= 1) this.insert(v);
  }

  private insert(v: number): void {
    const d = this.degree[v];
    this.at[v] = d;
    this.before[v] = -1;
    this.next[v] = this.first[d];
    if (this.first[d] >= 0) this.before[this.first[d]] = v;
    this.first[d] = v;
    this.lowest = Math.min(this.lowest, d);
  }

  private remove(v: number): void {
    const [before, next] = [this.before[v], this.next[v]];
    if (before >= 0) this.next[before] = next;
    else this.first[this.at[v]] = next;
    if (next >= 0) this.before[next] = before;
  }

  moved(v: number): void {
    this.remove(v);
    this.insert(v);
  }

  /** Takes a vertex of the least degree out. */
  least(): number {
    while (this.first[this.lowest] < 0) this.lowest += 1;
    const v = this.first[this.lowest];
    this.remove(v);
    return v;
  }
}
