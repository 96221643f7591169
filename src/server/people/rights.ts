import { sql } from 'kysely';
import { rights, type Right } from '@/core/people';
import { database, type Db } from '../database/connection';
import { notFound, Problem } from '../problem';
import { settings } from '../settings';
import { personOf, type Person } from './sessions';

/** What somebody may do in a project; null where it does not exist for them. */
export async function rightOf(person: Person, project: string): Promise<Right | null> {
  const rows = await database()
    .selectFrom('rights')
    .select(['person_id', 'right'])
    .where('project_id', '=', project)
    .execute();
  const own = rows.find(({ person_id: id }) => id === person.id)?.right;
  // A project that nobody owns, as one that a command put back, is the installation's.
  if (own === undefined && person.head && !rows.some(({ right }) => right === 'owner')) return 'owner';
  return own ?? null;
}

/** The condition on a project that somebody may see it. */
export const seenBy = ({ id, head }: Person) => sql<boolean>`(
  exists (select 1 from rights where rights.project_id = projects.id and person_id = ${id})
  or ${head} and not exists (select 1 from rights where rights.project_id = projects.id and "right" = 'owner')
)`;

/** Whether one right holds another: an owner may all that an editor may. */
export const holds = (right: Right, wanted: Right): boolean => rights.indexOf(right) >= rights.indexOf(wanted);

/** @throws Problem 404 for a project that one may not see, 403 for what one may not do in it */
export async function expectRight(person: Person, project: string, wanted: Right): Promise<Right> {
  const right = await rightOf(person, project);
  if (right === null) throw notFound('This project');
  if (!holds(right, wanted)) throw new Problem(403, refusals[wanted]);
  return right;
}

const refusals: Record<Right, string> = {
  reader: 'This project may not be looked at.',
  editor: 'You may look at this project and not change it. Ask its owner to make you an editor.',
  owner: 'That is for the owner of this project.',
};

/**
 * Whether somebody may still do what they had asked for in the background; always, where nobody signs in.
 * @param person null where nobody signed in when it was asked for
 */
export async function mayStill(person: string | null, project: string, wanted: Right): Promise<boolean> {
  if (person === null || !settings.signIn) return true;
  const found = await database()
    .selectFrom('people')
    .select(['id', 'name', 'head'])
    .where('id', '=', person)
    .executeTakeFirst();
  const right = found === undefined ? null : await rightOf(found, project);
  return right !== null && holds(right, wanted);
}

/** What is said of work whose asker may not any more. */
export const noMore = 'Who asked for it may not do so any more in this project.';

/** Whether who sent a request is still signed in and may see a project. */
export async function maySee(headers: Headers, project: string): Promise<boolean> {
  const person = await personOf(headers);
  return person !== null && (await rightOf(person, project)) !== null;
}

/** Makes who made a project its owner; nobody, where nobody signs in. */
export async function giveOwner(project: string, person: string | null): Promise<void> {
  if (person !== null) await setRight(database(), project, person, 'owner');
}

/** Gives somebody a right in a project, unless they have a greater one: a link takes nothing from who opens it. */
export async function raiseRight(db: Db, project: string, person: string, right: Right): Promise<void> {
  const row = await db
    .selectFrom('rights')
    .select('right')
    .where('project_id', '=', project)
    .where('person_id', '=', person)
    .executeTakeFirst();
  if (row === undefined || !holds(row.right, right)) await setRight(db, project, person, right);
}

/** Gives somebody a right in a project, or takes it. @param right null takes it */
export async function setRight(db: Db, project: string, person: string, right: Right | null): Promise<void> {
  if (right === null) {
    await db.deleteFrom('rights').where('project_id', '=', project).where('person_id', '=', person).execute();
    return;
  }
  await db
    .insertInto('rights')
    .values({ project_id: project, person_id: person, right })
    .onConflict((conflict) => conflict.columns(['project_id', 'person_id']).doUpdateSet({ right }))
    .execute();
}
