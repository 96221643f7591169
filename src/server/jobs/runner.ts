import { subscribeAll } from '../events';
import { settings } from '../settings';
import { startBeating, stopBeating } from './processes';
import { takeJob } from './queue';
import { readDrawing } from './readDrawing';

/** A slot with nothing to do looks again after this long, milliseconds, should it have missed a notice. */
const lookAgain = 2000;

export interface Runner {
  /** Ends what is being read and leaves it to others. */
  stop(): Promise<void>;
}

/**
 * Reads files in the background until it is stopped: as many at once as `ZIRCON_JOBS` says, and beside them one small
 * one, which so never waits for large ones.
 */
export async function startJobs(): Promise<Runner> {
  await startBeating();
  const stopping = new AbortController();
  const wakers = new Set<() => void>();
  const unsubscribe = subscribeAll(() => {
    for (const wake of wakers) wake();
  });
  const rest = () =>
    new Promise<void>((resolve) => {
      const wake = () => {
        clearTimeout(timer);
        wakers.delete(wake);
        resolve();
      };
      const timer = setTimeout(wake, lookAgain);
      wakers.add(wake);
    });
  const slots = [...Array.from({ length: settings.jobs }, () => false), true].map((smallOnly) =>
    slot(smallOnly, stopping.signal, rest),
  );
  return {
    async stop() {
      stopping.abort();
      unsubscribe();
      for (const wake of wakers) wake();
      await Promise.all(slots);
      await stopBeating();
    },
  };
}

async function slot(smallOnly: boolean, stopping: AbortSignal, rest: () => Promise<void>): Promise<void> {
  while (!stopping.aborted) {
    try {
      const job = await takeJob(smallOnly);
      if (job === null) await rest();
      else await readDrawing(job, stopping);
    } catch (error) {
      // The database is away; what was being read is taken up when it is back.
      console.error(`Background work waits: ${(error as Error).message}`);
      await rest();
    }
  }
}
