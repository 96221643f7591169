import * as v from 'valibot';
import { finite, uuid } from '@/core/kinds/limits';

const between = (least: number, most: number) => v.pipe(finite, v.minValue(least), v.maxValue(most));

/** What surfaces are, as far as their construction goes, where an element has none of its own. */
export const surfaceRoles = ['outerWall', 'innerWall', 'floor', 'roof', 'window', 'door'] as const;
export type SurfaceRole = (typeof surfaceRoles)[number];
const madeOf = v.nullable(uuid);

/** What the trial of heat starts from beside the elements: the place, and constructions by rule. Degrees, W/(m K). */
export const siteSettings = v.strictObject({
  winterTemperature: between(-60, 30),
  annualTemperature: between(-30, 40),
  groundConductivity: between(0.1, 10),
  /** Added to what lies to outside, W/(m2 K). */
  thermalBridge: between(0, 1),
  /** To heat up again, W/m2. */
  heatingUp: between(0, 100),
  /** Entries of the library. */
  made: v.strictObject(
    Object.fromEntries(surfaceRoles.map((role) => [role, madeOf])) as Record<SurfaceRole, typeof madeOf>,
  ),
});
export type SiteSettings = v.InferOutput<typeof siteSettings>;

export const plainSite: SiteSettings = {
  winterTemperature: -10,
  annualTemperature: 9,
  groundConductivity: 2,
  thermalBridge: 0,
  heatingUp: 0,
  made: { outerWall: null, innerWall: null, floor: null, roof: null, window: null, door: null },
};
