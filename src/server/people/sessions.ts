import { sql } from 'kysely';
import { database } from '../database/connection';
import { Problem } from '../problem';
import { settings } from '../settings';
import { hashOf, newToken } from './tokens';

/** Somebody who is signed in. */
export interface Person {
  id: string;
  name: string;
  /** Whether they own the installation: they invite, and give new passwords. */
  head: boolean;
}

/** A session ends when nothing was asked for so long, and after so long in any case, days. */
const idle = 14;
const longest = 90;

const cookieName = 'zircon';
/** Over TLS the cookie is bound to this very host (RFC 6265bis, prefix `__Host-`). */
const boundName = `__Host-${cookieName}`;

const isEncrypted = (headers: Headers): boolean => headers.get('x-forwarded-proto') === 'https';

function tokenIn(headers: Headers): string | null {
  const wanted = isEncrypted(headers) ? boundName : cookieName;
  const pairs = (headers.get('cookie') ?? '').split(';').map((pair) => pair.trim().split('='));
  return pairs.find(([name]) => name === wanted)?.[1] ?? null;
}

/** An answer that begins a session in the window that asked, or ends it there. @param token null ends it */
export const sessionAnswer = (headers: Headers, token: string | null): Response =>
  Response.json({}, { headers: { 'cache-control': 'no-store', 'set-cookie': cookieOf(headers, token) } });

function cookieOf(headers: Headers, token: string | null): string {
  const encrypted = isEncrypted(headers);
  const age = token === null ? 0 : longest * 24 * 60 * 60;
  const parts = [`${encrypted ? boundName : cookieName}=${token ?? ''}`, 'Path=/', `Max-Age=${age}`, 'HttpOnly'];
  return [...parts, 'SameSite=Lax', ...(encrypted ? ['Secure'] : [])].join('; ');
}

const nobodySignsIn = (): Problem => new Problem(404, 'Nobody signs in here: this server is for one machine.');

/** @throws Problem 404 where nobody signs in */
export function expectSignIn(): void {
  if (!settings.signIn) throw nobodySignsIn();
}

/** Who is signed in. @throws Problem 404 where nobody signs in */
export function expectPerson(who: Person | null): Person {
  if (who === null) throw nobodySignsIn();
  return who;
}

/** Where a request came from, as the nearest proxy says it, or the framework; null where neither does. */
export const addressOf = (headers: Headers): string | null =>
  headers.get('x-forwarded-for')?.split(',').pop()?.trim() || null;

/** Begins a session with a token that nobody had before. @returns the token */
export async function beginSession(person: string): Promise<string> {
  const token = newToken();
  await database()
    .insertInto('sessions')
    .values({ token: hashOf(token), person_id: person })
    .execute();
  return token;
}

/** Who asks, by the cookie of the request; null where nobody is signed in. */
export async function personOf(headers: Headers): Promise<Person | null> {
  const token = tokenIn(headers);
  if (token === null) return null;
  const { rows } = await sql<Person & { stale: boolean }>`
    select people.id, people.name, head, seen_at < now() - interval '5 minutes' as stale
    from sessions join people on people.id = person_id
    where token = ${hashOf(token)}
      and seen_at > now() - make_interval(days => ${idle}) and made_at > now() - make_interval(days => ${longest})
  `.execute(database());
  const [found] = rows;
  if (found === undefined) return null;
  if (found.stale)
    await database()
      .updateTable('sessions')
      .set({ seen_at: sql`now()` })
      .where('token', '=', hashOf(token))
      .execute();
  return { id: found.id, name: found.name, head: found.head };
}

/** Ends the session of a request. */
export async function endSession(headers: Headers): Promise<void> {
  const token = tokenIn(headers);
  if (token === null) return;
  await database().deleteFrom('sessions').where('token', '=', hashOf(token)).execute();
}

/** Ends all sessions of a person, wherever they are. */
export async function endSessions(person: string): Promise<void> {
  await database().deleteFrom('sessions').where('person_id', '=', person).execute();
}
