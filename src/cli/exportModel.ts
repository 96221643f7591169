import { mkdir, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { formatNames, type FormatName } from '@/core/exports/deliveries/wish';
import { resultsOf } from '@/core/exports/results/results';
import { lazily } from '@/core/lazily';
import { formats } from '@/server/deliveries/formats';
import { complain } from './complain';
import { modelAt } from './modelAt';

const usage = `Usage: ./run export <model.json> --to ${formatNames.join(',')} --out <folder>
Writes a model in open formats: ifc writes model.ifc, gbxml model.xml, svg a plan
a level at a true scale, pdf all of them as model.pdf, xlsx model.xlsx with a sheet a schedule, csv one file a
schedule, dxf model.dxf as lines in space and a plan a level, json the model again, analysis
the tables of the calculation models as analysis.xlsx.`;

/** `./run export`. @returns the exit code: 0 done, 2 wrong usage, 3 the model cannot be read */
export async function exportModel(args: string[]): Promise<number> {
  let parsed;
  try {
    parsed = parseArgs({ args, allowPositionals: true, options: { out: { type: 'string' }, to: { type: 'string' } } });
  } catch (error) {
    return complain(2, `${(error as Error).message}\n${usage}`);
  }
  const {
    positionals: [path, ...more],
    values: { out, to },
  } = parsed;
  if (path === undefined || more.length > 0 || !out || !to) return complain(2, usage);
  const named = to.split(',').filter((format) => format !== '');
  const wanted = named.flatMap((format): FormatName[] => formatNames.filter((name) => name === format));
  if (wanted.length < named.length || wanted.length === 0) {
    const unknown = named.find((format) => !formatNames.some((name) => name === format)) ?? '';
    return complain(2, `There is no format "${unknown}"; expected ${formatNames.join(', ')}.`);
  }
  const model = await modelAt(path);
  if (!model.ok) return complain(3, `${path}: ${model.message}`);
  const about = {
    name: basename(path).replace(/\.json$/i, ''),
    made: new Date(),
    results: lazily(() => resultsOf(model.value)),
  };
  const written = (await Promise.all(wanted.map((format) => formats[format](model.value, about)))).flat();
  try {
    await mkdir(out, { recursive: true });
    for (const { file, content } of written) await writeFile(join(out, file), content);
  } catch (error) {
    return complain(2, `Cannot write to ${out}: ${(error as Error).message}`);
  }
  for (const { file, content } of written) console.log(`${file}: ${(content.length / 1000).toFixed(0)} kB`);
  return 0;
}
