import { mkdir, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { writeIfc } from '@/core/exports/ifc/writeIfc';
import { writeGbxml } from '@/core/exports/gbxml/writeGbxml';
import { planSheet } from '@/core/exports/sheets/plan';
import { sheetSvg } from '@/core/exports/sheets/svg';
import { sheetsPdf } from '@/server/sheetsPdf';
import { faceThatShips } from '@/server/face';
import { csvOf } from '@/core/exports/schedules/csv';
import { schedulesOf } from '@/core/exports/schedules/schedules';
import { workbookOf } from '@/server/workbook';
import type { ReadModel } from '@/core/handover/model/readModel';
import { complain } from './complain';
import { modelAt } from './modelAt';

/** A file that a format writes. */
interface Written {
  file: string;
  content: string | Uint8Array;
}

/** What every format is told. */
interface About {
  name: string;
  time: string;
}

const formats: Record<string, (model: ReadModel, about: About) => Written[] | Promise<Written[]>> = {
  ifc: (model, about) => [{ file: 'model.ifc', content: writeIfc(model, about) }],
  gbxml: (model, { name }) => [{ file: 'model.xml', content: writeGbxml(model, name) }],
  svg: async (model, { name, time }) => {
    const face = await faceThatShips();
    const wish = { project: name, date: time.slice(0, 10) };
    return model.levels.map((level) => ({
      file: `plan-${level.name.replace(/[^\w.-]+/g, '_')}.svg`,
      content: sheetSvg(planSheet(model, level, wish), face),
    }));
  },
  pdf: async (model, { name, time }) => {
    const wish = { project: name, date: time.slice(0, 10) };
    const sheets = model.levels.map((level) => planSheet(model, level, wish));
    return [{ file: 'model.pdf', content: await sheetsPdf(sheets, name, new Date(`${time}Z`)) }];
  },
  xlsx: async (model) => [{ file: 'model.xlsx', content: await workbookOf(schedulesOf(model), new Date()) }],
  csv: (model) => schedulesOf(model).map((one) => ({ file: `${one.name}.csv`, content: csvOf(one) })),
};
const usage = `Usage: ./run export <model.json> --to ${Object.keys(formats).join(',')} --out <folder>
Writes a model in open formats: ifc writes model.ifc, gbxml model.xml, svg a plan
a level at a true scale, pdf all of them as model.pdf, xlsx model.xlsx with a sheet a schedule, csv one file a schedule.`;

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
  const wanted = to.split(',').filter((format) => format !== '');
  const unknown = wanted.find((format) => !Object.hasOwn(formats, format));
  if (unknown !== undefined || wanted.length === 0)
    return complain(2, `There is no format "${unknown ?? ''}"; expected ${Object.keys(formats).join(', ')}.`);
  const model = await modelAt(path);
  if (!model.ok) return complain(3, `${path}: ${model.message}`);
  const about = { name: basename(path).replace(/\.json$/i, ''), time: new Date().toISOString().slice(0, 19) };
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
