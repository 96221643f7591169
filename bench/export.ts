import { performance } from 'node:perf_hooks';
import { formatNames, type FormatName } from '@/core/exports/deliveries/wish';
import { formats } from '@/server/deliveries/formats';
import { openIfc } from '@/server/deliveries/openIfc';
import { makeBuilding } from './structure';

const cell = (text: string): string => text.padStart(12);

/** Formats that draw every level: nobody asks them of fifty thousand elements at once. */
const drawn: readonly FormatName[] = ['svg', 'pdf'];
const mostDrawn = 10_000;

/** Formats that calculate first, which `./run bench structure`, `energy` and `lighting` measure. */
const calculated: readonly FormatName[] = ['analysis', 'results', 'report'];
const measured = formatNames.filter((name) => !calculated.includes(name));

/**
 * `./run bench export [elements ...]`: seconds and megabytes of each format, what it grows by with the model, the
 * greatest memory, and how long a public reader takes to open the IFC. Ratios count.
 */
export async function benchExport(sizes: readonly number[]): Promise<number> {
  console.log(['elements', 'format', 'seconds', 'MB', 'ms / element', 'memory MB'].map(cell).join(''));
  for (const size of sizes) {
    const model = makeBuilding(size, true);
    const elements = model.columns.length + model.beams.length + model.slabs.length;
    const about = { name: 'Bench', made: new Date(0) };
    for (const name of measured) {
      if (drawn.includes(name) && size > mostDrawn) continue;
      const begun = performance.now();
      const files = await formats[name](model, about);
      const seconds = (performance.now() - begun) / 1000;
      const megabytes = files.reduce((sum, { content }) => sum + content.length, 0) / 1e6;
      const memory = process.memoryUsage().rss / 1e6;
      const row = [elements, name, seconds.toFixed(2), megabytes.toFixed(1), ((seconds * 1000) / elements).toFixed(3)];
      console.log([...row, memory.toFixed(0)].map((value) => cell(String(value))).join(''));
      if (name !== 'ifc') continue;
      const opened = performance.now();
      await openIfc(String(files[0].content), model);
      const took = (performance.now() - opened) / 1000;
      const reader = [elements, 'read again', took.toFixed(2), '', `x ${(took / seconds).toFixed(1)}`];
      console.log(reader.map((value) => cell(String(value))).join(''));
    }
  }
  return 0;
}
