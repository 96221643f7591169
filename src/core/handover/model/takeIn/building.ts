import type { ElementKind, ElementOf, ElementRow, Shapes } from '@/core/kinds/element';
import type { LevelTie, StandingTies } from '@/core/kinds/tie';
import type { ReadModel } from '../readModel';
import { outdoorUseOf } from '@/core/kinds/outdoorUse';
import { uses } from '@/core/kinds/use';
import type { Ids, Told } from './ids';
import { isSame, type Ladder } from './levels';

type Level = ReadModel['levels'][number];
type Of<K extends 'columns' | 'beams' | 'walls' | 'slabs' | 'zones' | 'outdoor'> = ReadModel[K][number];

/** What elements are made from. */
export interface Taking {
  model: ReadModel;
  ids: Ids;
  ladder: Ladder;
  told: Told;
}

/** A field, where there is a value. */
export const given = <K extends string, V>(key: K, value: V | undefined | null): { [P in K]?: V } =>
  (value === undefined || value === null ? {} : { [key]: value }) as { [P in K]?: V };

/** A row of the project of what is on a level. */
export const row = <K extends ElementKind>(
  { ids }: Taking,
  kind: K,
  { id, level, libraryId }: { id: string; level: Level | null; libraryId?: string | null },
  shape: Shapes[K],
): ElementRow =>
  ({
    id,
    kind,
    levelId: level === null ? null : ids.of('level', level.id),
    source: null,
    libraryId: libraryId ?? null,
    shape,
  }) satisfies ElementOf<K> as unknown as ElementRow;

/** The tie of an end at a height. */
const tieTo = ({ ladder, ids }: Taking, z: number, own: Level): LevelTie => {
  const level = ladder.tieAt(z, own);
  return { level: ids.of('level', level.id)!, offset: Number((z - level.elevation).toFixed(9)) };
};

/** The ties of what does not stand from its storey's floor to its top. */
function standing(taking: Taking, { base, top }: { base?: number; top?: number }, own: Level): StandingTies {
  return {
    ...(base === undefined || isSame(base, own.elevation) ? {} : { base: tieTo(taking, base, own) }),
    ...(top === undefined || isSame(top, own.elevation + own.height) ? {} : { top: tieTo(taking, top, own) }),
  };
}

const ties = (own: StandingTies) => (Object.keys(own).length === 0 ? {} : { ties: own });

export function columnRow(taking: Taking, column: Of<'columns'>, level: Level): ElementRow {
  const { position, rotation, section, mark, material } = column;
  const libraryId = taking.ids.of('section', column.sectionId);
  return row(
    taking,
    'column',
    { id: taking.ids.give('column', column.id), level, libraryId },
    {
      position,
      rotation,
      section,
      mark,
      ...given('material', material),
      ...ties(standing(taking, column, level)),
    },
  );
}

/** So far below its storey's top a beam may lie; further away its ends are tied, metres. */
const deepestDrop = 100;

export function beamRow(taking: Taking, beam: Of<'beams'>, level: Level): ElementRow {
  const { start, end, section, mark, material, justification, use, angle, releases } = beam;
  const top = level.elevation + level.height;
  const [drop, endDrop] = [start, end].map(([, , z]) => Number((top - z).toFixed(9)));
  const far = Math.max(Math.abs(drop), Math.abs(endDrop)) > deepestDrop;
  const ends = { start: tieTo(taking, start[2], level), end: tieTo(taking, end[2], level) };
  const libraryId = taking.ids.of('section', beam.sectionId);
  return row(
    taking,
    'beam',
    { id: taking.ids.give('beam', beam.id), level, libraryId },
    {
      start: [start[0], start[1]],
      end: [end[0], end[1]],
      section,
      mark,
      ...(far ? { ties: ends } : {}),
      ...(far || isSame(drop, 0) ? {} : { drop }),
      ...(far || isSame(drop, endDrop) ? {} : { endDrop }),
      ...given('justification', justification === 'centre' ? undefined : justification),
      ...given('use', use),
      ...given('material', material),
      ...given('angle', angle),
      ...(releases === undefined ? {} : { releases: { start: releases.start ?? [], end: releases.end ?? [] } }),
    },
  );
}

export function wallRow(taking: Taking, wall: Of<'walls'>, level: Level): ElementRow {
  const { start, end, thickness, bulge, height, profile, outer = false, bearing, beyond, material } = wall;
  // A wall without a top is as high above its foot as it says.
  const top = wall.top ?? (wall.base === undefined ? undefined : wall.base + height);
  const own = standing(taking, { base: wall.base, top: profile === undefined ? top : undefined }, level);
  // Where only its foot or its head is elsewhere the other is as its storey has it.
  const tied = own.base !== undefined || own.top !== undefined;
  const roofed = profile !== undefined && (taking.model.roofs ?? []).length > 0;
  if (profile !== undefined && !roofed)
    taking.told.add('Walls cut as under a roof, in a file without roofs, are level at their highest', wall.id);
  const plain = tied || roofed || isSame(height, level.height);
  return row(
    taking,
    'wall',
    { id: taking.ids.give('wall', wall.id), level, libraryId: taking.ids.of('construction', wall.construction) },
    {
      start,
      end,
      thickness,
      bulge,
      height: plain ? null : height,
      outer,
      ...given('bearing', bearing),
      ...given('material', material),
      ...given('beyond', beyond),
      ...ties(roofed ? { ...own, top: 'roof' } : own),
    },
  );
}

export function slabRow(taking: Taking, slab: Of<'slabs'>, level: Level): ElementRow {
  const { outline, holes, thickness, material, span, diaphragm, beyond, top } = slab;
  if (top !== undefined && !isSame(top, level.structuralTop ?? level.elevation))
    taking.told.add('Slabs that are not where their level has its floor were put there', slab.id);
  return row(
    taking,
    'slab',
    { id: taking.ids.give('slab', slab.id), level, libraryId: taking.ids.of('construction', slab.construction) },
    {
      outline,
      holes,
      thickness,
      ...given('material', material),
      ...given('span', span),
      ...(diaphragm === false ? { diaphragm } : {}),
      ...given('beyond', beyond),
    },
  );
}

export function zoneRow(taking: Taking, zone: Of<'zones'>, level: Level): ElementRow {
  const { name, number, outline, holes, height, reflectances, system, airChange, gains, neighbour, roofs = [] } = zone;
  const use = uses.find((one) => one === zone.use);
  if (use === undefined && zone.use !== undefined)
    taking.told.add('Zones of a use that is not known here have none now; say it at Tracing', zone.id);
  return row(
    taking,
    'zone',
    { id: taking.ids.give('zone', zone.id), level },
    {
      name,
      number,
      outline,
      holes,
      height: isSame(height, level.height) ? null : height,
      ...given('use', use),
      ...(reflectances === undefined ? {} : { reflectances: sharesOf(reflectances) }),
      ...(zone.temperature === undefined ? {} : { temperature: zone.temperature }),
      ...(neighbour === true ? { neighbour } : {}),
      ...given('system', system),
      ...given('airChange', airChange),
      ...given('gains', gains),
      ...(roofs.length > 0 ? { ties: { top: 'roof' } } : {}),
    },
  );
}

const sharesOf = ({ ceiling, wall, floor }: NonNullable<Of<'zones'>['reflectances']>) => ({
  ...given('ceiling', ceiling),
  ...given('wall', wall),
  ...given('floor', floor),
});

export function outdoorRow(taking: Taking, surface: Of<'outdoor'>, level: Level): ElementRow {
  const { name, outline, height, reflectance, lux } = surface;
  return row(
    taking,
    'outdoor',
    { id: taking.ids.give('outdoor', surface.id), level },
    {
      name,
      outline,
      height,
      ...given('use', outdoorUseOf(surface.use)),
      ...given('reflectance', reflectance),
      ...given('lux', lux),
    },
  );
}

export function roofRow(taking: Taking, roof: NonNullable<ReadModel['roofs']>[number], level: Level): ElementRow {
  const { outline, slope, direction, thickness } = roof;
  const lowest = outline.reduce((least, [, , z]) => Math.min(least, z), Infinity);
  return row(
    taking,
    'roof',
    { id: taking.ids.give('roof', roof.id), level },
    {
      outline: outline.map(([x, y]) => [x, y]),
      eaves: Number((lowest - level.elevation).toFixed(9)),
      slope,
      direction,
      thickness,
    },
  );
}

export function openingRow(taking: Taking, opening: ReadModel['openings'][number], level: Level, wall: string) {
  const { kind, offset, width, height, sill, shading } = opening;
  return row(
    taking,
    'opening',
    {
      id: taking.ids.give('opening', opening.id),
      level,
      libraryId: taking.ids.of('construction', opening.construction),
    },
    { wall, use: kind, offset, width, height, sill, ...given('shading', shading) },
  );
}
