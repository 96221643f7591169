import { randomUUID } from 'node:crypto';
import type { Transaction } from 'kysely';
import { sectionLine, sectionPlace } from '../../demo/section';
import { upperPlace } from '../../demo/upper';
import { conflictsOf } from '@/core/decisions/conflicts';
import { acceptCandidates } from '@/core/decisions/decide';
import { put } from '@/core/model/edits';
import type { PlacementRow } from '@/core/model/state';
import { Model } from '@/core/model/model';
import { toleranceFor } from '@/core/patterns/settings';
import type { ScheduleSheet } from '@/core/reading/beams/schedule';
import { rowsOfSheet } from '@/core/reading/beams/sheetRows';
import { read } from '@/core/reading/read';
import { Scene } from '@/core/reading/scene';
import { metresPer } from '@/core/units/length';
import { bringIn } from '@/server/bringIn';
import { database } from '@/server/database/connection';
import type { Database } from '@/server/database/schema';
import { applyEdit } from '@/server/edits/applyEdit';
import { createProject } from '@/server/newProjects';
import { loadState } from '@/server/rows/rows';
import { seedTrials } from './seedTrials';
import { demoLevels, demoName, readDemoFile, type DemoFile } from './demoProject';

export const finishedName = `${demoName}, finished`;

/** Candidates less likely than this are left to be judged. */
const sureFrom = 0.5;

type Where = Pick<PlacementRow, 'unit' | 'origin' | 'turning'>;

/** The plans with the levels they hang on and how they lie: as the demo's stories end. */
const plans: { file: DemoFile; level: string; where: Where }[] = [
  { file: 'marram-ground.dxf', level: 'Ground', where: { unit: 'mm', origin: [0, 0], turning: 0 } },
  {
    file: 'marram-upper.dxf',
    level: 'Upper',
    where: {
      unit: 'mm',
      origin: [upperPlace.shift[0] / metresPer.mm, upperPlace.shift[1] / metresPer.mm],
      turning: (-upperPlace.turn * Math.PI) / 180,
    },
  },
  { file: 'marram-basement.dxf', level: 'Basement', where: { unit: 'cm', origin: [0, 0], turning: 0 } },
  { file: 'marram-framing-ground.dxf', level: 'Ground', where: { unit: 'mm', origin: [0, 0], turning: 0 } },
  { file: 'marram-framing-upper.dxf', level: 'Upper', where: { unit: 'mm', origin: [0, 0], turning: 0 } },
];

/** Loads the project in which the same building is finished: drawings placed, and all that is clear accepted. */
export async function seedFinished(): Promise<void> {
  const project = await createProject(finishedName, 'm', demoLevels);
  const levels = await database()
    .selectFrom('levels')
    .select(['id', 'name'])
    .where('project_id', '=', project)
    .execute();
  await database()
    .transaction()
    .execute(async (tx) => {
      const linked = [await addSection(tx, project)];
      for (const { file, level, where } of plans) {
        const levelId = levels.find(({ name }) => name === level)!.id;
        await addPlan(tx, project, file, { levelId, where, linked });
      }
      await seedTrials(tx, project);
      await tx.updateTable('projects').set({ undo_top: null }).where('id', '=', project).execute();
    });
}

/** The section stands on its line. @returns what its tables say of marks */
async function addSection(tx: Transaction<Database>, project: string): Promise<ScheduleSheet> {
  const { file, drawing, primitives, intake, unit } = await readDemoFile(tx, 'marram-section.dxf');
  const id = await bringIn(tx, project, { ...file, levelId: null }, intake, unit);
  const { placement } = await loadState(tx, project);
  const origin: PlacementRow['origin'] = [sectionPlace[0] / metresPer.mm, sectionPlace[1] / metresPer.mm];
  const stands = { ...placement[id], unit: 'mm', origin, ...sectionLine, upright: 0, confirmed: true } as const;
  await applyEdit(project, null, { label: `Place ${file.name}`, changes: [put('placement', stands)] }, { within: tx });
  return { sheet: 'marram-section', rows: rowsOfSheet(drawing, primitives) };
}

interface Plan {
  levelId: string;
  where: Where;
  linked: readonly ScheduleSheet[];
}

async function addPlan(
  tx: Transaction<Database>,
  project: string,
  name: DemoFile,
  { levelId, where, linked }: Plan,
): Promise<void> {
  const { file, drawing, primitives, intake, unit } = await readDemoFile(tx, name);
  const id = await bringIn(tx, project, { ...file, levelId }, intake, unit);
  const before = new Model(await loadState(tx, project));
  const placement = { ...before.placement[id], ...where, scale: 1, confirmed: true };
  await applyEdit(project, null, { label: `Place ${name}`, changes: [put('placement', placement)] }, { within: tx });
  const model = new Model(await loadState(tx, project));
  const roles = intake.layers.map(({ role }) => role);
  const { candidates } = read({
    scene: new Scene(drawing, primitives, placement, roles),
    accepted: Array.from(model.ofKind('grid'), ({ shape }) => shape),
    linked,
    tolerance: toleranceFor(where.unit),
  });
  const conflicts = conflictsOf(model, model.drawing[id], candidates);
  const clear = candidates.filter(({ key, confidence }) => confidence >= sureFrom && !conflicts.has(key));
  await applyEdit(project, null, acceptCandidates(model, model.drawing[id], clear, randomUUID), { within: tx });
}
