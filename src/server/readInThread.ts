import type { Worker } from 'node:worker_threads';
import type { UnitVerdict } from '@/core/datum/evidence/judge';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import { fileChunks } from './files';
import { inThread } from './inThread';
import { settings } from './settings';

/** What a file was read to. */
export interface ReadFile {
  columns: Uint8Array;
  intake: IntakeFile;
  unit: UnitVerdict;
  picture: number[];
}

/**
 * What comes of reading: the file read, a sentence why it cannot be (which another try may not meet again), or that the
 * reader ended of itself, and how.
 */
export type Outcome = ReadFile | { failed: string; again?: true } | { crashed: string };

type ThreadAnswer = { next: true } | { failed: string } | ReadFile;

/**
 * Reads a stored file in a thread of its own.
 * @param ending ends it at once; what is returned then says nothing
 * @param progress told how many bytes were taken
 * @throws what the database says where the file cannot be fetched
 */
export const readInThread = (
  fileId: string,
  fileName: string,
  sha256: string,
  ending: AbortSignal,
  progress: (done: number) => void = () => undefined,
): Promise<Outcome> =>
  inThread<Outcome>({
    file: 'readDrawing.thread.mjs',
    data: { fileName, sha256, limits: settings.readLimits },
    ending,
    late: { failed: tookTooLong(), again: true },
    ended: (why) => ({ crashed: why }),
    talk: (thread, resolve, reject) => feed(thread, fileId, progress, resolve, reject),
  });

const tookTooLong = () =>
  `Reading took longer than ${settings.readTimeout / 1000} s. Cut the drawing into parts, or raise ZIRCON_READ_TIMEOUT_S.`;

/** Gives the thread the file, chunk by chunk as it asks, until it answers. */
function feed(
  thread: Worker,
  fileId: string,
  progress: (done: number) => void,
  resolve: (outcome: Outcome) => void,
  reject: (error: unknown) => void,
): void {
  const chunks = fileChunks(fileId);
  let done = 0;
  // While the thread reads one chunk, the next is fetched.
  let coming = chunks.next();
  coming.catch(() => undefined);
  const next = async () => {
    const { value } = await coming;
    coming = chunks.next();
    coming.catch(() => undefined);
    if (value) done += value.length;
    progress(done);
    thread.postMessage(value ?? null);
  };
  thread.on('message', (answer: ThreadAnswer) => {
    if ('next' in answer) next().catch(reject);
    else resolve(answer);
  });
}
