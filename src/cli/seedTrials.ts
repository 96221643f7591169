import { randomUUID } from 'node:crypto';
import type { Transaction } from 'kysely';
import { readModel } from '@/core/handover/model/readModel';
import { writeModel } from '@/core/handover/model/writeModel';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import type { Use } from '@/core/kinds/use';
import { put, type Change } from '@/core/model/edits';
import { levelsUp } from '@/core/model/levels';
import type { LibraryRow } from '@/core/model/library';
import { Model } from '@/core/model/model';
import { plainSite, surfaceRoles, type SurfaceRole } from '@/core/model/siteSettings';
import { usualConstructions } from '@/core/model/usualConstructions';
import { resolveBuilding } from '@/core/resolved/resolve';
import { saySupports, supportsMissing } from '@/core/structure/rules/supportsUnderFeet';
import type { Database } from '@/server/database/schema';
import { applyEdit } from '@/server/edits/applyEdit';
import { loadState } from '@/server/rows/rows';

/** What the rooms of the demo are for, by words of their names. */
const uses: [words: RegExp, use: Use][] = [
  [/bunk/i, 'A'],
  [/mess|library|day room/i, 'C1'],
  [/gallery|corridor|passage/i, 'C3'],
  [/store|linen|tanks|plant|drying|intake|pump/i, 'E1'],
  [/./, 'B'],
];

/** Above the basement the frame carries and the walls are masonry: what the engineer of the demo says of them. */
const isMasonry = (model: Model, { levelId, kind }: ElementRow): boolean =>
  kind === 'wall' && levelId !== null && model.level[levelId].kind !== 'foundation';

function said(model: Model): Change[] {
  return Object.values(model.element).flatMap((row): Change[] => {
    if (row.kind === 'wall' && isMasonry(model, row))
      return [put('element', { ...row, shape: { ...row.shape, bearing: false } })];
    if (row.kind !== 'zone' || row.shape.name === '') return [];
    const [, use] = uses.find(([words]) => words.test(row.shape.name))!;
    return [put('element', { ...row, shape: { ...row.shape, use } })];
  });
}

/** The roof's slab, over the upper floor's outline; the drawings have none. */
function roofSlab(model: Model): Change[] {
  const [roof, upper] = levelsUp(model).reverse();
  const floor = Object.values(model.element).find((row) => row.kind === 'slab' && row.levelId === upper.id);
  if (floor === undefined) return [];
  const made: ElementOf<'slab'> = { ...(floor as ElementOf<'slab'>), id: randomUUID(), levelId: roof.id, source: null };
  return [put('element', { ...made, shape: { ...made.shape, holes: [] } })];
}

function supports(model: Model): Change[] {
  const elements = Object.values(model.element) as ElementRow[];
  const building = resolveBuilding({ levels: levelsUp(model), elements });
  const written = readModel(JSON.stringify(writeModel({ building, drawingName: (id) => id })));
  if (!written.ok) throw new Error(written.message);
  const edit = saySupports(model, supportsMissing(written.value), randomUUID);
  return edit.ok ? edit.value.changes : [];
}

/** The place, and the first of the usual constructions for every surface; the ground floor lies on foam. */
function place(model: Model): Change[] {
  const [project] = Object.values(model.project);
  const rows = surfaceRoles.map((role) => ({ role, row: { ...usualConstructions[role][0], id: randomUUID() } }));
  const made = Object.fromEntries(rows.map(({ role, row }) => [role, row.id])) as Record<SurfaceRole, string>;
  return [
    ...rows.map(({ row }) => put('library', row as LibraryRow)),
    put('project', { ...project, site: { ...plainSite, winterTemperature: -12, thermalBridge: 0.05, made } }),
  ];
}

/** Says of the finished demo what trials ask for: what walls carry, what rooms are for, what holds it, the place. */
export async function seedTrials(tx: Transaction<Database>, project: string): Promise<void> {
  const steps: [label: string, changes: (model: Model) => Change[]][] = [
    ['Say which walls carry and what rooms are for', said],
    ['Draw 1 slab over the upper floor', roofSlab],
    ['Say supports under columns and walls', supports],
    ['Say the place and what surfaces are', place],
  ];
  for (const [label, changesOf] of steps) {
    const changes = changesOf(new Model(await loadState(tx, project)));
    if (changes.length > 0) await applyEdit(project, null, { label, changes }, { within: tx });
  }
}
