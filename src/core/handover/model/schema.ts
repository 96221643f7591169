import { justifications, memberUses } from '@/core/kinds/beam';
import { freedoms } from '@/core/kinds/support';
import * as v from 'valibot';
import { levelKinds } from '@/core/model/state';

/** The shape of model.json, version 1. `docs/model.schema.json` is made from it. */
const point = v.tuple([v.number(), v.number()]);
const source = v.optional(v.looseObject({ drawing: v.string(), handles: v.array(v.string()) }));
const id = v.pipe(v.string(), v.minLength(1));

const gridLine = v.variant('kind', [
  v.looseObject({ id, label: v.string(), kind: v.literal('line'), start: point, end: point, source }),
  v.looseObject({
    id,
    label: v.string(),
    kind: v.literal('arc'),
    centre: point,
    radius: v.number(),
    startAngle: v.number(),
    endAngle: v.number(),
    source,
  }),
]);
const section = v.variant('shape', [
  v.looseObject({ shape: v.literal('rectangle'), width: v.number(), depth: v.number(), wall: v.optional(v.number()) }),
  v.looseObject({ shape: v.literal('circle'), diameter: v.number(), wall: v.optional(v.number()) }),
  v.looseObject({ shape: v.literal('polygon'), outline: v.array(point) }),
]);

const height = v.number();
const sized = { sectionId: v.optional(id) };
const constructed = { construction: v.optional(id) };
const layers = v.array(
  v.looseObject({
    name: v.string(),
    thickness: v.number(),
    conductivity: v.nullable(v.number()),
    density: v.optional(v.number()),
    /** J/(kg K). */
    heatCapacity: v.optional(v.number()),
  }),
);
const common = { id, level: v.string(), source };
const spacePoint = v.tuple([v.number(), v.number(), v.number()]);
const ring = v.array(point);

const loadBase = { id: v.optional(v.string()), case: v.optional(v.string()), source };
/** Loads as `structure` takes them; forces in newtons, along x, y and z. */
const load = v.variant('kind', [
  v.looseObject({
    ...loadBase,
    kind: v.literal('point'),
    position: spacePoint,
    force: v.optional(spacePoint),
    moment: v.optional(spacePoint),
  }),
  v.looseObject({ ...loadBase, kind: v.literal('line'), start: spacePoint, end: spacePoint, q: spacePoint }),
  v.looseObject({ ...loadBase, kind: v.literal('member'), element: id, q: spacePoint }),
  /** On a slab, or within an outline on a level. */
  v.looseObject({
    ...loadBase,
    kind: v.literal('area'),
    slab: v.optional(id),
    level: v.optional(v.string()),
    outline: v.optional(ring),
    holes: v.optional(v.array(ring)),
    q: v.number(),
  }),
]);
/** What lies beyond what nothing of the model lies beyond: a neighbour's building, or one as warm. */
const beyond = { beyond: v.optional(v.picklist(['neighbour', 'adiabatic'])) };
const material = { material: v.optional(id) };
const released = v.optional(v.array(v.picklist(freedoms)));
const ends = { base: v.optional(v.number()), top: v.optional(v.number()) };

export const modelSchema = v.looseObject({
  format: v.literal('zircon-frame-model'),
  version: v.literal(1),
  unit: v.literal('m'),
  levels: v.array(
    v.looseObject({
      id,
      name: v.string(),
      elevation: v.number(),
      height: v.number(),
      kind: v.optional(v.picklist(levelKinds)),
      structuralTop: v.optional(v.number()),
      slabThickness: v.optional(v.number()),
      repeats: v.optional(id),
    }),
  ),
  survey: v.optional(
    v.looseObject({
      easting: v.number(),
      northing: v.number(),
      elevation: v.number(),
      north: v.number(),
      /** What the system of coordinates is called. */
      system: v.optional(v.string()),
    }),
  ),
  materials: v.optional(
    v.array(
      v.looseObject({
        id,
        name: v.optional(v.string()),
        kind: v.optional(v.string()),
        density: v.optional(v.number()),
        youngsModulus: v.optional(v.number()),
        poissonsRatio: v.optional(v.number()),
        conductivity: v.optional(v.number()),
      }),
    ),
  ),
  sections: v.optional(v.array(v.looseObject({ id, name: v.string(), section }))),
  constructions: v.optional(
    v.array(
      v.variant('kind', [
        v.looseObject({
          id,
          name: v.string(),
          kind: v.literal('wall'),
          thickness: v.number(),
          layers,
          uValue: v.nullable(v.number()),
        }),
        v.looseObject({
          id,
          name: v.string(),
          kind: v.literal('slab'),
          thickness: v.number(),
          layers,
          uValue: v.nullable(v.number()),
        }),
        v.looseObject({
          id,
          name: v.string(),
          kind: v.literal('glazing'),
          uValue: v.number(),
          gValue: v.number(),
          transmittance: v.number(),
        }),
      ]),
    ),
  ),
  grids: v.array(gridLine),
  columns: v.array(
    v.looseObject({
      id,
      level: v.string(),
      position: point,
      rotation: v.number(),
      section,
      ...sized,
      ...material,
      mark: v.string(),
      ...ends,
      source,
    }),
  ),
  beams: v.array(
    v.looseObject({
      ...common,
      start: spacePoint,
      end: spacePoint,
      section,
      ...sized,
      ...material,
      mark: v.string(),
      releases: v.optional(v.looseObject({ start: released, end: released })),
      justification: v.optional(v.picklist(justifications)),
      use: v.optional(v.picklist(memberUses)),
      angle: v.optional(v.number()),
    }),
  ),
  walls: v.array(
    v.looseObject({
      ...common,
      start: point,
      end: point,
      thickness: v.number(),
      ...constructed,
      ...material,
      height,
      bulge: v.number(),
      outer: v.optional(v.boolean()),
      bearing: v.optional(v.boolean()),
      ...beyond,
      ...ends,
      /** Heights of the top along the centre line, where the wall ends under a roof. */
      profile: v.optional(v.array(point)),
    }),
  ),
  openings: v.array(
    v.looseObject({
      id,
      wall: id,
      kind: v.picklist(['door', 'window']),
      offset: v.number(),
      width: v.number(),
      height,
      sill: v.number(),
      /** The share of the sun that reaches it. */
      shading: v.optional(v.number()),
      ...constructed,
      source,
    }),
  ),
  slabs: v.array(
    v.looseObject({
      ...common,
      outline: ring,
      holes: v.array(ring),
      thickness: v.number(),
      top: v.optional(v.number()),
      ...constructed,
      ...material,
      /** Degrees of the direction that it spans in; null spreads both ways. */
      span: v.optional(v.nullable(v.number())),
      /** Whether it keeps the distances of what it joins. */
      diaphragm: v.optional(v.boolean()),
      ...beyond,
    }),
  ),
  zones: v.array(
    v.looseObject({
      ...common,
      name: v.string(),
      number: v.string(),
      outline: ring,
      holes: v.array(ring),
      height,
      use: v.optional(v.string()),
      /** Degrees Celsius; null is unheated. */
      temperature: v.optional(v.nullable(v.number())),
      /** Air changes an hour. */
      airChange: v.optional(v.number()),
      /** Of people and machines, W/m2. */
      gains: v.optional(v.number()),
      /** Whether others heat it. */
      neighbour: v.optional(v.boolean()),
      /** What heats it. */
      system: v.optional(v.string()),
      clearHeight: v.optional(v.number()),
      reflectances: v.optional(
        v.looseObject({ ceiling: v.optional(v.number()), wall: v.optional(v.number()), floor: v.optional(v.number()) }),
      ),
      volume: v.optional(v.number()),
      roofs: v.optional(v.array(id)),
      boundaries: v.optional(
        v.array(v.looseObject({ wall: id, length: v.number(), beyond: v.nullable(id), openings: v.array(id) })),
      ),
    }),
  ),
  /**
   * `use` is what a surface is: road, path, apron, grass, fence; `reflectance` the share of the light that it throws
   * back, `lux` the light that it asks for, where they are not as usual.
   */
  outdoor: v.array(
    v.looseObject({
      ...common,
      name: v.string(),
      outline: ring,
      height,
      use: v.optional(v.string()),
      reflectance: v.optional(v.number()),
      lux: v.optional(v.number()),
    }),
  ),
  /** The ground about the building: lines of one elevation, and single points; metres above the project's zero. */
  terrain: v.optional(
    v.array(v.looseObject({ id, points: v.pipe(v.array(point), v.minLength(1)), elevation: v.number(), source })),
  ),
  /** The underside of each plane, by its corners in space. */
  roofs: v.optional(
    v.array(
      v.looseObject({
        ...common,
        outline: v.array(spacePoint),
        slope: v.number(),
        direction: v.number(),
        thickness: v.number(),
        ...constructed,
      }),
    ),
  ),
  supports: v.optional(
    v.array(v.looseObject({ id, position: spacePoint, fixed: v.array(v.picklist(freedoms)), source })),
  ),
  loadCases: v.optional(
    v.array(v.looseObject({ id, name: v.optional(v.string()), selfWeight: v.optional(v.number()) })),
  ),
  combinations: v.optional(v.array(v.looseObject({ id, factors: v.record(v.string(), v.number()) }))),
  loads: v.optional(v.array(load)),
  /** Degrees Celsius, degrees, W/(m K), W/(m2 K). */
  site: v.optional(
    v.looseObject({
      winterTemperature: v.optional(v.number()),
      annualTemperature: v.optional(v.number()),
      latitude: v.optional(v.number()),
      groundConductivity: v.optional(v.number()),
      /** The share of the first light that is left with dirt and age. */
      maintenanceFactor: v.optional(v.number()),
      thermalBridge: v.optional(v.number()),
      heatingUp: v.optional(v.number()),
      /** Twelve months: means of the air, degrees, and of the sun on surfaces that look so, W/m2. */
      climate: v.optional(
        v.looseObject({
          air: v.optional(v.array(v.number())),
          level: v.optional(v.array(v.number())),
          south: v.optional(v.array(v.number())),
          aside: v.optional(v.array(v.number())),
          north: v.optional(v.array(v.number())),
        }),
      ),
      /** What areas of heat are measured to: inner, centre, outer. */
      areas: v.optional(v.string()),
      /** Of a neighbour's building. */
      neighbourTemperature: v.optional(v.number()),
      /** Thermal bridges by length, W/(m K): at roofs, floors between storeys, the ground floor, corners, openings. */
      bridges: v.optional(
        v.looseObject({
          roof: v.optional(v.number()),
          between: v.optional(v.number()),
          ground: v.optional(v.number()),
          corner: v.optional(v.number()),
          opening: v.optional(v.number()),
        }),
      ),
    }),
  ),
  /** Photometric files of IES LM-63, whole. */
  photometries: v.optional(v.array(v.looseObject({ id, name: v.optional(v.string()), ies: v.string() }))),
  luminaires: v.optional(
    v.array(
      v.looseObject({
        id,
        photometry: v.string(),
        position: spacePoint,
        rotation: v.optional(v.number()),
        tilt: v.optional(v.number()),
        output: v.optional(v.number()),
        source,
      }),
    ),
  ),
  calculationAreas: v.optional(
    v.array(
      v.looseObject({
        id,
        zone: v.optional(id),
        name: v.optional(v.string()),
        outline: ring,
        holes: v.optional(v.array(ring)),
        z: v.number(),
        spacing: v.optional(v.number()),
        source,
      }),
    ),
  ),
});

export type ModelFile = v.InferOutput<typeof modelSchema>;
