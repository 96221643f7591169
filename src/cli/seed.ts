import { Readable } from 'node:stream';
import { groundFloor } from '../../demo/ground';
import { defaultLimits } from '@/core/drawing/limits';
import { packDrawing } from '@/core/drawing/packDrawing';
import { readDxf } from '@/core/drawing/reader';
import { digest } from '@/core/handover/intake/digest';
import { bringIn } from '@/server/bringIn';
import { database } from '@/server/database/connection';
import { storeDerived, storeFile } from '@/server/files';
import { createProject } from '@/server/projects';

export const demoName = 'Marram Point Field Station';

const levels = [
  { name: 'Basement', elevation: -3.15, height: 3.15 }, { name: 'Ground', elevation: 0, height: 3.9 },
  { name: 'Upper', elevation: 3.9, height: 3.6 }, { name: 'Roof', elevation: 7.5, height: 1.1 },
];

/** Loads the demo project into a database that holds no project. */
export async function seedDemo(): Promise<void> {
  if (await database().selectFrom('projects').select('id').limit(1).executeTakeFirst()) return;
  const project = await createProject(demoName, 'm', levels);
  const ground = await database().selectFrom('levels').select('id').where('project_id', '=', project).where('name', '=', 'Ground').executeTakeFirstOrThrow();
  const bytes = new TextEncoder().encode(groundFloor().dxf);
  const reading = readDxf(bytes);
  if (!reading.ok) throw new Error(reading.message);
  await database().transaction().execute(async (tx) => {
    const file = await storeFile(tx, Readable.from([bytes]));
    const { drawing, intake, unit } = digest('marram-ground.dxf', file.sha256, reading.value, defaultLimits);
    await storeDerived(tx, file.id, packDrawing(drawing), intake);
    await bringIn(tx, project, { id: file.id, name: 'marram-ground.dxf', levelId: ground.id }, intake, unit);
  });
}
