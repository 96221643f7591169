import type { Region } from '@/core/geometry/clipping';
import { area } from '@/core/geometry/polygon';
import { leastBy } from '@/core/lists';
import type { Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { enclosedRooms } from '@/core/energy/derive/envelope';
import type { Surface } from '@/core/energy/derive/surface';
import { Report } from '@/core/proof/report';
import type { Room } from '@/core/rooms/rooms';
import { Overhead } from '@/core/energy/derive/overhead';
import { centred, isCeiling, type Centred } from './centred';
import { roofedBy, topOf, type Roofed } from './roofed';
import { element, xmlFile, xmlId, type XmlElement } from './xml';

type V3 = readonly [number, number, number];

const spaceId = (room: Room): string => xmlId('space', room.id);
const storeyId = (level: string): string => xmlId('storey', level);

const point = (p: V3): XmlElement =>
  element(
    'CartesianPoint',
    {},
    p.map((value) => element('Coordinate', {}, value)),
  );
const loop = (corners: readonly V3[]): XmlElement => element('PolyLoop', {}, corners.map(point));
const planar = (corners: readonly V3[]): XmlElement => element('PlanarGeometry', {}, [loop(corners)]);

/** A surface as it is written: where it lies, seen from the space that it is named first by. */
interface Written {
  surface: Surface;
  corners: V3[];
  /** Of an upright one, its corner below at its start, how wide and high it is. */
  frame: { from: V3; width: number; height: number };
}

/** Rings of a region as corners at a height, seen from beneath for a floor and from above for a ceiling. */
const flat = (ring: readonly Point[], z: number, up: boolean): V3[] => {
  const turned = area(ring) > 0 === up ? ring : [...ring].reverse();
  return turned.map(([x, y]): V3 => [x, y, z]);
};

/** An outline and its holes as one ring, since a loop of the format has no holes: each is reached by a way and back. */
function bridged(outline: readonly Point[], holes: readonly (readonly Point[])[]): Point[] {
  return holes.reduce<Point[]>(
    (ring, hole) => {
      const inner = area(hole) < 0 ? hole : [...hole].reverse();
      const pairs = ring.flatMap((p, i) => inner.map((q, k) => ({ i, k, away: Math.hypot(p[0] - q[0], p[1] - q[1]) })));
      const way = leastBy(pairs, ({ away }) => away);
      if (way === null) return ring;
      const round = [...inner.slice(way.k), ...inner.slice(0, way.k + 1)];
      return [...ring.slice(0, way.i + 1), ...round, ...ring.slice(way.i)];
    },
    area(outline) > 0 ? [...outline] : [...outline].reverse(),
  );
}

/** A room with its surfaces. */
interface Closed {
  room: Centred;
  own: ReturnType<typeof surfacesOf>;
}

/** What lies level: its parts in plan at a height, or at the heights of a roof plane. */
function plates(surface: Surface, region: Region, height: (p: Point) => number): { written: Written; openings: [] }[] {
  const floor = surface.kind === 'floor';
  return region.map(({ outline, holes }) => {
    const corners = flat(bridged(outline, holes), 0, !floor).map(([x, y]): V3 => [x, y, height([x, y])]);
    const size = Math.sqrt(Math.abs(area(outline) / Math.cos((surface.tilt * Math.PI) / 180)));
    return { written: { surface, corners, frame: { from: corners[0], width: size, height: size } }, openings: [] };
  });
}

/** The surfaces of a room on centre planes, in the order of what closes it; openings in theirs. */
function surfacesOf(room: Centred, roofed: Roofed | null): { written: Written; openings: Written[] }[] {
  const { enclosed, stretch, plate, low, high } = room;
  const { stretches, surfaces } = enclosed;
  const openings = surfaces.flatMap((surface) => (surface.cut === undefined ? [] : [{ surface, cut: surface.cut }]));
  const walls = stretches.map((one, i) => {
    const { a, b, low: from, high: to } = stretch(one);
    const width = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const reaches = roofed !== null && one.high === enclosed.room.high;
    const top: V3[] = reaches
      ? topOf(a, b, roofed, from)
      : [
          [...b, to],
          [...a, to],
        ];
    const corners: V3[] = [[...a, from], [...b, from], ...top];
    const tall = top.reduce((most, [, , z]) => Math.max(most, z), from) - from;
    const written = { surface: surfaces[i], corners, frame: { from: corners[0], width, height: tall } };
    const own = openings.flatMap(({ surface, cut }) => (cut.stretch === i ? [openingIn(surface, cut, a, b)] : []));
    return { written, openings: own };
  });
  const floors = surfaces.filter(({ kind }) => kind === 'floor').flatMap((one) => plates(one, plate(one), () => low));
  const ceilings =
    roofed === null
      ? surfaces.filter(isCeiling).flatMap((one) => plates(one, plate(one), () => high))
      : roofed.parts.flatMap(({ surface, region, height }) => plates(surface, region, height));
  const steps = (roofed?.steps ?? []).map(({ surface, corners }) => {
    const size = Math.sqrt(surface.area);
    return { written: { surface, corners, frame: { from: corners[0], width: size, height: size } }, openings: [] };
  });
  return [...walls, ...floors, ...ceilings, ...steps].filter(
    ({ written: { frame } }) => frame.width > 1e-6 && frame.height > 1e-6,
  );
}

/** An opening in the plane of its wall. */
function openingIn(surface: Surface, { width, height }: NonNullable<Surface['cut']>, a: Point, b: Point): Written {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const [x, y, z] = surface.at;
  const along = (x - a[0]) * ux + (y - a[1]) * uy;
  const [from, to] = [Math.max(0, along - width / 2), Math.min(length, along + width / 2)];
  const at = (t: number, level: number): V3 => [a[0] + ux * t, a[1] + uy * t, level];
  const corners = [at(from, z - height / 2), at(to, z - height / 2), at(to, z + height / 2), at(from, z + height / 2)];
  return { surface, corners, frame: { from: corners[0], width: to - from, height } };
}

/** What a surface is called by what it is and what lies beyond it. */
function typeOf({ kind, beyond, depth }: Surface): string {
  const inside = typeof beyond !== 'string';
  if (kind === 'wall') {
    if (beyond === 'ground') return 'UndergroundWall';
    return inside || beyond === 'adiabatic' || beyond === 'neighbour' ? 'InteriorWall' : 'ExteriorWall';
  }
  if (kind === 'roof') return 'Roof';
  if (kind === 'ceiling') return 'InteriorFloor';
  if (inside) return 'InteriorFloor';
  if (beyond === 'ground') return depth > 0 ? 'UndergroundSlab' : 'SlabOnGrade';
  return 'RaisedFloor';
}

/** A model whose rooms are closed by inner faces. */
const plainRooms = (model: ReadModel): ReadModel => ({ ...model, site: { ...model.site, areas: 'inner' } });

/** A model as gbXML 7.03: spaces on centre planes, closed each, their surfaces once with what lies on both sides. */
export function writeGbxml(model: ReadModel, name: string): string {
  const rooms = enclosedRooms(plainRooms(model), new Report()).map(centred);
  const surfaces: XmlElement[] = [];
  const bounds = new Map<string, string[]>();
  const note = (id: string, surface: string): void => {
    bounds.set(id, [...(bounds.get(id) ?? []), surface]);
  };
  const overhead = new Overhead(model);
  const closed = rooms.map((room): Closed => ({ room, own: surfacesOf(room, roofedBy(room, overhead)) }));
  for (const { room, own: all } of closed)
    all.forEach(({ written, openings }, i) => {
      const { beyond } = written.surface;
      const own = spaceId(room.enclosed.room);
      // What parts two spaces is written once, by the one that comes first, or that lies beneath.
      if (typeof beyond !== 'string' && !isFirst(room.enclosed.room, written.surface, beyond)) return;
      const id = `${own}-${i + 1}`;
      note(own, id);
      if (typeof beyond !== 'string') note(spaceId(beyond), id);
      surfaces.push(
        surfaceElement(id, written, openings, [own, ...(typeof beyond === 'string' ? [] : [spaceId(beyond)])]),
      );
    });
  return xmlFile(
    element(
      'gbXML',
      {
        xmlns: 'http://www.gbxml.org/schema',
        version: '7.03',
        temperatureUnit: 'C',
        lengthUnit: 'Meters',
        areaUnit: 'SquareMeters',
        volumeUnit: 'CubicMeters',
        useSIUnitsForResults: 'true',
        SurfaceReferenceLocation: 'Centerline',
      },
      [
        element('Campus', { id: 'campus' }, [location(model), building(model, name, closed, bounds), ...surfaces]),
        ...constructions(model),
        ...rooms.map(({ enclosed: { room } }) => zone(room)),
      ],
    ),
  );
}

/** Whether a surface between two rooms is written by this one. */
function isFirst(room: Room, { kind }: Surface, beyond: Room): boolean {
  if (kind === 'floor') return false;
  return kind === 'ceiling' || room.id < beyond.id;
}

const location = ({ site = {}, survey }: ReadModel): XmlElement =>
  element('Location', {}, [
    // The schema asks for one; a project has none.
    element('ZipcodeOrPostalCode', {}, '00000'),
    site.latitude === undefined ? null : element('Latitude', {}, site.latitude),
    survey === undefined ? null : element('Elevation', {}, survey.elevation),
    // Degrees of the project's y from true north, clockwise.
    element('CADModelAzimuth', {}, survey === undefined ? 0 : ((-survey.north % 360) + 360) % 360),
    element('Name', {}, 'The place of the project'),
  ]);

function building(
  model: ReadModel,
  name: string,
  rooms: readonly Closed[],
  bounds: ReadonlyMap<string, readonly string[]>,
): XmlElement {
  const floor = rooms.reduce((sum, { room }) => sum + room.enclosed.room.area, 0);
  return element('Building', { id: 'building', buildingType: 'Unknown' }, [
    element('Name', {}, name),
    element('Area', {}, floor),
    ...[...model.levels]
      .sort((a, b) => a.elevation - b.elevation)
      .map((level) =>
        element('BuildingStorey', { id: storeyId(level.id) }, [
          element('Name', {}, level.name),
          element('Level', {}, level.elevation),
        ]),
      ),
    ...rooms.map((one) => space(one, bounds.get(spaceId(one.room.enclosed.room)) ?? [])),
  ]);
}

/** A space with its own figures by inner faces, its shell on centre planes, and what bounds it. */
function space({ room: one, own }: Closed, bounds: readonly string[]): XmlElement {
  const { room, volume } = one.enclosed;
  const { zone: row } = room;
  const [outline] = one.rings;
  const shell = own.map(({ written: { corners } }) => loop(corners));
  const condition = row.temperature === null ? 'Unconditioned' : 'Heated';
  const id = spaceId(room);
  return element(
    'Space',
    { id, zoneIdRef: xmlId('zone', room.id), buildingStoreyIdRef: storeyId(row.level), conditionType: condition },
    [
      element('Name', {}, [row.number, row.name].filter((word) => word !== '').join(' ') || room.name),
      element('Area', {}, room.area),
      element('Volume', {}, volume),
      planar(flat(outline, one.low, true)),
      element('ShellGeometry', { id: `${id}-shell`, unit: 'Meters' }, [element('ClosedShell', {}, shell)]),
      ...bounds.map((surfaceIdRef) => element('SpaceBoundary', { isSecondLevelBoundary: 'true', surfaceIdRef })),
    ],
  );
}

function rectangular({ surface, frame: { from, width, height } }: Written): XmlElement {
  return element('RectangularGeometry', {}, [
    element('Azimuth', {}, surface.orientation),
    point(from),
    element('Tilt', {}, surface.tilt),
    element('Height', {}, height),
    element('Width', {}, width),
  ]);
}

function surfaceElement(
  id: string,
  written: Written,
  openings: readonly Written[],
  spaces: readonly string[],
): XmlElement {
  const { surface, corners } = written;
  const construction = surface.construction === undefined ? undefined : xmlId('construction', surface.construction);
  return element(
    'Surface',
    {
      id,
      surfaceType: typeOf(surface),
      constructionIdRef: construction,
      exposedToSun: surface.beyond === 'outside' && surface.kind !== 'floor' ? 'true' : 'false',
    },
    [
      element('Name', {}, `${surface.kind} ${surface.elements[0] ?? ''}`.trim()),
      ...spaces.map((spaceIdRef) => element('AdjacentSpaceId', { spaceIdRef })),
      rectangular(written),
      planar(corners),
      ...openings.map((opening, i) => openingElement(`${id}-${i + 1}`, opening)),
    ],
  );
}

function openingElement(id: string, opening: Written): XmlElement {
  const { surface, corners } = opening;
  const type = surface.kind === 'door' ? 'NonSlidingDoor' : 'FixedWindow';
  const made = surface.construction === undefined ? undefined : xmlId('window', surface.construction);
  return element('Opening', { id, openingType: type, windowTypeIdRef: made }, [
    rectangular(opening),
    planar(corners),
    element('Name', {}, `${surface.kind} ${surface.elements[0] ?? ''}`.trim()),
  ]);
}

/** Constructions with their layers and materials, glazing as types of windows. */
function constructions({ constructions: all = [] }: ReadModel): XmlElement[] {
  return all.flatMap((row): XmlElement[] => {
    if (row.kind === 'glazing')
      return [
        element('WindowType', { id: xmlId('window', row.id) }, [
          element('Name', {}, row.name),
          element('U-value', { unit: 'WPerSquareMeterK' }, row.uValue),
          element('SolarHeatGainCoeff', { unit: 'Fraction', solarIncidentAngle: 0 }, row.gValue),
          element('Transmittance', { unit: 'Fraction', type: 'Visible' }, row.transmittance),
        ]),
      ];
    const id = (what: string, i: number): string => `${xmlId(what, row.id)}-${i + 1}`;
    return [
      element('Construction', { id: xmlId('construction', row.id) }, [
        row.uValue === null ? null : element('U-value', { unit: 'WPerSquareMeterK' }, row.uValue),
        ...(row.layers.length === 0 ? [] : [element('LayerId', { layerIdRef: xmlId('layer', row.id) })]),
        element('Name', {}, row.name),
      ]),
      ...(row.layers.length === 0
        ? []
        : [
            element(
              'Layer',
              { id: xmlId('layer', row.id) },
              row.layers.map((_, i) => element('MaterialId', { materialIdRef: id('material', i) })),
            ),
          ]),
      ...row.layers.map((layer, i) =>
        element('Material', { id: id('material', i) }, [
          element('Name', {}, layer.name),
          element('Thickness', { unit: 'Meters' }, layer.thickness),
          layer.conductivity === null ? null : element('Conductivity', { unit: 'WPerMeterK' }, layer.conductivity),
          layer.density === undefined ? null : element('Density', { unit: 'KgPerCubicM' }, layer.density),
          layer.heatCapacity === undefined ? null : element('SpecificHeat', { unit: 'JPerKgK' }, layer.heatCapacity),
        ]),
      ),
    ];
  });
}

/** Zones are heated to this where nobody says it, degrees. */
const plainTemperature = 20;

const zone = (room: Room): XmlElement =>
  element('Zone', { id: xmlId('zone', room.id) }, [
    element('Name', {}, room.zone.system ?? room.name),
    room.zone.temperature === null
      ? null
      : element('DesignHeatT', { unit: 'C' }, room.zone.temperature ?? plainTemperature),
    room.zone.airChange === undefined ? null : element('AirChangesPerHour', {}, room.zone.airChange),
  ]);
