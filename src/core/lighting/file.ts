import type { Finding } from '@/core/proof/finding';
import type { LightTrial, LitArea, LitZone } from './light';

/** `lighting.json`, version 1: lux, lumens, metres. */
export interface LightingFile {
  format: 'zircon-frame-lighting';
  version: 1;
  assumed: string[];
  /** The zone of an area outdoors is empty. */
  areas: (Omit<LitArea, 'zone' | 'outline' | 'holes' | 'lattice'> & { zone: string })[];
  rooms: Omit<LitZone, 'name' | 'area'>[];
  findings: Finding[];
}

/** What a trial of light came to, as a file has it. */
export const lightingFile = ({ areas, rooms, assumed, findings }: LightTrial): LightingFile => ({
  format: 'zircon-frame-lighting',
  version: 1,
  assumed,
  areas: areas.map(({ outline: _, holes: _holes, lattice: _lattice, ...area }) => ({ ...area, zone: area.zone ?? '' })),
  rooms: rooms.map(({ name: _, area: _area, ...room }) => room),
  findings,
});
