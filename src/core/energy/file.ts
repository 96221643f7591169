import type { Finding } from '@/core/proof/finding';
import type { Point } from '@/core/geometry/vector';
import type { Bridge } from './bridges';
import type { SurfaceKind } from './derive/surface';
import type { HeatTrial, HeatZone } from './heat';
import type { Month } from './months';

interface SurfacePart {
  kind: SurfaceKind;
  elements: string[];
  area: number;
  net: number;
  uValue: number;
  beyond: string;
  orientation: number;
  tilt: number;
  transmission: number;
}

interface ZonePart {
  id: string;
  area: number;
  volume: number;
  temperature: number;
  surfaces: SurfacePart[];
  /** Thermal bridges by their length, metres and W/(m K). */
  bridges: Bridge[];
  transmission: number;
  ventilation: number;
  designLoad: number;
  months: Month[];
}

/** `heat.json`, version 1: square metres, W/K, W, kWh, degrees. */
export interface HeatFile {
  format: 'zircon-frame-heat';
  version: 1;
  assumed: string[];
  zones: ZonePart[];
  building: HeatTrial['building'];
  findings: Finding[];
}

/** A zone as a window shows it: as the file has it, with its name and where it is. */
export interface ShownZone extends ZonePart {
  name: string;
  level: string;
  heated: boolean;
  height: number;
  /** What heats it; empty where nobody says it. */
  system: string;
  /** Its upright surfaces as they run in plan, by their places among its surfaces. */
  sides: { from: Point; to: Point; low: number; high: number; surface: number }[];
  /** Its windows and doors in its sides. */
  cuts: Cut[];
}

/** A window or a door in a side of a zone: where its middle lies along it and up from its foot, metres. */
export interface Cut {
  side: number;
  along: number;
  up: number;
  width: number;
  height: number;
}

/** A trial of heat as a window shows it: plain data that goes from a worker to it. */
export type HeatView = Omit<HeatFile, 'zones' | 'format' | 'version'> & { zones: ShownZone[] };

export function heatView(trial: HeatTrial): HeatView {
  const { zones, building, assumed, findings } = heatFile(trial);
  return {
    building,
    assumed,
    findings,
    zones: zones.map((zone, i) => {
      const { room, heated, stretches } = trial.zones[i];
      return {
        ...zone,
        name: room.name,
        level: room.zone.level,
        heated,
        height: room.high - room.low,
        system: room.zone.system ?? '',
        cuts: cutsOf(trial.zones[i]),
        // Surfaces begin with those of the sides, in their order.
        sides: stretches.map(({ a, b, low, high }, surface) => ({ from: a, to: b, low, high, surface })),
      };
    }),
  };
}

/** Where the openings of a zone lie in its sides. */
const cutsOf = ({ surfaces, stretches }: HeatZone): Cut[] =>
  surfaces.flatMap(({ cut, at: [x, y, z] }): Cut[] => {
    if (cut === undefined) return [];
    const { a, b, length, low } = stretches[cut.stretch];
    const along = ((x - a[0]) * (b[0] - a[0]) + (y - a[1]) * (b[1] - a[1])) / (length || 1);
    return [{ side: cut.stretch, along, up: z - low, width: cut.width, height: cut.height }];
  });

/** What a trial of heat came to, as a file has it. */
export const heatFile = ({ zones, building, assumed, findings }: HeatTrial): HeatFile => ({
  format: 'zircon-frame-heat',
  version: 1,
  assumed,
  zones: zones.map((zone): ZonePart => ({
    id: zone.room.id,
    area: zone.room.area,
    volume: zone.volume,
    temperature: zone.temperature,
    surfaces: zone.surfaces.map(({ kind, elements, area, net, uValue, beyond, orientation, tilt, transmission }) => ({
      kind,
      elements,
      area,
      net,
      uValue,
      beyond: typeof beyond === 'string' ? beyond : beyond.id,
      orientation,
      tilt,
      transmission,
    })),
    bridges: zone.bridges,
    transmission: zone.transmission,
    ventilation: zone.ventilation,
    designLoad: zone.designLoad,
    months: zone.months,
  })),
  building,
  findings,
});
