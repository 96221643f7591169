import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { StringDecoder } from 'node:string_decoder';
import { createGunzip } from 'node:zlib';
import * as v from 'valibot';
import { Problem } from '../problem';
import { endSchema, headSchema, lineSchema, longestLine, type Head } from './format';

/** What a backup says of itself, once all of it was read and its hash is right. */
export interface ReadBackup {
  head: Head;
  rows: number;
}

/** A row of a backup: its table, and the row as JSON. */
export interface BackupRow {
  table: string;
  row: Record<string, unknown>;
}

/**
 * Reads a backup from its first line to its last.
 * @param take is given each row and may take its time
 * @throws Problem that says what is wrong with the file; rows before it were given by then
 */
export async function readBackup(
  path: string,
  take: (row: BackupRow, head: Head) => Promise<void> | void,
): Promise<ReadBackup> {
  const hash = createHash('sha256');
  let head: Head | null = null;
  let rows = 0;
  let end: { rows: number; sha256: string } | null = null;
  for await (const line of linesOf(path)) {
    if (end !== null) throw damaged(path, 'something follows its end');
    const json = parsed(path, line);
    if (head === null) {
      head = asHead(path, json);
      hash.update(`${line}\n`);
    } else if (v.is(endSchema, json)) ({ end } = json);
    else {
      if (!v.is(lineSchema, json)) throw damaged(path, `its line ${rows + 2} is no row`);
      hash.update(`${line}\n`);
      rows += 1;
      await take(json, head);
    }
  }
  if (head === null || end === null) throw damaged(path, 'it ends too early');
  if (end.rows !== rows || end.sha256 !== hash.digest('hex'))
    throw damaged(path, 'its check sum is not that of its content');
  return { head, rows };
}

const damaged = (path: string, why: string): Problem =>
  new Problem(400, `${path} is no whole backup: ${why}. Take another copy of it.`);

function parsed(path: string, line: string): unknown {
  try {
    return JSON.parse(line);
  } catch {
    throw damaged(path, 'it holds a line that is not JSON');
  }
}

function asHead(path: string, json: unknown): Head {
  const head = v.safeParse(headSchema, json);
  if (!head.success) throw damaged(path, 'its first line is not that of a backup');
  return head.output;
}

async function* linesOf(path: string): AsyncGenerator<string> {
  const unpacked = createGunzip();
  const file = createReadStream(path);
  file.on('error', (error) => unpacked.destroy(error));
  file.pipe(unpacked);
  const decoder = new StringDecoder('utf8');
  let rest: string[] = [];
  let length = 0;
  try {
    for await (const part of unpacked as AsyncIterable<Buffer>) {
      const pieces = decoder.write(part).split('\n');
      for (const piece of pieces.slice(0, -1)) {
        yield rest.join('') + piece;
        rest = [];
        length = 0;
      }
      const last = pieces[pieces.length - 1];
      rest.push(last);
      length += last.length;
      if (length > longestLine) throw damaged(path, 'it holds a line longer than any row');
    }
  } catch (error) {
    if (error instanceof Problem) throw error;
    const { code } = error as NodeJS.ErrnoException;
    throw code === 'ENOENT' ? new Problem(404, `There is no file ${path}.`) : damaged(path, (error as Error).message);
  }
  if (rest.join('') !== '') throw damaged(path, 'its last line is not whole');
}
