import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { sql } from 'kysely';
import { recognise } from '@/core/drawing/recognise';
import { database } from '../database/connection';
import { beginFile, fileChunks, storeFile } from '../files';
import { settings } from '../settings';
import { runConverter } from './runConverter';

/** Why a file could not be made a DXF; its bytes are kept to try again. */
type Unread = { failed: string; again: true };

const unread = (why: string): Unread => ({ failed: why, again: true });

/** Endings of names that are passed on: letters and figures alone. */
const plainEnding = /^\.[a-z0-9]{1,10}$/i;

/**
 * Makes a DXF of a file that is none by the office's converter, where there is one: the file becomes the DXF, what it
 * was and what the converter said is kept beside it.
 * @param ending ends it at once
 * @returns why that did not succeed; null where the file is a DXF, or nobody converts
 */
export async function convertOriginal(fileId: string, fileName: string, ending: AbortSignal): Promise<Unread | null> {
  const { converter } = settings;
  if (converter === null || !(await needsConverting(fileId))) return null;
  if (!converter.some((word) => word.includes('{in}')) || !converter.some((word) => word.includes('{out}')))
    return unread('ZIRCON_CONVERTER names no {in} and {out}, for the file that it gets and the DXF that it makes.');
  const folder = await mkdtemp(join(tmpdir(), 'zircon-convert-'));
  try {
    const kind = extname(fileName);
    const files = {
      in: join(folder, `original${plainEnding.test(kind) ? kind : ''}`),
      out: join(folder, 'drawing.dxf'),
    };
    await pipeline(Readable.from(fileChunks(fileId)), createWriteStream(files.in, { mode: 0o600 }));
    const { log, problem } = await runConverter(converter, files, folder, ending);
    if (ending.aborted) return null;
    if (problem !== null)
      return unread(`The office\u2019s converter could not make a DXF of it: ${problem}. ${said(log)}`);
    const size = await sizeOf(files.out);
    if (size === 0) return unread(`The office\u2019s converter ended well and made no DXF. ${said(log)}`);
    if (size > settings.maxUpload)
      return unread(
        'The DXF that the office\u2019s converter made is larger than files may be. Raise ZIRCON_MAX_UPLOAD_MB.',
      );
    await keep(fileId, fileName, log, files.out);
    return null;
  } catch (error) {
    const { code = '', message } = error as NodeJS.ErrnoException;
    if (!ofTheDisk.has(code)) throw error;
    return unread(`It could not be laid out for the office\u2019s converter: ${message}. Make room, and try again.`);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Troubles of the folder that a converter works in. */
const ofTheDisk = new Set(['ENOSPC', 'EDQUOT', 'EACCES', 'EROFS', 'ENOENT']);

/** The last that a converter said, in a sentence. */
function said(log: string): string {
  const last = log.trim().split('\n').pop() ?? '';
  return last === '' ? 'It said nothing.' : `It said last: ${last.slice(0, 300)}`;
}

async function sizeOf(path: string): Promise<number> {
  try {
    return (await stat(path)).size;
  } catch {
    return 0;
  }
}

/** Whether a file is no DXF and was not made one before. */
async function needsConverting(fileId: string): Promise<boolean> {
  const { value } = await fileChunks(fileId).next();
  return value !== undefined && !recognise(value).ok;
}

/** The file's bytes become those of the DXF; what they were is kept. */
async function keep(fileId: string, fileName: string, log: string, dxf: string): Promise<void> {
  await database()
    .transaction()
    .execute(async (tx) => {
      const original = await beginFile(tx);
      await sql`
        update files set size = came.size, sha256 = came.sha256 from files as came
        where files.id = ${original} and came.id = ${fileId}
      `.execute(tx);
      await tx.updateTable('file_chunks').set({ file_id: original }).where('file_id', '=', fileId).execute();
      await tx
        .insertInto('file_origins')
        .values({ file_id: fileId, original_id: original, name: fileName, log, report: null })
        .execute();
      await storeFile(tx, fileId, createReadStream(dxf));
    });
}
