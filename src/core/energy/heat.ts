import type { ReadModel } from '@/core/handover/model/readModel';
import type { Progress } from '@/core/progress';
import { Report } from '@/core/proof/report';
import type { Finding } from '@/core/proof/finding';
import { bridgeKinds } from '@/core/model/siteSettings';
import { bridgesOf, lostBy, type Bridge, type Psi } from './bridges';
import { climate, climateOf, type Climate } from './climate';
import { enclosedRooms } from './derive/envelope';
import type { Enclosed, Surface } from './derive/surface';
import type { Stretch } from './derive/stretches';
import type { Room } from '@/core/rooms/rooms';
import { lookupOf, monthsOf, type Lookup, type Month } from './months';
import { UValues } from './uValues';

/** What is taken where nobody says it; degrees, 1/h, W/(m K). */
const plain = { inside: 20, winter: -10, annual: 9, airChange: 0.5, ground: 2, neighbour: 10 } as const;
/** What an hour of an air change carries: density times heat capacity of air, Wh/(m3 K) (EN 12831-1, 6.3.3). */
const airHeat = 0.34;
/** Yearly swing of the ground's heat in winter (EN 12831-1, 6.3.2.5). */
const groundSwing = 1.45;
/** More of a wall than this is seldom glass. */
const mostGlass = 0.8;

/** A surface with what it loses. */
export interface HeatSurface extends Surface {
  /** W/(m2 K); zero where nothing is there. */
  uValue: number;
  /** W/K over the zone's own difference to outside. */
  transmission: number;
}

/** A zone with what it loses and needs. */
export interface HeatZone {
  room: Room;
  /** Its sides as they are parted; its surfaces begin with theirs. */
  stretches: Stretch[];
  volume: number;
  /** Degrees; of an unheated zone that which it takes by itself. */
  temperature: number;
  heated: boolean;
  surfaces: HeatSurface[];
  /** Thermal bridges by their length; none where a flat addition is taken. */
  bridges: Bridge[];
  /** W/K. */
  transmission: number;
  ventilation: number;
  /** W. */
  designLoad: number;
  months: Month[];
}

export interface HeatTrial {
  zones: HeatZone[];
  /** To outside and to the ground, W/K; W; kWh a year. */
  building: { transmission: number; ventilation: number; designLoad: number; heating: number };
  assumed: string[];
  findings: Finding[];
}

/** What the site says, with what is taken where it does not. */
export interface Site {
  winter: number;
  annual: number;
  ground: number;
  /** W/(m2 K) on what lies to outside, for thermal bridges. */
  bridge: number;
  /** Thermal bridges by length; null takes the flat addition. */
  psi: Psi | null;
  climate: Climate;
  /** Of a neighbour's building, degrees. */
  neighbour: number;
  /** W/m2 to heat up again after a night. */
  heatingUp: number;
}

function siteOf({ site = {} }: ReadModel, report: Report): Site {
  if (site.winterTemperature === undefined)
    report.assume(`The winter temperature outside is taken as ${plain.winter} C`);
  if (site.annualTemperature === undefined) report.assume(`The yearly mean outside is taken as ${plain.annual} C`);
  if (site.groundConductivity === undefined) report.assume(`The ground conducts ${plain.ground} W/(m K)`);
  if (site.thermalBridge === undefined && site.bridges === undefined) report.assume('Thermal bridges are not counted');
  if (site.climate === undefined) report.assume(`The months are those of ${climate.name}, as warm as this place`);
  if (site.heatingUp === undefined) report.assume('No power is added for heating up');
  return {
    winter: site.winterTemperature ?? plain.winter,
    annual: site.annualTemperature ?? plain.annual,
    ground: site.groundConductivity ?? plain.ground,
    bridge: site.bridges === undefined ? (site.thermalBridge ?? 0) : 0,
    psi: site.bridges === undefined ? null : psiOf(site.bridges),
    neighbour: site.neighbourTemperature ?? plain.neighbour,
    climate: climateOf(site.climate, site.annualTemperature ?? plain.annual),
    heatingUp: site.heatingUp ?? 0,
  };
}

/** Thermal bridges of which nothing is said lose nothing. */
const psiOf = (said: Partial<Psi>): Psi =>
  Object.fromEntries(bridgeKinds.map((kind) => [kind, said[kind] ?? 0])) as Psi;

/** The design heat load of every zone (EN 12831-1), and its need month by month (ISO 52016-1). */
export function tryHeat(model: ReadModel, progress?: Progress): HeatTrial {
  const report = new Report();
  const site = siteOf(model, report);
  const enclosed = enclosedRooms(model, report, progress);
  if (enclosed.length === 0)
    report.find(
      'no zones',
      'error',
      [],
      [0, 0, 0],
      ['The model has no zone, so that no heat is lost.', 'Read or draw the rooms, at Reading, Zones, or at Tracing.'],
    );
  const lookup = lookupOf(model);
  const values = new UValues(model, site.ground, enclosed, report);
  const rooms = enclosed.map((one): Held => {
    const { temperature, airChange, neighbour } = one.room.zone;
    if (temperature === undefined) report.assumeOfEach(`A zone without a temperature is held at ${plain.inside} C`);
    if (airChange === undefined) report.assumeOfEach(`A zone without an air change has ${plain.airChange} an hour`);
    return {
      ...one,
      heated: temperature !== null && neighbour !== true,
      floats: temperature === null,
      bridges: site.psi === null ? [] : bridgesOf(one, site.psi, lookup.openings),
      temperature: temperature ?? plain.inside,
      surfaces: one.surfaces.map((surface) => ({ ...surface, uValue: values.of(surface), transmission: 0 })),
      ventilation: airHeat * (airChange ?? plain.airChange) * one.volume,
    };
  });
  const between = betweenRooms(rooms);
  const heldBy = new Map(rooms.map((one) => [one.room, one]));
  const held: Building = { between, heldBy, lookup, site };
  settle(rooms, held);
  const zones = rooms.map((one) => zoneOf(one, held));
  tellOdd(zones, report);
  // What others heat is theirs to lose.
  const own = zones.filter(({ room }) => room.zone.neighbour !== true);
  const sum = (of: (zone: HeatZone) => number): number => own.reduce((all, zone) => all + of(zone), 0);
  // Over a zone's own difference to outside what goes there needs no other factor.
  const lost = ({ surfaces, bridges }: HeatZone): number =>
    surfaces.reduce(
      (all, { beyond, transmission }) => (typeof beyond === 'string' ? all + transmission : all),
      lostBy(bridges),
    );
  return {
    zones,
    building: {
      transmission: sum(lost),
      ventilation: sum(({ ventilation }) => ventilation),
      designLoad: sum(({ designLoad }) => designLoad),
      heating: sum(({ months }) => months.reduce((all, { heating }) => all + heating, 0)),
    },
    assumed: report.assumed(),
    findings: report.findings,
  };
}

/** A room while its temperature is looked for. */
interface Held extends Enclosed {
  heated: boolean;
  /** Whether it takes its temperature by itself. */
  floats: boolean;
  temperature: number;
  surfaces: HeatSurface[];
  bridges: Bridge[];
  ventilation: number;
}

/** What zones are worked out with, put together once. */
interface Building {
  /** W/K between rooms. */
  between: ReadonlyMap<Room, ReadonlyMap<Room, number>>;
  heldBy: ReadonlyMap<Room, Held>;
  lookup: Lookup;
  site: Site;
}

/** W/K between a room and what lies beyond a surface, over the difference of the two. */
function ownConductance({ kind, net, uValue, beyond }: HeatSurface, { temperature }: Held, site: Site): number {
  if (beyond === 'outside')
    return net * (uValue + (kind === 'wall' || kind === 'roof' || kind === 'floor' ? site.bridge : 0));
  if (beyond === 'adiabatic') return 0;
  if (typeof beyond !== 'string') return net * uValue;
  const difference = temperature - site.winter;
  if (beyond === 'neighbour')
    return difference === 0 ? 0 : (net * uValue * (temperature - site.neighbour)) / difference;
  // The ground is warmer than the air in winter: over the difference to the air it counts less.
  const share = difference === 0 ? 0 : (temperature - site.annual) / difference;
  return net * uValue * groundSwing * Math.max(0, share);
}

/** Both sides of an inner surface lose as much: the mean of what the two areas give. */
function betweenRooms(rooms: readonly Held[]): Map<Room, Map<Room, number>> {
  const found = new Map<Room, Map<Room, number>>();
  const add = (from: Room, to: Room, value: number): void => {
    const own = found.get(from) ?? new Map<Room, number>();
    found.set(from, own.set(to, (own.get(to) ?? 0) + value));
  };
  for (const { room, surfaces } of rooms)
    for (const { beyond, net, uValue } of surfaces)
      if (typeof beyond !== 'string') {
        add(room, beyond, (net * uValue) / 2);
        add(beyond, room, (net * uValue) / 2);
      }
  return found;
}

/** Unheated zones take the temperature at which as much comes in as goes out; found by going round until it rests. */
function settle(rooms: readonly Held[], { between, heldBy, site }: Building): void {
  const unheated = rooms.filter(({ floats }) => floats);
  for (const one of unheated) one.temperature = site.winter;
  const temperatures = { outside: site.winter, ground: site.annual, neighbour: site.neighbour };
  for (let round = 0; round < mostRounds; round += 1) {
    let moved = 0;
    for (const one of unheated) {
      const open = one.ventilation + lostBy(one.bridges);
      let [conductance, flow] = [open, open * site.winter];
      for (const surface of one.surfaces) {
        if (typeof surface.beyond !== 'string' || surface.beyond === 'adiabatic') continue;
        const own = surface.net * (surface.uValue + (surface.beyond === 'outside' ? site.bridge : 0));
        conductance += own;
        flow += own * temperatures[surface.beyond];
      }
      for (const [other, value] of between.get(one.room) ?? []) {
        conductance += value;
        flow += value * (heldBy.get(other)?.temperature ?? site.winter);
      }
      const next = conductance > 0 ? flow / conductance : site.winter;
      moved = Math.max(moved, Math.abs(next - one.temperature));
      one.temperature = next;
    }
    if (moved < restsWithin) return;
  }
}
const mostRounds = 500;
const restsWithin = 1e-7;

function zoneOf(one: Held, { between: all, heldBy, lookup, site }: Building): HeatZone {
  const { room, volume, temperature, heated, ventilation, bridges, stretches } = one;
  const difference = temperature - site.winter;
  const between = all.get(room) ?? new Map<Room, number>();
  const own = new Map<Room, number>();
  for (const { beyond, net, uValue } of one.surfaces)
    if (typeof beyond !== 'string') own.set(beyond, (own.get(beyond) ?? 0) + net * uValue);
  const surfaces = one.surfaces.map((surface): HeatSurface => {
    const { beyond } = surface;
    if (typeof beyond === 'string') return { ...surface, transmission: ownConductance(surface, one, site) };
    const other = heldBy.get(beyond)?.temperature ?? temperature;
    // Of what the pair loses each surface has its share.
    const pair = (between.get(beyond) ?? 0) / (own.get(beyond) || 1);
    const share = Math.abs(difference) < leastDifference ? 0 : (temperature - other) / difference;
    return { ...surface, transmission: surface.net * surface.uValue * pair * share };
  });
  const transmission = surfaces.reduce((sum, surface) => sum + surface.transmission, lostBy(one.bridges));
  const designLoad = heated ? (transmission + ventilation) * difference + site.heatingUp * room.area : 0;
  const zone = {
    room,
    stretches,
    volume,
    temperature,
    heated,
    surfaces,
    bridges,
    transmission,
    ventilation,
    designLoad,
  };
  const steady = surfaces.reduce((sum, { beyond, transmission: own }) => {
    const floats = typeof beyond === 'string' || heldBy.get(beyond)?.floats !== false;
    return floats ? sum : sum + own * difference;
  }, 0);
  return { ...zone, months: heated ? monthsOf(zone, steady, site, lookup) : [] };
}
/** Zones as cold as outside lose nothing, degrees. */
const leastDifference = 1e-6;

/** Tells what is out of the usual: walls of glass, windows between rooms. */
function tellOdd(zones: readonly HeatZone[], report: Report): void {
  for (const { room, surfaces } of zones) {
    for (const { kind, beyond, elements, at } of surfaces)
      if (kind === 'window' && typeof beyond !== 'string')
        report.find('window within', 'note', elements.slice(0, 1), at, [
          `A window of ${room.name} leads to ${beyond.name}, not outside.`,
          'Look whether a zone reaches too far, or the window is a hatch.',
        ]);
    for (const wall of surfaces.filter(({ kind, beyond }) => kind === 'wall' && beyond === 'outside'))
      if (wall.area - wall.net > mostGlass * wall.area)
        report.find('glazing', 'warning', wall.elements, wall.at, [
          `${Math.round((100 * (wall.area - wall.net)) / wall.area)} % of a wall of ${room.name} are openings.`,
          'Look whether a window is drawn twice or too large.',
        ]);
  }
}
