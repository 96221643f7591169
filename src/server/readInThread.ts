import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { UnitVerdict } from '@/core/datum/evidence/judge';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import { fileChunks } from './files';
import { settings } from './settings';

/** What the reading thread answers. */
type ThreadAnswer =
  | { next: true }
  | { failed: string }
  | { columns: Uint8Array; intake: IntakeFile; unit: UnitVerdict; picture: number[] };
type Final = Exclude<ThreadAnswer, { next: true }>;

/**
 * Reads a stored file in a thread of its own.
 * @param progress told how many bytes were taken, a few times a second; what it throws ends the reading
 */
export async function readInThread(
  fileId: string,
  fileName: string,
  sha256: string,
  progress: (done: number) => Promise<void>,
): Promise<Final> {
  const file = join(process.env.ZIRCON_BUILD ?? join(process.cwd(), '.build'), 'readDrawing.thread.mjs');
  // Written as "new Worker(...)", the server's bundler would look for the thread's file among its own modules.
  const thread = Reflect.construct(Worker, [
    file,
    {
      workerData: { fileName, sha256, limits: settings.readLimits },
      resourceLimits: { maxOldGenerationSizeMb: settings.readMemory },
    },
  ]) as Worker;
  const chunks = fileChunks(fileId);
  let done = 0;
  let told = Date.now();
  try {
    return await new Promise<Final>((resolve, reject) => {
      const deadline = setTimeout(
        () =>
          resolve({
            failed: `Reading took longer than ${settings.readTimeout / 1000} s. Cut the drawing into parts, or raise ZIRCON_READ_TIMEOUT_S.`,
          }),
        settings.readTimeout,
      );
      const stop = (settle: () => void) => {
        clearTimeout(deadline);
        settle();
      };
      thread.on('error', (error) => stop(() => reject(error)));
      thread.on('exit', (code) => stop(() => reject(new Error(`The reading thread ended with code ${code}`))));
      thread.on('message', (answer: ThreadAnswer) => {
        if (!('next' in answer)) {
          stop(() => resolve(answer));
          return;
        }
        void (async () => {
          const { value } = await chunks.next();
          if (value) done += value.length;
          if (Date.now() - told > 250) {
            told = Date.now();
            await progress(done);
          }
          thread.postMessage(value ?? null);
        })().catch((error: unknown) => stop(() => reject(error as Error)));
      });
    });
  } finally {
    await thread.terminate();
  }
}
