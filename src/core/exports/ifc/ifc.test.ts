import { modelWith } from '@/core/handover/testing/modelWith';
import fc from 'fast-check';

import { globalId } from './globalId';
import { readStep, type StepEntity, type StepValue } from './readStep';
import { realText, stringText } from './step';
import { writeIfc } from './writeIfc';

type Part = Record<string, unknown>;
type V3 = [number, number, number];

/** How many attributes each entity has in ISO 16739-1:2018, inherited ones included; counted in the standard. */
const attributes: Record<string, number> = {
  IFCARBITRARYCLOSEDPROFILEDEF: 3,
  IFCARBITRARYPROFILEDEFWITHVOIDS: 4,
  IFCAXIS2PLACEMENT2D: 2,
  IFCAXIS2PLACEMENT3D: 3,
  IFCBEAM: 9,
  IFCBEAMTYPE: 10,
  IFCBUILDING: 12,
  IFCBUILDINGSTOREY: 10,
  IFCCARTESIANPOINT: 1,
  IFCCIRCLE: 2,
  IFCCIRCLEPROFILEDEF: 4,
  IFCCIRCLEHOLLOWPROFILEDEF: 5,
  IFCCOLUMN: 9,
  IFCCOLUMNTYPE: 10,
  IFCDERIVEDUNIT: 3,
  IFCDERIVEDUNITELEMENT: 2,
  IFCDIRECTION: 1,
  IFCDOOR: 13,
  IFCDOORTYPE: 13,
  IFCELEMENTQUANTITY: 6,
  IFCEXTRUDEDAREASOLID: 4,
  IFCGEOGRAPHICELEMENT: 9,
  IFCGEOMETRICCURVESET: 1,
  IFCGEOMETRICREPRESENTATIONCONTEXT: 6,
  IFCGEOMETRICREPRESENTATIONSUBCONTEXT: 10,
  IFCGRID: 11,
  IFCGRIDAXIS: 3,
  IFCLIGHTFIXTURE: 9,
  IFCLIGHTFIXTURETYPE: 10,
  IFCLOCALPLACEMENT: 2,
  IFCMAPCONVERSION: 8,
  IFCMATERIAL: 3,
  IFCMATERIALLAYER: 7,
  IFCMATERIALLAYERSET: 3,
  IFCMATERIALLAYERSETUSAGE: 5,
  IFCMATERIALPROFILE: 6,
  IFCMATERIALPROFILESET: 4,
  IFCMATERIALPROFILESETUSAGE: 3,
  IFCMEMBER: 9,
  IFCMEMBERTYPE: 10,
  IFCOPENINGELEMENT: 9,
  IFCPOLYLINE: 1,
  IFCPRODUCTDEFINITIONSHAPE: 3,
  IFCPROJECT: 9,
  IFCPROJECTEDCRS: 7,
  IFCPROPERTYSET: 5,
  IFCPROPERTYSINGLEVALUE: 4,
  IFCQUANTITYAREA: 5,
  IFCQUANTITYLENGTH: 5,
  IFCQUANTITYVOLUME: 5,
  IFCRECTANGLEHOLLOWPROFILEDEF: 8,
  IFCRECTANGLEPROFILEDEF: 5,
  IFCRELAGGREGATES: 6,
  IFCRELASSOCIATESMATERIAL: 6,
  IFCRELCONTAINEDINSPATIALSTRUCTURE: 6,
  IFCRELDEFINESBYPROPERTIES: 6,
  IFCRELDEFINESBYTYPE: 6,
  IFCRELFILLSELEMENT: 6,
  IFCRELVOIDSELEMENT: 6,
  IFCSHAPEREPRESENTATION: 4,
  IFCSITE: 14,
  IFCSIUNIT: 4,
  IFCSLAB: 9,
  IFCSLABTYPE: 10,
  IFCSPACE: 11,
  IFCTRIMMEDCURVE: 5,
  IFCUNITASSIGNMENT: 1,
  IFCTRIANGULATEDFACESET: 5,
  IFCCARTESIANPOINTLIST3D: 1,
  IFCBOUNDARYNODECONDITION: 7,
  IFCCONNECTIONSURFACEGEOMETRY: 2,
  IFCCURVEBOUNDEDPLANE: 3,
  IFCRELSPACEBOUNDARY2NDLEVEL: 11,
  IFCCONNECTIONPOINTECCENTRICITY: 5,
  IFCEDGE: 2,
  IFCFACEOUTERBOUND: 2,
  IFCFACESURFACE: 3,
  IFCPLANE: 1,
  IFCPOLYLOOP: 1,
  IFCRELASSIGNSTOGROUP: 7,
  IFCRELASSIGNSTOGROUPBYFACTOR: 8,
  IFCRELASSIGNSTOPRODUCT: 7,
  IFCRELCONNECTSSTRUCTURALACTIVITY: 6,
  IFCRELCONNECTSSTRUCTURALMEMBER: 10,
  IFCRELCONNECTSWITHECCENTRICITY: 11,
  IFCSTRUCTURALANALYSISMODEL: 10,
  IFCSTRUCTURALCURVEACTION: 12,
  IFCSTRUCTURALCURVEMEMBER: 9,
  IFCSTRUCTURALLOADCASE: 11,
  IFCSTRUCTURALLOADCONFIGURATION: 3,
  IFCSTRUCTURALLOADGROUP: 10,
  IFCSTRUCTURALLOADLINEARFORCE: 7,
  IFCSTRUCTURALLOADSINGLEFORCE: 7,
  IFCSTRUCTURALPOINTACTION: 10,
  IFCSTRUCTURALPOINTCONNECTION: 9,
  IFCSTRUCTURALSURFACEMEMBER: 9,
  IFCTOPOLOGYREPRESENTATION: 4,
  IFCVERTEXPOINT: 1,
  IFCWALL: 9,
  IFCWALLTYPE: 10,
  IFCWINDOW: 13,
  IFCWINDOWTYPE: 13,
};

function opened(text: string): Map<number, StepEntity> {
  const read = readStep(text);
  if (!read.ok) throw new Error(read.message);
  return read.value;
}
const about = { name: 'Fulmar Store', time: '2026-11-27T12:00:00' };
const rectangle = { shape: 'rectangle', width: 0.4, depth: 0.6 };

/** One of everything, the storey at 3 m. */
const parts: Part = {
  levels: [
    { id: 'L0', name: 'Ground', elevation: 0, height: 3, kind: 'ground' },
    { id: 'L1', name: 'Upper', elevation: 3, height: 3 },
  ],
  terrain: [
    {
      id: 't1',
      points: [
        [-5, -5],
        [20, -5],
      ],
      elevation: 1,
    },
    { id: 't2', points: [[7, 20]], elevation: 2.5 },
  ],
  survey: { easting: 500_000, northing: 6_000_000, elevation: 12, north: 30, system: 'Marram Grid 2010' },
  materials: [{ id: 'C', name: 'Concrete C30', kind: 'concrete' }],
  constructions: [
    {
      id: 'W',
      name: 'Outer wall',
      kind: 'wall',
      thickness: 0.4,
      uValue: 0.3,
      layers: [
        { name: 'Wool', thickness: 0.16, conductivity: 0.035 },
        { name: 'Bricks', thickness: 0.24, conductivity: 0.8 },
      ],
    },
  ],
  grids: [
    { id: 'g1', label: '1', kind: 'line', start: [0, -1], end: [0, 9] },
    { id: 'g2', label: '2', kind: 'line', start: [6, -1], end: [6, 9] },
    { id: 'gA', label: 'A', kind: 'line', start: [-1, 0], end: [9, 0] },
    { id: 'gR', label: 'R', kind: 'arc', centre: [0, 0], radius: 5, startAngle: 0, endAngle: 90 },
  ],
  columns: [{ id: 'c1', level: 'L1', position: [2, 1], rotation: 90, section: rectangle, mark: 'C1', material: 'C' }],
  beams: [
    {
      id: 'b1',
      level: 'L1',
      start: [0, 0, 6],
      end: [0, 5, 6],
      section: { shape: 'rectangle', width: 0.3, depth: 0.5 },
    },
    {
      id: 'b2',
      level: 'L1',
      start: [0, 0, 3],
      end: [3, 0, 6],
      section: { shape: 'circle', diameter: 0.2 },
      use: 'brace',
    },
  ].map((one) => ({ mark: '', ...one })),
  walls: [
    { id: 'w1', level: 'L1', start: [0, 0], end: [6, 0], thickness: 0.4, height: 3, construction: 'W', outer: true },
    { id: 'w2', level: 'L1', start: [6, 0], end: [6, 4], thickness: 0.2, height: 3, bulge: 0.5 },
    {
      id: 'w3',
      level: 'L1',
      start: [0, 4],
      end: [4, 4],
      thickness: 0.2,
      height: 3,
      profile: [
        [0, 5],
        [2, 7],
        [4, 5],
      ],
    },
  ].map((one) => ({ bulge: 0, ...one })),
  openings: [
    { id: 'o1', wall: 'w1', kind: 'window', offset: 1, width: 2, height: 1.2, sill: 0.9 },
    { id: 'o2', wall: 'w1', kind: 'door', offset: 4, width: 1, height: 2.1, sill: 0 },
  ],
  slabs: [
    {
      id: 's1',
      level: 'L1',
      outline: [
        [0, 0],
        [6, 0],
        [6, 4],
        [0, 4],
      ],
      holes: [
        [
          [1, 1],
          [2, 1],
          [2, 2],
          [1, 2],
        ],
      ],
      thickness: 0.25,
    },
  ],
  roofs: [
    {
      id: 'r1',
      level: 'L1',
      outline: [
        [0, 0, 6],
        [6, 0, 6],
        [6, 4, 10],
        [0, 4, 10],
      ],
      slope: 45,
      direction: 90,
      thickness: 0.3,
    },
  ],
  zones: [
    {
      id: 'z1',
      level: 'L1',
      name: 'M\u00f6we \u2018Nord\u2019',
      number: "1'01",
      outline: [
        [0.2, 0.2],
        [5.8, 0.2],
        [5.8, 3.8],
        [0.2, 3.8],
      ],
      height: 3,
      clearHeight: 2.6,
    },
  ],
  outdoor: [
    {
      id: 'y1',
      level: 'L0',
      name: 'Yard',
      outline: [
        [10, 0],
        [20, 0],
        [20, 5],
      ],
      height: 0,
      use: 'road',
    },
  ],
  luminaires: [{ id: 'l1', photometry: 'panel', position: [3, 2, 5.6], rotation: 90 }],
};

class Opened {
  readonly all: Map<number, StepEntity>;
  constructor(text: string) {
    this.all = opened(text);
  }
  of = (type: string): StepEntity[] => [...this.all.values()].filter((one) => one.type === type);
  at(value: StepValue): StepEntity {
    return this.all.get((value as { ref: number }).ref)!;
  }
  /** Of a product of an element. */
  product = (id: string): StepEntity => [...this.all.values()].find(({ attributes: [guid] }) => guid === globalId(id))!;

  private vector = (value: StepValue, plain: V3): V3 =>
    value === null ? plain : ((this.at(value).attributes[0] as readonly number[]).slice() as V3);

  /** A place as its origin and its axes x, y and z in the project. */
  private axesOf(value: StepValue): { origin: V3; axes: [V3, V3, V3] } {
    const [location, axis, along] = this.at(value).attributes;
    const [z, x] = [this.vector(axis, [0, 0, 1]), this.vector(along, [1, 0, 0])];
    const y: V3 = [z[1] * x[2] - z[2] * x[1], z[2] * x[0] - z[0] * x[2], z[0] * x[1] - z[1] * x[0]];
    return { origin: this.vector(location, [0, 0, 0]), axes: [x, y, z] };
  }

  /** A point in a placement, in the project. */
  inProject(placement: StepValue, p: V3): V3 {
    if (placement === null) return p;
    const [within, relative] = this.at(placement).attributes;
    return this.inProject(within, this.inPlace(relative, p));
  }
  inPlace(place: StepValue, p: V3): V3 {
    const { origin, axes } = this.axesOf(place);
    return [0, 1, 2].map((i) => origin[i] + axes.reduce((sum, axis, k) => sum + axis[i] * p[k], 0)) as V3;
  }

  /** The corners of a product's body: the profile at both ends of its extrusion. */
  corners({ attributes: all }: StepEntity): V3[] {
    const representations = this.at(all[6]).attributes[2] as readonly StepValue[];
    const body = representations.map((one) => this.at(one)).find(({ attributes: own }) => own[1] === 'Body')!;
    const solid = this.at((body.attributes[3] as readonly StepValue[])[0]);
    const [profile, place, , depth] = solid.attributes;
    return this.outline(this.at(profile)).flatMap((p) =>
      [0, depth as number].map((z) => this.inProject(all[5], this.inPlace(place, [p[0], p[1], z]))),
    );
  }

  private outline({ type, attributes: own }: StepEntity): [number, number][] {
    if (type === 'IFCRECTANGLEPROFILEDEF') {
      const [w, d] = [own[3] as number, own[4] as number];
      return [
        [-w / 2, -d / 2],
        [w / 2, -d / 2],
        [w / 2, d / 2],
        [-w / 2, d / 2],
      ];
    }
    if (type === 'IFCCIRCLEPROFILEDEF') return [[0, 0]];
    return (this.at(own[2]).attributes[0] as readonly StepValue[]).map(
      (point) => this.at(point).attributes[0] as unknown as [number, number],
    );
  }

  /** From where to where a product reaches. */
  box(id: string): [V3, V3] {
    const corners = this.corners(this.product(id));
    const of = (pick: (...values: number[]) => number): V3 =>
      [0, 1, 2].map((i) => Number(pick(...corners.map((p) => p[i])).toFixed(6)) + 0) as V3;
    return [of(Math.min), of(Math.max)];
  }
}

const file = new Opened(writeIfc(modelWith(parts), about));

test('every entity has the attributes of the standard, and what it refers to is there', () => {
  for (const { id, type, attributes: own } of file.all.values()) {
    expect([`#${id}`, type, own.length]).toEqual([`#${id}`, type, attributes[type]]);
    const look = (value: StepValue): void => {
      if (Array.isArray(value)) value.forEach(look);
      else if (value !== null && typeof value === 'object' && 'ref' in value)
        expect(file.all.has(value.ref)).toBe(true);
    };
    own.forEach(look);
  }
  // One of every kind was written.
  const kinds = ['COLUMN', 'BEAM', 'MEMBER', 'WALL', 'DOOR', 'WINDOW', 'SLAB', 'SPACE', 'GEOGRAPHICELEMENT'];
  for (const kind of [...kinds, 'LIGHTFIXTURE', 'GRID']) expect(file.of(`IFC${kind}`).length).toBeGreaterThan(0);
});

test('identifiers are one of a kind, twenty-two signs, and the same at every export', () => {
  const rooted = [...file.all.values()].filter(({ attributes: [guid], type }) => {
    return typeof guid === 'string' && guid.length === 22 && !['IFCMATERIAL', 'IFCGRIDAXIS'].includes(type);
  });
  const ids = rooted.map(({ attributes: [guid] }) => guid);
  expect(new Set(ids).size).toBe(ids.length);
  const again = new Opened(writeIfc(modelWith({ ...parts, columns: [] }), about));
  const kept = [...again.all.values()].map(({ attributes: [guid] }) => guid);
  for (const id of ['w1', 'o1', 's1', 'z1']) expect(kept).toContain(globalId(id));
  // By hand: 128 bits of ones are the sign of three, then twenty-one of sixty-three.
  expect(globalId('ffffffff-ffff-ffff-ffff-ffffffffffff')).toBe(`3${'$'.repeat(21)}`);
  expect(globalId('00000000-0000-0000-0000-000000000041')).toBe(`${'0'.repeat(20)}11`);
});

test('the ground is one surface through what was measured', () => {
  const terrain = file.of('IFCGEOGRAPHICELEMENT').filter(({ attributes }) => attributes[2] === 'Terrain');
  expect(terrain).toHaveLength(1);
  const [faces] = file.of('IFCTRIANGULATEDFACESET');
  const [list] = file.of('IFCCARTESIANPOINTLIST3D');
  const [points] = list.attributes as [number[][]];
  expect([...points].sort((a, b) => a[0] - b[0])).toEqual([
    [-5, -5, 1],
    [7, 20, 2.5],
    [20, -5, 1],
  ]);
  expect((faces.attributes[3] as number[][]).map((own) => [...own].sort())).toEqual([[1, 2, 3]]);
});

test('bodies lie where the model has them', () => {
  // 0.4 by 0.6 turned by 90 degrees about (2, 1), from 3 to 6 m.
  expect(file.box('c1')).toEqual([
    [1.7, 0.8, 3],
    [2.3, 1.2, 6],
  ]);
  // A beam hangs below its line.
  expect(file.box('b1')).toEqual([
    [-0.15, 0, 5.5],
    [0.15, 5, 6],
  ]);
  // A brace lies about its line, from corner to corner.
  expect(file.box('b2')).toEqual([
    [0, 0, 3],
    [3, 0, 6],
  ]);
  expect(file.box('w1')).toEqual([
    [0, -0.2, 3],
    [6, 0.2, 6],
  ]);
  // A gable of 2 m on a wall of 2 m, over its whole thickness.
  expect(file.box('w3')).toEqual([
    [0, 3.9, 3],
    [4, 4.1, 7],
  ]);
  expect(file.box('o1')).toEqual([
    [1, -0.03, 3.9],
    [3, 0.03, 5.1],
  ]);
  expect(file.box('s1')).toEqual([
    [0, 0, 2.75],
    [6, 4, 3],
  ]);
  expect(file.box('z1')).toEqual([
    [0.2, 0.2, 3],
    [5.8, 3.8, 5.6],
  ]);
  // The roof's underside from (0, 0, 6) to (6, 4, 10), 0.3 m thick square to it.
  const t = Number((0.3 * Math.SQRT1_2).toFixed(6));
  expect(file.box('r1')).toEqual([
    [0, -t, 6],
    [6, 4, 10 + t],
  ]);
  // The bent wall bulges to the right of its way by a quarter of its chord, 4 m, and half its thickness.
  const [low, high] = file.box('w2');
  expect(Math.max(Math.abs(high[0] - 6), Math.abs(low[0] - 6))).toBeCloseTo(1 + 0.1, 2);
});

test('doors and windows fill what is cut out of their wall', () => {
  const voids = file.of('IFCRELVOIDSELEMENT');
  const fills = file.of('IFCRELFILLSELEMENT');
  expect([voids.length, fills.length]).toEqual([2, 2]);
  for (const { attributes: own } of fills) {
    const hole = own[4] as { ref: number };
    expect(voids.some(({ attributes: of }) => (of[5] as { ref: number }).ref === hole.ref)).toBe(true);
  }
  const [, , , , , , , , height, width] = file.product('o2').attributes;
  expect([height, width]).toEqual([2.1, 1]);
});

test('every product lies in one storey, spaces are parts of theirs, the survey turns the map', () => {
  const contained = file
    .of('IFCRELCONTAINEDINSPATIALSTRUCTURE')
    .flatMap(({ attributes: own }) => own[4] as StepValue[]);
  const numbers = contained.map((value) => (value as { ref: number }).ref);
  expect(new Set(numbers).size).toBe(numbers.length);
  for (const id of ['c1', 'b1', 'b2', 'w1', 'w2', 'w3', 'o1', 'o2', 's1', 'r1', 'y1', 'l1'])
    expect(numbers).toContain(file.product(id).id);
  const [upper] = file.of('IFCBUILDINGSTOREY').filter(({ attributes: own }) => own[2] === 'Upper');
  expect(upper.attributes[9]).toBe(3);
  const parts_ = file
    .of('IFCRELAGGREGATES')
    .find(({ attributes: own }) => (own[4] as { ref: number }).ref === upper.id)!;
  expect(parts_.attributes[5]).toEqual([{ ref: file.product('z1').id }]);
  const [map] = file.of('IFCMAPCONVERSION');
  expect(file.at(map.attributes[1]).attributes[0]).toBe('Marram Grid 2010');
  expect(map.attributes.slice(2)).toEqual(
    [500_000, 6_000_000, 12, Math.cos(Math.PI / 6), 0.5, 1].map((value) => expect.closeTo(value, 7)),
  );
});

test('quantities, layers and properties are those of the model', () => {
  const quantities = (id: string) => {
    const product = file.product(id).id;
    const sets = file
      .of('IFCRELDEFINESBYPROPERTIES')
      .filter(({ attributes: own }) => (own[4] as { ref: number }[]).some(({ ref }) => ref === product));
    return Object.fromEntries(
      sets.flatMap(({ attributes: own }) => {
        const set = file.at(own[5]);
        if (set.type !== 'IFCELEMENTQUANTITY') return [];
        return (set.attributes[5] as StepValue[]).map((one) => {
          const { attributes: of } = file.at(one);
          return [of[0], of[3]];
        });
      }),
    );
  };
  // 6 by 3 m with a window of 2.4 and a door of 2.1 m2.
  expect(quantities('w1')).toMatchObject({ GrossSideArea: 18, NetSideArea: 13.5, NetVolume: 5.4, Length: 6 });
  expect(quantities('c1')).toMatchObject({ Length: 3, CrossSectionArea: 0.24, NetVolume: 0.72 });
  expect(quantities('s1')).toMatchObject({ GrossArea: 24, NetArea: 23, NetVolume: 5.75 });
  // A gable: 4 m by 2 m and a triangle of 2 m over it.
  expect(quantities('w3')).toMatchObject({ GrossSideArea: 12, GrossVolume: expect.closeTo(2.4, 9) });
  expect(quantities('z1')).toMatchObject({ NetFloorArea: expect.closeTo(20.16, 9), Height: expect.closeTo(2.6, 9) });
  const layers = file.of('IFCMATERIALLAYER').map(({ attributes: own }) => [own[3], own[1]]);
  expect(layers).toContainEqual(['Wool', 0.16]);
  expect(file.of('IFCMATERIAL').map(({ attributes: [name] }) => name)).toContain('Concrete C30');
});

test('names come back as they were, whatever their letters', () => {
  const space = file.product('z1');
  expect([space.attributes[2], space.attributes[7]]).toEqual(["1'01", 'M\u00f6we \u2018Nord\u2019']);
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (name) => {
      const plain = name.replace(/[\u0000-\u001f\u007f]+/g, ' ');
      const read = readStep(
        `ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\n#1=A(${stringText(name)});\nENDSEC;\nEND-ISO-10303-21;\n`,
      );
      expect(read.ok && read.value.get(1)!.attributes[0]).toBe(plain);
    }),
  );
});

test('numbers always have a point, and what is none is never written', () => {
  expect([1, -0, 0.00001, 1e-9, 1e21, -2.5, 1e-7].map(realText)).toEqual([
    '1.',
    '0.',
    '0.00001',
    '0.',
    '1.E21',
    '-2.5',
    '1.E-7',
  ]);
  expect(() => realText(NaN)).toThrow(/no number/);
});

test('a file that is none, cut or spoilt is told in a sentence', () => {
  const text = writeIfc(modelWith(parts), about);
  const told = (of: string) => {
    const read = readStep(of);
    return read.ok ? '' : read.message;
  };
  expect(told('hello')).toMatch(/no STEP file/);
  expect(told(text.slice(0, text.length / 2))).toMatch(/it is cut/);
  expect(told(text.replace('#5=', '#4='))).toMatch(/#4 is there twice/);
  expect(told(text.replace('#5=IFC', '#5 IFC'))).toMatch(/"=" was expected/);
});

test('an empty model is a project with nothing in it', () => {
  const empty = new Opened(writeIfc(modelWith({}), about));
  expect(empty.of('IFCPROJECT')).toHaveLength(1);
  expect(empty.of('IFCRELCONTAINEDINSPATIALSTRUCTURE')).toHaveLength(0);
});

/** The corners of the outline of a boundary, in the world. */
function cornersOf(own: Opened, { attributes: one }: StepEntity): number[][] {
  const plane = own.at(own.at(one[6]).attributes[0]);
  const place = own.at(plane.attributes[0]).attributes[0];
  return (own.at(plane.attributes[1]).attributes[0] as readonly StepValue[]).slice(0, -1).map((point) => {
    const [x, y] = own.at(point).attributes[0] as unknown as [number, number];
    return own.inPlace(place, [x, y, 0]).map((value) => Number(value.toFixed(6)) + 0);
  });
}

const sorted = (points: number[][]) => points.map((p) => p.join(' ')).sort();

describe('the boundaries of spaces', () => {
  const box = (x: number, w: number): number[][] => [
    [x, 0],
    [x + w, 0],
    [x + w, 4],
    [x, 4],
  ];
  const wall = (id: string, start: number[], end: number[], thickness = 0.2): Part => ({
    id,
    level: 'L0',
    start,
    end,
    thickness,
    height: 3,
  });
  const slab = (id: string, level: string): Part => ({
    id,
    level,
    outline: [
      [-0.2, -0.2],
      [8.3, -0.2],
      [8.3, 4.2],
      [-0.2, 4.2],
    ],
    thickness: 0.2,
  });
  // Two rooms of 4 by 4 m beside one another, 0.1 m of wall between them; a window to the south of the first.
  const two = modelWith({
    levels: [
      { id: 'L0', name: 'Ground', elevation: 0, height: 3, kind: 'ground' },
      { id: 'L1', name: 'Roof', elevation: 3, height: 3 },
    ],
    walls: [
      wall('s', [-0.1, -0.1], [8.2, -0.1]),
      wall('e', [8.2, -0.1], [8.2, 4.1]),
      wall('n', [8.2, 4.1], [-0.1, 4.1]),
      wall('w', [-0.1, 4.1], [-0.1, -0.1]),
      wall('m', [4.05, 0], [4.05, 4], 0.1),
    ],
    openings: [{ id: 'o', wall: 's', kind: 'window', offset: 1.1, width: 2, height: 1.2, sill: 0.9 }],
    slabs: [slab('under', 'L0'), slab('over', 'L1')],
    zones: [
      { id: 'A', level: 'L0', name: 'A', outline: box(0, 4), height: 3 },
      { id: 'B', level: 'L0', name: 'B', outline: box(4.1, 4), height: 3 },
    ],
  });
  const own = new Opened(writeIfc(two, about));
  const all = own.of('IFCRELSPACEBOUNDARY2NDLEVEL');
  const of = (space: string, element: string) =>
    all.filter(
      ({ attributes: [, , , , room, product] }) =>
        own.at(room).id === own.product(space).id && own.at(product).id === own.product(element).id,
    );

  test('each names its space, its element and what is beyond; two spaces name one another', () => {
    const words = (space: string, element: string) => of(space, element).map(({ attributes: one }) => one[8]);
    expect(words('A', 'w')).toEqual([{ word: 'EXTERNAL' }]);
    expect(words('A', 'under')).toEqual([{ word: 'EXTERNAL_EARTH' }]);
    expect(words('A', 'm')).toEqual([{ word: 'INTERNAL' }]);
    const [[here], [there]] = [of('A', 'm'), of('B', 'm')];
    expect([here.attributes[10], there.attributes[10]]).toEqual([{ ref: there.id }, { ref: here.id }]);
    expect(of('A', 's').every(({ attributes: one }) => one[10] === null)).toBe(true);
    // The window hangs in the boundary of its wall.
    const [[window], [south]] = [of('A', 'o'), of('A', 's')];
    expect(window.attributes[9]).toEqual({ ref: south.id });
  });

  test('each lies where the room ends, as large as it is there', () => {
    const corners = (space: string, element: string) => cornersOf(own, of(space, element)[0]);
    // Up to the underside of the slab, 2.8 m.
    expect(sorted(corners('A', 'm'))).toEqual(['4 0 0', '4 0 2.8', '4 4 0', '4 4 2.8']);
    expect(sorted(corners('B', 'm'))).toEqual(['4.1 0 0', '4.1 0 2.8', '4.1 4 0', '4.1 4 2.8']);
    expect(sorted(corners('A', 'o'))).toEqual(['1 0 0.9', '1 0 2.1', '3 0 0.9', '3 0 2.1']);
    expect(sorted(corners('A', 'under'))).toEqual(['0 0 0', '0 4 0', '4 0 0', '4 4 0']);
  });

  test('under a slope walls end along it, and the roof lies in its plane', () => {
    // The roof rises from 2.5 m at x = 0 to 4.5 m at x = 4, its underside; it reaches a little beyond the walls.
    const at = (x: number, y: number): number[] => [x, y, 2.5 + x / 2];
    const loft = modelWith({
      levels: [{ id: 'L0', name: 'Ground', elevation: 0, height: 3, kind: 'ground' }],
      walls: [
        wall('s', [-0.1, -0.1], [4.1, -0.1]),
        wall('e', [4.1, -0.1], [4.1, 4.1]),
        wall('n', [4.1, 4.1], [-0.1, 4.1]),
        wall('w', [-0.1, 4.1], [-0.1, -0.1]),
      ],
      slabs: [slab('under', 'L0')],
      roofs: [
        {
          id: 'r',
          level: 'L0',
          outline: [at(-0.3, -0.3), at(4.3, -0.3), at(4.3, 4.3), at(-0.3, 4.3)],
          thickness: 0.2,
          slope: 26.565,
          direction: 180,
        },
      ],
      zones: [{ id: 'A', level: 'L0', name: 'A', outline: box(0, 4), height: 3, roofs: ['r'] }],
    });
    const file = new Opened(writeIfc(loft, about));
    const corners = (element: string) => {
      const found = file
        .of('IFCRELSPACEBOUNDARY2NDLEVEL')
        .find(({ attributes }) => file.at(attributes[5]).id === file.product(element).id)!;
      return sorted(cornersOf(file, found));
    };
    expect(corners('r')).toEqual(['0 0 2.5', '0 4 2.5', '4 0 4.5', '4 4 4.5']);
    expect(corners('s')).toEqual(['0 0 0', '0 0 2.5', '4 0 0', '4 0 4.5']);
    expect(corners('e')).toEqual(['4 0 0', '4 0 4.5', '4 4 0', '4 4 4.5']);
  });
});

describe('the structural analysis model', () => {
  const section = { shape: 'rectangle', width: 0.3, depth: 0.5 };
  const post = (id: string, x: number): Part => ({ id, level: 'L', position: [x, 0], section, base: 0, top: 3 });
  const portal = modelWith({
    levels: [{ id: 'L', name: 'Ground', elevation: 0, height: 3 }],
    columns: [post('c1', 0), post('c2', 6)],
    beams: [{ id: 'b1', level: 'L', start: [0, 0, 3], end: [6, 0, 3], section, releases: { start: ['ry'], end: [] } }],
    supports: [
      { id: 'p1', position: [0, 0, 0], fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'] },
      { id: 'p2', position: [6, 0, 0], fixed: ['x', 'y', 'z'] },
    ],
    loadCases: [
      { id: 'G', name: 'Permanent', selfWeight: 0 },
      { id: 'Q', name: 'Imposed', selfWeight: 0 },
    ],
    combinations: [{ id: 'U', factors: { G: 1.35, Q: 1.5 } }],
    loads: [
      { case: 'Q', kind: 'member', element: 'b1', q: [0, 0, -10000] },
      { case: 'G', kind: 'point', position: [3, 0, 3], force: [0, 0, -5000] },
    ],
  });
  const own = new Opened(writeIfc(portal, about));
  const held = (ref: StepValue) =>
    ref === null
      ? []
      : own
          .at(ref)
          .attributes.slice(1)
          .map((one) => JSON.stringify(one));

  test('nodes hold what is fixed, members let go what is released', () => {
    const nodes = own.of('IFCSTRUCTURALPOINTCONNECTION');
    expect(nodes).toHaveLength(4);
    const supports = nodes.map(({ attributes: all }) => held(all[7])).filter((all) => all.length > 0);
    const count = (all: string[]) => all.filter((one) => /"word":"T"/.test(one)).length;
    expect(supports.map(count).sort()).toEqual([3, 6]);
    expect(own.of('IFCSTRUCTURALCURVEMEMBER')).toHaveLength(3);
    const ends = own.of('IFCRELCONNECTSSTRUCTURALMEMBER');
    expect(ends).toHaveLength(6);
    const released = ends.map(({ attributes: all }) => held(all[6])).filter((all) => all.length > 0);
    // About its own y it passes nothing on.
    expect(released.map((all) => all.map((one) => /"word":"F"/.test(one)))).toEqual([
      [false, false, false, false, true, false],
    ]);
    // Every member is of an element that is in the file.
    expect(
      own
        .of('IFCRELASSIGNSTOPRODUCT')
        .map(({ attributes: all }) => own.at(all[6]).type)
        .sort(),
    ).toEqual(['IFCBEAM', 'IFCCOLUMN', 'IFCCOLUMN']);
  });

  test('loads add up case by case, combinations have their factors', () => {
    const [lines] = own.of('IFCSTRUCTURALLOADCONFIGURATION').map(({ attributes: [, values, at] }) => {
      const [begin, end] = (values as readonly StepValue[]).map((one) => own.at(one).attributes[3] as number);
      const [[from], [to]] = at as unknown as [[number], [number]];
      return ((begin + end) / 2) * (to - from);
    });
    expect(lines).toBeCloseTo(-60000, 6);
    const forces = own.of('IFCSTRUCTURALLOADSINGLEFORCE').map(({ attributes: all }) => all[3]);
    expect(forces).toEqual([-5000]);
    const factors = own.of('IFCRELASSIGNSTOGROUPBYFACTOR').map(({ attributes: all }) => {
      const [group] = all[4] as readonly StepValue[];
      return [own.at(group).attributes[2], own.at(all[6]).attributes[2], all[7]];
    });
    expect(factors).toEqual([
      ['G', 'U', 1.35],
      ['Q', 'U', 1.5],
    ]);
    expect(own.of('IFCSTRUCTURALANALYSISMODEL')).toHaveLength(1);
    expect(writeIfc(portal, { ...about, analysis: false })).not.toContain('IFCSTRUCTURAL');
  });

  test('every entity of it has the attributes of the standard, and what it refers to is there', () => {
    for (const { id, type, attributes: all } of own.all.values())
      expect([`#${id}`, type, all.length]).toEqual([`#${id}`, type, attributes[type]]);
  });
});
