import { judgeUnit, type UnitVerdict } from '@/core/datum/evidence/judge';
import type { Drawing } from '@/core/drawing/drawing';
import { unpackDrawing } from '@/core/drawing/packDrawing';
import { DxfReader } from '@/core/drawing/reader';
import { flatten } from '@/core/underlay/flatten';
import { buildIndex, type PieceIndexData } from '@/core/underlay/pieces';
import type { Primitives } from '@/core/underlay/primitives';
import { buildSegments, type SegmentStore } from '@/core/underlay/segments';

/** What the board draws and points at primitives with. */
export interface Laid {
  index: PieceIndexData;
  segments: SegmentStore;
}

export const layOut = (primitives: Primitives, dashed: boolean): Laid => ({
  index: buildIndex(primitives),
  segments: buildSegments(primitives, dashed),
});

/** A file before any clean-up. */
export class OpenFile {
  readonly raw: Primitives;
  private verdict: UnitVerdict | null = null;
  private laid: Laid | null = null;

  constructor(readonly drawing: Drawing) {
    this.raw = flatten(drawing);
  }

  /** What the file's own content says about its unit. */
  get unit(): UnitVerdict {
    this.verdict ??= judgeUnit(this.drawing, this.raw);
    return this.verdict;
  }

  /** Makes ready what the board will ask for. */
  layAhead(): void {
    this.laid = layOut(this.raw, false);
  }

  /** What was made ready, once: it is given away to the board. */
  takeLaid(): Laid | null {
    const { laid } = this;
    this.laid = null;
    return laid;
  }
}

/** The files that are open, each of them fetched and flattened once. */
const files = new Map<string, Promise<OpenFile>>();
/** A file that is read here while this window sends it. */
interface Sent {
  /** Bytes. */
  size: number;
  file: Promise<OpenFile>;
}

/** Files that this window has sent, until they are asked for. */
const arrived = new Map<string, Sent>();

/** Fetches and flattens a file. @param url where its columns are */
export function fileOf(fileId: string, url: string): Promise<OpenFile> {
  const open = files.get(fileId);
  if (open) return open;
  // What could not be read here may still come from the server.
  const file = arrived.get(fileId)?.file.catch(() => fetchFile(url)) ?? fetchFile(url);
  arrived.delete(fileId);
  files.set(fileId, file);
  file.catch(() => files.delete(fileId));
  return file;
}

/** Lets go of the files that nobody shows any more. */
export function keepOnly(shown: ReadonlySet<string>): void {
  for (const fileId of files.keys()) if (!shown.has(fileId)) files.delete(fileId);
}

async function fetchFile(url: string): Promise<OpenFile> {
  const response = await fetch(url);
  if (!response.ok)
    throw new Error(
      ((await response.json().catch(() => ({}))) as { message?: string }).message ??
        `The drawing could not be fetched (status ${response.status}).`,
    );
  return new OpenFile(unpackDrawing(new Uint8Array(await response.arrayBuffer())));
}

/** Files that this window sends, while the server has not said which they are. */
const sent = new Map<number, Sent>();

/** What goes beyond this in all comes as columns from the server: read here it needs several times its size, bytes. */
const mostReadHere = 64 * 1024 * 1024;

const sizeOf = (list: Iterable<Sent>): number => [...list].reduce((sum, { size }) => sum + size, 0);

/** Makes room for a file, letting go of those that nobody has asked for. @returns whether there is enough */
function makeRoom(size: number): boolean {
  for (const fileId of arrived.keys()) {
    if (sizeOf(sent.values()) + sizeOf(arrived.values()) + size <= mostReadHere) break;
    arrived.delete(fileId);
  }
  return sizeOf(sent.values()) + sizeOf(arrived.values()) + size <= mostReadHere;
}

/** Reads a file that is being sent, so that it is there when the server has read it too. @param key of the upload */
export function readAhead(key: number, file: Blob): void {
  if (!makeRoom(file.size)) return;
  const reading = readHere(file);
  sent.set(key, { size: file.size, file: reading });
  reading.catch(() => sent.delete(key));
}

async function readHere(file: Blob): Promise<OpenFile> {
  const reader = new DxfReader();
  const chunks = file.stream().getReader();
  for (;;) {
    const { done, value } = await chunks.read();
    if (done || !reader.push(value)) break;
  }
  const reading = reader.finish();
  // The server says what is wrong with it.
  if (!reading.ok) throw new Error(reading.message);
  const open = new OpenFile(reading.value.drawing);
  open.layAhead();
  return open;
}

/** What an upload has become: the file of this id, or nothing. */
export function nameSent(key: number, fileId: string | null): void {
  const reading = sent.get(key);
  sent.delete(key);
  if (reading && fileId !== null) arrived.set(fileId, reading);
}
