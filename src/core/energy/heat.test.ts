import { modelWith } from '@/core/handover/testing/modelWith';

import { heatView } from './file';
import { tryHeat, type HeatZone } from './heat';
import { useOfGains } from './months';

type Point = [number, number];
type Part = Record<string, unknown>;

const insulated = {
  id: 'W1',
  name: 'Outer wall',
  kind: 'wall',
  thickness: 0.4,
  uValue: null,
  // From outside: 0.1 / 0.04 and 0.3 / 1 m2 K/W.
  layers: [
    { name: 'Insulation', thickness: 0.1, conductivity: 0.04 },
    { name: 'Blocks', thickness: 0.3, conductivity: 1 },
  ],
};
const plate = {
  id: 'S1',
  name: 'Floor',
  kind: 'slab',
  thickness: 0.2,
  uValue: null,
  layers: [{ name: 'Concrete', thickness: 0.2, conductivity: 2 }],
};
const pane = { id: 'G1', name: 'Pane', kind: 'glazing', uValue: 1, gValue: 0.5, transmittance: 0.7 };

const box = (x: number, y: number, w: number, d: number): Point[] => [
  [x, y],
  [x + w, y],
  [x + w, y + d],
  [x, y + d],
];
const wall = (id: string, start: Point, end: Point, more: Part = {}): Part => ({
  id,
  level: 'L1',
  start,
  end,
  thickness: 0.4,
  height: 3,
  construction: 'W1',
  ...more,
});
const zone = (id: string, outline: Point[], more: Part = {}): Part => ({
  id,
  level: 'L1',
  name: id,
  outline,
  height: 3,
  temperature: 20,
  airChange: 0.5,
  ...more,
});
const site = { winterTemperature: -10, annualTemperature: 9, groundConductivity: 2, thermalBridge: 0, heatingUp: 0 };

/** A room of 6 by 4 m by inner faces, 2.8 m high, over outside air: walls of 0.4 m about it, slabs under and over. */
const shoe = (): Record<string, unknown> => ({
  levels: [
    { id: 'L1', name: 'Floor', elevation: 10, height: 3 },
    { id: 'L2', name: 'Roof', elevation: 13, height: 3 },
  ],
  walls: [
    wall('S', [-0.2, -0.2], [6.2, -0.2]),
    wall('E', [6.2, -0.2], [6.2, 4.2]),
    wall('N', [6.2, 4.2], [-0.2, 4.2]),
    wall('W', [-0.2, 4.2], [-0.2, -0.2]),
  ],
  slabs: [
    { id: 'under', level: 'L1', outline: box(-0.4, -0.4, 6.8, 4.8), thickness: 0.2, construction: 'S1' },
    { id: 'over', level: 'L2', outline: box(-0.4, -0.4, 6.8, 4.8), thickness: 0.2, construction: 'S1' },
  ],
  zones: [zone('A', box(0, 0, 6, 4))],
  constructions: [insulated, plate, pane],
  site,
});

const heat = (parts: Record<string, unknown>) => tryHeat(modelWith(parts));
const surfaceOf = ({ surfaces }: HeatZone, kind: string, element: string) =>
  surfaces.find((one) => one.kind === kind && one.elements[0] === element)!;

test('a shoe box loses what is worked out by hand', () => {
  const { zones, building, findings } = heat(shoe());
  expect(findings).toEqual([]);
  const [a] = zones;
  expect([a.room.area, a.volume]).toEqual([24, 67.2].map((value) => expect.closeTo(value, 6)));
  // 1 / (0.04 + 2.5 + 0.3 + 0.13) = 0.3367; floor down to air 1 / (0.04 + 0.1 + 0.17); roof up 1 / (0.04 + 0.1 + 0.1).
  const [wallU, floorU, roofU] = [1 / 2.97, 1 / 0.31, 1 / 0.24];
  const south = surfaceOf(a, 'wall', 'S');
  expect([south.area, south.uValue, south.transmission, south.orientation]).toEqual(
    [16.8, wallU, 16.8 * wallU, 180].map((value) => expect.closeTo(value, 6)),
  );
  expect(surfaceOf(a, 'wall', 'E').orientation).toBeCloseTo(90, 6);
  expect(surfaceOf(a, 'floor', 'under').uValue).toBeCloseTo(floorU, 6);
  expect(surfaceOf(a, 'roof', 'over').uValue).toBeCloseTo(roofU, 6);
  // 56 m2 of walls, 24 of floor and roof; 0.34 x 0.5 x 67.2 of air.
  const transmission = 56 * wallU + 24 * floorU + 24 * roofU;
  expect(a.transmission).toBeCloseTo(transmission, 6);
  expect(a.ventilation).toBeCloseTo(11.424, 6);
  expect(a.designLoad).toBeCloseTo(30 * (transmission + 11.424), 4);
  expect(building).toMatchObject({
    transmission: expect.closeTo(transmission, 6),
    designLoad: expect.closeTo(a.designLoad, 6),
  });
});

test('a window is cut out of its wall, and loses by its own', () => {
  const parts = shoe();
  const [a] = heat({
    ...parts,
    openings: [{ id: 'O', wall: 'S', kind: 'window', offset: 2, width: 2, height: 1.5, sill: 0.9, construction: 'G1' }],
  }).zones;
  const south = surfaceOf(a, 'wall', 'S');
  expect([south.area, south.net]).toEqual([16.8, 13.8].map((value) => expect.closeTo(value, 6)));
  expect(surfaceOf(a, 'window', 'O')).toMatchObject({
    area: expect.closeTo(3, 6),
    uValue: 1,
    transmission: expect.closeTo(3, 6),
  });
  expect(a.transmission).toBeCloseTo(heat(parts).zones[0].transmission - 3 / 2.97 + 3, 6);
});

/** Two rooms of 3 by 4 m side by side, a wall of 0.2 m between them. */
const two = (second: Part = {}): Record<string, unknown> => ({
  ...shoe(),
  walls: [
    wall('S', [-0.2, -0.2], [6.4, -0.2]),
    wall('E', [6.4, -0.2], [6.4, 4.2]),
    wall('N', [6.4, 4.2], [-0.2, 4.2]),
    wall('W', [-0.2, 4.2], [-0.2, -0.2]),
    wall('M', [3.1, -0.2], [3.1, 4.2], { thickness: 0.2 }),
  ],
  zones: [zone('A', box(0, 0, 3, 4)), zone('B', box(3.2, 0, 3, 4), second)],
});

test('between rooms nothing is lost where both are as warm, and flows cancel where they are not', () => {
  const even = heat(two()).zones;
  const inner = even.map((one) => surfaceOf(one, 'wall', 'M'));
  expect(inner.map(({ beyond, area, transmission }) => [typeof beyond, area, transmission])).toEqual([
    ['object', expect.closeTo(11.2, 6), 0],
    ['object', expect.closeTo(11.2, 6), 0],
  ]);
  const [a, b] = heat(two({ temperature: 15 })).zones;
  // U with both surfaces inside: 1 / (0.13 + 2.8 + 0.13) over 11.2 m2 and 5 K.
  const flow = (11.2 / 3.06) * 5;
  expect(surfaceOf(a, 'wall', 'M').transmission * 30).toBeCloseTo(flow, 6);
  expect(surfaceOf(b, 'wall', 'M').transmission * 25).toBeCloseTo(-flow, 6);
  const { building, zones } = heat(two({ temperature: 15 }));
  const toOutside = zones.map(({ surfaces, ventilation, temperature }) => {
    const outside = surfaces.filter(({ beyond }) => beyond === 'outside');
    return (outside.reduce((sum, one) => sum + one.transmission, 0) + ventilation) * (temperature + 10);
  });
  expect(building.designLoad).toBeCloseTo(toOutside[0] + toOutside[1], 6);
});

test('an unheated room takes the temperature at which as much comes in as goes out', () => {
  const [a, b] = heat(two({ temperature: null })).zones;
  const between = 11.2 / 3.06;
  const out = b.surfaces
    .filter(({ beyond }) => beyond === 'outside')
    .reduce((sum, { net, uValue }) => sum + net * uValue, b.ventilation);
  const temperature = (20 * between - 10 * out) / (between + out);
  expect(b.temperature).toBeCloseTo(temperature, 5);
  expect([b.designLoad, b.heated]).toEqual([0, false]);
  expect(surfaceOf(a, 'wall', 'M').transmission).toBeCloseTo((between * (20 - temperature)) / 30, 6);
});

test('a room over half a room and half outside has a floor of two parts, that the room under it sees too', () => {
  const parts = shoe();
  const model = {
    ...parts,
    levels: [{ id: 'L0', name: 'Under', elevation: 7, height: 3 }, ...(parts.levels as Part[])],
    walls: [
      ...(parts.walls as Part[]),
      wall('S0', [-0.2, -0.2], [3.2, -0.2], { level: 'L0' }),
      wall('E0', [3.2, -0.2], [3.2, 4.2], { level: 'L0' }),
      wall('N0', [3.2, 4.2], [-0.2, 4.2], { level: 'L0' }),
      wall('W0', [-0.2, 4.2], [-0.2, -0.2], { level: 'L0' }),
    ],
    zones: [...(parts.zones as Part[]), zone('B', box(0, 0, 3, 4), { level: 'L0' })],
  };
  const [a, b] = heat(model).zones;
  const floors = a.surfaces.filter(({ kind }) => kind === 'floor');
  // Over the room and the wall about it, as far as 0.35 m; the rest is over outside.
  expect(floors.map(({ beyond, area }) => [typeof beyond === 'string' ? beyond : beyond.id, area])).toEqual([
    ['B', expect.closeTo(13.4, 6)],
    ['outside', expect.closeTo(10.6, 6)],
  ]);
  expect(b.surfaces.filter(({ kind }) => kind === 'ceiling').map(({ area }) => area)).toEqual([expect.closeTo(12, 6)]);
});

test('a turned building loses the same, and its gains go with it', () => {
  const turned = ([x, y]: Point): Point => [-y, x];
  const parts = shoe();
  const openings = [{ id: 'O', wall: 'S', kind: 'window', offset: 2, width: 2, height: 1.5, sill: 0.9 }];
  const rotated = {
    ...parts,
    openings,
    walls: (parts.walls as { start: Point; end: Point }[]).map((one) => ({
      ...one,
      start: turned(one.start),
      end: turned(one.end),
    })),
    slabs: (parts.slabs as { outline: Point[] }[]).map((one) => ({ ...one, outline: one.outline.map(turned) })),
    zones: [zone('A', box(0, 0, 6, 4).map(turned))],
  };
  const [before] = heat({ ...parts, openings }).zones;
  const [after] = heat(rotated).zones;
  expect(after.designLoad).toBeCloseTo(before.designLoad, 6);
  // A quarter turn counter-clockwise takes south to east.
  expect(surfaceOf(after, 'window', 'O').orientation).toBeCloseTo(90, 6);
  // January: 45 against 17 W/m2 on 3 m2, g 0.6, 0.9 aslant, 0.7 of glass, 744 h.
  expect(before.months[0].gains - after.months[0].gains).toBeCloseTo(0.6 * 0.9 * 0.7 * 3 * (45 - 17) * 0.744, 6);
  expect(
    heat({ ...rotated, survey: { easting: 0, northing: 0, elevation: 0, north: -90 } }).zones[0].months[0].gains,
  ).toBeCloseTo(before.months[0].gains, 6);
});

test('on the ground and in it, by ISO 13370', () => {
  const parts = shoe();
  const onGround = heat({
    ...parts,
    levels: [
      { id: 'L1', name: 'Ground', elevation: 0, height: 3, kind: 'ground' },
      { id: 'L2', name: 'Roof', elevation: 3, height: 3 },
    ],
  }).zones[0];
  const floor = surfaceOf(onGround, 'floor', 'under');
  // B' = 24 / (0.5 x 20) = 2.4 m; dt = 0.4 + 2 x (0.17 + 0.1 + 0.04) = 1.02 m.
  const u = (4 / (Math.PI * 2.4 + 1.02)) * Math.log((Math.PI * 2.4) / 1.02 + 1);
  expect(floor.beyond).toBe('ground');
  expect(floor.uValue).toBeCloseTo(u, 9);
  // 1.45 times the share of the difference to the ground: (20 - 9) / 30.
  expect(floor.transmission).toBeCloseTo(24 * u * 1.45 * (11 / 30), 6);
  const buried = heat({
    ...parts,
    levels: [
      { id: 'L1', name: 'Basement', elevation: -3, height: 3 },
      { id: 'L2', name: 'Ground', elevation: 0, height: 3, kind: 'ground' },
    ],
  }).zones[0];
  const wallU = surfaceOf(buried, 'wall', 'S').uValue;
  // 3 m deep: dw = 2 x (0.13 + 2.8 + 0.04) = 5.94 m, the floor's 1.02 m is less and counts.
  const byHand = (4 / (Math.PI * 3)) * (1 + (0.5 * 1.02) / (1.02 + 3)) * Math.log(3 / 5.94 + 1);
  expect(wallU).toBeCloseTo(byHand, 9);
  expect(surfaceOf(buried, 'wall', 'S').beyond).toBe('ground');
});

test('months: losses by degrees and hours, gains of use as the norm has them', () => {
  const [a] = heat(shoe()).zones;
  const [january] = a.months;
  expect(january.losses).toBeCloseTo(((a.transmission + a.ventilation) * 18.5 * 744) / 1000, 6);
  // 3 W/m2 of 24 m2; no window.
  expect(january.gains).toBeCloseTo((72 * 744) / 1000, 6);
  const inertia = (165_000 * 24) / 3600 / (a.transmission + a.ventilation);
  const power = 1 + inertia / 15;
  const ratio = january.gains / january.losses;
  expect(january.heating).toBeCloseTo(
    january.losses - january.gains * ((1 - ratio ** power) / (1 - ratio ** (power + 1))),
    6,
  );
  expect([useOfGains(0, 50), useOfGains(1, 15)]).toEqual([1, expect.closeTo(2 / 3, 9)]);
});

test('what is missing is told, and nothing is not a number', () => {
  const rules = (parts: Record<string, unknown>) => {
    const made = heat(parts);
    expect(JSON.stringify(made.building)).not.toMatch(/null|NaN/);
    return made.findings.map(({ rule }) => rule);
  };
  expect(rules({})).toEqual(['no zones']);
  const open = shoe();
  expect(rules({ ...open, walls: (open.walls as Part[]).slice(1) })).toContain('does not close');
  expect(rules({ ...open, constructions: [] })).toContain('no construction');
  expect(rules({ ...open, zones: [zone('A', box(0, 0, 0.02, 0.02))] })).toContain('zone');
  expect(rules({ ...open, zones: [zone('A', [])] })).toContain('zone');
  const glass = [{ id: 'O', wall: 'S', kind: 'window', offset: 0.4, width: 5.8, height: 2.7, sill: 0 }];
  expect(rules({ ...open, openings: glass })).toContain('glazing');
});

test('areas by inner faces, middles and outer faces, and what they lose', () => {
  const by = (areas: string) => {
    const [a] = heat({ ...shoe(), site: { ...site, areas } }).zones;
    return [
      surfaceOf(a, 'wall', 'S').area,
      surfaceOf(a, 'wall', 'E').area,
      surfaceOf(a, 'roof', 'over').area,
      a.volume,
    ];
  };
  // 6 by 4 m and 2.8 m high inside; walls of 0.4 m, slabs of 0.2 m.
  expect(by('inner')).toEqual([6 * 2.8, 4 * 2.8, 24, 67.2].map((value) => expect.closeTo(value, 9)));
  expect(by('centre')).toEqual([6.4 * 3, 4.4 * 3, 6.4 * 4.4, 67.2].map((value) => expect.closeTo(value, 9)));
  expect(by('outer')).toEqual([6.8 * 3.2, 4.8 * 3.2, 6.8 * 4.8, 67.2].map((value) => expect.closeTo(value, 9)));
});

test('of two rooms by outer faces the wall between is by its middle, and both measure it alike', () => {
  const parts = shoe();
  const { zones } = heat({
    ...parts,
    site: { ...site, areas: 'outer' },
    walls: [...(parts.walls as Part[]), wall('M', [2, 0], [2, 4], { thickness: 0.2 })],
    zones: [zone('A', box(0, 0, 1.9, 4)), zone('B', box(2.1, 0, 3.9, 4), { temperature: 15 })],
  });
  const [a, b] = zones;
  // From the outer face at -0.4 to the middle at 2, and from there to 6.4.
  expect(surfaceOf(a, 'wall', 'S').area).toBeCloseTo(2.4 * 3.2, 9);
  expect(surfaceOf(b, 'wall', 'S').area).toBeCloseTo(4.4 * 3.2, 9);
  expect(surfaceOf(a, 'wall', 'M').area).toBeCloseTo(4.8 * 3.2, 9);
  const watts = ({ surfaces, temperature }: HeatZone) =>
    surfaces.find(({ elements }) => elements[0] === 'M')!.transmission * (temperature + 10);
  expect(watts(a) + watts(b)).toBeCloseTo(0, 9);
});

test('thermal bridges by their length: roof and floor edges, corners, about a window', () => {
  const bridges = { roof: 0.15, ground: 0.2, corner: 0.05, opening: 0.1, between: 7 };
  const pane = { id: 'O', wall: 'S', kind: 'window', offset: 2, width: 2, height: 1.5, sill: 0.9, construction: 'G1' };
  const parts = { ...shoe(), openings: [pane] };
  const [plain] = heat(parts).zones;
  const [a] = heat({ ...parts, site: { ...site, bridges } }).zones;
  // 20 m about the room above and below, four corners of 2.8 m, 7 m about the window; nothing lies between storeys.
  expect(a.bridges.map(({ kind, length }) => [kind, Number(length.toFixed(9))])).toEqual([
    ['roof', 20],
    ['ground', 20],
    ['corner', 11.2],
    ['opening', 7],
  ]);
  expect(a.transmission - plain.transmission).toBeCloseTo(20 * 0.15 + 20 * 0.2 + 11.2 * 0.05 + 0.7, 9);
  // They are never inside a U-value, and take the place of the flat addition.
  expect(surfaceOf(a, 'wall', 'S').uValue).toBe(surfaceOf(plain, 'wall', 'S').uValue);
  const flat = heat({ ...parts, site: { ...site, thermalBridge: 5, bridges } }).zones[0];
  expect(flat.transmission).toBeCloseTo(a.transmission, 9);
});

test("a wall to a neighbour's building loses by its temperature, behind an adiabatic one nothing is lost", () => {
  const wallsWith = (beyond: string) =>
    (shoe().walls as Part[]).map((one) => (one.id === 'S' ? { ...one, beyond } : one));
  const lossOf = (beyond: string) => {
    const [a] = heat({ ...shoe(), walls: wallsWith(beyond), site: { ...site, neighbourTemperature: 5 } }).zones;
    return surfaceOf(a, 'wall', 'S');
  };
  const plain = surfaceOf(heat(shoe()).zones[0], 'wall', 'S').transmission;
  // 15 of 30 degrees.
  expect(lossOf('neighbour')).toMatchObject({ beyond: 'neighbour', transmission: expect.closeTo(plain / 2, 9) });
  expect(lossOf('adiabatic').transmission).toBe(0);
});

test('a zone that others heat keeps its warmth, and is not counted', () => {
  const parts = shoe();
  const two = (more: Part) =>
    heat({
      ...parts,
      walls: [...(parts.walls as Part[]), wall('M', [3, 0], [3, 4], { thickness: 0.2 })],
      zones: [zone('A', box(0, 0, 2.9, 4)), zone('B', box(3.1, 0, 2.9, 4), { temperature: 12, ...more })],
    });
  const { zones, building } = two({ neighbour: true });
  expect([zones[1].temperature, zones[1].designLoad, zones[1].months]).toEqual([12, 0, []]);
  expect(building.designLoad).toBeCloseTo(zones[0].designLoad, 9);
  expect(zones[0].designLoad).toBeCloseTo(two({}).zones[0].designLoad, 9);
});

/** The shoe box under a roof that rises from the south by 45 degrees, its underside 2 m above the floor at y = 0. */
const pent = () => {
  const z = (y: number) => 12 + y;
  const corners: Point[] = box(-1, -1, 8, 6);
  const roof = { id: 'R', level: 'L1', outline: corners.map(([x, y]) => [x, y, z(y)]), slope: 45, direction: 90 };
  return {
    ...shoe(),
    slabs: [(shoe().slabs as Part[])[0]],
    roofs: [{ ...roof, thickness: 0.3 }],
    zones: [zone('A', box(0, 0, 6, 4), { roofs: ['R'], clearHeight: 4 })],
  };
};

test('under a sloped roof: walls as high as it leaves them, gables, and a surface that looks down the slope', () => {
  const { zones, findings } = heat(pent());
  expect(findings.map(({ rule }) => rule)).toEqual(['no construction']);
  const [a] = zones;
  // Heights 2 m at the south, 6 m at the north, between them 4 m on average.
  expect(['S', 'E', 'N', 'W'].map((id) => surfaceOf(a, 'wall', id).area)).toEqual(
    [12, 16, 36, 16].map((value) => expect.closeTo(value, 6)),
  );
  const roof = surfaceOf(a, 'roof', 'R');
  expect([roof.area, roof.tilt, roof.orientation]).toEqual(
    [24 * Math.SQRT2, 45, 180].map((value) => expect.closeTo(value, 6)),
  );
  expect(a.volume).toBeCloseTo(24 * 4, 6);
  // Areas times normals add up to nothing: walls to north and south differ by what the roof looks south.
  expect(36 - 12).toBeCloseTo(roof.area * Math.sin(Math.PI / 4), 6);
});

test('a roof of two planes with a ridge: a gable is a triangle on a wall', () => {
  const parts = pent();
  const plane = (id: string, outline: Point[], z: (y: number) => number) => ({
    id,
    level: 'L1',
    outline: outline.map(([x, y]) => [x, y, z(y)]),
    slope: 45,
    direction: 90,
    thickness: 0.3,
  });
  const { zones, findings } = heat({
    ...parts,
    roofs: [plane('R', box(-1, -1, 8, 3), (y) => 12 + y), plane('T', box(-1, 2, 8, 3), (y) => 16 - y)],
    zones: [zone('A', box(0, 0, 6, 4), { roofs: ['R', 'T'], clearHeight: 3 })],
  });
  expect(findings.filter(({ rule }) => rule === 'does not close')).toEqual([]);
  const [a] = zones;
  // 2 m at the eaves and a gable of 2 m over 4 m.
  expect(['S', 'E', 'N'].map((id) => surfaceOf(a, 'wall', id).area)).toEqual(
    [12, 8 + 4, 12].map((value) => expect.closeTo(value, 6)),
  );
  expect([surfaceOf(a, 'roof', 'R').orientation, surfaceOf(a, 'roof', 'T').orientation]).toEqual(
    [180, 0].map((value) => expect.closeTo(value, 6)),
  );
  expect(a.volume).toBeCloseTo(24 * 3, 6);
});

test('a step between two roof planes is an upright surface that looks the way the lower one lies', () => {
  const level = (id: string, outline: Point[], z: number, slope = 0): Part => ({
    id,
    level: 'L1',
    outline: outline.map(([x, y]) => [x, y, z + slope * (y - 2)]),
    slope: 0,
    direction: 90,
    thickness: 0.3,
  });
  const under = (roofs: Part[]) =>
    heat({ ...pent(), roofs, zones: [zone('A', box(0, 0, 6, 4), { roofs: ['R', 'T'], clearHeight: 3 })] });
  // To the south 3 m above the floor, to the north 4.5 m: 6 m of a step of 1.5 m that looks south.
  const { zones, findings } = under([level('R', box(-1, -1, 8, 3), 13), level('T', box(-1, 2, 8, 3), 14.5)]);
  expect(findings.filter(({ rule }) => rule === 'does not close')).toEqual([]);
  const steps = ({ surfaces }: HeatZone) => surfaces.filter(({ kind, tilt }) => kind === 'roof' && tilt === 90);
  expect(steps(zones[0]).map(({ area, orientation, elements }) => [area, orientation, elements[0]])).toEqual([
    [expect.closeTo(9, 6), expect.closeTo(180, 6), 'T'],
  ]);
  expect(zones[0].volume).toBeCloseTo(12 * 3 + 12 * 4.5, 6);
  // Planes that cross along their border: half of it looks one way, half the other.
  const west = {
    ...level('R', [], 0),
    outline: [
      [-1, -1, 11],
      [3, -1, 11],
      [3, 5, 17],
      [-1, 5, 17],
    ],
  };
  const east = {
    ...level('T', [], 0),
    outline: [
      [3, -1, 14],
      [7, -1, 14],
      [7, 5, 14],
      [3, 5, 14],
    ],
  };
  const crossed = under([west, east]);
  expect(crossed.findings.filter(({ rule }) => rule === 'does not close')).toEqual([]);
  // From y = 0 at 12 m to y = 4 at 16 m beside 14 m: twice half of 2 by 2 m.
  expect(
    steps(crossed.zones[0])
      .map(({ area, orientation, elements }) => [area, orientation, elements[0]])
      .sort((a, b) => Number(a[1]) - Number(b[1])),
  ).toEqual([
    [expect.closeTo(2, 6), expect.closeTo(90, 6), 'R'],
    [expect.closeTo(2, 6), expect.closeTo(270, 6), 'T'],
  ]);
});

test('what goes between two rooms held all the year goes in summer too, and cancels', () => {
  const parts = shoe();
  const { zones } = heat({
    ...parts,
    walls: [...(parts.walls as Part[]), wall('M', [3, 0], [3, 4], { thickness: 0.2 })],
    zones: [zone('A', box(0, 0, 2.9, 4), { gains: 0 }), zone('B', box(3.1, 0, 2.9, 4), { gains: 0, temperature: 15 })],
  });
  const [a, b] = zones;
  const between = a.surfaces.find(({ elements }) => elements[0] === 'M')!.transmission * 30;
  const out = (one: HeatZone) =>
    one.ventilation +
    one.surfaces.reduce((sum, { beyond, net, uValue }) => (beyond === 'outside' ? sum + net * uValue : sum), 0);
  // January has 744 hours and a mean of 1.5 degrees, July 17.1.
  expect(a.months[0].losses).toBeCloseTo((out(a) * 18.5 + between) * 0.744, 6);
  expect(a.months[6].losses).toBeCloseTo((out(a) * 2.9 + between) * 0.744, 6);
  expect(b.months[0].losses).toBeCloseTo((out(b) * 13.5 - between) * 0.744, 6);
});

test('a room that holds its heat for ever uses what it loses, and nothing is not a number', () => {
  expect(useOfGains(1.2, 1e9)).toBeCloseTo(1 / 1.2, 9);
  expect(useOfGains(0.5, 1e9)).toBe(1);
});

test('months of a place of its own: losses by its air, gains by its sun', () => {
  const pane = { id: 'O', wall: 'S', kind: 'window', offset: 2, width: 2, height: 1.5, sill: 0.9, construction: 'G1' };
  const air = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11];
  const south = Array(12).fill(100);
  const own = { ...shoe(), openings: [pane], site: { ...site, climate: { air, south } } };
  const { zones, assumed } = heat(own);
  const [a] = zones;
  expect(a.months[3].losses).toBeCloseTo((a.transmission + a.ventilation) * 17 * 0.72, 6);
  // 3 W/m2 of 24 m2, and 3 m2 of a pane of 0.5 to the south: aslant 0.9, without its frame 0.7.
  expect(a.months[0].gains).toBeCloseTo((72 + 100 * 3 * 0.5 * 0.9 * 0.7) * 0.744, 6);
  expect(assumed.some((sentence) => /invented place/.test(sentence))).toBe(false);
  // A row that is no year counts as not said.
  const short = heat({ ...own, site: { ...site, climate: { air: [1, 2] } } }).zones[0];
  expect(short.months[0].losses).toBeCloseTo((a.transmission + a.ventilation) * 18.5 * 0.744, 6);
});

test('ground that rises along a wall: what of it is buried counts as ground, the rest as outside', () => {
  // Along the south wall the ground lies 1.4 m up from x = 2.5 on, where grass rises; elsewhere below the floor.
  const rising = { id: 'G', level: 'L1', name: 'Bank', outline: box(2.5, -6, 9, 5.4), height: 1.4, use: 'grass' };
  const parts = {
    ...shoe(),
    levels: [{ ...(shoe().levels as Part[])[0], kind: 'ground' }, (shoe().levels as Part[])[1]],
  };
  const [flat] = heat({ ...parts, outdoor: [] }).zones;
  const [a] = heat({ ...parts, outdoor: [rising] }).zones;
  const south = a.surfaces.filter(({ kind, elements }) => kind === 'wall' && elements[0] === 'S');
  const of = (beyond: string) => south.filter((one) => one.beyond === beyond).reduce((sum, { area }) => sum + area, 0);
  expect([of('ground'), of('outside')]).toEqual(
    [3.5 * 1.4, 6 * 2.8 - 3.5 * 1.4].map((value) => expect.closeTo(value, 6)),
  );
  expect(south.find(({ beyond }) => beyond === 'ground')!.depth).toBeCloseTo(1.4, 9);
  expect(a.surfaces.filter(({ elements }) => elements[0] === 'N')).toHaveLength(1);
  expect(a.transmission).toBeLessThan(flat.transmission);
  // A fence is no ground.
  const fence = heat({ ...parts, outdoor: [{ ...rising, use: 'fence' }] }).zones[0];
  expect(fence.transmission).toBeCloseTo(flat.transmission, 9);
});

test('ground that rises evenly between contours buries as much of a wall as the plane through them does', () => {
  // From 7 m at x = -10 to 16 m at x = 20, 0.3 m a metre: along the south wall from 0 to 1.8 m above the floor at 10.
  const across = (x: number, elevation: number): Part => ({
    id: `C${x}`,
    points: [
      [x, -20],
      [x, 20],
    ],
    elevation,
  });
  const parts = {
    ...shoe(),
    levels: [{ ...(shoe().levels as Part[])[0], kind: 'ground' }, (shoe().levels as Part[])[1]],
    terrain: [across(-10, 7), across(20, 16), { id: 'P', points: [[5, 0]], elevation: 11.5 }],
  };
  const [a] = heat(parts).zones;
  const buried = (element: string): number =>
    a.surfaces
      .filter(({ kind, elements, beyond }) => kind === 'wall' && elements[0] === element && beyond === 'ground')
      .reduce((sum, { area }) => sum + area, 0);
  // Half of 6 by 1.8 m; the ground before the east wall, 0.9 m from the room, at 0.3 times 6.9; none before the west.
  expect(['S', 'N', 'E', 'W'].map(buried)).toEqual([5.4, 5.4, 4 * 2.07, 0].map((value) => expect.closeTo(value, 6)));
  // Steps of at most a quarter of a metre, each as deep as the ground in its middle.
  const depths = a.surfaces.filter(({ elements, beyond }) => elements[0] === 'S' && beyond === 'ground');
  expect(Math.max(...depths.map(({ depth }) => depth ?? 0))).toBeLessThan(1.8);
  expect(depths.length).toBeGreaterThanOrEqual(8);
  // Outside of what was measured the ground is that of its level.
  const far = heat({ ...parts, terrain: [across(50, 16), across(60, 18)] }).zones[0];
  expect(far.surfaces.some(({ kind, beyond }) => kind === 'wall' && beyond === 'ground')).toBe(false);
});

test('openings lie in the unfolded sides where they lie in the wall', () => {
  const pane = { id: 'O', wall: 'S', kind: 'window', offset: 2, width: 2, height: 1.5, sill: 0.9, construction: 'G1' };
  const [shown] = heatView(heat({ ...shoe(), openings: [pane] })).zones;
  const [cut] = shown.cuts;
  // The wall starts at -0.2: the middle lies 2.8 m from the room's corner, 0.9 m and half of 1.5 m up.
  const side = shown.sides[cut.side];
  const along = side.from[0] < side.to[0] ? cut.along : 6 - cut.along;
  expect([along, cut.up, cut.width, cut.height]).toEqual([2.8, 1.65, 2, 1.5].map((value) => expect.closeTo(value, 9)));
  expect(shown.surfaces[side.surface].elements).toEqual(['S']);
});

test('a corner that stands partly in the ground is a thermal bridge above it only', () => {
  const bridges = { roof: 0, ground: 0, corner: 0.1, opening: 0, between: 0 };
  const [own, over] = shoe().levels as Part[];
  const levels = [
    { ...own, elevation: 10 },
    over,
    { id: 'G', name: 'Ground', elevation: 11, height: 2, kind: 'ground' },
  ];
  const [a] = heat({ ...shoe(), levels, site: { ...site, bridges } }).zones;
  // The ground lies 1 m above the floor of a room of 2.8 m; it has four corners.
  expect(a.bridges.find(({ kind }) => kind === 'corner')!.length).toBeCloseTo(4 * 1.8, 9);
});
