import type { Finding } from '@/core/proof/finding';
import type { SurfaceKind } from './derive/envelope';
import type { HeatTrial } from './heat';
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
    transmission: zone.transmission,
    ventilation: zone.ventilation,
    designLoad: zone.designLoad,
    months: zone.months,
  })),
  building,
  findings,
});
