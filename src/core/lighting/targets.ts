import { uses, type Use } from '@/core/kinds/use';

/** What a use asks of the light on its task areas: maintained illuminance, lux, and uniformity. */
export interface Target {
  lux: number;
  uniformity: number;
}

/**
 * Targets by the category of use, of the commonest task of each (EN 12464-1:2021): dwellings as for rest rooms, offices
 * for writing and reading, tables and meeting rooms, fixed seats, free movement as for circulation, sport, stages and
 * crowds as for entrance halls, shops for the sales area, stores, garages for lanes, none for roofs.
 */
const targets: Partial<Record<Use, Target>> = {
  A: { lux: 100, uniformity: 0.4 },
  B: { lux: 500, uniformity: 0.6 },
  C1: { lux: 200, uniformity: 0.4 },
  C2: { lux: 200, uniformity: 0.5 },
  C3: { lux: 100, uniformity: 0.4 },
  C4: { lux: 300, uniformity: 0.6 },
  C5: { lux: 200, uniformity: 0.4 },
  D1: { lux: 300, uniformity: 0.4 },
  D2: { lux: 300, uniformity: 0.4 },
  E1: { lux: 100, uniformity: 0.4 },
  F: { lux: 75, uniformity: 0.4 },
  G: { lux: 75, uniformity: 0.4 },
};

/** What a zone's use asks; null where it says none, or nothing is asked of it. */
export function targetOf(use: string | undefined): Target | null {
  const known = uses.find((one) => one === use);
  return known === undefined ? null : (targets[known] ?? null);
}
