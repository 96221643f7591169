import type { Remote } from 'comlink';
import type { Thread } from './thread';

/** A thread that nobody has asked for so long is ended, milliseconds: it holds memory. */
const keptFor = 120_000;

/** Answers each question in a thread of its own, and keeps one for the next: what it has loaded serves again. */
export class KeptThread<T> {
  private kept: Thread<T> | null = null;
  private release: ReturnType<typeof setTimeout> | undefined;

  /** @param begin begins a thread; what it is given hears that it is lost */
  constructor(private readonly begin: (gone: () => void) => Thread<T>) {}

  /**
   * Asks a thread that has nothing else to do.
   * @param ending ends the thread: it may be in the middle of something, and another is begun for the next question
   * @throws what the question throws; Error where it was cancelled or the thread was lost
   */
  async ask<R>(question: (remote: Remote<T>) => Promise<R>, ending?: AbortSignal): Promise<R> {
    const thread = this.kept ?? this.begun();
    this.kept = null;
    try {
      const answer = await Promise.race([question(thread.remote), thread.lost, ended(ending)]);
      this.keep(thread);
      return answer;
    } catch (error) {
      thread.end();
      if (ending?.aborted) this.keep(this.begun());
      throw error;
    }
  }

  private begun(): Thread<T> {
    const thread = this.begin(() => {
      if (this.kept === thread) this.kept = null;
    });
    return thread;
  }

  private keep(thread: Thread<T>): void {
    this.kept?.end();
    this.kept = thread;
    clearTimeout(this.release);
    this.release = setTimeout(() => {
      this.kept?.end();
      this.kept = null;
    }, keptFor);
  }
}

/** A thread that is ended answers nothing more. */
const ended = (ending: AbortSignal | undefined): Promise<never> =>
  new Promise((_, reject) => {
    const cancelled = () => reject(new Error('It was cancelled.'));
    if (ending?.aborted) cancelled();
    ending?.addEventListener('abort', cancelled, { once: true });
  });
