import { randomUUID } from 'node:crypto';
import { sql } from 'kysely';
import * as v from 'valibot';
import { portable, recipeSchema, type Recipe } from '@/core/underlay/recipe/steps';
import { database } from './database/connection';
import { notFound } from './problem';

/** A recipe kept for the next job. */
export interface NamedRecipe {
  id: string;
  name: string;
  steps: Recipe;
}

export const namedRecipeSchema = v.strictObject({
  name: v.pipe(v.string(), v.trim(), v.minLength(1, 'A name needs at least one character.'), v.maxLength(120)),
  steps: recipeSchema,
});

export const listRecipes = (): Promise<NamedRecipe[]> =>
  database().selectFrom('named_recipes').select(['id', 'name', 'steps']).orderBy('name').execute();

/** @returns its id */
export async function keepRecipe({ name, steps }: v.InferOutput<typeof namedRecipeSchema>): Promise<string> {
  const values = { steps: JSON.stringify(portable(steps)), updated_at: sql<Date>`now()` };
  const row = await database()
    .insertInto('named_recipes')
    .values({ id: randomUUID(), name, ...values })
    .onConflict((c) => c.column('name').doUpdateSet(values))
    .returning('id')
    .executeTakeFirstOrThrow();
  return row.id;
}

export async function forgetRecipe(id: string): Promise<void> {
  const row = await database().deleteFrom('named_recipes').where('id', '=', id).returning('id').executeTakeFirst();
  if (!row) throw notFound('This recipe');
}
