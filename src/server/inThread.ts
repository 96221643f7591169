import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { settings } from './settings';

/** Work for a thread of its own. */
interface ThreadWork<T> {
  /** Its program, as it was built. */
  file: string;
  /** What it is given. */
  data: unknown;
  /** Ends it at once. */
  ending: AbortSignal;
  /** What is answered for it when it takes longer than reading may. */
  late: T;
  /** What is answered when it ended of itself, and why. */
  ended: (why: string) => T;
  /** Talks with it until it has an answer. */
  talk: (thread: Worker, resolve: (answer: T) => void, reject: (error: unknown) => void) => void;
}

/** Why a thread ended of itself, as the server's log says it. */
const whyEnded = (error: Error & { code?: string }): string =>
  error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? `it needed more than ${settings.readMemory} MB` : error.message;

/** Runs a thread until it answers, so that the server stays responsive; its memory and its time are limited. */
export async function inThread<T>({ file, data, ending, late, ended, talk }: ThreadWork<T>): Promise<T> {
  const program = join(/* turbopackIgnore: true */ process.env.ZIRCON_BUILD ?? join(process.cwd(), '.build'), file);
  // Written as "new Worker(...)", the server's bundler would look for the thread's file among its own modules.
  const thread = Reflect.construct(Worker, [
    program,
    { workerData: data, resourceLimits: { maxOldGenerationSizeMb: settings.readMemory } },
  ]) as Worker;
  const deadline = AbortSignal.timeout(settings.readTimeout);
  try {
    return await new Promise<T>((resolve, reject) => {
      deadline.addEventListener('abort', () => resolve(late));
      ending.addEventListener('abort', () => resolve(ended('it was ended')));
      thread.on('error', (error) => resolve(ended(whyEnded(error))));
      thread.on('exit', (code) => resolve(ended(`code ${code}`)));
      talk(thread, resolve, reject);
    });
  } finally {
    await thread.terminate();
  }
}
