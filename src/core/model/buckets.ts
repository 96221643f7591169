/** Things with an id by what they hang on; a thing is replaced by another of its id. */
export class Buckets<K, T extends { id: string }> {
  private readonly things = new Map<K, Map<string, T>>();

  add(key: K, thing: T): void {
    const bucket = this.things.get(key);
    if (bucket) bucket.set(thing.id, thing);
    else this.things.set(key, new Map([[thing.id, thing]]));
  }

  remove(key: K, id: string): void {
    const bucket = this.things.get(key);
    bucket?.delete(id);
    if (bucket?.size === 0) this.things.delete(key);
  }

  of(key: K): Iterable<T> {
    return this.things.get(key)?.values() ?? [];
  }

  count(key: K): number {
    return this.things.get(key)?.size ?? 0;
  }

  keys(): Iterable<K> {
    return this.things.keys();
  }
}
