import { GroundSurface } from '@/core/geometry/groundSurface';
import { radians } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { Report } from '@/core/proof/report';
import { roomsOf, Slabs } from '@/core/rooms/rooms';
import type { Frame } from './context';
import { globalId } from './globalId';
import type { Made } from './made';
import { flag, mark, text, type Relations } from './relations';
import { word, type Ref } from './step';

/** A surface outside without a height is shown so thick, and a luminaire so large, metres. */
const thin = 0.01;
const lampSize = { side: 0.3, height: 0.1 };

/** Writes rooms, what lies outside, and luminaires. Rooms are put to what was written, by their ids. */
export function addSpatial(
  frame: Frame,
  model: ReadModel,
  { relations, made, written }: { relations: Relations; made: Made; written: Map<string, Ref> },
): void {
  addSpaces(frame, model, relations, written);
  for (const surface of model.outdoor) addOutdoor(frame, surface, relations);
  addTerrain(frame, model, relations);
  for (const luminaire of model.luminaires ?? []) addLuminaire(frame, model, luminaire, { relations, made });
}

function addSpaces(
  { file, shapes, storeys }: Frame,
  model: ReadModel,
  relations: Relations,
  written: Map<string, Ref>,
): void {
  const rooms = roomsOf(model, new Slabs(model), new Report());
  for (const { zone, low, high, rings, area: size } of rooms) {
    const storey = storeys.get(zone.level);
    if (storey === undefined) continue;
    const place = shapes.placement(storey.place, shapes.place([0, 0, low - storey.elevation]));
    const solid = shapes.extruded(shapes.region(rings[0], rings.slice(1)), shapes.origin, high - low);
    const ref = file.add(
      'IFCSPACE',
      globalId(zone.id),
      null,
      zone.number || zone.name || 'Space',
      null,
      null,
      place,
      shapes.shape([solid]),
      zone.name,
      word('ELEMENT'),
      word('INTERNAL'),
      null,
    );
    written.set(zone.id, ref);
    relations.relate('parts', zone.level, storey.ref, ref);
    relations.properties(zone.id, ref, 'Pset_SpaceCommon', [
      ['Reference', mark(zone.number)],
      ['IsExternal', flag(false)],
      ...(zone.use === undefined ? [] : [['Category', text(zone.use)] as const]),
    ]);
    relations.quantities(zone.id, ref, 'Qto_SpaceBaseQuantities', [
      ['Height', 'LENGTH', high - low],
      ['NetFloorArea', 'AREA', size],
      ['NetVolume', 'VOLUME', size * (high - low)],
    ]);
  }
}

function addOutdoor(
  { file, shapes, site, storeys }: Frame,
  surface: ReadModel['outdoor'][number],
  relations: Relations,
): void {
  const storey = storeys.get(surface.level);
  if (storey === undefined || surface.outline.length < 3) return;
  const place = shapes.placement(storey.place, shapes.origin);
  const solid = shapes.extruded(shapes.region(surface.outline, []), shapes.origin, Math.max(thin, surface.height));
  const ref = file.add(
    'IFCGEOGRAPHICELEMENT',
    globalId(surface.id),
    null,
    surface.name || 'Surface outside',
    null,
    surface.use ?? null,
    place,
    shapes.shape([solid]),
    surface.id,
    word('NOTDEFINED'),
  );
  relations.relate('contained', 'site', site, ref);
}

/** The ground through contours and spot heights, where there are enough for a surface. */
function addTerrain({ file, shapes, site }: Frame, { levels, terrain = [] }: ReadModel, relations: Relations): void {
  const { triangles } = new GroundSurface(
    terrain.flatMap(({ points, elevation }) => points.map(([x, y]) => [x, y, elevation] as const)),
  );
  if (triangles.length === 0) return;
  const ref = file.add(
    'IFCGEOGRAPHICELEMENT',
    globalId(`terrain about ${levels[0].id}`),
    null,
    'Terrain',
    null,
    null,
    shapes.placement(null, shapes.origin),
    shapes.triangles(triangles),
    null,
    word('TERRAIN'),
  );
  relations.relate('contained', 'site', site, ref);
}

function addLuminaire(
  { file, shapes, storeys }: Frame,
  model: ReadModel,
  luminaire: NonNullable<ReadModel['luminaires']>[number],
  { relations, made }: { relations: Relations; made: Made },
): void {
  const { id, photometry, position, rotation = 0 } = luminaire;
  const [x, y, z] = position;
  const below = [...model.levels].sort((a, b) => b.elevation - a.elevation).find(({ elevation }) => elevation <= z);
  const storey = below === undefined ? undefined : storeys.get(below.id);
  if (below === undefined || storey === undefined) return;
  const turn = radians(rotation);
  const at = shapes.place([x, y, z - storey.elevation], [Math.cos(turn), Math.sin(turn), 0]);
  const place = shapes.placement(storey.place, at);
  const { side, height } = lampSize;
  const body = shapes.profile('Luminaire', { shape: 'rectangle', width: side, depth: side });
  const shape = shapes.shape([shapes.extruded(body, shapes.origin, height)]);
  const rest = [word('NOTDEFINED')];
  const ref = file.add(
    'IFCLIGHTFIXTURE',
    globalId(id),
    null,
    photometry || 'Luminaire',
    null,
    null,
    place,
    shape,
    id,
    ...rest,
  );
  relations.relate('contained', below.id, storey.ref, ref);
  made.plain('IFCLIGHTFIXTURETYPE', photometry, photometry || 'Luminaire', rest, ref);
}
