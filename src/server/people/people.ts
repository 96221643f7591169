import { randomUUID } from 'node:crypto';
import { sql, type Transaction } from 'kysely';
import * as v from 'valibot';
import type { Right } from '@/core/people';
import { textUpTo } from '@/core/kinds/limits';
import { database, type Db } from '../database/connection';
import type { Database } from '../database/schema';
import { notFound, Problem } from '../problem';
import { isRight, password, passwordHash } from './passwords';
import { raiseRight, setRight } from './rights';
import { beginSession, endSessions, type Person } from './sessions';
import { countAttempt } from './throttle';
import { hashOf, newToken } from './tokens';

type Tx = Transaction<Database>;

/** What somebody signs in with, and is shown by. */
export const personName = v.pipe(textUpTo(80), v.trim(), v.minLength(1, 'A name is missing.'));

/** Invitations are good for so long, days; a new password is asked for sooner. */
const goodFor = { invitation: 7, reset: 1 } as const;

/** What an invitation is to. */
export type Invitation =
  | { to: 'office'; head: boolean }
  | { to: 'project'; project: string; right: Right }
  | { to: 'password'; person: string };

/** Makes an invitation. @returns its token, which only its link holds */
export async function invite(invitation: Invitation): Promise<string> {
  const token = newToken();
  const db = database();
  await sql`delete from invitations where ends_at < now()`.execute(db);
  const days = invitation.to === 'password' ? goodFor.reset : goodFor.invitation;
  await db
    .insertInto('invitations')
    .values({
      token: hashOf(token),
      person_id: invitation.to === 'password' ? invitation.person : null,
      project_id: invitation.to === 'project' ? invitation.project : null,
      right: invitation.to === 'project' ? invitation.right : null,
      head: invitation.to === 'office' && invitation.head,
      ends_at: new Date(Date.now() + days * 24 * 60 * 60 * 1000),
    })
    .execute();
  return token;
}

/** What an invitation says of itself to who opens its link; null where it is not good any more. */
export async function invitationOf(
  token: string,
): Promise<{ project: string | null; right: Right | null; resets: string | null } | null> {
  const row = await database()
    .selectFrom('invitations')
    .leftJoin('projects', 'projects.id', 'project_id')
    .leftJoin('people', 'people.id', 'person_id')
    .select(['projects.name as project', 'right', 'people.name as resets'])
    .where('token', '=', hashOf(token))
    .where('ends_at', '>', sql<Date>`now()`)
    .executeTakeFirst();
  return row ?? null;
}

const token = v.pipe(v.string(), v.maxLength(100));

/** What somebody does with an invitation: makes an account, chooses a new password, or joins as who they are. */
export const joining = v.variant('as', [
  v.strictObject({ as: v.literal('new'), token, name: personName, password }),
  v.strictObject({ as: v.literal('reset'), token, password }),
  v.strictObject({ as: v.literal('self'), token }),
]);
type Joining = v.InferOutput<typeof joining>;

/**
 * Uses an invitation up.
 * @param self who is signed in
 * @param address where the request came from
 * @returns who it was for
 * @throws Problem 404 for a link that is none, 429 after too many of them
 */
export async function join(asked: Joining, self: Person | null, address: string | null): Promise<string> {
  const attempt = await countAttempt(`link ${hashOf(asked.token).slice(0, 16)}`, address);
  const person = await taken(asked, self);
  await attempt.succeeded();
  return person;
}

async function taken(asked: Joining, self: Person | null): Promise<string> {
  const hashed = asked.as === 'self' ? null : await passwordHash(asked.password);
  return database()
    .transaction()
    .execute(async (tx) => {
      const invitation = await tx
        .deleteFrom('invitations')
        .where('token', '=', hashOf(asked.token))
        .where('ends_at', '>', sql<Date>`now()`)
        .returningAll()
        .executeTakeFirst();
      if (invitation === undefined) throw new Problem(404, usedUp);
      const person = await personFor(tx, asked, self, { ...invitation, hashed });
      if (invitation.project_id !== null && invitation.right !== null)
        await raiseRight(tx, invitation.project_id, person, invitation.right);
      return person;
    });
}

const usedUp = 'This link was used already, or is too old. Ask for another one.';

interface Found {
  person_id: string | null;
  head: boolean;
  hashed: string | null;
}

/** Whom an invitation is for: who is signed in, whose password it is, or an account that is made. */
async function personFor(tx: Tx, asked: Joining, self: Person | null, found: Found): Promise<string> {
  if (found.person_id !== null) {
    if (asked.as !== 'reset' || found.hashed === null) throw new Problem(404, usedUp);
    await tx.updateTable('people').set({ password: found.hashed }).where('id', '=', found.person_id).execute();
    await tx.deleteFrom('sessions').where('person_id', '=', found.person_id).execute();
    return found.person_id;
  }
  if (asked.as === 'self') {
    if (self === null) throw new Problem(401, 'Sign in first, or make an account.');
    return self.id;
  }
  if (asked.as !== 'new' || found.hashed === null) throw new Problem(404, usedUp);
  return makePerson(tx, asked.name, found.hashed, found.head);
}

/** Makes an account. */
async function makePerson(tx: Tx, name: string, hashed: string, head: boolean): Promise<string> {
  const id = randomUUID();
  const taken = await tx
    .selectFrom('people')
    .select('id')
    .where(sql<boolean>`lower(name) = lower(${name})`)
    .executeTakeFirst();
  if (taken) throw new Problem(409, `Somebody here is called ${name} already. Choose another name.`);
  await tx.insertInto('people').values({ id, name, password: hashed, head }).execute();
  return id;
}

/**
 * Signs somebody in.
 * @param address where the request came from
 * @returns the token of a new session
 * @throws Problem 401 that does not say what was wrong, 429 after too many attempts
 */
export async function signIn(name: string, text: string, address: string | null): Promise<string> {
  const attempt = await countAttempt(name, address);
  const person = await database()
    .selectFrom('people')
    .select(['id', 'password'])
    .where(sql<boolean>`lower(name) = lower(${name})`)
    .executeTakeFirst();
  if (!(await isRight(person?.password ?? null, text)) || person === undefined)
    throw new Problem(401, 'Name and password do not belong together.');
  await attempt.succeeded();
  return beginSession(person.id);
}

/** Gives somebody another password, and ends their sessions. @throws Problem 401 where the present one is wrong */
export async function changePassword(person: Person, present: string, next: string): Promise<void> {
  const attempt = await countAttempt(person.name, null);
  const db = database();
  const row = await db.selectFrom('people').select('password').where('id', '=', person.id).executeTakeFirst();
  if (!(await isRight(row?.password ?? null, present))) throw new Problem(401, 'The present password is another one.');
  await attempt.succeeded();
  await db
    .updateTable('people')
    .set({ password: await passwordHash(next) })
    .where('id', '=', person.id)
    .execute();
  await endSessions(person.id);
}

/** Everybody who can sign in. */
export const listPeople = (): Promise<{ id: string; name: string; head: boolean }[]> =>
  database().selectFrom('people').select(['id', 'name', 'head']).orderBy('name').execute();

/** What somebody is called; null of nobody, and of who is not here any more. */
export async function nameOfPerson(db: Db, id: string | null): Promise<string | null> {
  if (id === null) return null;
  const row = await db.selectFrom('people').select('name').where('id', '=', id).executeTakeFirst();
  return row?.name ?? null;
}

/** Takes an account away; what its person made stays. */
export async function removePerson(id: string, by: Person): Promise<void> {
  if (id === by.id) throw new Problem(409, 'You cannot take your own account away. Another owner can.');
  const gone = await database().deleteFrom('people').where('id', '=', id).returning('id').executeTakeFirst();
  if (!gone) throw notFound('This account');
}

/** Who takes part in a project. */
export const listMembers = (project: string): Promise<{ id: string; name: string; right: Right }[]> =>
  database()
    .selectFrom('rights')
    .innerJoin('people', 'people.id', 'person_id')
    .select(['people.id', 'name', 'right'])
    .where('project_id', '=', project)
    .orderBy('name')
    .execute();

/** Changes what somebody may do in a project. @throws Problem 409 where nobody would own it any more */
export async function changeMember(project: string, person: string, right: Right | null): Promise<void> {
  await database()
    .transaction()
    .execute(async (tx) => {
      await tx.selectFrom('projects').select('id').where('id', '=', project).forUpdate().execute();
      const own = await tx
        .selectFrom('rights')
        .select(['person_id', 'right'])
        .where('project_id', '=', project)
        .execute();
      if (!own.some(({ person_id: id }) => id === person)) throw notFound('This person');
      const owners = own.filter((row) => row.right === 'owner' && row.person_id !== person);
      if (owners.length === 0 && right !== 'owner')
        throw new Problem(409, 'A project has an owner. Make somebody else one first.');
      await setRight(tx, project, person, right);
      // Whoever listens to the project looks whether they still may.
      await sql`select pg_notify('zircon', ${JSON.stringify({ project, version: -1 })})`.execute(tx);
    });
}

/**
 * Where nobody can sign in yet: makes the invitation of the first owner and tells its link on the console, where only
 * who runs the server reads it.
 */
export async function tellFirst(): Promise<void> {
  const someone = await database().selectFrom('people').select('id').limit(1).executeTakeFirst();
  if (someone !== undefined) return;
  const token = await invite({ to: 'office', head: true });
  console.error(`Nobody can sign in yet. The first owner makes an account at /join/${token}`);
}
