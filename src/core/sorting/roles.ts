import { matches } from '@/core/pattern';

/** What a layer means; a mixed one holds several things, told apart by their geometry. */
export const roles = [
  'grid',
  'column',
  'beam',
  'wall',
  'door',
  'window',
  'slab',
  'slabOpening',
  'zone',
  'outdoor',
  'luminaire',
  'terrain',
  'label',
  'ignore',
  'mixed',
] as const;
export type Role = (typeof roles)[number];

export const roleNames: Record<Role, string> = {
  grid: 'Grid',
  column: 'Column',
  beam: 'Beam',
  wall: 'Wall',
  door: 'Door',
  window: 'Window',
  slab: 'Slab',
  slabOpening: 'Slab opening',
  zone: 'Zone',
  outdoor: 'Outdoor',
  luminaire: 'Luminaire',
  terrain: 'Terrain',
  label: 'Label',
  ignore: 'Ignore',
  mixed: 'By geometry',
};

/**
 * The first rule whose pattern matches a layer's name; `*` stands for anything, case does not count.
 * @param rules layer names or patterns, in the order in which they are tried
 */
export function roleByRules(layer: string, rules: Record<string, Role>): { role: Role; pattern: string } | null {
  for (const [pattern, role] of Object.entries(rules)) if (matches(pattern, layer)) return { role, pattern };
  return null;
}

/** Roles of what annotates a building, or of what nobody knows yet. */
const besideTheBuilding: readonly (Role | null)[] = ['label', 'ignore', 'mixed', null];

/** Whether what has a role is part of the building, so that a view of the building shows it. */
export const showsBuilding = (role: Role | null): boolean => !besideTheBuilding.includes(role);
