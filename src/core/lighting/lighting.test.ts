import { modelWith } from '@/core/handover/testing/modelWith';
import type { ReadModel } from '@/core/handover/model/readModel';
import { regionArea } from '@/core/geometry/clipping';
import { subjectOf } from '@/core/proof/subject';
import { bandsOf } from './contours';
import { gridOf, spacingOf } from './grid';
import { paneOnSide, panesOf } from './panes';
import { whatIf } from './whatIf';
import { tryLight } from './light';
import { beamAngle } from './photometry/beam';
import { fluxOf, intensityAt, ownDirection } from './photometry/intensity';
import { readIes, type Photometry } from './photometry/readIes';

type Part = Record<string, unknown>;
type Point = [number, number];

interface File {
  version?: string;
  tilt?: string;
  head?: string;
  vertical?: number[];
  horizontal?: number[];
  values?: number[];
  size?: string;
  factors?: string;
}

/** A file of a source that shines evenly all around with 100 cd, but for what is asked for. */
function ies({
  version = 'IESNA:LM-63-2002\n[TEST] 1\n[MANUFAC] Marram\n',
  tilt = 'NONE',
  vertical = [0, 90, 180],
  horizontal = [0],
  values,
  size = '0 0 0',
  factors = '1 1 10',
  head,
}: File = {}): string {
  const all = values ?? vertical.flatMap(() => horizontal.map(() => 100));
  const first = head ?? `1 -1 1 ${vertical.length} ${horizontal.length} 1 2 ${size}`;
  return `${version}TILT=${tilt}\n${first}\n${factors}\n${vertical.join(' ')}\n${horizontal.join(' ')}\n${all.join('\n')}\n`;
}
const photometry = (file: File = {}): Photometry => {
  const read = readIes(ies(file));
  if (!read.ok) throw new Error(read.message);
  return read.value;
};
const problem = (text: string): string => {
  const read = readIes(text);
  return read.ok ? '' : read.message;
};

/** A Lambert source: the cosine downwards, nothing upwards, by degrees. */
const lambert = (candela: number): File => {
  const vertical = Array.from({ length: 91 }, (_, i) => i);
  return { vertical, values: vertical.map((angle) => candela * Math.cos((angle * Math.PI) / 180)) };
};

test('an even source gives 4 pi times its intensity, a Lambert one pi times its greatest', () => {
  expect(fluxOf(photometry())).toBeCloseTo(400 * Math.PI, 1);
  expect(fluxOf(photometry(lambert(100))) / (100 * Math.PI)).toBeCloseTo(1, 3);
});

test('factors, versions and lengths in feet are taken as the norm has them', () => {
  const own = photometry({ factors: '0.9 0.5 10', head: '2 1000 3 3 1 1 1 1 2 0' });
  // 100 cd x 3 x 0.9 x 0.5; width 1 ft, length 2 ft.
  expect([own.intensity[0], own.width, own.length, own.lampLumens, own.power]).toEqual(
    [135, 0.3048, 0.6096, 2000, 10].map((value) => expect.closeTo(value, 9)),
  );
  // Since 2019 the third factor tells how the file came about.
  expect(
    photometry({ version: 'IES:LM-63-2019\n[TEST] 1\n[MANUFAC] M\n', factors: '0.9 1.00001 10' }).intensity[0],
  ).toBeCloseTo(90, 9);
  expect(photometry({ version: 'An old file\nof 1986\n' }).warnings).toEqual([]);
  expect(photometry({ version: 'IESNA91\n' }).warnings).toEqual([
    'The keyword [TEST] is missing.',
    'The keyword [MANUFAC] is missing.',
  ]);
  expect(photometry({ tilt: 'INCLUDE\n1 2\n0 90\n1 0.9' }).intensity[2]).toBe(100);
});

test('a file that is cut, negative, of type A, huge or no such file is told in a sentence', () => {
  expect(problem('hello')).toMatch(/no line that begins with TILT=/);
  expect(problem(ies().slice(0, 60))).toMatch(/its head is not whole/);
  expect(problem(ies({ values: [100, 100] }))).toMatch(/2 of 3 intensities are there: the file is cut/);
  expect(problem(ies({ values: [100, -5, 100] }))).toMatch(/1 intensities are negative/);
  expect(problem(ies({ head: '1 -1 1 3 1 3 2 0 0 0' }))).toMatch(/type A, of vehicles/);
  expect(problem(ies({ head: '1 -1 1 100000 1 1 2 0 0 0' }))).toMatch(/names 100000 by 1 angles/);
  expect(problem(ies({ vertical: [0, 90, 45] }))).toMatch(/angles do not rise/);
  expect(problem(ies({ values: [100, NaN, 100] }))).toMatch(/"NaN" stands where a number was expected/);
  expect(problem(ies({ tilt: 'lamp.tlt' }))).toMatch(/tilt is in another file, LAMP\.TLT/);
});

test('planes are folded by the symmetry that the file tells', () => {
  const quarter = photometry({ vertical: [0, 90], horizontal: [0, 90], values: [10, 20, 10, 60] });
  const at = (c: number) => intensityAt(quarter, [Math.cos((c * Math.PI) / 180), Math.sin((c * Math.PI) / 180), 0]);
  expect([0, 45, 90, 135, 180, 270, 315].map(at)).toEqual(
    [20, 40, 60, 40, 20, 60, 40].map((v) => expect.closeTo(v, 6)),
  );
  const half = photometry({ vertical: [0, 90], horizontal: [0, 90, 180], values: [10, 20, 10, 60, 10, 100] });
  const to = (c: number) => intensityAt(half, [Math.cos((c * Math.PI) / 180), Math.sin((c * Math.PI) / 180), 0]);
  expect([90, 180, 270, 360].map(to)).toEqual([60, 100, 60, 20].map((v) => expect.closeTo(v, 6)));
});

test('a luminaire is turned from x counter-clockwise, and its beam lifted towards its own 0 degree plane', () => {
  // Turned by 90 degrees its plane looks along y; tilted by 30 degrees its beam goes there.
  const beam = ownDirection(90, 30, [0, Math.sin(Math.PI / 6), -Math.cos(Math.PI / 6)]);
  expect(beam).toEqual([0, 0, -1].map((value) => expect.closeTo(value, 9)));
});

test('grids by EN 12464-1: 0.2 times 5 to the lg of the side, by the shorter one of what is slender', () => {
  expect([spacingOf(1, 1), spacingOf(10, 10), spacingOf(100, 100), spacingOf(20, 2)]).toEqual(
    [0.2, 1, 5, 0.2 * 5 ** Math.log10(2)].map((value) => expect.closeTo(value, 9)),
  );
  const { points, lattice } = gridOf(
    [
      [0, 0],
      [4, 0],
      [4, 2],
      [0, 2],
    ],
    [
      [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ],
    ],
    1,
  );
  expect(points).toHaveLength(7);
  expect(points[0]).toEqual([1.5, 0.5]);
  expect([lattice.columns, lattice.rows, lattice.cells[0]]).toEqual([4, 2, 1]);
});

const box = (w: number, d: number): Point[] => [
  [0, 0],
  [w, 0],
  [w, d],
  [0, d],
];
const site = { maintenanceFactor: 1 };

function modelOf(parts: Part): ReadModel {
  return modelWith({ site, ...parts });
}

/** A room of 6 by 4 m, 3 m high, with one luminaire of a file. */
const room = (file: File, more: Part = {}, reflectance = 0.5): Part => ({
  levels: [{ id: 'L1', name: 'Floor', elevation: 0, height: 3 }],
  zones: [
    {
      id: 'Z',
      level: 'L1',
      name: 'Lab',
      outline: box(6, 4),
      height: 3,
      clearHeight: 3,
      reflectances: { ceiling: reflectance, wall: reflectance, floor: reflectance },
    },
  ],
  photometries: [{ id: 'F', ies: ies(file) }],
  luminaires: [{ id: 'A', photometry: 'F', position: [2, 2, 2.5] }],
  ...more,
});

test('a point source in a black room: intensity by the cosine over the square', () => {
  const areas = [
    {
      id: 'P',
      zone: 'Z',
      outline: [
        [3.9, 1.9],
        [4.1, 1.9],
        [4.1, 2.1],
        [3.9, 2.1],
      ],
      z: 0.5,
      spacing: 1,
    },
  ];
  const {
    areas: [area],
  } = tryLight(modelOf(room({}, { calculationAreas: areas }, 0)));
  expect(area.points).toEqual([[4, 2, 0.5].map((value) => expect.closeTo(value, 9))]);
  // 2 m below and 2 m aside: 100 x cos 45 / 8.
  expect(area.direct[0]).toBeCloseTo((100 * Math.SQRT1_2) / 8, 9);
  expect(area.total[0]).toBeCloseTo(area.direct[0], 9);
});

test.each([0.2, 0.5, 0.8])(
  'in a closed room of one reflectance %p all surfaces get the flux over area times 1 - rho',
  (rho) => {
    const {
      rooms: [lit],
    } = tryLight(modelOf(room({}, {}, rho)));
    const area = 2 * 24 + 2 * (6 + 4) * 3;
    const mean = (lit.ceiling * 24 + lit.floor * 24 + lit.walls * 60) / area;
    expect(lit.flux).toBeCloseTo(400 * Math.PI, 0);
    expect(mean / (lit.flux / (area * (1 - rho)))).toBeCloseTo(1, 3);
    // Energy: what all surfaces absorb is the flux, to half a per cent.
    expect(Math.abs(lit.absorbed / lit.flux - 1)).toBeLessThan(0.005);
  },
);

test('a rectangular diffuse source, by its closed solution', () => {
  // A panel of 1.2 by 0.6 m, 1 m above a point under its middle; luminance L = I / area.
  const [w, l, h] = [0.6, 1.2, 1];
  const luminance = 100 / (w * l);
  const corner = (a: number, b: number): number => {
    const [x, y] = [a / h, b / h];
    return (
      (x / Math.sqrt(1 + x * x)) * Math.atan(y / Math.sqrt(1 + x * x)) +
      (y / Math.sqrt(1 + y * y)) * Math.atan(x / Math.sqrt(1 + y * y))
    );
  };
  const closed = (luminance / 2) * 4 * corner(w / 2, l / 2);
  const areas = [
    {
      id: 'P',
      zone: 'Z',
      outline: [
        [1.9, 1.9],
        [2.1, 1.9],
        [2.1, 2.1],
        [1.9, 2.1],
      ],
      z: 1.5,
      spacing: 1,
    },
  ];
  const own = { ...lambert(100), size: `${w} ${l} 0` };
  const {
    areas: [area],
  } = tryLight(modelOf(room(own, { calculationAreas: areas }, 0)));
  // As several points, none nearer than five times its size: within a per cent.
  expect(Math.abs(area.direct[0] / closed - 1)).toBeLessThan(0.01);
});

/**
 * Light that one even ceiling throws back to points below, summed over 240 by 160 pieces of it: what a source of 100 cd
 * all around gives each piece, times rho over pi, by both cosines over the square; nothing past a column.
 */
function reflectedByHand(
  p: number[],
  lamp: number[],
  rho: number,
  hides: (a: number[], b: number[]) => boolean,
): number {
  let sum = 0;
  const [nx, ny, top] = [240, 160, 3];
  for (let i = 0; i < nx; i += 1)
    for (let j = 0; j < ny; j += 1) {
      const at = [((i + 0.5) * 6) / nx, ((j + 0.5) * 4) / ny, top];
      const squareTo = (q: number[]): number => q.reduce((all, value, k) => all + (value - at[k]) ** 2, 0);
      if (hides(lamp, at) || hides(at, p)) continue;
      const lit = (100 * (top - lamp[2])) / squareTo(lamp) ** 1.5;
      sum += (((rho / Math.PI) * lit * (top - p[2]) ** 2) / squareTo(p) ** 2) * (24 / (nx * ny));
    }
  return sum;
}

describe('as the analytical cases of CIE 171:2006 for diffuse reflection', () => {
  const lamp = [2, 2, 1.2];
  const spots: Point[] = [
    [4.4, 1.2],
    [5.2, 3],
    [1, 3.2],
  ];
  const reflected = (more: Part): number[] => {
    const parts = room({}, {}, 0);
    const [zone] = parts.zones as Part[];
    const { areas } = tryLight(
      modelOf({
        ...parts,
        zones: [{ ...zone, reflectances: { ceiling: 0.8, wall: 0, floor: 0 } }],
        luminaires: [{ id: 'A', photometry: 'F', position: lamp }],
        calculationAreas: spots.map(([x, y], i) => ({
          id: `P${i}`,
          zone: 'Z',
          outline: box(0.2, 0.2).map(([u, w]) => [x - 0.1 + u, y - 0.1 + w]),
          z: 0,
          spacing: 1,
        })),
        ...more,
      }),
    );
    return areas.map(({ total, direct }) => total[0] - direct[0]);
  };

  test('5.6: by one reflecting surface', () => {
    const found = reflected({});
    spots.forEach(([x, y], i) => {
      const hand = reflectedByHand([x, y, 0], lamp, 0.8, () => false);
      expect(Math.abs(found[i] / hand - 1)).toBeLessThan(0.02);
    });
  });

  test('5.7: with something in the way inside', () => {
    const column = {
      id: 'C',
      level: 'L1',
      position: [3.4, 1.7],
      rotation: 0,
      section: { shape: 'rectangle', width: 0.8, depth: 0.8 },
      mark: '',
    };
    /** Whether a line passes the square of the column in plan. */
    const hides = ([ax, ay]: number[], [bx, by]: number[]): boolean => {
      let [from, to] = [0, 1];
      for (const [a, b, low, high] of [
        [ax, bx, 3, 3.8],
        [ay, by, 1.3, 2.1],
      ]) {
        if (a === b && (a < low || a > high)) return false;
        const [t, s] = [(low - a) / (b - a), (high - a) / (b - a)].sort((one, other) => one - other);
        [from, to] = [Math.max(from, t), Math.min(to, s)];
      }
      return from < to;
    };
    const found = reflected({ columns: [column] });
    const clear = spots.map(([x, y]) => reflectedByHand([x, y, 0], lamp, 0.8, () => false));
    spots.forEach(([x, y], i) => {
      const hand = reflectedByHand([x, y, 0], lamp, 0.8, hides);
      expect(Math.abs(found[i] - hand) / clear[i]).toBeLessThan(0.05);
    });
    expect(found[0]).toBeLessThan(0.8 * clear[0]);
  });
});

test('a column throws a shadow; a room round a corner is not lit directly', () => {
  const column = {
    id: 'C',
    level: 'L1',
    position: [3, 2],
    rotation: 0,
    section: { shape: 'rectangle', width: 0.4, depth: 0.4 },
    mark: '',
  };
  const areas = [
    {
      id: 'P',
      zone: 'Z',
      outline: [
        [3.9, 1.9],
        [4.1, 1.9],
        [4.1, 2.1],
        [3.9, 2.1],
      ],
      z: 0.5,
      spacing: 1,
    },
  ];
  const {
    areas: [area],
  } = tryLight(modelOf(room({}, { calculationAreas: areas, columns: [column] }, 0.5)));
  expect(area.direct[0]).toBe(0);
  expect(area.total[0]).toBeGreaterThan(0);
});

test('more light of two luminaires is the sum of each, and output and dirt scale it', () => {
  const two = (luminaires: Part[], more: Part = {}) =>
    tryLight(modelOf({ ...room(lambert(100)), luminaires, ...more })).areas[0];
  const a = { id: 'A', photometry: 'F', position: [2, 2, 2.9] };
  const b = { id: 'B', photometry: 'F', position: [4, 1, 2.9] };
  const [first, second, both] = [two([a]), two([b]), two([a, b])];
  both.total.forEach((value, i) => expect(value / (first.total[i] + second.total[i])).toBeCloseTo(1, 3));
  expect(two([{ ...a, output: 0.5 }], { site: { maintenanceFactor: 0.8 } }).mean).toBeCloseTo(0.4 * first.mean, 6);
});

test('what is wrong is told with its place', () => {
  const rules = (parts: Part) => tryLight(modelOf({ ...room({}), ...parts })).findings.map(({ rule }) => rule);
  expect(rules({ luminaires: [{ id: 'A', photometry: 'F', position: [2, 2, 3.4] }] })).toContain('luminaire');
  expect(rules({ luminaires: [{ id: 'A', photometry: 'F', position: [9, 9, 2] }] })).toEqual([
    'no luminaire',
    'luminaire',
  ]);
  expect(rules({ luminaires: [{ id: 'A', photometry: 'X', position: [2, 2, 2] }] })).toContain('photometry');
  expect(rules({ photometries: [{ id: 'F', ies: 'nothing' }] })).toContain('photometry');
  expect(rules({ calculationAreas: [{ id: 'P', zone: 'Z', outline: [], z: 0.8 }] })).toContain('no points');
  expect(rules({ photometries: [{ id: 'F', ies: ies({ head: '1 500 1 3 1 1 2 0 0 0' }) }] })).toContain('flux');
  expect(tryLight(modelOf({})).findings).toEqual([]);
});

test('a yard is lit by posts, and a building stands in the way', () => {
  const parts: Part = {
    levels: [{ id: 'L1', name: 'Ground', elevation: 0, height: 3 }],
    photometries: [{ id: 'F', ies: ies() }],
    luminaires: [{ id: 'A', photometry: 'F', position: [0, 0, 4] }],
    calculationAreas: [
      {
        id: 'Y',
        outline: [
          [2.9, -0.1],
          [3.1, -0.1],
          [3.1, 0.1],
          [2.9, 0.1],
        ],
        z: 0,
        spacing: 1,
      },
    ],
  };
  const [open] = tryLight(modelOf(parts)).areas;
  // 5 m away, 4 m below: 100 x (4 / 5) / 25.
  expect([open.zone, open.total[0]]).toEqual([null, expect.closeTo(3.2, 9)]);
  const wall = { id: 'W', level: 'L1', start: [2, -2], end: [2, 2], thickness: 0.2, height: 3 };
  expect(tryLight(modelOf({ ...parts, walls: [wall] })).areas[0].total[0]).toBe(0);
});

test('a beam is as wide as where it falls to half: a Lambert one 120 degrees, the sixth power of the cosine 54', () => {
  const sixth = { vertical: lambert(1).vertical, values: lambert(1).values!.map((value) => value ** 6 * 100) };
  expect(beamAngle(photometry(lambert(100)), 0)).toBeCloseTo(120, 1);
  expect(beamAngle(photometry(sixth), 90)).toBeCloseTo((360 / Math.PI) * Math.acos(0.5 ** (1 / 6)), 1);
  // What shines evenly all around never falls to half.
  expect(beamAngle(photometry(), 0)).toBeNull();
});

test('what a field would give is what the trial says once it hangs there; more luminaires give more', () => {
  const parts: Part = { ...room(lambert(800)), luminaires: [] };
  const asked = whatIf(modelOf({ ...parts, zones: [{ ...(parts.zones as Part[])[0], use: 'B' }] }), 'Z', 'F')!;
  expect(asked.target).toEqual({ lux: 500, uniformity: 0.6 });
  const numbers = asked.choices.map(([one]) => one.places.length);
  expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
  const means = asked.choices.map(([one]) => one.mean);
  expect(means).toEqual([...means].sort((a, b) => a - b));
  const [one] = asked.choices[2];
  const luminaires = one.places.map(([x, y], i) => ({
    id: `N${i}`,
    photometry: 'F',
    position: [x, y, one.height],
    rotation: one.rotation,
  }));
  const {
    areas: [area],
  } = tryLight(modelOf({ ...parts, luminaires }));
  expect(area.mean).toBeCloseTo(one.mean, 6);
  expect(area.uniformity).toBeCloseTo(one.uniformity, 9);
  expect(whatIf(modelOf(parts), 'nobody', 'F')).toBeNull();
  expect(whatIf(modelOf(parts), 'Z', 'no file')).toBeNull();
});

test('iso lines of one source lie on circles: there it gives just so much', () => {
  const areas = [{ id: 'P', zone: 'Z', outline: box(6, 4), z: 0, spacing: 0.1 }];
  const lamp = [{ id: 'A', photometry: 'F', position: [3, 2, 2] }];
  const {
    areas: [area],
  } = tryLight(modelOf(room({}, { calculationAreas: areas, luminaires: lamp }, 0)));
  const bands = bandsOf(area);
  // 100 cd x 2 / (4 + r2)^1.5: 25 lx beneath, 20 lx at a radius of sqrt(10^(2/3) - 4) m.
  const band = bands.find(({ lux }) => lux === 20)!;
  const radius = Math.sqrt(10 ** (2 / 3) - 4);
  for (const [p] of band.lines) expect(Math.hypot(p[0] - 3, p[1] - 2)).toBeCloseTo(radius, 1);
  expect(regionArea(band.region) / (Math.PI * radius ** 2)).toBeCloseTo(1, 1);
  // A lower step reaches the walls: its region ends there, and no line runs along them.
  const low = bands[0];
  for (const [p, q] of low.lines)
    for (const [x, y] of [p, q]) expect(x > -1e-9 && x < 6 + 1e-9 && y > -1e-9 && y < 4 + 1e-9).toBe(true);
  expect(regionArea(low.region)).toBeLessThanOrEqual(24 + 1e-9);
});

test('windows are dark at night: a room with a wall of glass has less light', () => {
  const walls = [{ id: 'W', level: 'L1', start: [-0.2, -0.1], end: [6.2, -0.1], thickness: 0.2, height: 3 }];
  const pane = { id: 'O', wall: 'W', kind: 'window', offset: 0.2, width: 6, height: 3, sill: 0 };
  const light = (more: Part) => tryLight(modelOf(room({}, more))).rooms[0];
  const [plainWall, glass] = [light({ walls }), light({ walls, openings: [pane] })];
  expect(glass.walls).toBeLessThan(plainWall.walls);
  // Energy holds all the same, and the mean reflectance tells the mean of all surfaces of a room of one reflectance.
  expect(Math.abs(glass.absorbed / glass.flux - 1)).toBeLessThan(0.005);
  const found = paneOnSide(panesOf(subjectOf(modelOf(room({}, { walls, openings: [pane] }))).walls)[0], [0, 0], [6, 0]);
  expect(found).toEqual({ from: 0, to: 6, low: 0, high: 3 });
});

test('a road asks for light by rule, at its height; grass does not', () => {
  const outdoor = [
    { id: 'R', level: 'L1', name: 'Road', outline: box(6, 4), height: 0.1, use: 'road' },
    { id: 'G', level: 'L1', name: 'Lawn', outline: box(2, 2), height: 0, use: 'grass' },
  ];
  const { areas } = tryLight(modelOf({ ...room({}), zones: [], outdoor }));
  expect(areas.map(({ id, points }) => [id, points[0][2]])).toEqual([['R', 0.1]]);
  // From 2.4 m above: 100 cd by the cosine over the square.
  const [x, y] = areas[0].points[7];
  expect(areas[0].total[7]).toBeCloseTo((100 * 2.4) / ((x - 2) ** 2 + (y - 2) ** 2 + 2.4 ** 2) ** 1.5, 9);
});

test('a fence of boards throws a shadow as long as its height makes it, a mesh none', () => {
  // A light at 4 m, 1 m before a fence of 2 m: the ground is dark until 1 m behind it.
  const post = { ...(room({}).luminaires as Part[])[0], position: [-1, 0, 4] };
  const fence = (thickness: number): Part => ({
    id: 'F',
    level: 'L1',
    name: '',
    use: 'fence',
    height: 2,
    outline: [
      [-thickness / 2, -9],
      [thickness / 2, -9],
      [thickness / 2, 9],
      [-thickness / 2, 9],
    ],
  });
  const area = {
    id: 'A',
    outline: [
      [0.2, -0.5],
      [2.2, -0.5],
      [2.2, 0.5],
      [0.2, 0.5],
    ],
    z: 0,
    spacing: 0.1,
  };
  const lit = (thickness: number) => {
    const outdoors = { ...room({}), zones: [], walls: [], luminaires: [post], calculationAreas: [area] };
    const [{ points, direct }] = tryLight(modelOf({ ...outdoors, outdoor: [fence(thickness)] })).areas;
    const level = points[0][2];
    expect(level).toBe(0);
    return points.filter((_, i) => direct[i] === 0).map(([x]) => x);
  };
  expect(lit(0.03)).toEqual([]);
  const dark = lit(0.1);
  expect(dark.length).toBeGreaterThan(50);
  // The shadow of its far top edge: (4 - 0) / (4 - 2) times what the edge is away from the light.
  expect(Math.max(...dark)).toBeLessThanOrEqual(-1 + 1.05 * 2 + 1e-9);
  expect(Math.max(...dark)).toBeGreaterThan(-1 + 1.05 * 2 - 0.11);
});

test('rooms without a luminaire are told together', () => {
  const parts = room({});
  const [own] = parts.zones as Part[];
  const beside = ['B', 'C', 'D', 'E'].map((id, i) => ({
    ...own,
    id,
    name: id,
    outline: box(6, 4).map(([x, y]) => [x + 10 * (i + 1), y]),
  }));
  const { findings } = tryLight(modelOf({ ...parts, zones: [own, ...beside] }));
  expect(findings.filter(({ rule }) => rule === 'no luminaire')).toMatchObject([
    { elements: ['B', 'C', 'D', 'E'], message: '4 rooms have no luminaire: B, C, D and others.' },
  ]);
});
