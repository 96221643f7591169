import { modelWith } from '@/core/handover/testing/modelWith';
import { readModel } from '@/core/handover/model/readModel';
import { prove, rules } from './prove';

type Part = Record<string, unknown>;
type Point = [number, number];

const ring = (x: number, y: number, width: number, depth: number): Point[] => [
  [x, y],
  [x + width, y],
  [x + width, y + depth],
  [x, y + depth],
];
const wall = (id: string, start: Point, end: Point, more: Part = {}): Part => ({
  id,
  level: 'L1',
  start,
  end,
  thickness: 0.2,
  height: 3,
  ...more,
});
const square = { shape: 'rectangle', width: 0.4, depth: 0.4 };
const column = (id: string, position: Point, level = 'L1', more: Part = {}): Part => ({
  id,
  level,
  position,
  section: square,
  mark: 'C1',
  ...more,
});
const beam = (id: string, start: number[], end: number[], more: Part = {}): Part => ({
  id,
  level: 'L1',
  start,
  end,
  section: { shape: 'rectangle', width: 0.3, depth: 0.6 },
  mark: 'B1',
  ...more,
});
const door = (id: string, wallId: string, offset: number, more: Part = {}): Part => ({
  id,
  wall: wallId,
  kind: 'door',
  offset,
  width: 1,
  height: 2.1,
  ...more,
});
const zone = (id: string, name: string, outline: Point[]): Part => ({
  id,
  level: 'L1',
  name,
  number: '',
  outline,
  height: 3,
});

/** Two rooms of 6 m x 4 m side by side, columns at their corners on two storeys, a beam across. */
const sound = (): Record<string, Part[]> => ({
  levels: [
    { id: 'L1', name: 'Ground', elevation: 0, height: 3 },
    { id: 'L2', name: 'Upper', elevation: 3, height: 3 },
  ],
  grids: [
    { id: 'g1', label: '1', kind: 'line', start: [0, -2], end: [0, 6] },
    { id: 'g2', label: '2', kind: 'line', start: [6, -2], end: [6, 6] },
  ],
  columns: [
    column('c1', [0, 0]),
    column('c2', [12, 0]),
    column('c3', [0, 4]),
    column('c4', [12, 4]),
    column('u1', [0, 0], 'L2'),
  ],
  beams: [beam('b1', [0, 4, 3], [12, 4, 3])],
  walls: [
    wall('w1', [0, 0], [6, 0]),
    wall('w2', [6, 0], [6, 4]),
    wall('w3', [6, 4], [0, 4]),
    wall('w4', [0, 4], [0, 0]),
    wall('w5', [6, 0], [12, 0]),
    wall('w6', [12, 0], [12, 4]),
    wall('w7', [12, 4], [6, 4]),
  ],
  openings: [door('d1', 'w1', 2), door('d2', 'w2', 1.5)],
  slabs: [{ id: 's1', level: 'L1', outline: ring(0, 0, 12, 4), holes: [], thickness: 0.25 }],
  zones: [zone('z1', 'Lab', ring(0.1, 0.1, 5.8, 3.8)), zone('z2', 'Store', ring(6.1, 0.1, 5.8, 3.8))],
  outdoor: [],
});

/** What is found once something was done to the sound model. */
function after(change: (lists: Record<string, Part[]>) => void) {
  const lists = sound();
  change(lists);
  return prove(modelWith(lists));
}
const put = (lists: Record<string, Part[]>, list: string, id: string, more: Part): void => {
  lists[list] = lists[list].map((one) => (one.id === id ? { ...one, ...more } : one));
};

test('nothing is found in a sound model, nor in an empty one', () => {
  expect(prove(modelWith(sound()))).toEqual([]);
  expect(prove(modelWith({}))).toEqual([]);
});

interface Planted {
  rule: string;
  elements: string[];
  /** Where it is found, x, y, z. */
  at: [number, number, number];
  words: RegExp;
  plant: (lists: Record<string, Part[]>) => void;
}

const planted: [string, Planted][] = [
  [
    'two levels at one height',
    {
      rule: 'levels',
      elements: ['L2', 'L3'],
      at: [0, 0, 3.004],
      words: /Upper and Attic lie at one height, 3\.004 m/,
      plant: (lists) => lists.levels.push({ id: 'L3', name: 'Attic', elevation: 3.004, height: 3 }),
    },
  ],
  [
    'a storey no stair fits in',
    {
      rule: 'levels',
      elements: ['L2'],
      at: [0, 0, 3],
      words: /Upper is 0\.300 m high/,
      plant: (lists) => put(lists, 'levels', 'L2', { height: 0.3 }),
    },
  ],
  [
    'an element of a level that is not there',
    {
      rule: 'levels',
      elements: ['c9'],
      at: [0, 0, 0],
      words: /belongs to level L9/,
      plant: (lists) => lists.columns.push(column('c9', [3, 2], 'L9')),
    },
  ],
  [
    'a wall of no length',
    {
      rule: 'slivers',
      elements: ['w9'],
      at: [3, 2, 0],
      words: /It is 0\.020 m long/,
      plant: (lists) => lists.walls.push(wall('w9', [3, 2], [3.02, 2])),
    },
  ],
  [
    'a slab of no size',
    {
      rule: 'slivers',
      elements: ['s9'],
      at: [3.1, 2.05, 0],
      words: /It covers 0\.020 m2/,
      plant: (lists) =>
        lists.slabs.push({ id: 's9', level: 'L1', outline: ring(3, 2, 0.2, 0.1), holes: [], thickness: 0.2 }),
    },
  ],
  [
    'an outline that crosses itself',
    {
      rule: 'crossed outline',
      elements: ['s9'],
      at: [NaN, NaN, 0],
      words: /crosses itself/,
      plant: (lists) =>
        lists.slabs.push({
          id: 's9',
          level: 'L1',
          outline: [
            [0, 0],
            [4, 3],
            [4, 0],
            [0, 2],
          ],
          holes: [],
          thickness: 0.2,
        }),
    },
  ],
  [
    'a column beside the axis of the one beneath',
    {
      rule: 'storeys',
      elements: ['u1', 'c1'],
      at: [0.15, 0, 3],
      words: /stands 0\.150 m off the axis of the column beneath/,
      plant: (lists) => put(lists, 'columns', 'u1', { position: [0.15, 0] }),
    },
  ],
  [
    'a wall that carries with no wall beneath but one across',
    {
      rule: 'storeys',
      elements: ['w9'],
      at: [2.25, 2, 3],
      // Within 0.3 m of the wall across at 6 m, and of its half thickness, two places of twelve are carried.
      words: /5\.000 m of its 6\.000 m stand on no wall, beam or column/,
      plant: (lists) => lists.walls.push(wall('w9', [2, 2], [8, 2], { level: 'L2', bearing: true })),
    },
  ],
  [
    'a column on a column',
    {
      rule: 'doubled',
      elements: ['c2', 'c9'],
      at: [12, 0, 0],
      words: /Two columns stand in one place, 0\.030 m apart/,
      plant: (lists) => lists.columns.push(column('c9', [12.03, 0])),
    },
  ],
  [
    'a wall over a wall',
    {
      rule: 'doubled',
      elements: ['w5', 'w9'],
      at: [9, 0, 0],
      words: /Two walls run over one another for 2\.000 m/,
      plant: (lists) => lists.walls.push(wall('w9', [8, 0.01], [10, 0.01])),
    },
  ],
  [
    'a beam over a beam',
    {
      rule: 'doubled',
      elements: ['b1', 'b9'],
      at: [6, 4, 3],
      words: /Two beams run over one another for 12\.000 m/,
      plant: (lists) => lists.beams.push(beam('b9', [12, 4, 3], [0, 4, 3])),
    },
  ],
  [
    'a door beyond the end of its wall',
    {
      rule: 'openings',
      elements: ['d2', 'w2'],
      at: [6, 4.2, 0],
      words: /from 3\.700 m to 4\.700 m along a wall that is 4\.000 m long/,
      plant: (lists) => put(lists, 'openings', 'd2', { offset: 3.7 }),
    },
  ],
  [
    'a door over a door',
    {
      rule: 'openings',
      elements: ['d1', 'd9'],
      at: [2.6, 0, 0],
      words: /over one another for 0\.400 m/,
      plant: (lists) => lists.openings.push(door('d9', 'w1', 2.6)),
    },
  ],
  [
    'a window higher than its wall',
    {
      rule: 'openings',
      elements: ['d9', 'w5'],
      at: [9.5, 0, 2],
      words: /ends 3\.500 m above the foot of a wall that is 3\.000 m high/,
      plant: (lists) => lists.openings.push(door('d9', 'w5', 3, { kind: 'window', sill: 2, height: 1.5 })),
    },
  ],
  [
    'a door in no wall',
    {
      rule: 'openings',
      elements: ['d9'],
      at: [0, 0, 0],
      words: /in wall w99/,
      plant: (lists) => lists.openings.push(door('d9', 'w99', 1)),
    },
  ],
  [
    'two rooms on one floor',
    {
      rule: 'overlapping zones',
      elements: ['z1', 'z2'],
      // 0.4 m x 3.8 m of both, about x = 6.1 m.
      at: [6.1, 2, 0],
      words: /Lab and Store have 1\.52 m2 of floor in common/,
      plant: (lists) => {
        put(lists, 'zones', 'z1', { outline: ring(0.1, 0.1, 6.2, 3.8) });
        put(lists, 'zones', 'z2', { outline: ring(5.9, 0.1, 6, 3.8) });
      },
    },
  ],
  [
    'nothing beneath a column',
    {
      rule: 'unsupported',
      elements: ['u9'],
      at: [9, 2, 3],
      words: /Nothing stands beneath this column at 3\.000 m/,
      plant: (lists) => lists.columns.push(column('u9', [9, 2], 'L2')),
    },
  ],
  [
    'columns on the ground beside a basement',
    {
      rule: 'unsupported',
      elements: ['c1', 'c2', 'c3', 'c4'],
      at: [0, 0, 0],
      words: /4 columns stand on the ground at 0\.000 m, above the lowest level, with nothing beneath/,
      plant: (lists) => lists.levels.push({ id: 'L0', name: 'Basement', elevation: -3, height: 3 }),
    },
  ],
  [
    'a beam end on nothing',
    {
      rule: 'unsupported',
      elements: ['b9'],
      at: [9, 2.5, 3],
      words: /An end of this beam lies on nothing/,
      plant: (lists) => lists.beams.push(beam('b9', [9, 4, 3], [9, 2.5, 3])),
    },
  ],
  [
    'a wall that misses another by 60 mm',
    {
      rule: 'near miss',
      elements: ['w9', 'w1'],
      at: [3, 0.16, 0],
      words: /misses another by 0\.060 m/,
      plant: (lists) => lists.walls.push(wall('w9', [3, 0.16], [3, 4])),
    },
  ],
  [
    'a room no door leads into',
    {
      rule: 'no door',
      elements: ['z2'],
      at: [9, 2, 0],
      words: /No door leads into Store/,
      plant: (lists) => {
        lists.openings = lists.openings.filter(({ id }) => id !== 'd2');
      },
    },
  ],
  [
    'a label given twice',
    {
      rule: 'names',
      elements: ['g1', 'g2'],
      at: [0, -2, 0],
      words: /2 grid lines are called 1/,
      plant: (lists) => put(lists, 'grids', 'g2', { label: '1' }),
    },
  ],
  [
    'a mark of two sections',
    {
      rule: 'names',
      elements: ['c1', 'c2', 'c3', 'c4', 'u1'],
      at: [0, 0, 0],
      words: /C1 is the mark of 5 elements of 2 different sections/,
      plant: (lists) => put(lists, 'columns', 'c3', { section: { shape: 'circle', diameter: 0.45 } }),
    },
  ],
  [
    'a room without a name',
    {
      rule: 'names',
      elements: ['z1'],
      at: [3, 2, 0],
      words: /neither a name nor a number/,
      plant: (lists) => put(lists, 'zones', 'z1', { name: '' }),
    },
  ],
  [
    'a building open at a side',
    {
      // A pier of 2 m stands for the wall of 6 m at the foot of Store: 3.8 m are open, from 8 to the column at 11.8.
      rule: 'open outline',
      elements: ['z2'],
      at: [NaN, 0.1, 0],
      words: /The outline of the building is open over about 3\.[678] m at Store/,
      plant: (lists) => put(lists, 'walls', 'w5', { end: [8, 0] }),
    },
  ],
  [
    'a wall thicker than a house',
    {
      rule: 'out of proportion',
      elements: ['w9'],
      at: [3, 2, 0],
      words: /Its thickness is 2\.500 m/,
      plant: (lists) => lists.walls.push(wall('w9', [3, 2], [9, 2], { thickness: 2.5 })),
    },
  ],
];

test.each(planted)('%s is found where it is', (_, { rule, elements, at, words, plant }) => {
  const findings = after(plant);
  const found = findings.find((finding) => finding.rule === rule && words.test(finding.message));
  expect(findings.map(({ rule: name, message }) => `${name}: ${message}`)).toContainEqual(expect.stringMatching(words));
  expect(found!.elements).toEqual(elements);
  at.forEach((value, axis) => {
    if (!Number.isNaN(value)) expect(found!.position[axis]).toBeCloseTo(value, 6);
  });
  expect(found!.position.every(Number.isFinite)).toBe(true);
  expect(found!.remedy).toMatch(/\.$/);
});

test('a terrace and an open bay between two rooms are no outline that is open', () => {
  const found = after((lists) => {
    // The wall between the rooms goes; beside the house lies a floor without walls.
    lists.walls = lists.walls.filter(({ id }) => id !== 'w2');
    lists.openings = lists.openings.filter(({ id }) => id !== 'd2');
    put(lists, 'zones', 'z1', { outline: ring(0.1, 0.1, 5.9, 3.8) });
    put(lists, 'zones', 'z2', { outline: ring(6, 0.1, 5.9, 3.8) });
    lists.zones.push(zone('z3', 'Terrace', ring(12.1, 0, 4, 4)));
  });
  expect(found.filter(({ rule }) => rule === 'open outline')).toEqual([]);
});

test('a support that is said carries a column', () => {
  const held = after((lists) => {
    lists.columns.push(column('u9', [9, 2], 'L2'));
    lists.supports = [{ id: 'p', position: [9, 2, 3], fixed: ['x', 'y', 'z'] }];
  });
  expect(held).toEqual([]);
});

test('a door in a bent wall leads into the room along it', () => {
  // A half ring below: a wall of radius 3 m about (3, 0), the room along it from 2 to 2.9 m, a door amid the arc.
  const arc = (radius: number, turn: 1 | -1): Point[] =>
    Array.from({ length: 33 }, (_, i) => {
      const angle = Math.PI * (turn === 1 ? 1 + i / 32 : 2 - i / 32);
      return [3 + radius * Math.cos(angle), radius * Math.sin(angle)];
    });
  const bent = prove(
    modelWith({
      levels: sound().levels.slice(0, 1),
      walls: [wall('w1', [0, 0], [6, 0], { bulge: 1 })],
      openings: [door('d1', 'w1', (Math.PI * 3) / 2 - 0.5)],
      zones: [zone('z1', 'Gallery', [...arc(2.9, 1), ...arc(2, -1)])],
    }),
  );
  expect(bent).toEqual([]);
});

test('a beam that lies on a support that is said lies on something', () => {
  const free = (lists: Record<string, Part[]>) => lists.beams.push(beam('b9', [20, 0, 3], [26, 0, 3]));
  const ends = (findings: { elements: string[] }[]) =>
    findings.filter(({ elements }) => elements.includes('b9')).length;
  expect(ends(after(free))).toBe(2);
  const held = after((lists) => {
    free(lists);
    lists.supports = [20, 26].map((x) => ({ id: `p${x}`, position: [x, 0, 3], fixed: ['x', 'y', 'z'] }));
  });
  expect(ends(held)).toBe(0);
});

test('what is certain is put right by deleting one: a slip, a lost opening, what stands or runs twice', () => {
  const fixOf = (plant: (lists: Record<string, Part[]>) => void, rule: string) =>
    after(plant).find((finding) => finding.rule === rule)?.fix;
  expect(fixOf((lists) => lists.walls.push(wall('w9', [2, 2], [2, 2.03])), 'slivers')).toMatchObject({
    delete: ['w9'],
  });
  expect(fixOf((lists) => lists.openings.push(door('o9', 'nobody', 1)), 'openings')).toMatchObject({ delete: ['o9'] });
  expect(fixOf((lists) => lists.columns.push(column('c9', [0.02, 0])), 'doubled')).toMatchObject({ delete: ['c9'] });
  // A beam within another goes; of two that only overlap neither does.
  expect(fixOf((lists) => lists.beams.push(beam('b9', [3, 4, 3], [9, 4, 3])), 'doubled')).toMatchObject({
    delete: ['b9'],
  });
  expect(fixOf((lists) => lists.beams.push(beam('b9', [9, 4, 3], [15, 4, 3])), 'doubled')).toBeUndefined();
});

test('every rule has a fault planted for it', () => {
  const covered = new Set(planted.map(([, { rule }]) => rule));
  expect(rules.map(({ name }) => name).filter((name) => !covered.has(name))).toEqual([]);
});

test('a slighter column flush with the one beneath stands on it, and a wall over a wall', () => {
  const flush = after((lists) => {
    // 0.3 x 0.4 over 0.4 x 0.4, flush at one face: the axes are 50 mm apart.
    put(lists, 'columns', 'u1', { position: [0.05, 0], section: { ...square, width: 0.3 } });
    lists.walls.push(wall('w9', [0, 0.05], [6, 0.05], { level: 'L2', bearing: true }));
  });
  expect(flush.filter(({ rule }) => rule === 'storeys')).toEqual([]);
});

test('a building in another unit is told once, whatever its size: no number is not one', () => {
  const large = after((lists) => {
    for (const list of ['columns', 'walls'])
      lists[list] = lists[list].map((one) =>
        Object.fromEntries(
          Object.entries(one).map(([name, value]) => [
            name,
            Array.isArray(value) ? value.map((number: number) => number * 1e9) : value,
          ]),
        ),
      );
  });
  expect(large.some(({ message }) => /The building is 12000000000\.000 m long/.test(message))).toBe(true);
  expect(JSON.stringify(large)).not.toMatch(/null|NaN/);
});

test('what is no model is told with what was found and what was expected', () => {
  const told = (text: string): string => {
    const read = readModel(text);
    return read.ok ? '' : read.message;
  };
  expect(told('{"a": ')).toMatch(/^The file is not JSON/);
  expect(told('[]')).toMatch(/holds no object/);
  expect(told('{"format": "other", "version": 1}')).toMatch(/says "other" as its format/);
  expect(told('{"format": "zircon-frame-model", "version": 7}')).toMatch(/of version 7/);
  expect(told('{"format": "zircon-frame-model", "version": 1, "columns": 3}')).toMatch(/columns/);
  expect(told('{"format": "zircon-frame-model", "version": 1, "walls": [{"id": "w", "level": "L1"}]}')).toMatch(
    /walls\.0/,
  );
});
