import { sql } from 'kysely';
import { database } from '../database/connection';
import { Problem } from '../problem';

/** Attempts count for so long, minutes; so many that fail are let through by account and by address. */
const minutes = 15;
const most = { account: 10, address: 50 } as const;

/** An attempt that was counted, and what takes it back when it succeeds. */
interface Counted {
  succeeded: () => Promise<void>;
}

/**
 * Counts an attempt before it is looked at, so that many at once gain nothing.
 * @param address where the request came from; null where that is not known
 * @throws Problem 429 after too many, whether the account is there or not
 */
export async function countAttempt(account: string, address: string | null): Promise<Counted> {
  const db = database();
  await sql`delete from failed_sign_ins where at < now() - make_interval(mins => ${minutes})`.execute(db);
  const keys = [
    { key: `account ${account.toLowerCase()}`, limit: most.account },
    ...(address === null ? [] : [{ key: `address ${address}`, limit: most.address }]),
  ];
  const made: string[] = [];
  for (const { key, limit } of keys) {
    const { id } = await db.insertInto('failed_sign_ins').values({ key }).returning('id').executeTakeFirstOrThrow();
    made.push(id);
    const { count } = await db
      .selectFrom('failed_sign_ins')
      .select(({ fn }) => fn.countAll<number>().as('count'))
      .where('key', '=', key)
      .executeTakeFirstOrThrow();
    if (count > limit)
      throw new Problem(429, `Too many attempts failed. Wait ${minutes} minutes, or ask for a new password.`);
  }
  return {
    async succeeded() {
      await db.deleteFrom('failed_sign_ins').where('id', 'in', made).execute();
      await db.deleteFrom('failed_sign_ins').where('key', '=', keys[0].key).execute();
    },
  };
}
