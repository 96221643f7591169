import { asDrawn } from '@/core/datum/placement';
import { box, dxf, line, readText } from '@/core/drawing/testing/dxf';
import { toleranceFor } from '@/core/patterns/settings';
import type { Candidate } from '@/core/reading/candidate';
import { read } from '@/core/reading/read';
import { Scene } from '@/core/reading/scene';
import { flatten } from '@/core/underlay/flatten';
import { answerWords, asksAlike, otherWay, questions, told, type Answer, type Question } from './answers';
import type { Role } from './roles';

const roles: Record<string, Role> = { A: 'grid', W: 'wall', C: 'column', S: 'slab', D: 'door' };

function readPlan(entities: string, answers: readonly Answer[] = []) {
  const { drawing } = readText(dxf({ entities }));
  const roleOf = drawing.layers.map(({ name }) => roles[name] ?? null);
  const scene = new Scene(drawing, flatten(drawing), asDrawn('m'), roleOf);
  const { candidates } = read({ scene, tolerance: toleranceFor('m'), answers });
  return <K extends Candidate['kind']>(kind: K) =>
    candidates.filter((one): one is Extract<Candidate, { kind: K }> => one.kind === kind);
}
test('the other way of the other way is the way it was, and each answer is told of its size alone', () => {
  for (const asks of Object.keys(questions) as Question[])
    for (const take of questions[asks]) {
      const answer = { asks, size: 0.35, take } as Answer;
      expect(otherWay(answer).take).not.toBe(take);
      expect(otherWay(otherWay(answer))).toEqual(answer);
      expect(asksAlike(answer, { ...answer, size: 0.354 })).toBe(true);
      expect(told([answer], asks, 0.346)).toBe(take);
      expect(told([answer], asks, 0.36)).toBeNull();
      expect(answerWords(answer)).toContain('350 mm');
    }
});

test('faces between those of a wall are its leaves until they are said to be walls, one answer for all as thick', () => {
  // Two cavity walls of 120 + 60 + 170 mm, six metres long, and one of 90 + 20 + 90 mm.
  const cavity = (y: number, ...offsets: number[]) => offsets.map((at) => line(0, y + at, 6, y + at, 'W')).join('');
  const plan = cavity(0, 0, 0.12, 0.18, 0.35) + cavity(5, 0, 0.12, 0.18, 0.35) + cavity(10, 0, 0.09, 0.11, 0.2);
  const thick = (answers: Answer[] = []) => readPlan(plan, answers)('wall').map(({ element }) => element.thickness);
  expect(thick().sort()).toEqual([0.2, 0.35, 0.35]);
  const [wall] = readPlan(plan)('wall').filter(({ element }) => element.thickness === 0.35);
  expect(wall.asks).toMatchObject({ asks: 'leaves', take: 'one wall' });
  const apart = otherWay(wall.asks!);
  expect(thick([apart]).sort()).toEqual([0.12, 0.12, 0.17, 0.17, 0.2]);
  // What was parted asks the same the other way round.
  const [leaf] = readPlan(plan, [apart])('wall').filter(({ element }) => element.thickness === 0.17);
  expect(otherWay(leaf.asks!)).toEqual({ asks: 'leaves', size: expect.closeTo(0.35, 9), take: 'one wall' });
  expect(thick([otherWay(leaf.asks!)]).sort()).toEqual([0.2, 0.35, 0.35]);
});

test('faces further apart than a wall are parted until they are said to be one', () => {
  const plan = [0, 0.2, 0.5, 0.7].map((y) => line(0, y, 8, y, 'W')).join('');
  const thick = (answers: Answer[] = []) => readPlan(plan, answers)('wall').map(({ element }) => element.thickness);
  expect(thick()).toEqual([0.2, 0.2]);
  expect(thick([{ asks: 'leaves', size: 0.7, take: 'one wall' }])).toEqual([0.7]);
});

test('a ring about a column is its finish until it is said to be part of it', () => {
  const plan = [0, 6].map((x) => box('C', x, 0, 0.4) + box('C', x, 0, 0.44)).join('') + box('C', 12, 0, 0.4);
  const sides = (answers: Answer[] = []) =>
    readPlan(plan, answers)('column').map(({ element: { section } }) => section.shape === 'rectangle' && section.width);
  expect(sides()).toEqual([0.4, 0.4, 0.4]);
  const { asks } = readPlan(plan)('column')[0];
  expect(asks).toEqual({ asks: 'finish', size: expect.closeTo(0.02, 9), take: 'the finish about it' });
  expect(sides([otherWay(asks!)]).sort()).toEqual([0.4, 0.44, 0.44]);
});

test('a shape of a column\u2019s size away from the grid is a column until it is said to be an opening of the slab', () => {
  const grid = [0, 6].map((x) => line(x, -2, x, 8, 'A')).join('') + [0, 6].map((y) => line(-2, y, 8, y, 'A')).join('');
  const plan = grid + box('C', 0, 0, 0.5) + box('C', 3, 3, 0.5, 0.3) + box('S', 3, 3, 8);
  const counts = (answers: Answer[] = []) => {
    const of = readPlan(plan, answers);
    return [of('column').length, of('slab')[0].element.holes.length];
  };
  expect(counts()).toEqual([2, 0]);
  const [off, on] = [readPlan(plan)('column')[1], readPlan(plan)('column')[0]].map(({ asks }) => asks ?? null);
  expect([off, on]).toEqual([{ asks: 'void', size: expect.closeTo(0.5, 9), take: 'a column' }, null]);
  // The column of the same length on a crossing stays one.
  expect(counts([otherWay(off!)])).toEqual([1, 1]);
});
