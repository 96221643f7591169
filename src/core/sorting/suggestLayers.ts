import type { Drawing } from '@/core/drawing/drawing';
import { pathCount, type Primitives } from '@/core/underlay/primitives';
import { classify } from './classify';
import { roleNames, type Role } from './roles';
import { suggestRole } from './suggest';

/**
 * What a layer's role is likely to be, and every reason for it; where name and geometry contradict each other, that
 * too.
 */
export interface LayerSuggestion {
  role: Role | null;
  why: string[];
  conflict: string | null;
}

/** Of larger drawings only the names are asked: a few seconds more at every intake are not worth a suggestion. */
const mostPaths = 150_000;
/** From this size on a drawing whose layers are named is taken at its names: geometry would say the same, later. */
const namedFrom = 40_000;
/** Layers are named where those with telling names hold this share of the paths. */
const namedShare = 0.9;
/** Fewer paths of a kind say nothing about a layer. */
const fewest = 3;
/** What this share of a layer's paths look like is what the layer is. */
const most = 0.6;
/** A layer with so many roles, none of which has most of it, is sorted path by path. */
const manyRoles = 3;

/**
 * Roles of all layers by their names and by what is drawn on them.
 * @param metresPerUnit true metres of one drawing unit
 */
export function suggestLayers(drawing: Drawing, p: Primitives, metresPerUnit: number): LayerSuggestion[] {
  if (pathCount(p) > mostPaths || (pathCount(p) > namedFrom && isNamed(drawing, p)))
    return drawing.layers.map(({ name }) => suggestionOf(name, new Map(), 0, 0));
  const looks = classify(drawing, p, metresPerUnit);
  const counts = drawing.layers.map(() => new Map<Role, { count: number; why: string }>());
  const totals = drawing.layers.map(() => 0);
  for (let path = 0; path < pathCount(p); path += 1) {
    totals[p.layer[path]] += 1;
    const look = looks[path];
    if (look === null) continue;
    const found = counts[p.layer[path]].get(look.role);
    if (found) found.count += 1;
    else counts[p.layer[path]].set(look.role, { count: 1, why: look.why });
  }
  const texts = drawing.layers.map(() => 0);
  for (const { layer } of p.texts) texts[layer] += 1;
  return drawing.layers.map(({ name }, i) => suggestionOf(name, counts[i], totals[i], texts[i]));
}

/** Whether the names of its layers tell nearly everything of a drawing. */
function isNamed(drawing: Drawing, p: Primitives): boolean {
  const told = drawing.layers.map(({ name }) => suggestRole(name) !== null);
  let named = 0;
  for (const layer of p.layer) if (told[layer]) named += 1;
  return named >= namedShare * pathCount(p);
}

function suggestionOf(
  name: string,
  counts: ReadonlyMap<Role, { count: number; why: string }>,
  total: number,
  texts: number,
): LayerSuggestion {
  const byName = suggestRole(name);
  const ranked = [...counts].filter(([, { count }]) => count >= fewest).sort((a, b) => b[1].count - a[1].count);
  const drawn = ranked.filter(([role]) => role !== 'ignore');
  const [top] = ranked;
  const clear = top !== undefined && top[1].count >= most * total ? top : null;
  const why = [...(byName ? [byName.why] : []), ...(clear ? [`${clear[1].count} of ${total}: ${clear[1].why}`] : [])];
  if (byName) {
    // Doors and windows stand in walls, labels on anything: only what is clearly something else contradicts a name.
    const against =
      clear &&
      clear[0] !== 'ignore' &&
      byName.role !== 'ignore' &&
      byName.role !== 'label' &&
      clear[0] !== byName.role &&
      total >= 8
        ? `Its name says ${roleNames[byName.role].toLowerCase()}; ${clear[1].count} of its ${total} lines look like ${roleNames[clear[0]].toLowerCase()}.`
        : null;
    return { role: byName.role, why, conflict: against };
  }
  if (drawn.length >= manyRoles && (clear === null || clear[0] === 'ignore' || total > 200))
    return {
      role: 'mixed',
      why: [`holds ${drawn.map(([role, { count }]) => `${count} like ${roleNames[role].toLowerCase()}`).join(', ')}`],
      conflict: null,
    };
  if (clear) return { role: clear[0], why, conflict: null };
  if (total === 0 && texts > 0) return { role: 'label', why: [`${texts} texts and nothing else`], conflict: null };
  return { role: null, why: [], conflict: null };
}
