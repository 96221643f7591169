import type { Page } from 'playwright-core';
import { box, dxf, groups, line } from '@/core/drawing/testing/dxf';
import {
  choose,
  fileNamed,
  kindTab,
  newProject,
  openStage,
  part,
  problems,
  stateOf,
  station,
  type Stage,
} from './harness';

/** A storey whose plan, framing plan and schedule are three drawings, in millimetres. */
let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  ({ page } = await stage.person());
}, 60_000);
afterAll(async () => stage.close());

const post = (x: number, y: number, width: number, depth: number): string => box('COLUMN', x, y, width, depth);
const text = (x: number, y: number, words: string): string =>
  groups([0, 'TEXT'], [8, 'TEXT'], [10, x], [20, y], [40, 200], [1, words]);
const sheet = (entities: string): string => dxf({ header: groups([9, '$INSUNITS'], [70, 4]), entities });

const places = [0, 6000, 12_000].flatMap((x) => [0, 7000].map((y) => [x, y]));
const plan = sheet(places.map(([x, y]) => post(x, y, 400, 400)).join(''));
/** One column less, one of 300 by 400, and a beam whose mark is explained elsewhere. */
const framing = sheet(
  places
    .slice(0, 5)
    .map(([x, y], i) => post(x, y, i === 0 ? 300 : 400, 400))
    .join('') +
    line(200, 150, 5800, 150, 'BEAM') +
    line(200, -150, 5800, -150, 'BEAM') +
    text(2500, 300, 'T14'),
);
const schedule = sheet(
  text(0, 0, 'T14') + text(2000, 0, 'Type R') + text(0, -600, 'Type R') + text(2000, -600, '300x600'),
);

/** Brings a drawing in and takes it in hand with millimetres. */
async function bring(name: string, content: string): Promise<void> {
  await station(page, 'Intake');
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed(`${name}.dxf`, content));
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  await page.getByRole('heading', { name: 'Intake report' }).waitFor();
}

test('drawings of one storey are held beside one another, one element keeps both as its sources, marks are followed', async () => {
  const project = await newProject(stage, page, 'Storey');
  await bring('A-101', plan);
  await bring('S-101', framing);
  await bring('S-201', schedule);
  await station(page, 'Reading');
  await choose(page, 'Drawing', 'A-101');
  await kindTab(page, 'Columns').click();
  await page.getByText('S-101: 4 alike, 2 otherwise or missing there').waitFor();
  await page.getByRole('button', { name: 'Show them', exact: true }).click();
  const listed = page.getByRole('list', { name: /^Columns/ });
  await listed.getByText('300 \u00d7 400 in S-101').waitFor();
  await listed.getByText('not in S-101').waitFor();
  await choose(page, 'Show of these', 'All\u00a06');
  await page.getByRole('button', { name: 'Accept 6', exact: true }).click();
  await page.getByRole('tab', { name: /accepted 6/ }).waitFor();

  // The framing plan knows the same columns: they are kept as sources of what is there.
  await choose(page, 'Drawing', 'S-101');
  await page.getByText('5 of these the model has already').waitFor();
  await page.getByRole('button', { name: 'Show them', exact: true }).first().click();
  await page.getByText('the model has a column here already, 400 \u00d7 400').waitFor();
  await page.getByRole('button', { name: 'They are the same' }).click();
  await page.getByRole('tab', { name: /accepted 5/ }).waitFor();
  const { element, decision } = await stateOf(stage, page, project);
  expect(Object.values(element).filter(({ kind }) => kind === 'column')).toHaveLength(6);
  expect(Object.values(decision).filter(({ verdict }) => verdict === 'accepted')).toHaveLength(11);

  // The beam's mark leads over the type on another sheet to its size.
  await kindTab(page, 'Beams').click();
  await page
    .getByRole('list', { name: /^Beams/ })
    .getByRole('button')
    .filter({ hasText: 'T14' })
    .click();
  await page.getByText('T14 in S-201: Type R').waitFor();
  await page.getByText('R in S-201: 300x600').waitFor();
  await page.getByText('marked T14, 300 \u00d7 600 by the schedule').waitFor();
  expect(problems).toEqual([]);
});

test('one answer settles all that leaves the same open, stays across a reload, and is forgotten again', async () => {
  const cased = [0, 6000, 12_000].map((x) => post(x, 0, 400, 400) + post(x, 0, 440, 440)).join('');
  const project = await newProject(stage, page, 'Cased');
  await bring('C-101', sheet(cased + post(18_000, 0, 400, 400)));
  await station(page, 'Reading');
  await kindTab(page, 'Columns').click();
  const listed = page.getByRole('list', { name: /^Columns/ });
  await listed.getByText('finish of 20 mm or part of it').first().waitFor();
  await listed.getByRole('button').filter({ hasText: 'finish of 20 mm' }).first().click();
  await page.getByText('Read as the finish about it; it could be part of the column.').waitFor();
  await page.getByRole('button', { name: 'Read it and 2 more like it so' }).click();
  await listed.getByText('440 \u00d7 440').nth(2).waitFor();
  expect(Object.values((await stateOf(stage, page, project)).pick)).toMatchObject([
    { kind: 'answer', answer: { asks: 'finish', take: 'part of the column' } },
  ]);
  await page.reload();
  await kindTab(page, 'Columns').click();
  await listed.getByText('440 \u00d7 440').nth(2).waitFor();
  await station(page, 'Sorting');
  await part(page, 'Picked lines');
  await page.getByRole('button', { name: /^Forget A ring of 20 mm about columns/ }).click();
  await station(page, 'Reading');
  await kindTab(page, 'Columns').click();
  await listed.getByText('finish of 20 mm or part of it').first().waitFor();
  expect(problems).toEqual([]);
});
