import { sql } from 'kysely';
import { bringIn, bringInRevision } from '../bringIn';
import { database } from '../database/connection';
import { storeDerived, sweepFiles } from '../files';
import { tellIntake } from '../intakes';
import { readInThread } from '../readInThread';

class Cancelled extends Error {}

/**
 * Reads a file that was taken in: in a thread of its own, so that the server stays responsive, with progress that
 * can be cancelled. What follows from it is stored in one transaction at the end.
 */
export async function readDrawing(intakeId: string): Promise<void> {
  const db = database();
  const intake = await db
    .updateTable('intakes')
    .set({ state: 'reading', done: 0, updated_at: sql`now()` })
    .where('id', '=', intakeId)
    .where('state', 'in', ['waiting', 'reading'])
    .returningAll()
    .executeTakeFirst();
  if (!intake?.file_id) return;
  const file = await db.selectFrom('files').selectAll().where('id', '=', intake.file_id).executeTakeFirstOrThrow();
  try {
    const answer = await readInThread(file.id, intake.file_name, file.sha256, async (done) => {
      const row = await db
        .updateTable('intakes')
        .set({ done, updated_at: sql`now()` })
        .where('id', '=', intakeId)
        .where('state', '=', 'reading')
        .returning('id')
        .executeTakeFirst();
      if (!row) throw new Cancelled();
      await tellIntake(db, intake.project_id, intakeId);
    });
    if ('failed' in answer) {
      // A file whose intake was cancelled meanwhile has lost its bytes and may look damaged; the cancelling stands.
      await db
        .updateTable('intakes')
        .set({ state: 'failed', message: `${intake.file_name}: ${answer.failed}`, file_id: null })
        .where('id', '=', intakeId)
        .where('state', '=', 'reading')
        .execute();
      await sweepFiles(db);
    } else {
      await db.transaction().execute(async (tx) => {
        const still = await tx
          .selectFrom('intakes')
          .select('id')
          .where('id', '=', intakeId)
          .where('state', '=', 'reading')
          .forUpdate()
          .executeTakeFirst();
        if (!still) throw new Cancelled();
        await storeDerived(tx, file.id, answer);
        const named = { id: file.id, name: intake.file_name };
        const drawing =
          intake.revises ??
          (await bringIn(tx, intake.project_id, { ...named, levelId: intake.level_id }, answer.intake, answer.unit));
        if (intake.revises !== null) await bringInRevision(tx, intake.project_id, drawing, named, answer.intake);
        await tx
          .updateTable('intakes')
          .set({ state: 'done', done: file.size, drawing_id: drawing, updated_at: sql`now()` })
          .where('id', '=', intakeId)
          .execute();
      });
    }
  } catch (error) {
    if (!(error instanceof Cancelled)) throw error;
    await sweepFiles(db);
  }
  await tellIntake(db, intake.project_id, intakeId);
}

/** Marks an intake whose job has failed for the last time. */
export async function giveUpReading(intakeId: string): Promise<void> {
  const row = await database()
    .updateTable('intakes')
    .set({
      state: 'failed',
      file_id: null,
      message: sql`file_name || ': the file could not be read within the limits of time and memory set for it. Cut the drawing into parts, or raise the limits.'`,
    })
    .where('id', '=', intakeId)
    .where('state', 'in', ['waiting', 'reading'])
    .returning('project_id')
    .executeTakeFirst();
  if (!row) return;
  await sweepFiles(database());
  await tellIntake(database(), row.project_id, intakeId);
}
