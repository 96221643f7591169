import { asDrawn, type Placement } from '@/core/datum/placement';
import { readDimensions } from '@/core/datum/dimensionCheck';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import type { ElementRow } from '@/core/kinds/element';
import { Model } from '@/core/model/model';
import { emptyState, type DecisionRow, type DrawingRow, type PlacementRow } from '@/core/model/state';
import { Scene } from '@/core/reading/scene';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import { comparisonOf, toneOf } from './compare';
import { findingsOf, levelFindings } from './findings';
import { levelsBeside } from './heights';
import { putBack } from './putBack';
import { revisionFindings, unitFindings } from './sources';

const [plan, level] = ['11111111-1111-4111-8111-111111111111', 'L'];
const roles: Record<string, Role> = { W: 'wall', C: 'column', G: 'grid', D: 'door', T: 'label' };

/** Lines with handles, in millimetres. */
const handled = (handle: string, x1: number, y1: number, x2: number, y2: number, layer: string): string =>
  line(x1, y1, x2, y2, layer).replace(`8\n${layer}`, `5\n${handle}\n8\n${layer}`);

const dimension = (from: readonly [number, number], to: readonly [number, number], text: string): string =>
  groups(
    [0, 'DIMENSION'],
    [5, `D${text}`],
    [8, 'T'],
    [10, from[0]],
    [20, from[1] - 500],
    [13, from[0]],
    [23, from[1]],
    [14, to[0]],
    [24, to[1]],
    [70, 0],
    [1, text],
    [50, 0],
  );

/** A wall of 6 m by 0.2 m about y = 0.1 m, a column of 0.4 m about (8.2, 0.2), a grid line at x = 0. */
const entities =
  handled('A1', 0, 0, 6000, 0, 'W') +
  handled('A2', 0, 200, 6000, 200, 'W') +
  handled('A3', 0, 3000, 2000, 3000, 'W') +
  handled('B1', 8000, 0, 8400, 0, 'C') +
  handled('B2', 8400, 0, 8400, 400, 'C') +
  handled('B3', 8400, 400, 8000, 400, 'C') +
  handled('B4', 8000, 400, 8000, 0, 'C') +
  handled('C1', 0, -2000, 0, 4000, 'G') +
  // The ring of another drawing's grid line, on the line beyond its end.
  groups([0, 'CIRCLE'], [5, 'C2'], [8, 'G'], [10, 0], [20, 4500], [40, 500]) +
  groups([0, 'TEXT'], [8, 'T'], [10, 2000], [20, 1500], [40, 200], [1, '24.0 m2']) +
  dimension([0, 0], [8000, 0], '8000') +
  dimension([0, 200], [8400, 400], '8300') +
  dimension([0, 0], [20_000, 0], '20000');

const wall = (y: number, x = 0): ElementRow => ({
  id: 'w',
  levelId: level,
  source: { drawing: plan, handles: ['A1', 'A2'] },
  kind: 'wall',
  shape: { start: [x, y], end: [6 + x, y], bulge: 0, thickness: 0.2, outer: false, height: null },
});
const column = (x: number, y: number): ElementRow => ({
  id: 'c',
  levelId: level,
  source: { drawing: plan, handles: ['B1', 'B2', 'B3', 'B4'] },
  kind: 'column',
  shape: { position: [x, y], section: { shape: 'rectangle', width: 0.4, depth: 0.4 }, rotation: 0, mark: '' },
});
const grid: ElementRow = {
  id: 'g',
  levelId: null,
  source: { drawing: plan, handles: ['C1'] },
  kind: 'grid',
  shape: { label: '1', kind: 'line', start: [0, -2], end: [0, 4] },
};
const zone: ElementRow = {
  id: 'z',
  levelId: level,
  source: null,
  kind: 'zone',
  shape: {
    name: 'Lab',
    number: '',
    outline: [
      [0, 1],
      [8, 1],
      [8, 4],
      [0, 4],
    ],
    holes: [],
    height: null,
  },
};

function compare(elements: ElementRow[], placement: Placement = asDrawn('mm')) {
  const { drawing } = readText(dxf({ entities }));
  const primitives = flatten(drawing);
  const scene = new Scene(
    drawing,
    primitives,
    placement,
    drawing.layers.map(({ name }) => roles[name] ?? null),
  );
  const { lengths } = readDimensions(drawing, primitives, 0.001);
  return comparisonOf({ scene, drawingId: plan, elements, lengths, tolerance: 0.01 });
}

const sound = [wall(0.1), column(8.2, 0.2), grid, zone];

test('what lies on its lines has no drift, and accounts for them', () => {
  const { drift, coverage, undrawn } = compare(sound);
  expect(drift.map(({ id, away }) => [id, away])).toEqual(['w', 'c', 'g'].map((id) => [id, expect.closeTo(0, 6)]));
  expect(undrawn).toBe(0);
  // Of 14 m of wall lines 2 m belong to no wall.
  expect(coverage.map(({ role, drawn, covered }) => [role, drawn, covered])).toEqual([
    // 6 m of line and a ring of 0.5 m radius, as chords a little less than pi metres.
    ['grid', expect.closeTo(6 + Math.PI, 2), expect.closeTo(6 + Math.PI, 2)],
    ['column', expect.closeTo(1.6, 6), expect.closeTo(1.6, 6)],
    ['wall', expect.closeTo(14, 6), expect.closeTo(12, 6)],
  ]);
});

test('the lines that belong to no element are told about the origin of the drawing, in its own units', () => {
  const { rest } = compare(sound);
  const heights = new Set([...rest].filter((_, i) => i % 2 === 1));
  const across = [...rest].filter((_, i) => i % 2 === 0);
  const origin = flatten(readText(dxf({ entities })).drawing).origin;
  expect([...heights].map((y) => y + origin[1])).toEqual([3000]);
  expect([Math.min(...across) + origin[0], Math.max(...across) + origin[0]]).toEqual([0, 2000]);
});

test.each([
  ['a wall 50 mm aside', wall(0.15), 0.05, [0, -0.05]],
  ['a wall aside by its own thickness, so that one face is on a line', wall(0.3), 0.2, [0, -0.2]],
  ['a column 30 and 40 mm off', column(8.23, 0.24), 0.04, [-0.03, -0.04]],
] as const)('%s is taken back by the shift that undoes it', (_, row, away, back) => {
  const own = compare([row]).drift[0];
  expect(own.away).toBeCloseTo(away, 4);
  expect(own.back).toEqual(back.map((value) => expect.closeTo(value, 3)));
});

test('a wall of another thickness lies off its lines and no shift takes it back', () => {
  const [own] = compare([{ ...wall(0.1), shape: { ...wall(0.1).shape, thickness: 0.3 } } as ElementRow]).drift;
  expect([own.away, own.back]).toEqual([expect.closeTo(0.05, 4), null]);
});

test('a turned, mirrored plan far away gives the same drift', () => {
  const placement: Placement = { ...asDrawn('mm'), target: [500, 900], turning: Math.PI / 2, mirrored: true };
  // (x, y) goes to (-y, -x) and then to the target.
  const at = (x: number, y: number): [number, number] => [500 - y, 900 - x];
  const turned = (y: number): ElementRow => {
    const own = wall(y);
    return own.kind === 'wall' ? { ...own, shape: { ...own.shape, start: at(0, y), end: at(6, y) } } : own;
  };
  expect(compare([turned(0.1)], placement).drift[0].away).toBeCloseTo(0, 6);
  const [off] = compare([turned(0.15)], placement).drift;
  expect([off.away, ...off.back!]).toEqual([0.05, 0.05, 0].map((value) => expect.closeTo(value, 3)));
});

test('an opening is held against the drawn ends nearest along its wall', () => {
  const door = (offset: number): ElementRow => ({
    id: 'd',
    levelId: level,
    source: { drawing: plan, handles: ['A1'] },
    kind: 'opening',
    shape: { wall: 'w', use: 'door', offset, width: 6 - offset, height: 2.1, sill: 0 },
  });
  const away = (offset: number) => compare([wall(0.1), door(offset)]).drift.find(({ id }) => id === 'd')!.away;
  expect([away(0), away(0.3)]).toEqual([expect.closeTo(0, 6), expect.closeTo(0.3, 6)]);
});

test('where a wall is open its faces are not looked for', () => {
  // Of a wall of 20 m the lines end at 6 m, and from there it is a window: its faces lie on their lines all the same.
  const long: ElementRow = {
    ...(wall(0.1) as Extract<ElementRow, { kind: 'wall' }>),
    shape: { start: [0, 0.1], end: [20, 0.1], bulge: 0, thickness: 0.2, outer: false, height: null },
  };
  const window: ElementRow = {
    id: 'd',
    levelId: level,
    source: null,
    kind: 'opening',
    shape: { wall: 'w', use: 'window', offset: 6, width: 14, height: 1, sill: 1 },
  };
  const away = (elements: ElementRow[]) => compare(elements).drift.find(({ id }) => id === 'w')!.away;
  expect(away([long])).toBeGreaterThan(1);
  expect(away([long, window])).toBeCloseTo(0, 6);
});

test('dimensions are held against the model, not against the lines', () => {
  const told = (elements: ElementRow[]) => {
    const { agree, differ, without } = compare(elements).dimensions;
    return [agree, differ.map(({ text, modelled }) => [text, modelled]), without.map(({ text }) => text)];
  };
  // From the grid line to the column: 8.000 and 8.400 m; 8300 is written wrong, and at 20 m there is nothing.
  expect(told(sound)).toEqual([1, [['8300', expect.closeTo(8.4, 6)]], ['20000']]);
  // The column 20 mm nearer: the first no longer agrees.
  expect(told([wall(0.1), column(8.18, 0.2), grid])).toEqual([
    0,
    [
      ['8300', expect.closeTo(8.38, 6)],
      ['8000', expect.closeTo(7.98, 6)],
    ],
    ['20000'],
  ]);
});

test('areas are held against the zones that they stand in', () => {
  expect(compare(sound).areas).toEqual({ agree: 1, differ: [], without: [] });
  expect(
    compare([
      {
        ...zone,
        shape: {
          ...zone.shape,
          outline: [
            [0, 1],
            [7, 1],
            [7, 4],
            [0, 4],
          ],
        },
      } as ElementRow,
    ]).areas,
  ).toMatchObject({ agree: 0, differ: [{ id: 'z', written: 24, area: expect.closeTo(21, 6) }] });
  expect(compare([wall(0.1)]).areas).toMatchObject({ agree: 0, differ: [], without: [{ written: 24 }] });
});

test('findings say how far, what is written, and put back what can be', () => {
  const made = compare([wall(0.15), column(8.2, 0.2), grid]);
  const findings = findingsOf(made, { drawing: 'plan.dxf', elevation: 3, tolerance: 0.01 });
  expect(findings.map(({ rule, elements }) => [rule, elements])).toEqual([
    ['off its lines', ['w']],
    ['dimension', ['w', 'c']],
    ['not accounted for', []],
  ]);
  expect(findings[0]).toMatchObject({
    position: [3, expect.closeTo(0.15, 6), 3],
    message: expect.stringContaining('0.050 m off the lines of plan.dxf'),
    fix: { words: 'Put back', move: [expect.closeTo(0, 3), expect.closeTo(-0.05, 3)] },
  });
  expect(findings[1].message).toContain('says 8.300 m, the model has 8.400 m');
  expect([0.001, 0.009, 0.011].map((away) => toneOf({ away }, 0.01))).toEqual(['on', 'near', 'off']);
});

test('elevations of a section are held against the ladder, finished floor or structure', () => {
  const row = (id: string, elevation: number, buildUp: number) => ({
    id,
    name: id,
    elevation,
    height: 3,
    kind: 'floor' as const,
    buildUp,
    slab: 0,
    repeats: null,
  });
  const mark = (elevation: number) => ({ name: '', elevation, at: [0, 0] as [number, number], off: 0 });
  const made = levelsBeside([0, 3.12, 6.4, 9.9].map(mark), [
    row('Ground', 0, 0),
    row('Upper', 3.2, 0.08),
    row('Top', 6.5, 0),
    row('Attic', 12, 0),
  ]);
  expect(made).toMatchObject({
    agree: 2,
    differ: [{ written: 6.4, level: { id: 'Top' } }],
    without: [{ written: 9.9 }],
    unmarked: [{ id: 'Attic' }],
  });
  expect(levelFindings(made, 'section.dxf').map(({ message }) => message)).toEqual([
    'section.dxf writes 6.400 m where Top lies at 6.500 m.',
  ]);
});

test('walls that meet and went astray go back together with their ends', () => {
  const across = (x: number, y: number): ElementRow => ({
    ...(wall(0.1) as Extract<ElementRow, { kind: 'wall' }>),
    id: 'v',
    shape: { start: [x, y], end: [x, 3], bulge: 0, thickness: 0.2, outer: false, height: null },
  });
  // The corner was dragged from (0, 0.1) by 30 mm and 50 mm: both walls are aside, the one across was made longer.
  const model = new Model({ ...emptyState, element: { w: wall(0.15, 0.03), v: across(0.03, 0.15) } });
  const told = { kind: 'wall' as const, at: [0, 0] as [number, number] };
  const edit = putBack(model, [
    { ...told, id: 'w', away: 0.05, back: [0, -0.05] },
    { ...told, id: 'v', away: 0.03, back: [-0.03, 0] },
  ]);
  if (!edit.ok) throw new Error(edit.message);
  model.apply(edit.value.changes);
  const [w, v] = [model.element.w, model.element.v].map((row) => {
    if (row.kind !== 'wall') throw new Error('It is a wall no longer');
    return row.shape;
  });
  expect([...w.start, ...v.start, ...v.end]).toEqual([0, 0.1, 0, 0.1, 0, 3].map((value) => expect.closeTo(value, 9)));
  expect(w.end[1]).toBeCloseTo(0.1, 9);
});

test('a unit that nobody confirmed and a revision that was not taken over are told until they are', () => {
  const drawing: DrawingRow = {
    id: plan,
    name: 'plan',
    fileId: plan,
    fileName: 'plan.dxf',
    revision: 2,
    levelId: level,
    alsoOn: [],
    discarded: false,
    setAside: false,
  };
  const placement: PlacementRow = { id: plan, ...asDrawn('mm'), origin: [0, 0], target: [0, 0], confirmed: false };
  expect(unitFindings(drawing, placement, 3)).toMatchObject([
    {
      rule: 'unit not confirmed',
      position: [0, 0, 3],
      message: 'plan is taken to be in millimetres, which nobody has confirmed.',
    },
  ]);
  expect(unitFindings(drawing, { ...placement, confirmed: true }, 3)).toEqual([]);
  const decision: DecisionRow = {
    id: 'd',
    drawingId: plan,
    key: 'wall:1',
    verdict: 'accepted',
    elementId: 'w',
    seen: null,
  };
  const changes = [wall(0), { ...wall(4), id: 'w2' }].map((element) => ({ element, decision, candidate: null }));
  expect(revisionFindings(drawing, changes, 3)).toMatchObject([
    {
      rule: 'revision not taken over',
      elements: ['w', 'w2'],
      position: [0, 0.1, 3],
      message: 'Revision 2 of plan shows 2 accepted elements otherwise, 2 of them no more.',
    },
  ]);
  expect(revisionFindings(drawing, [], 3)).toEqual([]);
});
