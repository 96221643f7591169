import { bringUpToDate } from './bringUpToDate';
import { endStreams } from './events';
import { startBeating } from './jobs/processes';
import { startJobs, type Runner } from './jobs/runner';
import { log } from './log';
import { tellFirst } from './people/people';
import { problemOf } from './problem';
import { settings } from './settings';

/** Brings the schema up to date and begins background work; ends it with the process. */
export async function startServer(): Promise<void> {
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, endStreams);
  void begin();
}

/** Waits for the database where it is away: pages say so meanwhile. */
async function begin(): Promise<void> {
  let runner: Runner;
  for (;;) {
    try {
      await bringUpToDate();
      if (settings.signIn) await tellFirst();
      if (settings.jobs === 0) return await startBeating();
      runner = await startJobs();
      break;
    } catch (error) {
      log.problem(problemOf(error).message);
      await new Promise((resolve) => setTimeout(resolve, 2000));
    }
  }
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.once(signal, () => {
      void runner.stop().catch(() => undefined);
    });
}
