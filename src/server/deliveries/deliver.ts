import { createHash } from 'node:crypto';
import { contentOf, countsOf } from '@/core/exports/deliveries/contentOf';
import type { DeliveryReport, FileBack } from '@/core/exports/deliveries/report';
import type { DeliveryWish } from '@/core/exports/deliveries/wish';
import { ontoPoint, ontoProject, ontoSurvey, type Onto } from '@/core/exports/dxf/onto';
import type { ReadModel } from '@/core/handover/model/readModel';
import { Problem } from '../problem';
import type { MadeFile } from '../work/answer';
import { formats, type Written } from './formats';
import { readBack } from './readBack';

/** Where the DXF of a delivery has its zero. */
function ontoOf({ origin, unit }: DeliveryWish, { survey }: ReadModel): Onto {
  if (origin.at === 'project') return ontoProject(unit);
  if (origin.at === 'point') return ontoPoint(origin.point, unit, origin.turn);
  if (survey === undefined)
    throw new Problem(
      409,
      'Where the project lies in the survey is not known. Give easting, northing and north at Datum, under Project, or ' +
        'choose another origin.',
    );
  return ontoSurvey(survey, unit);
}

const bytesOf = (content: Written['content']): Uint8Array<ArrayBuffer> =>
  typeof content === 'string' ? new TextEncoder().encode(content) : new Uint8Array(content);

/**
 * Writes what is wanted of a model in every format that is wanted, reads each file again, and tells in `delivery.json`
 * what was handed over and what came back.
 * @param tell hears how much of the work is done, from 0 to 1
 */
export async function deliver(
  whole: ReadModel,
  wish: DeliveryWish,
  { project, step, made }: { project: string; step: number; made: Date },
  tell: (share: number) => void,
): Promise<MadeFile[]> {
  const model = contentOf(whole, wish);
  if (wish.formats.includes('gbxml') && model.zones.length === 0)
    throw new Problem(
      409,
      'gbXML holds rooms, and there is none in what is handed over. Take zones in, or leave it out.',
    );
  const analysis = wish.content.includes('supports') || wish.content.includes('loads');
  const about = { name: project, made, onto: ontoOf(wish, whole), levels: wish.levels, analysis };
  const files: MadeFile[] = [];
  const back: FileBack[] = [];
  for (const [i, format] of wish.formats.entries()) {
    tell(i / wish.formats.length);
    for (const written of await formats[format](model, about)) {
      files.push({ name: written.file, type: written.type, bytes: bytesOf(written.content) });
      back.push(await readBack(written, model));
    }
  }
  const report: DeliveryReport = {
    format: 'zircon-frame-delivery',
    version: 1,
    project,
    step,
    made: made.toISOString(),
    wish,
    counts: countsOf(model),
    files: files.map(({ name, bytes }) => ({
      name,
      size: bytes.length,
      sha256: createHash('sha256').update(bytes).digest('hex'),
    })),
    readBack: back.filter(({ kinds }) => kinds.length > 0),
  };
  const told = bytesOf(`${JSON.stringify(report, null, 1)}\n`);
  return [{ name: reportName, type: 'application/json', bytes: told }, ...files];
}

/** The file of a delivery that tells what it is. */
export const reportName = 'delivery.json';
