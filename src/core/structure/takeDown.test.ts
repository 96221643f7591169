import { deflectionOf, deflectionSteps } from './deflection';
import { solveFrame } from './solve/solve';
import { takingDown } from './takeDown';
import { even, frameOf, held, member, noCase, node } from './testing/frames';
import { columnAt, modelOf } from './testing/models';
import { tryStructure } from './trial';
import { viewOf } from './view';

test('a simple beam sags by 5 w L4 / 384 E I in the middle, and not at its ends', () => {
  const nodes = [node([0, 0, 0], held('x', 'y', 'z', 'rx', 'rz')), node([6, 0, 0], held('y', 'z', 'rx', 'rz'))];
  const frame = frameOf(nodes, [member(nodes, 0, 1)]);
  const result = solveFrame(frame, [{ ...noCase(), spread: [even(frame, 0, [0, 0, -1e4])] }]).cases[0];
  const moves = deflectionOf(frame, result, 0);
  const exact = (5 * 1e4 * 6 ** 4) / (384 * 4e7);
  expect(moves[deflectionSteps / 2][2] / -exact).toBeCloseTo(1, 1);
  expect([moves[0][2], moves[deflectionSteps][2]]).toEqual([expect.closeTo(0, 12), expect.closeTo(0, 12)]);
  // A quarter along: 57 / 6144 of w L4 / E I.
  expect(moves[deflectionSteps / 4][2] / -((57 * 1e4 * 6 ** 4) / (6144 * 4e7))).toBeCloseTo(1, 1);
});

/** Three by three columns 6 m apart on two storeys, flat slabs, nothing but 5 kN/m2 on each. */
const grid = [0, 6, 12].flatMap((x) => [0, 6, 12].map((y): [number, number] => [x, y]));
const outline = [
  [0, 0],
  [12, 0],
  [12, 12],
  [0, 12],
];
const tower = modelOf({
  levels: [0, 1, 2].map((i) => ({ id: `L${i}`, name: `Level ${i}`, elevation: 4 * i, height: 4 })),
  columns: [0, 1].flatMap((i) => grid.map((at, k) => columnAt(`C${i}${k}`, at, { level: `L${i}` }))),
  slabs: [1, 2].map((i) => ({ id: `S${i}`, level: `L${i}`, outline, holes: [], thickness: 0.25 })),
  loadCases: [{ id: 'Q', selfWeight: 0 }],
  loads: [1, 2].map((i) => ({ case: 'Q', kind: 'area', slab: `S${i}`, q: -5000 })),
});

test('a column line taken down: 36, 18 and 9 m2 a floor, by hand and as calculated', () => {
  const trial = tryStructure(tower);
  const lines = takingDown(trial, tower)(trial.solution.cases[0]);
  expect(lines).toHaveLength(9);
  const at = (x: number, y: number) => lines.find(({ position }) => position[0] === x && position[1] === y)!.storeys;
  for (const [x, y, area] of [
    [6, 6, 36],
    [0, 6, 18],
    [0, 0, 9],
  ]) {
    const storeys = at(x, y);
    expect(storeys.map((storey) => storey.area)).toEqual([expect.closeTo(area, 6), expect.closeTo(area, 6)]);
    expect(storeys.map(({ byHand }) => byHand)).toEqual([5000 * area, 10000 * area].map((v) => expect.closeTo(v, 2)));
    expect(storeys.map(({ carried }) => carried)).toEqual([5000 * area, 10000 * area].map((v) => expect.closeTo(v, 2)));
  }
});

test('what a window shows: results of cases and combinations, the supports, and drift', () => {
  const pushed = {
    ...tower,
    combinations: [{ id: 'U', factors: { Q: 1.5 } }],
    loads: [
      ...tower.loads!,
      {
        case: 'Q',
        kind: 'point' as const,
        position: [6, 6, 8] as [number, number, number],
        force: [9e3, 0, 0] as [number, number, number],
      },
    ],
    supports: grid.map(([x, y], i) => ({
      id: `P${i}`,
      position: [x, y, 0] as [number, number, number],
      fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'] as ('x' | 'y' | 'z' | 'rx' | 'ry' | 'rz')[],
    })),
  };
  const view = viewOf(tryStructure(pushed), pushed);
  expect(view.results.map(({ id }) => id)).toEqual(['Q', 'U']);
  const [q, u] = view.results;
  expect(u.reactions[2]).toBeCloseTo(1.5 * q.reactions[2], 3);
  expect(q.reactions[0]).toBeCloseTo(-9e3, 3);
  // Nine posts of 8 m side by side, joined at half height and at the top, without beams: H h3 / 9 / 3 E I each.
  const across = (9e3 / 9) * (8 ** 3 / (3 * 33e9 * (0.4 ** 4 / 12)));
  expect(q.drift[0]).toEqual({ level: 'L2', across: expect.closeTo(across, 9) });
  expect(q.drift[1].across).toBeLessThan(q.drift[0].across);
  expect(view.nodes.filter(({ support }) => support !== undefined)).toHaveLength(9);
  expect(view.motions).toEqual([]);
});
