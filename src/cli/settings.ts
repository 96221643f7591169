import * as v from 'valibot';
import { fail, ok, type Result } from '@/core/result';
import { roles } from '@/core/sorting/roles';
import { recipeSchema } from '@/core/underlay/recipe/steps';
import { lengthUnits } from '@/core/units/length';

const schema = v.strictObject({
  unit: v.optional(v.picklist([...lengthUnits, 'auto']), 'auto'),
  level: v.optional(
    v.strictObject({
      name: v.optional(v.pipe(v.string(), v.minLength(1)), 'Ground'),
      elevation: v.optional(v.pipe(v.number(), v.finite()), 0),
      height: v.optional(v.pipe(v.number(), v.gtValue(0)), 3),
    }),
    {},
  ),
  roles: v.optional(v.union([v.literal('auto'), v.record(v.string(), v.picklist(roles))]), 'auto'),
  /** Clean-up steps, as a drawing's recipe keeps them; ids may be left out. */
  recipe: v.optional(
    v.pipe(
      v.array(v.looseObject({})),
      v.transform((steps) => steps.map((step, i) => ({ id: String(i), on: true, ...step }))),
      recipeSchema,
    ),
    [],
  ),
});

/** What `./run convert` can be told; lengths in metres. */
export type Settings = v.InferOutput<typeof schema>;

/** Reads the settings file's text; an empty object where there is none. */
export function parseSettings(text: string): Result<Settings> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    return fail(`The settings are not JSON: ${(error as Error).message}`);
  }
  if (Array.isArray(json))
    return fail('The settings are a list; expected an object with unit, level, roles and recipe at the top.');
  const result = v.safeParse(schema, json);
  if (result.success) return ok(result.output);
  const issue = result.issues[0];
  return fail(`The settings have a wrong value at "${v.getDotPath(issue) ?? 'the top'}": ${issue.message}`);
}
