import type { ReadModel } from '@/core/handover/model/readModel';
import { monthHours, sunOn } from './climate';
import type { HeatZone, Site } from './heat';

/** What a zone loses, gains and needs in a month, kWh. */
export interface Month {
  losses: number;
  gains: number;
  heating: number;
}

/** Of glazing without values: what it lets in of the sun (EN 410, double glazing with a coating). */
const plainG = 0.6;
/** The sun mostly comes aslant (ISO 52016-1, annex B); frames take this share of a window. */
const [aslant, frame] = [0.9, 0.3];
/** Of people and machines where nobody says it, W/m2 (ISO 52016-1 annex B, dwellings). */
const plainGains = 3;
/** Heat capacity of a building of medium weight, J/(K m2) (ISO 52016-1 table B.14), where layers do not say it. */
const plainCapacity = 165_000;
/** What counts of a construction's inner layers, metres (ISO 13786). */
const countsUpTo = 0.1;
/** Numbers of the use of gains (ISO 52016-1, 6.6.10). */
const [leastUse, hoursOfUse] = [1, 15];

type Zone = Omit<HeatZone, 'months'>;

/** Constructions and openings of a model by their ids. */
export interface Lookup {
  constructions: ReadonlyMap<string, NonNullable<ReadModel['constructions']>[number]>;
  openings: ReadonlyMap<string, ReadModel['openings'][number]>;
}

export const lookupOf = ({ constructions = [], openings }: ReadModel): Lookup => ({
  constructions: new Map(constructions.map((row) => [row.id, row])),
  openings: new Map(openings.map((row) => [row.id, row])),
});

/**
 * The need for heat of a zone month by month (ISO 52016-1, monthly method), with the months of the place.
 * @param between what goes to rooms that are held at another temperature all the year, W
 */
export function monthsOf(zone: Zone, between: number, site: Site, lookup: Lookup): Month[] {
  const { room, temperature, ventilation } = zone;
  const { air } = site.climate;
  const conductance = zone.transmission - between / (temperature - site.winter || 1) + ventilation;
  const inertia = capacityOf(zone, lookup) / 3600 / Math.max(conductance, 1e-9);
  const inner = (room.zone.gains ?? plainGains) * room.area;
  return air.map((outside, month) => {
    const hours = monthHours[month] / 1000;
    const losses = (conductance * (temperature - outside) + between) * hours;
    const gains = (inner + sunIn(zone, month, site, lookup)) * hours;
    if (losses <= 0) return { losses, gains, heating: 0 };
    return { losses, gains, heating: Math.max(0, losses - useOfGains(gains / losses, inertia) * gains) };
  });
}

/** How much of the gains is of use. @param ratio gains over losses @param inertia hours */
export function useOfGains(ratio: number, inertia: number): number {
  if (ratio <= 0) return 1;
  const a = leastUse + inertia / hoursOfUse;
  // Of what holds its heat for ever all that is lost is made up for, and no more is of use.
  if (!Number.isFinite(ratio ** (a + 1))) return 1 / ratio;
  return Math.abs(ratio - 1) < 1e-9 ? a / (a + 1) : (1 - ratio ** a) / (1 - ratio ** (a + 1));
}

/** What the sun brings in through windows, W. */
function sunIn({ surfaces }: Zone, month: number, { climate }: Site, { openings, constructions }: Lookup): number {
  return surfaces.reduce((sum, { kind, beyond, elements, area, orientation, tilt, construction }) => {
    if (kind !== 'window' || beyond !== 'outside') return sum;
    const glazing = constructions.get(construction ?? '');
    const g = glazing?.kind === 'glazing' ? glazing.gValue : plainG;
    const shading = openings.get(elements[0])?.shading ?? 1;
    return sum + g * aslant * (1 - frame) * shading * area * sunOn(climate, month, orientation, tilt);
  }, 0);
}

/** What a zone's surfaces hold, J/K: by their inner layers, else by its floor area. */
function capacityOf({ room, surfaces }: Zone, { constructions }: Lookup): number {
  let sum = 0;
  for (const { kind, net, construction } of surfaces) {
    if (kind === 'window' || kind === 'door') continue;
    const row = constructions.get(construction ?? '');
    if (row === undefined || row.kind === 'glazing') return plainCapacity * room.area;
    let left = countsUpTo;
    // Layers run from outside to inside: what is inside counts.
    for (const { thickness, density, heatCapacity } of [...row.layers].reverse()) {
      if (density === undefined || heatCapacity === undefined) return plainCapacity * room.area;
      const counted = Math.min(left, thickness);
      sum += net * counted * density * heatCapacity;
      left -= counted;
    }
  }
  return sum;
}
