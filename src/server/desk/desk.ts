import { Worker } from 'node:worker_threads';
import { join } from 'node:path';
import { log } from '../log';
import { Problem } from '../problem';
import type { Done, Task } from './tasks';

/** Memory of the desk's thread, MB. A request that needs more ends the thread and not the server. */
const memory = 2048;

type Answer =
  | ({ number: number } & Done)
  | { number: number; problem: { status: number; message: string; details: Record<string, unknown> } };

interface Waiting {
  resolve: (done: Done) => void;
  reject: (error: Error) => void;
}

/** The thread of this process, and who waits for it. */
interface Desk {
  thread: Worker;
  waiting: Map<number, Waiting>;
  next: number;
}

const shared = globalThis as { zirconDesk?: Desk };

function open(): Desk {
  const file = join(process.env.ZIRCON_BUILD ?? join(process.cwd(), '.build'), 'desk.thread.mjs');
  // Written as "new Worker(...)", the server's bundler would look for the thread's file among its own modules.
  const thread = Reflect.construct(Worker, [file, { resourceLimits: { maxOldGenerationSizeMb: memory } }]) as Worker;
  const desk: Desk = { thread, waiting: new Map(), next: 0 };
  thread.unref();
  thread.on('message', (answer: Answer) => settle(desk, answer));
  thread.on('error', (error) => log.problem(`The desk's thread ended: ${error.message}`));
  thread.on('exit', () => {
    if (shared.zirconDesk === desk) shared.zirconDesk = undefined;
    for (const { reject } of desk.waiting.values()) reject(ended());
  });
  return desk;
}

const ended = () =>
  new Problem(503, 'The server had to begin anew in the middle of this step. Nothing was lost; repeat the step.');

function settle(desk: Desk, answer: Answer): void {
  const waiting = desk.waiting.get(answer.number);
  desk.waiting.delete(answer.number);
  if (desk.waiting.size === 0) desk.thread.unref();
  if (waiting === undefined) return;
  if ('problem' in answer) {
    const { status, message, details } = answer.problem;
    waiting.reject(new Problem(status, message, details));
  } else waiting.resolve(answer);
}

/** Has something done in the desk's thread. @throws Problem as the thread says it */
export function atDesk(task: Task): Promise<Done> {
  const desk = (shared.zirconDesk ??= open());
  const number = (desk.next += 1);
  return new Promise<Done>((resolve, reject) => {
    desk.waiting.set(number, { resolve, reject });
    desk.thread.ref();
    // A request's bytes are moved, not copied.
    desk.thread.postMessage({ number, task }, 'body' in task ? [task.body.buffer as ArrayBuffer] : []);
  });
}
