import { heatView } from '@/core/energy/file';
import { tryHeat } from '@/core/energy/heat';
import { tryLight } from '@/core/lighting/light';
import type { JobRequest } from '@/core/jobs';
import { pack } from '@/core/packed';
import { tryStructure } from '@/core/structure/trial';
import { viewOf } from '@/core/structure/view';
import type { ReadModel } from '@/core/handover/model/readModel';
import { deliver } from '../deliveries/deliver';
import { readModelOf } from '../modelOf';
import { takenDrawings } from '../takenDrawings';
import type { MadeFile } from './answer';

/**
 * Does what was asked for, with the project as it is now.
 * @param tell hears how much of the work is done, from 0 to 1
 * @returns what came of it, and the version of the project that it is of
 */
export async function perform(
  project: string,
  request: JobRequest,
  tell: (share: number) => void,
): Promise<{ files: MadeFile[]; version: number }> {
  const { name, model, version, placements, drawings } = await readModelOf(project);
  if (request.kind !== 'delivery') return { files: [viewFile(trialOf(request.kind, model, tell))], version };
  const taken = await takenDrawings(project, drawings);
  const about = { project: name, step: version, made: new Date(), placements, drawings: taken };
  return { files: await deliver(model, request.wish, about, tell), version };
}

function trialOf(
  kind: Exclude<JobRequest['kind'], 'delivery'>,
  model: ReadModel,
  tell: (share: number) => void,
): unknown {
  switch (kind) {
    case 'structure':
      return viewOf(tryStructure(model, { tell }), model);
    case 'heat':
      return heatView(tryHeat(model, { tell }));
    case 'light':
      return tryLight(model, { tell });
  }
}

/** What a window shows of a trial. */
const viewFile = (view: unknown): MadeFile => ({ name: 'view', type: 'application/octet-stream', bytes: pack(view) });
