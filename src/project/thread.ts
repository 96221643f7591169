import { wrap, type Remote } from 'comlink';

/** A worker that answers questions. */
export interface Thread<T> {
  remote: Remote<T>;
  /** Rejects when the worker is lost: its script could not be loaded, or it came to its end. */
  lost: Promise<never>;
  end: () => void;
}

/** A worker was lost before it answered. */
class ThreadLost extends Error {}

/** @param gone hears that the worker is lost, so that another takes its place */
export function threadOf<T>(worker: Worker, gone: () => void = () => undefined): Thread<T> {
  const lost = new Promise<never>((_, reject) => {
    worker.addEventListener('error', () => {
      worker.terminate();
      gone();
      reject(new ThreadLost('A part of the program could not be loaded. Reload the page once the server answers.'));
    });
  });
  // Where nothing is asked nobody hears of it.
  lost.catch(() => undefined);
  return { remote: wrap<T>(worker), lost, end: () => worker.terminate() };
}

/** While its server is away a thread is begun again so often, and after so long, milliseconds. */
const mostTries = 8;
const triedAgainAfter = 1500;

/**
 * Asks a thread; where that is lost, the one that takes its place.
 * @param thread the thread of now, made ready for the question
 * @throws what the question throws; ThreadLost where it could not be begun again and again
 */
export async function askThread<T, R>(
  thread: () => Thread<T> | Promise<Thread<T>>,
  question: (remote: Remote<T>) => Promise<R>,
): Promise<R> {
  for (let tries = 1; ; tries += 1) {
    const ready = thread();
    const { remote, lost } = ready instanceof Promise ? await ready : ready;
    try {
      return await Promise.race([question(remote), lost]);
    } catch (error) {
      if (!(error instanceof ThreadLost) || tries === mostTries) throw error;
    }
    await new Promise((again) => setTimeout(again, triedAgainAfter));
  }
}
