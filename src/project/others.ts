import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Here } from '@/core/here';

/** Another window that has the project open. */
export interface Other extends Here {
  /** Its place among those that are here: what it is told apart by. Kept while it is here. */
  place: number;
}

/** What this window tells of itself. */
export type Told = Omit<Here, 'window' | 'name'>;

/** News go out so often at most, milliseconds: a drag is followed, and costs the others little. */
const toldEvery = 250;
/** A window says that it is there so often, milliseconds. */
const beatEvery = 20_000;
/** One that has said nothing for so long is gone, milliseconds: a browser lets hidden windows speak once a minute. */
const goneAfter = 150_000;

/** Who else has the project open, and where they are. Who comes tells of themselves, and is told of the others. */
export class Others {
  readonly store: StoreApi<readonly Other[]> = createStore<readonly Other[]>(() => []);
  private readonly heardAt = new Map<string, number>();
  /** Puts together what is told, when it is told. */
  private told: (() => Told) | null = null;
  private waiting: ReturnType<typeof setTimeout> | undefined;
  private lastSent = -Infinity;
  /** Whether what was told last found no server. */
  private lost = false;

  /** @param send tells the others; what it throws is as if it was told later */
  constructor(
    private readonly window: string,
    private readonly send: (here: Omit<Here, 'name'>) => Promise<unknown>,
  ) {}

  /** Begins to say that this window is there. @returns the way to stop */
  begin(): () => void {
    const beat = setInterval(() => {
      if (this.lost) this.announce();
      else this.tellOthers();
      this.leaveOut((_, heard) => Date.now() - heard > goneAfter);
    }, beatEvery);
    return () => {
      clearInterval(beat);
      clearTimeout(this.waiting);
      this.waiting = undefined;
    };
  }

  /** Tells where this window is now: at first whoever may be there, then those who are. */
  tell(told: () => Told): void {
    const first = this.told === null;
    this.told = told;
    if (first) this.announce();
    else this.tellOthers();
  }

  /** Where nobody else is, nobody is told: who comes makes themselves heard, and is told then. */
  private tellOthers(): void {
    if (this.store.getState().length > 0) this.announce();
  }

  /** Tells it to whoever may be there, soon. */
  announce(): void {
    if (this.told === null || this.waiting !== undefined) return;
    const wait = Math.max(0, this.lastSent + toldEvery - Date.now());
    this.waiting = setTimeout(() => {
      this.waiting = undefined;
      this.lastSent = Date.now();
      this.send({ window: this.window, ...this.told!() }).then(
        () => (this.lost = false),
        () => (this.lost = true),
      );
    }, wait);
  }

  /** Takes what another window told. One that is new here is told of this one. */
  hear(here: Here): void {
    if (here.window === this.window) return;
    const others = this.store.getState();
    const known = others.find(({ window }) => window === here.window);
    this.heardAt.set(here.window, Date.now());
    if (known === undefined) {
      const taken = new Set(others.map(({ place }) => place));
      let place = 0;
      while (taken.has(place)) place += 1;
      this.store.setState([...others, { ...here, place }], true);
      this.announce();
    } else {
      const next = { ...here, place: known.place };
      this.store.setState(
        others.map((other) => (other === known ? next : other)),
        true,
      );
    }
  }

  /** A window is gone. */
  left(gone: string): void {
    this.leaveOut((window) => window === gone);
  }

  private leaveOut(test: (window: string, heard: number) => boolean): void {
    const others = this.store.getState();
    const staying = others.filter(({ window }) => !test(window, this.heardAt.get(window) ?? 0));
    if (staying.length === others.length) return;
    for (const { window } of others) if (test(window, this.heardAt.get(window) ?? 0)) this.heardAt.delete(window);
    this.store.setState(staying, true);
  }
}
