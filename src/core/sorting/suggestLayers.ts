import type { Drawing } from '@/core/drawing/drawing';
import { pathCount, type Primitives } from '@/core/underlay/primitives';
import { classify } from './classify/classify';
import type { Looks } from './classify/looks';
import { shortWhy } from './classify/walls';
import { roleNames, type Role } from './roles';
import { middlePart } from './sample';
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

/** Of a larger drawing so many paths are looked at: they show what its layers hold, in about a second. */
const mostLookedAt = 8_000;
/** Layers are named where those with telling names hold this share of the paths. */
const namedShare = 0.9;
/** Fewer paths of a kind say nothing about a layer; a slab is one. */
const fewest = 3;
/** What this share of a layer's paths look like is what the layer is. */
const most = 0.6;
/** The same where nothing on it looks like anything else; but pairs of lines are on many layers. */
const mostAlone = 0.45;
/** A layer with so many roles, none of which has most of it, is sorted path by path. */
const manyRoles = 3;

/**
 * Roles of all layers by their names and by what is drawn on them.
 * @param metresPerUnit true metres of one drawing unit
 */
export function suggestLayers(drawing: Drawing, p: Primitives, metresPerUnit: number): LayerSuggestion[] {
  const large = pathCount(p) > mostLookedAt;
  // Where the names tell it, the geometry of a large drawing would say the same, later.
  const lookedAt = large && isNamed(drawing, p) ? null : middlePart(p, mostLookedAt);
  const contents = drawing.layers.map((): Content => ({
    looks: new Map(),
    total: 0,
    short: 0,
    part: large,
    onlyTexts: 0,
  }));
  if (lookedAt !== null) countLooks(contents, lookedAt, classify(drawing, lookedAt, metresPerUnit));
  for (const { layer } of p.texts) contents[layer].onlyTexts += 1;
  for (const layer of p.layer) contents[layer].onlyTexts = 0;
  return drawing.layers.map(({ name }, i) => suggestionOf(name, contents[i]));
}

/** How many paths look like something, and why the first of them does. */
interface Look {
  count: number;
  why: string;
}

/** What is drawn on a layer. */
interface Content {
  looks: Map<Role, Look>;
  /** The paths looked at. */
  total: number;
  /** Those of them that are no more than short: ends of walls, jambs of windows, or anything. */
  short: number;
  /** Whether those are a part of the drawing. */
  part: boolean;
  /** How many texts it holds where it holds nothing else. */
  onlyTexts: number;
}

function countLooks(contents: readonly Content[], p: Primitives, looks: readonly (Looks | null)[]): void {
  for (let path = 0; path < pathCount(p); path += 1) {
    const content = contents[p.layer[path]];
    content.total += 1;
    const look = looks[path];
    if (look === null) continue;
    if (look.why === shortWhy) content.short += 1;
    const found = content.looks.get(look.role);
    if (found) found.count += 1;
    else content.looks.set(look.role, { count: 1, why: look.why });
  }
}

/** Whether the names of its layers tell nearly everything of a drawing. */
function isNamed(drawing: Drawing, p: Primitives): boolean {
  const told = drawing.layers.map(({ name }) => suggestRole(name) !== null);
  let named = 0;
  for (const layer of p.layer) if (told[layer]) named += 1;
  return named >= namedShare * pathCount(p);
}

/** What a layer's paths look like, the most first. */
const rankedOf = (looks: Content['looks']): [Role, Look][] =>
  [...looks]
    .filter(([role, { count }]) => count >= (role === 'slab' ? 1 : fewest))
    .sort((a, b) => b[1].count - a[1].count);

/** What is told by more than being short, where anything is. */
function telling({ looks, total, short }: Content): { ranked: [Role, Look][]; total: number } {
  const wall = looks.get('wall');
  if (wall === undefined || short === 0) return { ranked: rankedOf(looks), total };
  const ranked = rankedOf(new Map([...looks, ['wall', { ...wall, count: wall.count - short }]]));
  // Where there are pairs of lines, ends and jambs belong to them.
  const isWall = ranked.length === 0 || ranked[0][0] === 'wall';
  return isWall ? { ranked: rankedOf(looks), total } : { ranked, total: total - short };
}

function suggestionOf(name: string, content: Content): LayerSuggestion {
  const { part, onlyTexts } = content;
  const byName = suggestRole(name);
  const { ranked, total } = telling(content);
  const drawn = ranked.filter(([role]) => role !== 'ignore');
  const [top] = ranked;
  const needed = ranked.length === 1 && top[0] !== 'wall' ? mostAlone : most;
  const clear = top !== undefined && top[1].count >= needed * total ? top : null;
  const why = [
    ...(byName ? [byName.why] : []),
    ...(clear ? [`${clear[1].count} of ${total}${part ? ' about the middle' : ''}: ${clear[1].why}`] : []),
  ];
  if (byName) {
    // Doors and windows stand in walls, labels on anything: only what is clearly something else contradicts a name.
    const against =
      clear &&
      clear[0] !== 'ignore' &&
      byName.role !== 'ignore' &&
      byName.role !== 'label' &&
      clear[0] !== byName.role &&
      total >= 8
        ? `Its name says ${roleNames[byName.role].toLowerCase()}; ${clear[1].count} of its ` +
          `${total} lines${part ? ' about the middle' : ''} look like ${roleNames[clear[0]].toLowerCase()}.`
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
  if (onlyTexts > 0) return { role: 'label', why: [`${onlyTexts} texts and nothing else`], conflict: null };
  return { role: null, why: [], conflict: null };
}
