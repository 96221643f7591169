import * as v from 'valibot';
import { finite, name, uuid } from '@/core/kinds/limits';

const between = (least: number, most: number) => v.pipe(finite, v.minValue(least), v.maxValue(most));

/** What surfaces are, as far as their construction goes, where an element has none of its own. */
export const surfaceRoles = ['outerWall', 'innerWall', 'floor', 'roof', 'window', 'door'] as const;
export type SurfaceRole = (typeof surfaceRoles)[number];
const madeOf = v.nullable(uuid);

/** Inner faces, the middles of what bounds a room, outer faces. */
export const areaMeasures = ['inner', 'centre', 'outer'] as const;
export type AreaMeasure = (typeof areaMeasures)[number];

/** Where thermal bridges run along the edges of what lies to outside. */
export const bridgeKinds = ['roof', 'between', 'ground', 'corner', 'opening'] as const;
export type BridgeKind = (typeof bridgeKinds)[number];
const psi = between(-1, 3);

const months = (least: number, most: number) => v.pipe(v.array(between(least, most)), v.length(12));

/** How a room is used: degrees, or null where it is unheated; air changes an hour; gains, W/m2. */
const profile = v.strictObject({
  name,
  temperature: v.nullable(between(-40, 80)),
  airChange: between(0, 100),
  gains: between(0, 10_000),
});
export type Profile = v.InferOutput<typeof profile>;

/**
 * What the trials of heat and light start from beside the elements: the place, constructions by rule, and what is left
 * of the first light. Degrees, W/(m K).
 */
export const siteSettings = v.strictObject({
  winterTemperature: between(-60, 30),
  annualTemperature: between(-30, 40),
  groundConductivity: between(0.1, 10),
  /** Added to what lies to outside, W/(m2 K). */
  thermalBridge: between(0, 1),
  /** To heat up again, W/m2. */
  heatingUp: between(0, 100),
  /** What areas are measured to; left out by inner faces. */
  areas: v.optional(v.picklist(areaMeasures)),
  /** Twelve months of the place's own: means of the air, and of the sun on surfaces that look so, W/m2. */
  climate: v.optional(
    v.strictObject({
      air: v.optional(months(-60, 50)),
      level: v.optional(months(0, 1000)),
      south: v.optional(months(0, 1000)),
      aside: v.optional(months(0, 1000)),
      north: v.optional(months(0, 1000)),
    }),
  ),
  /** Of a neighbour's building. */
  neighbourTemperature: v.optional(between(-30, 40)),
  /** Thermal bridges by their length, W/(m K); left out where the flat addition is taken. */
  bridges: v.optional(
    v.strictObject(Object.fromEntries(bridgeKinds.map((kind) => [kind, psi])) as Record<BridgeKind, typeof psi>),
  ),
  /** How rooms are used, by name, and which names of rooms mean which. */
  profiles: v.optional(v.pipe(v.array(profile), v.maxLength(100))),
  rules: v.optional(v.pipe(v.array(v.strictObject({ pattern: name, profile: name })), v.maxLength(300))),
  /** Of the first light so much is left with dirt and age. */
  maintenanceFactor: v.optional(between(0.1, 1)),
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
