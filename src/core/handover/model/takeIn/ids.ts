import { few } from '@/core/few';

/** The ids of a file with those that their rows have in the project: no two installations share one. */
export class Ids {
  private readonly own = new Map<string, string>();
  readonly doubled = new Set<string>();

  constructor(private readonly fresh: () => string) {}

  /** Gives something of the file an id of the project. */
  give(list: string, id: string): string {
    const key = `${list} ${id}`;
    if (this.own.has(key)) this.doubled.add(`${list} "${id}"`);
    const made = this.fresh();
    this.own.set(key, made);
    return made;
  }

  /** The project's id of something that was given one; null where the file names what it does not hold. */
  of(list: string, id: string | undefined): string | null {
    return id === undefined ? null : (this.own.get(`${list} ${id}`) ?? null);
  }
}

/** What could not be taken as the file has it, by what is told of it. */
export class Told {
  private readonly ids = new Map<string, string[]>();

  /** @param words a sentence about things of a sort, without its full stop @param id the thing in the file */
  add(words: string, id: string): void {
    const known = this.ids.get(words);
    if (known === undefined) this.ids.set(words, [id]);
    else known.push(id);
  }

  /** Sentences that end with the things that they are about. */
  get sentences(): string[] {
    return Array.from(this.ids, ([words, ids]) => `${words}: ${few(ids)}.`);
  }
}
