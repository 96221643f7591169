import { Unzip, UnzipInflate } from 'fflate';
import { few } from '@/core/few';
import { fail, ok, type Result } from '@/core/result';

/** Together the drawings of one zip are at most so large, bytes: what is larger is no set of plans. */
const mostUnpacked = 2 * 1024 ** 3;

/** The drawings of a zip, and what else it holds, by name. */
export interface Unpacked {
  drawings: File[];
  others: string[];
}

/** Names of folders that computers put into zips beside what was packed. */
const noise = /(^|\/)(__MACOSX\/|\.)/;
const plainName = (path: string): string => path.split(/[/\\]/).pop() ?? path;

/** Drawings and buildings by the endings of their names. */
const drawn = /\.(dxf|ifc)$/i;

/**
 * Unpacks a zip, piece by piece as it is read, so that the window stays responsive.
 * @param all whether everything in it is taken for a drawing: an office's converter may know it
 */
export async function unpacked(zip: File, all: boolean): Promise<Result<Unpacked>> {
  const found: Unpacked = { drawings: [], others: [] };
  let size = 0;
  let problem: string | null = null;
  const unzip = new Unzip((entry) => {
    if (entry.name.endsWith('/') || noise.test(entry.name)) return;
    if (!all && !drawn.test(entry.name)) {
      found.others.push(plainName(entry.name));
      return;
    }
    const pieces: Uint8Array<ArrayBuffer>[] = [];
    entry.ondata = (error, piece, last) => {
      if (error !== null) {
        problem ??= `${entry.name} in it is damaged (${error.message})`;
        return;
      }
      size += piece.length;
      if (size > mostUnpacked) problem ??= 'its drawings have more than 2 GB';
      if (problem === null) pieces.push(new Uint8Array(piece));
      if (last) found.drawings.push(new File(pieces, plainName(entry.name)));
    };
    entry.start();
  });
  unzip.register(UnzipInflate);
  try {
    for await (const piece of zip.stream() as unknown as AsyncIterable<Uint8Array>) {
      unzip.push(piece);
      if (problem !== null) break;
    }
    unzip.push(new Uint8Array(), true);
  } catch (error) {
    problem ??= (error as Error).message;
  }
  if (problem !== null) return fail(`${zip.name} cannot be unpacked: ${problem}. Unpack it and bring in its drawings.`);
  if (found.drawings.length === 0)
    return fail(
      `${zip.name} holds no DXF and no IFC${found.others.length === 0 ? '' : `, but ${few(found.others)}`}. Ask for the drawings as DXF.`,
    );
  return ok(found);
}
