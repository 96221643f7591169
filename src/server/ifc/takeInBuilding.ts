import { randomUUID } from 'node:crypto';
import { Readable } from 'node:stream';
import type { Transaction } from 'kysely';
import { put } from '@/core/model/edits';
import type { LevelRow, ProjectState } from '@/core/model/state';
import { storable } from '@/core/storable';
import type { Database } from '../database/schema';
import { applyEdit } from '../edits/applyEdit';
import { beginFile, storeFile } from '../files';
import type { ReadingJob } from '../jobs/queue';
import { nameOfPerson } from '../people/people';
import { loadState } from '../rows/rows';
import type { ReadBuilding, StoreyPlan } from './readBuilding';

type Tx = Transaction<Database>;

/** Elevations that differ by less are one level's, metres. */
const sameLevel = 1e-3;
const longestName = 120;

/**
 * Takes in the plans of a building: each waits to be read as a drawing on the level at its elevation, which is made
 * where there is none. The next edition of a building revises the drawings that were made of the last one.
 * @returns a sentence where nothing can be done with it; the ids of the intakes that wait
 */
export async function takeInBuilding(
  tx: Tx,
  job: ReadingJob,
  { plans, report }: ReadBuilding,
): Promise<{ failed: string } | { intakes: string[] }> {
  const state = await loadState(tx, job.projectId);
  const revised = job.revises === null ? new Map<string, string>() : await drawingsOf(tx, state, job.revises);
  if (job.revises !== null && revised.size === 0) return { failed: notOfBuilding(state, job.revises) };
  const levels = await levelsFor(tx, job, state, plans);
  const intakes: string[] = [];
  for (const [i, plan] of plans.entries()) {
    const file = await beginFile(tx);
    await storeFile(tx, file, Readable.from([Buffer.from(plan.dxf)]));
    await tx
      .insertInto('file_origins')
      .values({
        file_id: file,
        original_id: job.fileId,
        name: job.fileName,
        log: '',
        report: JSON.stringify(report),
      })
      .execute();
    const id = randomUUID();
    await tx
      .insertInto('intakes')
      .values({
        id,
        project_id: job.projectId,
        level_id: levels[i],
        revises: revised.get(levels[i]) ?? null,
        file_name: nameOf(job.fileName, plan),
        size: plan.dxf.length,
        state: 'waiting',
        process: null,
        file_id: file,
        message: null,
        drawing_id: null,
        person_id: job.personId,
      })
      .execute();
    intakes.push(id);
  }
  return { intakes };
}

/** A drawing is named after the building and the storey. */
const nameOf = (fileName: string, { name }: StoreyPlan): string =>
  `${storable(`${fileName.replace(/\.ifc$/i, '')} ${name}`).slice(0, longestName - 4)}.dxf`;

/** The drawings that were made of the same building as one, by their levels. */
async function drawingsOf(tx: Tx, state: ProjectState, drawing: string): Promise<Map<string, string>> {
  const file = state.drawing[drawing]?.fileId;
  if (file === undefined) return new Map();
  const origin = await tx
    .selectFrom('file_origins')
    .select('original_id')
    .where('file_id', '=', file)
    .where('report', 'is not', null)
    .executeTakeFirst();
  if (origin === undefined) return new Map();
  const made = await tx
    .selectFrom('file_origins')
    .select('file_id')
    .where('original_id', '=', origin.original_id)
    .execute();
  const files = new Set(made.map(({ file_id: file }) => file));
  return new Map(
    Object.values(state.drawing).flatMap(({ id, fileId, levelId }) =>
      files.has(fileId) && levelId !== null ? [[levelId, id] as const] : [],
    ),
  );
}

const notOfBuilding = (state: ProjectState, drawing: string): string =>
  `${state.drawing[drawing]?.name ?? 'The drawing'} was not made of an IFC, so that this one is no revision of it. ` +
  'Bring the IFC in by itself.';

/** The level of each plan, by elevation; those that are missing are made, in one edit. */
async function levelsFor(
  tx: Tx,
  job: ReadingJob,
  state: ProjectState,
  plans: readonly StoreyPlan[],
): Promise<string[]> {
  const known = Object.values(state.level);
  const taken = new Set(known.map(({ name }) => name.toLowerCase()));
  const made: LevelRow[] = [];
  const levels = plans.map(({ name, elevation, height }) => {
    const found = known.find((level) => Math.abs(level.elevation - elevation) <= sameLevel);
    if (found !== undefined) return found.id;
    const row: LevelRow = {
      id: randomUUID(),
      name: free(taken, storable(name).slice(0, longestName) || 'Level'),
      elevation,
      height,
      kind: 'floor',
      buildUp: 0,
      slab: 0,
      repeats: null,
    };
    made.push(row);
    return row.id;
  });
  if (made.length > 0)
    await applyEdit(
      job.projectId,
      null,
      { label: `Levels of ${job.fileName}`, changes: made.map((row) => put('level', row)) },
      { within: tx, person: await nameOfPerson(tx, job.personId) },
    );
  return levels;
}

/** A name that no level has yet. */
function free(taken: Set<string>, name: string): string {
  let own = name;
  for (let n = 2; taken.has(own.toLowerCase()); n += 1) own = `${name.slice(0, longestName - 4)} ${n}`;
  taken.add(own.toLowerCase());
  return own;
}
