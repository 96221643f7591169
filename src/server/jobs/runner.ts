import { subscribeAll } from '../events';
import { settings } from '../settings';
import { startBeating, stopBeating } from './processes';
import { runJob } from '../work/runJob';
import { log } from '../log';
import { takeJob } from '../work/queue';
import { takeReading } from './queue';
import { readDrawing } from './readDrawing';

/** A slot with nothing to do looks again after this long, milliseconds, should it have missed a notice. */
const lookAgain = 2000;

export interface Runner {
  /** Ends what is under way and leaves it to others. */
  stop(): Promise<void>;
}

/**
 * Reads files, calculates and writes in the background until it is stopped: as many of each at once as `ZIRCON_JOBS`
 * says, and beside them one small file, which so never waits for large ones.
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
  const kinds = [
    ...Array.from({ length: settings.jobs }, () => ['files', 'work'] as const).flat(),
    'small files' as const,
  ];
  const slots = kinds.map((kind) => slot(nextOf[kind], stopping.signal, rest));
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

/** Does what is next, where there is something. @returns whether there was */
type Next = (stopping: AbortSignal) => Promise<boolean>;

const reading =
  (smallOnly: boolean): Next =>
  async (stopping) => {
    const job = await takeReading(smallOnly);
    if (job !== null) await readDrawing(job, stopping);
    return job !== null;
  };

/** What a slot does: large files and small ones, small ones alone, or what is calculated and written. */
const nextOf: Record<'files' | 'small files' | 'work', Next> = {
  files: reading(false),
  'small files': reading(true),
  work: async (stopping) => {
    const job = await takeJob();
    if (job !== null) await runJob(job, stopping);
    return job !== null;
  },
};

async function slot(next: Next, stopping: AbortSignal, rest: () => Promise<void>): Promise<void> {
  while (!stopping.aborted) {
    try {
      if (!(await next(stopping))) await rest();
    } catch (error) {
      // The database is away; what was under way is taken up when it is back.
      log.problem(`Background work waits: ${(error as Error).message}`);
      await rest();
    }
  }
}
