import { randomUUID } from 'node:crypto';
import { sql } from 'kysely';
import * as v from 'valibot';
import { roleMapSchema, type RoleMap } from '@/core/sorting/roleMap';
import { database } from './database/connection';
import { notFound } from './problem';

/** A role map kept for the next job. */
export interface KeptRoleMap extends Omit<RoleMap, 'format' | 'version'> {
  id: string;
}

/** All kept maps; what rules got later has its default. */
export const listRoleMaps = async (): Promise<KeptRoleMap[]> =>
  (
    await database()
      .selectFrom('role_maps')
      .select(['id', 'name', 'rules', 'lessons', 'answers', 'first_number'])
      .orderBy('name')
      .execute()
  ).map(({ first_number: firstNumber, ...row }) => ({
    ...row,
    firstNumber,
    rules: v.parse(roleMapSchema.entries.rules, row.rules),
  }));

/** Keeps a map under its name; one of that name is replaced. @returns its id */
export async function keepRoleMap({ name, rules, lessons, answers, firstNumber }: RoleMap): Promise<string> {
  const values = {
    rules: JSON.stringify(rules),
    lessons: JSON.stringify(lessons),
    answers: JSON.stringify(answers),
    first_number: firstNumber,
    updated_at: sql<Date>`now()`,
  };
  const row = await database()
    .insertInto('role_maps')
    .values({ id: randomUUID(), name, ...values })
    .onConflict((c) => c.column('name').doUpdateSet(values))
    .returning('id')
    .executeTakeFirstOrThrow();
  return row.id;
}

export async function forgetRoleMap(id: string): Promise<void> {
  const row = await database().deleteFrom('role_maps').where('id', '=', id).returning('id').executeTakeFirst();
  if (!row) throw notFound('This role map');
}
