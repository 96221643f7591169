import type { Shapes } from '@/core/kinds/element';
import { acceptCandidates } from './decide';
import { applyChanges } from '@/core/model/model';
import { groundFloor, revisionB } from '../../../demo/ground';
import { asDrawn } from '@/core/datum/placement';
import { readDxf } from '@/core/drawing/reader';
import type { Candidate } from '@/core/reading/candidate';
import { read } from '@/core/reading/read';
import { toleranceFor } from '@/core/patterns/settings';
import { Scene } from '@/core/reading/scene';
import { suggestRole } from '@/core/sorting/suggest';
import { flatten } from '@/core/underlay/flatten';
import { put } from '@/core/model/edits';
import { plainLevel } from '@/core/model/levels';
import { apart, keepAsTheyAre, sourceChanges, takeChanges } from './revise';
import { readsAlike, valuesOf } from './likeness';
import { emptyState } from '@/core/model/state';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
let next = 1000;
const newId = () => uuid((next += 1));
const drawing = {
  id: uuid(50),
  name: 'ground',
  fileId: uuid(51),
  fileName: 'ground.dxf',
  revision: 1,
  levelId: uuid(1),
  alsoOn: [],
  discarded: false,
  setAside: false,
};

function candidatesOf(text: string): Candidate[] {
  const result = readDxf(new TextEncoder().encode(text));
  if (!result.ok) throw new Error(result.message);
  const d = result.value.drawing;
  return read({
    scene: new Scene(
      d,
      flatten(d),
      asDrawn('mm'),
      d.layers.map(({ name }) => suggestRole(name)?.role ?? null),
    ),
    tolerance: toleranceFor('mm'),
  }).candidates;
}
const [before, after] = [candidatesOf(groundFloor().dxf), candidatesOf(groundFloor({ revision: 'B' }).dxf)];
const start = applyChanges(emptyState, [
  put('level', { ...plainLevel, id: uuid(1), name: 'Ground', elevation: 0, height: 3.9 }),
  put('drawing', drawing),
]).state;
const accepted = applyChanges(start, acceptCandidates(start, drawing, before, newId).changes).state;

test('the same reading changes nothing', () => {
  expect(sourceChanges(accepted, drawing, before)).toEqual([]);
});

test('revision B: two columns moved, a wall went and two others became one, a room was renamed', () => {
  const changes = sourceChanges(accepted, drawing, after);
  const moved = changes
    .filter(({ element }) => element.kind === 'column')
    .map(({ element, candidate }) => Number(apart(element, candidate!).toFixed(6)))
    .sort();
  expect(moved).toEqual(
    Object.values(revisionB.moved)
      .map(([x, y]) => Math.hypot(x, y))
      .sort(),
  );
  expect(
    changes
      .filter(({ element }) => element.kind === 'zone')
      .map(({ element, candidate }) => [
        element.kind === 'zone' && element.shape.name,
        candidate?.kind === 'zone' && candidate.element.name,
      ]),
  ).toEqual([['Mess', 'Galley']]);
  const walls = changes.filter(({ element }) => element.kind === 'wall');
  // The free-standing partition is gone; of the two pieces of the wall that it parted one is the whole now and one is
  // gone.
  expect(walls.filter(({ candidate }) => candidate === null)).toHaveLength(2);
  expect(walls.filter(({ candidate }) => candidate !== null)).toHaveLength(1);
  expect(changes.some(({ element }) => element.kind === 'grid')).toBe(false);
});

test('taken, the model is what the revision shows; openings stand in walls that are there; nothing is left to ask', () => {
  const edit = takeChanges(accepted, drawing, sourceChanges(accepted, drawing, after), after, newId);
  const taken = applyChanges(accepted, edit.changes).state;
  expect(sourceChanges(taken, drawing, after)).toEqual([]);
  const elements = Object.values(taken.element);
  const walls = new Set(elements.filter(({ kind }) => kind === 'wall').map(({ id }) => id));
  for (const element of elements) if (element.kind === 'opening') expect(walls.has(element.shape.wall)).toBe(true);
  expect(elements.filter(({ kind }) => kind === 'wall')).toHaveLength(
    after.filter(({ kind }) => kind === 'wall').length,
  );
  // The new door is a candidate still to be judged.
  const decided = new Set(Object.values(taken.decision).map(({ key }) => key));
  expect(after.filter(({ kind, key }) => kind === 'opening' && !decided.has(key)).length).toBeGreaterThanOrEqual(
    after.filter(({ kind }) => kind === 'opening').length - before.filter(({ kind }) => kind === 'opening').length,
  );
  expect(applyChanges(taken, applyChanges(accepted, edit.changes).inverse).state).toEqual(accepted);
});

test('kept, the elements stay as they are and nobody is asked again', () => {
  const kept = applyChanges(accepted, keepAsTheyAre(drawing, sourceChanges(accepted, drawing, after)).changes).state;
  expect(sourceChanges(kept, drawing, after)).toEqual([]);
  for (const [id, element] of Object.entries(accepted.element)) expect(kept.element[id].shape).toEqual(element.shape);
});

test('what a person put right is not taken for a change of the drawing', () => {
  const zone = before.find(({ kind }) => kind === 'zone')!;
  const corrected = { ...zone, asRead: zone.element, element: { ...zone.element, name: 'Other' } } as Candidate;
  const state = applyChanges(start, acceptCandidates(start, drawing, [corrected], newId).changes).state;
  expect(sourceChanges(state, drawing, before)).toEqual([]);
});

test('shapes are alike where every value is within a tenth of a millimetre, on whichever side of a rounding it lies', () => {
  const wall = (thickness: number, x = 5): Shapes['wall'] => ({
    start: [0, 0],
    end: [x, 0],
    thickness,
    height: null,
    bulge: 0,
    outer: false,
  });
  const seen = valuesOf(wall(0.2));
  expect(readsAlike(wall(0.20009, 5.00009), seen)).toBe(true);
  // Half a tenth of a millimetre either way of the boundary between two roundings is the same.
  expect(readsAlike(wall(0.20004), valuesOf(wall(0.20006)))).toBe(true);
  expect(readsAlike(wall(0.2002), seen)).toBe(false);
  expect(readsAlike({ ...wall(0.2), height: 3 }, seen)).toBe(false);
  expect(readsAlike({ outline: [[0, 0]], holes: [], thickness: 0.2 }, seen)).toBe(false);
});
