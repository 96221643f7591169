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
export type Outcome<T> = T | { failed: string; again?: true } | { crashed: string };

/** What a thread says: that it wants the next chunk, how much of all it did with them, or what came of it. */
type ThreadAnswer<T> = { next: true } | { share: number } | { failed: string } | T;

/** A thread's program, and what it is told before it gets the file. */
interface Program {
  file: string;
  data: object;
}

/**
 * Reads a stored file in a thread of its own, which is given it chunk by chunk as it asks.
 * @param ending ends it at once; what is returned then says nothing
 * @param progress told how many bytes were taken
 * @throws what the database says where the file cannot be fetched
 */
export const readInThread = <T extends object>(
  { file, data }: Program,
  fileId: string,
  ending: AbortSignal,
  progress: (done: number) => void = () => undefined,
): Promise<Outcome<T>> =>
  inThread<Outcome<T>>({
    file,
    data,
    ending,
    late: { failed: tookTooLong(), again: true },
    ended: (why) => ({ crashed: why }),
    talk: (thread, resolve, reject) => feed(thread, fileId, progress, resolve, reject),
  });

/** The program that reads a DXF. */
export const dxfReader = (fileName: string, sha256: string): Program => ({
  file: 'readDrawing.thread.mjs',
  data: { fileName, sha256, limits: settings.readLimits },
});

const tookTooLong = () =>
  `Reading took longer than ${settings.readTimeout / 1000} s. Cut the drawing into parts, or raise ZIRCON_READ_TIMEOUT_S.`;

/** Gives the thread the file, chunk by chunk as it asks, until it answers. */
function feed<T extends object>(
  thread: Worker,
  fileId: string,
  progress: (done: number) => void,
  resolve: (outcome: Outcome<T>) => void,
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
  thread.on('message', (answer: ThreadAnswer<T>) => {
    if ('next' in answer) next().catch(reject);
    else if ('share' in answer) progress(Math.round(done * answer.share));
    else resolve(answer);
  });
}
