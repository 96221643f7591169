import { parentPort, workerData } from 'node:worker_threads';
import type { JobRequest } from '@/core/jobs';
import { closeConnections } from '../database/connection';
import { problemOf } from '../problem';
import type { JobAnswer } from './answer';
import { perform } from './perform';

/** A thread that does one job of a project: it fetches the project itself, and answers with files. */
const port = parentPort!;
const { project, request } = workerData as { project: string; request: JobRequest };
/** How far it is is told this often, milliseconds. */
const tellEvery = 200;

let told = 0;
const answer = (answered: JobAnswer, own: ArrayBuffer[] = []): void => port.postMessage(answered, own);

perform(project, request, (share) => {
  if (performance.now() - told < tellEvery) return;
  told = performance.now();
  answer({ share });
})
  .then(
    (made) =>
      answer(
        made,
        made.files.map(({ bytes }) => bytes.buffer),
      ),
    (error: unknown) => answer({ failed: problemOf(error).message }),
  )
  .finally(() => void closeConnections());
