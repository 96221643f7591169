import type { ReadModel } from '@/core/handover/model/readModel';
import { contentNames, type ContentName, type DeliveryWish } from './wish';

/** How many of each list a delivery holds. */
export type Counts = Record<ContentName, number>;

/** The part of a model that is handed over: the lists that are wanted, on the levels that are wanted. */
export function contentOf(model: ReadModel, { content, levels }: Pick<DeliveryWish, 'content' | 'levels'>): ReadModel {
  const wanted = new Set(content);
  const onLevel = new Set(levels ?? model.levels.map(({ id }) => id));
  const here = ({ level }: { level: string }): boolean => onLevel.has(level);
  const rising = [...model.levels].sort((a, b) => a.elevation - b.elevation);
  /** What has a height and no level belongs to the storey that it lies in; what lies below all, to the lowest. */
  const within = (z: number): boolean => {
    const storey = rising.findLast(({ elevation }) => elevation <= z + 1e-6) ?? rising[0];
    return storey === undefined || onLevel.has(storey.id);
  };
  const pick = <T>(name: ContentName, all: readonly T[] | undefined, keep: (one: T) => boolean): T[] =>
    wanted.has(name) ? (all ?? []).filter(keep) : [];
  const all = (): boolean => true;
  const walls = pick('walls', model.walls, here);
  const wallIds = new Set(walls.map(({ id }) => id));
  const zones = pick('zones', model.zones, here);
  const zoneIds = new Set(zones.map(({ id }) => id));
  const parts = {
    grids: pick('grids', model.grids, all),
    columns: pick('columns', model.columns, here),
    beams: pick('beams', model.beams, here),
    walls,
    openings: pick('openings', model.openings, ({ wall }) => wallIds.has(wall)),
    slabs: pick('slabs', model.slabs, here),
    roofs: pick('roofs', model.roofs, here),
    zones: zones.map((zone) =>
      zone.boundaries === undefined
        ? zone
        : { ...zone, boundaries: zone.boundaries.filter(({ wall }) => wallIds.has(wall)) },
    ),
    outdoor: pick('outdoor', model.outdoor, here),
    terrain: pick('terrain', model.terrain, all),
    supports: pick('supports', model.supports, ({ position }) => within(position[2])),
    luminaires: pick('luminaires', model.luminaires, ({ position }) => within(position[2])),
    calculationAreas: pick('calculationAreas', model.calculationAreas, ({ z, zone }) =>
      zone === undefined ? within(z) : zoneIds.has(zone) || within(z),
    ),
  };
  const ids = new Set([...parts.columns, ...parts.beams, ...parts.walls, ...parts.slabs].map(({ id }) => id));
  const loads = pick('loads', model.loads, (load) => {
    if (load.kind === 'member') return ids.has(load.element);
    if (load.kind === 'point') return within(load.position[2]);
    if (load.kind === 'line') return within(load.start[2]);
    if (load.slab !== undefined) return ids.has(load.slab);
    return load.level === undefined || onLevel.has(load.level);
  });
  return { ...model, ...parts, loads };
}

/** How many of each list there are. */
export const countsOf = (model: ReadModel): Counts =>
  Object.fromEntries(contentNames.map((name) => [name, model[name]?.length ?? 0])) as Counts;
