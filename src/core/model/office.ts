import { roleMapOf, type RoleMap } from '@/core/sorting/roleMap';
import type { Role } from '@/core/sorting/roles';
import type { Recipe } from '@/core/underlay/recipe/steps';
import { portable } from '@/core/underlay/recipe/steps';
import type { LengthUnit } from '@/core/units/length';
import type { ProjectState } from './state';

/** The longest name on a shelf. */
const longestName = 120;

/** The roles of all of a project's drawings as one map; the first drawing that speaks of a layer counts. */
export function officeRoles(state: ProjectState, name: string): RoleMap | null {
  const layers = new Map<string, Role>();
  for (const { layer, role } of Object.values(state.role))
    if (role !== null && !layers.has(layer)) layers.set(layer, role);
  const picks = Object.values(state.pick);
  const blocks = new Map(picks.flatMap((pick) => (pick.kind === 'block' ? [[pick.name, pick.role] as const] : [])));
  const map = roleMapOf(
    name.slice(0, longestName),
    Array.from(layers, ([layer, role]) => ({ layer, role })),
    Array.from(blocks, ([block, role]) => ({ name: block, role })),
    {
      lessons: picks.flatMap((pick) => (pick.kind === 'alike' ? [{ role: pick.role, like: pick.like }] : [])),
      answers: picks.flatMap((pick) => (pick.kind === 'answer' ? [pick.answer] : [])),
      firstNumber: Object.values(state.project)[0]?.reading?.beam.first ?? null,
    },
  );
  return map.rules.length + map.lessons.length + map.answers.length === 0 ? null : map;
}

/** The different recipes of a project's drawings, named after it. */
export function officeRecipes(state: ProjectState, name: string): { name: string; steps: Recipe }[] {
  const recipes = Object.values(state.recipe)
    .map(({ steps }) => portable(steps))
    .filter((steps) => steps.length > 0);
  // Two are one where they do the same, whatever the ids of their steps.
  const different = new Map(recipes.map((steps) => [JSON.stringify(steps.map(({ id: _, ...step }) => step)), steps]));
  return Array.from(different.values(), (steps, i) => ({
    name: (i === 0 ? name : `${name} ${i + 1}`).slice(0, longestName),
    steps,
  }));
}

/** What `./run convert` is told so that it reads as the project does. */
export interface OfficeSettings {
  unit: LengthUnit | 'auto';
  level: { name: string; elevation: number; height: number };
  roles: Record<string, Role> | 'auto';
  recipe: Recipe;
}

/** A project's settings for the command line: its drawings' most frequent unit, its ground level, roles and recipe. */
export function officeSettings(state: ProjectState): OfficeSettings {
  const counts = new Map<LengthUnit, number>();
  for (const { unit, confirmed } of Object.values(state.placement))
    if (confirmed) counts.set(unit, (counts.get(unit) ?? 0) + 1);
  const [most] = [...counts].sort(([, a], [, b]) => b - a);
  const levels = Object.values(state.level);
  const ground = levels.find(({ kind }) => kind === 'ground') ?? levels[0];
  const { name, elevation, height } = ground ?? { name: 'Ground', elevation: 0, height: 3 };
  const rules = officeRoles(state, 'convert')?.rules.filter((rule) => rule.of === 'layer') ?? [];
  return {
    unit: most?.[0] ?? 'auto',
    level: { name, elevation, height },
    roles: rules.length === 0 ? 'auto' : Object.fromEntries(rules.map(({ pattern, role }) => [pattern, role])),
    recipe: officeRecipes(state, 'convert')[0]?.steps ?? [],
  };
}
