import { closeSync, openSync, readFileSync, readSync, statSync } from 'node:fs';
import type { Drawing } from '@/core/drawing/drawing';
import { packDrawing } from '@/core/drawing/packDrawing';
import { parseFloatBytes, parseIntBytes } from '@/core/drawing/numerals';
import { DxfReader } from '@/core/drawing/reader';

/** One reader on one file; prints the best of some warm runs and the peak memory of this process. */
const [reader, file] = process.argv.slice(2);
// Ours reads in chunks, as the server does; the others need the file whole.
const bytes = reader === 'zircon' ? Buffer.alloc(0) : readFileSync(file);

/** Finds every group code and parses every value as a number, nothing else. */
function bareLoop(): number {
  let at = 0;
  let entities = 0;
  let sum = 0;
  while (at < bytes.length) {
    let end = bytes.indexOf(10, at);
    if (end < 0) break;
    const code = parseIntBytes(bytes, at, end);
    at = end + 1;
    end = bytes.indexOf(10, at);
    if (end < 0) end = bytes.length;
    if (code === 0) entities += 1;
    else if (code >= 10 && code < 60) sum += parseFloatBytes(bytes, at, end);
    at = end + 1;
  }
  return sum === 0.5 ? -1 : entities;
}

let last: Drawing | null = null;
const run: Record<string, () => Promise<number>> = {
  zircon: async () => {
    const dxf = new DxfReader();
    const handle = openSync(file, 'r');
    for (;;) {
      const chunk = Buffer.allocUnsafe(1 << 20);
      const length = readSync(handle, chunk);
      if (length === 0 || !dxf.push(chunk.subarray(0, length))) break;
    }
    closeSync(handle);
    const result = dxf.finish();
    if (!result.ok) throw new Error(result.message);
    last = result.value.drawing;
    return result.value.drawing.kind.length;
  },
  bare: async () => bareLoop(),
  'dxf-parser': async () => {
    const { default: Parser } = await import('dxf-parser');
    return new Parser().parseSync(bytes.toString('utf8'))!.entities.length;
  },
  dxf: async () => {
    // This package has no types.
    const name: string = 'dxf';
    const { parseString } = (await import(name)) as { parseString: (text: string) => { entities: unknown[] } };
    return parseString(bytes.toString('utf8')).entities.length;
  },
};

let entities = 0;
let best = Infinity;
// Small files are over before the engine has warmed to its work.
const size = statSync(file).size;
const runs = [1e8, 1e7].reduce((most, bytes, i) => (size > bytes ? Math.min(most, [1, 5][i]) : most), 12);
for (let i = 0; i < runs; i += 1) {
  const start = process.hrtime.bigint();
  entities = await run[reader]();
  best = Math.min(best, Number(process.hrtime.bigint() - start) / 1e9);
}
const peak = process.resourceUsage().maxRSS * 1024;
console.log(JSON.stringify({ seconds: best, peak, entities, columns: last === null ? 0 : packDrawing(last).length }));
