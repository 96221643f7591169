import { randomUUID } from 'node:crypto';
import { wing } from '../../demo/building';
import { sectionLine, sectionPlace } from '../../demo/section';
import { survey } from '../../demo/yard';
import { put } from '@/core/model/edits';
import { plainDisplay } from '@/core/underlay/display';
import { bringIn, bringInRevision } from '@/server/bringIn';
import { database } from '@/server/database/connection';
import { applyEdit } from '@/server/edits/applyEdit';
import { createProject } from '@/server/newProjects';
import { loadState } from '@/server/rows/rows';
import { demoLevels, demoName, readDemoFile, type DemoFile } from './demoProject';
import { seedFinished } from './seedFinished';

/** Loads the demo projects into a database that holds no project: one as it begins, and one in which it is finished. */
export async function seedDemo(): Promise<void> {
  if (await database().selectFrom('projects').select('id').limit(1).executeTakeFirst()) return;
  await seedFinished();
  await seedRaw();
}

async function seedRaw(): Promise<void> {
  const project = await createProject(demoName, 'm', demoLevels);
  const rows = await database().selectFrom('levels').select(['id', 'name']).where('project_id', '=', project).execute();
  const level = (name: string) => rows.find((row) => row.name === name)!.id;
  await database()
    .transaction()
    .execute(async (tx) => {
      const read = (name: DemoFile) => readDemoFile(tx, name);
      const take = async (name: DemoFile, on: string) => {
        const { file, intake, unit } = await read(name);
        return bringIn(tx, project, { ...file, levelId: level(on) }, intake, unit);
      };
      const ground = await take('marram-ground.dxf', 'Ground');
      await take('marram-upper.dxf', 'Upper');
      await take('marram-basement.dxf', 'Basement');
      const [site, oneLayer] = [
        await take('marram-yard.dxf', 'Ground'),
        await take('marram-ground-one-layer.dxf', 'Ground'),
      ];
      const section = await take('marram-section.dxf', 'Ground');
      const later = await read('marram-ground-B.dxf');
      await bringInRevision(tx, project, ground, later.file, later.intake);
      const state = await loadState(tx, project);
      const first = await tx
        .selectFrom('revisions')
        .select(['file_id', 'file_name'])
        .where('drawing_id', '=', ground)
        .where('number', '=', 1)
        .executeTakeFirstOrThrow();
      const changes = [
        // Revision B is there to go on to; the yard lies where the survey has the building; it and the drawing on one
        // layer, which is the ground floor once more, wait beside.
        put('drawing', { ...state.drawing[ground], revision: 1, fileId: first.file_id, fileName: first.file_name }),
        put('drawing', { ...state.drawing[oneLayer], setAside: true }),
        put('drawing', { ...state.drawing[site], setAside: true }),
        put('placement', {
          ...state.placement[site],
          unit: 'm',
          confirmed: true,
          origin: survey.zero,
          turning: (-survey.turn * Math.PI) / 180,
        }),
        // The section is cut along grid line 2, from A to D.
        put('drawing', { ...state.drawing[section], levelId: null }),
        put('placement', {
          ...state.placement[section],
          confirmed: true,
          origin: [sectionPlace[0] * 1000, sectionPlace[1] * 1000],
          ...sectionLine,
          upright: 0,
        }),
        put('project', {
          ...state.project[project],
          survey: {
            easting: survey.zero[0],
            northing: survey.zero[1],
            elevation: 4.2,
            north: (survey.turn * Math.PI) / 180,
          },
          axes: [{ id: randomUUID(), name: 'Wing', origin: wing.corner, angle: (wing.turn * Math.PI) / 180 }],
        }),
        put('display', { id: site, ...plainDisplay, fade: 0.4, held: true }),
      ];
      await applyEdit(project, null, { label: 'Demo', changes }, { within: tx });
      await tx.updateTable('projects').set({ undo_top: null }).where('id', '=', project).execute();
    });
}
