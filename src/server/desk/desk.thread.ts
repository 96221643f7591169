import { parentPort } from 'node:worker_threads';
import { problemOf } from '../problem';
import { perform, type Task } from './tasks';

/**
 * The thread that edits are checked and applied in, and that puts states together: however large they are, the thread
 * that serves requests only passes their bytes on.
 */
const port = parentPort!;

port.on('message', ({ number, task }: { number: number; task: Task }) => {
  perform(task).then(
    ({ bytes, gzipped }) => port.postMessage({ number, bytes, gzipped }, [bytes.buffer as ArrayBuffer]),
    (error: unknown) => {
      const { status, message, details } = problemOf(error);
      port.postMessage({ number, problem: { status, message, details } });
    },
  );
});
