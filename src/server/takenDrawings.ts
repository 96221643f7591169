import type { TakenDrawing } from '@/core/exports/schedules/intake';
import { currentIntake } from './rebuild';

/** Drawings of a project with the reports of their files. */
export async function takenDrawings(
  project: string,
  drawings: readonly { name: string; revision: number; level: string; fileId: string }[],
): Promise<TakenDrawing[]> {
  const taken: TakenDrawing[] = [];
  // One after another: a file whose report an older reader made is read again.
  for (const { name, revision, level, fileId } of drawings)
    taken.push({ name, revision, level, report: await currentIntake(project, fileId) });
  return taken;
}
