import { createHash } from 'node:crypto';
import type { Placement } from '@/core/datum/placement';
import { contentOf, countsOf } from '@/core/exports/deliveries/contentOf';
import type { DeliveryReport, FileBack } from '@/core/exports/deliveries/report';
import type { DeliveryWish } from '@/core/exports/deliveries/wish';
import { ontoDrawing, ontoPoint, ontoProject, ontoSurvey, type Onto } from '@/core/exports/dxf/onto';
import type { TakenDrawing } from '@/core/exports/schedules/intake';
import { resultsOf } from '@/core/exports/results/results';
import type { ReadModel } from '@/core/handover/model/readModel';
import { Problem } from '../problem';
import type { MadeFile } from '../work/answer';
import { lazily } from '@/core/lazily';
import { formats, type Written } from './formats';
import { backReader } from './readBack';

/** How drawings lie in the project, by their ids. */
type Placements = Readonly<Record<string, Placement>>;

/** Where the DXF of a delivery has its zero. */
function ontoOf({ origin, unit }: DeliveryWish, { survey }: ReadModel, placements: Placements): Onto {
  if (origin.at === 'project') return ontoProject(unit);
  if (origin.at === 'point') return ontoPoint(origin.point, unit, origin.turn);
  if (origin.at === 'drawing') {
    const placement = placements[origin.drawing];
    if (placement === undefined || placement.upright !== null)
      throw new Problem(
        409,
        'The drawing that the DXF is to lie over is no plan of this project any more. Choose another origin.',
      );
    return ontoDrawing(placement);
  }
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

/** What a delivery is of: a project at one of its steps, with its drawings. */
interface Delivered {
  project: string;
  step: number;
  made: Date;
  placements: Placements;
  drawings: readonly TakenDrawing[];
}

/**
 * Writes what is wanted of a model in every format that is wanted, reads each file again, and tells in `delivery.json`
 * what was handed over and what came back.
 * @param tell hears how much of the work is done, from 0 to 1
 */
export async function deliver(
  whole: ReadModel,
  wish: DeliveryWish,
  { project, step, made, placements, drawings }: Delivered,
  tell: (share: number) => void,
): Promise<MadeFile[]> {
  const model = contentOf(whole, wish);
  if (wish.formats.includes('gbxml') && model.zones.length === 0)
    throw new Problem(
      409,
      'gbXML holds rooms, and there is none in what is handed over. Take zones in, or leave it out.',
    );
  const analysis = wish.content.includes('supports') || wish.content.includes('loads');
  // Results are those of the whole model: a part of it would carry, lose and light otherwise.
  const results = lazily(() => resultsOf(whole));
  const onto = ontoOf(wish, whole, placements);
  const about = { name: project, made, onto, levels: wish.levels, analysis, results, drawings };
  const readBack = backReader(model);
  const files: MadeFile[] = [];
  const back: FileBack[] = [];
  for (const [i, format] of wish.formats.entries()) {
    tell(i / wish.formats.length);
    for (const written of await formats[format](model, about)) {
      files.push({ name: written.file, type: written.type, bytes: bytesOf(written.content) });
      back.push(await readBack(written));
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
