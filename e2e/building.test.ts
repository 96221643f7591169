import { readFileSync } from 'node:fs';
import type { ProjectState } from '@/core/model/state';
import { otherHand } from '@/server/ifc/testing/otherHand';
import { basement } from '../demo/basement';
import {
  ask,
  bringIn,
  fileNamed,
  newProject,
  openStage,
  part,
  problems,
  station,
  stateOf,
  type Stage,
} from './harness';

let stage: Stage;

beforeAll(async () => {
  stage = await openStage();
}, 60_000);
afterAll(async () => stage.close());

test('a building comes in as a plan of each storey on its level, with an account; its next edition revises them', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Outpost');
  const bench = page.getByRole('region', { name: 'Bench' });
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('outpost.ifc', otherHand()));
  await page.getByRole('button', { name: /^outpost Level 2/ }).waitFor();
  await page.getByRole('button', { name: /^outpost Level 1/ }).click();
  await part(page, 'Report');

  // What the building held, what is on plans, what is not and why.
  await bench.getByRole('heading', { name: 'Cut through a building' }).waitFor();
  await bench.getByText('IFC2X3, cut 1.20 m above each floor.').waitFor();
  await bench.getByText('On no plan: 1').waitFor();
  await bench.getByText(/1 FOUNDATION.*has no shape in the file/).waitFor();
  await bench.getByText(/Level 2 structure at 14\.850 m has no plan of its own/).waitFor();
  const waiting = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save the original' }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toBe('outpost.ifc');
  expect(readFileSync((await download.path())!, 'utf8')).toBe(otherHand());

  const { drawing, level, placement } = await stateOf(stage, page, project);
  const levels = Object.values(level).map(({ id, name, elevation, height }) => ({ id, name, elevation, height }));
  const hung = Object.values(drawing)
    .map(({ id, name, levelId }) => [name, levels.find((one) => one.id === levelId)?.elevation, placement[id].unit])
    .sort();
  expect(hung).toEqual([
    ['outpost Level 1', 12, 'mm'],
    ['outpost Level 2', 15, 'mm'],
  ]);

  // All of it can be taken back, levels last, and done again.
  const levelNames = async () =>
    Object.values((await stateOf(stage, page, project)).level)
      .map(({ name }) => name)
      .sort();
  for (const way of [/^Undo: Bring in/, /^Undo: Bring in/, /^Undo: Levels of outpost/])
    await page.getByRole('button', { name: way }).click();
  await page.getByText('No drawing yet.', { exact: false }).first().waitFor();
  await page.getByRole('button', { name: /^Redo: Levels of outpost/ }).waitFor();
  expect(await levelNames()).toEqual(['Ground']);
  for (const way of [/^Redo: Levels of outpost/, /^Redo: Bring in/, /^Redo: Bring in/])
    await page.getByRole('button', { name: way }).click();
  await page.getByRole('button', { name: /^outpost Level 1/ }).click();
  expect(await levelNames()).toEqual(['Ground', 'Level 1', 'Level 2']);

  // The next edition: the wall is 6 m long and the upper storey is gone up by half a metre.
  const next = otherHand({
    45: 'IFCCARTESIANPOINT((0.,0.,3500.))',
    64: 'IFCRECTANGLEPROFILEDEF(.AREA.,$,#65,6000.,200.)',
  });
  await part(page, 'Revisions');
  await page.getByLabel('Next revision').setInputFiles(fileNamed('outpost-b.ifc', next));
  await page.getByRole('button', { name: /^outpost-b Level 2/ }).waitFor();
  await page.getByRole('list', { name: 'Revisions' }).getByText('outpost-b Level 1.dxf').waitFor();
  const after = await stateOf(stage, page, project);
  expect(
    Object.values(after.drawing)
      .map(({ name, revision, levelId }) => [name, revision, after.level[levelId ?? '']?.elevation])
      .sort(),
  ).toEqual([
    ['outpost Level 1', 2, 12],
    ['outpost Level 2', 1, 15],
    ['outpost-b Level 2', 1, 15.5],
  ]);

  // Its layers say what they are.
  await station(page, 'Sorting');
  await page.getByRole('heading', { name: 'Sorting', level: 1 }).waitFor();
  const roles = Object.values(after.role).filter(
    ({ drawingId }) => after.drawing[drawingId].name === 'outpost Level 1',
  );
  expect(Object.fromEntries(roles.map(({ layer, role }) => [layer, role]))).toMatchObject({
    WALL: 'wall',
    COLUMN: 'column',
    DOOR: 'door',
    GRID: 'grid',
  });
  await context.close();
});

test('a building without storeys, one that is cut short, and one that is to revise a drawing are told', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Refused');
  const point = 'IFCCARTESIANPOINT((0.,0.))';
  await page
    .getByLabel('Files to bring in')
    .setInputFiles(fileNamed('bare.ifc', otherHand({ 40: point, 42: point, 46: point })));
  await page.getByText(/bare\.ifc: The IFC holds no storey/).waitFor();
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('short.ifc', otherHand().slice(0, 3000)));
  await page.getByText(/short\.ifc: The IFC is cut short/).waitFor();
  const { body } = await ask<{ state: ProjectState }>(stage, `/api/projects/${project}/state`);
  expect([Object.keys(body.state.drawing).length, Object.keys(body.state.level).length]).toEqual([0, 1]);
  await bringIn(page, fileNamed('marram-basement.dxf', basement().dxf));
  await part(page, 'Revisions');
  await page.getByLabel('Next revision').setInputFiles(fileNamed('outpost.ifc', otherHand()));
  await page.getByText(/outpost\.ifc: marram-basement was not made of an IFC/).waitFor();
  await context.close();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
