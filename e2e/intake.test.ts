import { strToU8, zipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { basement } from '../demo/basement';
import { groundFloor } from '../demo/ground';
import { sheet, sheetTitles } from '../demo/sheet';
import { upperFloor } from '../demo/upper';
import { onSurvey, yard } from '../demo/yard';
import { dxf, groups, line } from '@/core/drawing/testing/dxf';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import {
  boardMap,
  bringIn,
  fileNamed,
  newProject,
  openStage,
  picture,
  problems,
  stateOf,
  type Stage,
  settled,
  otherThan,
} from './harness';

let stage: Stage;
beforeAll(async () => {
  stage = await openStage();
}, 60_000);
afterAll(async () => stage.close());
afterEach(() => {
  expect(problems).toEqual([]);
});

const part = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const drawingsOf = async (page: Page, project: string) =>
  Object.values((await stateOf(stage, page, project)).drawing).filter((row) => !row.discarded);
const linesShown = async (page: Page) =>
  Number((await page.getByText(/[\d,]+ lines, \d/).innerText()).replace(/,/g, '').match(/\d+/)![0]);

/** Waits until the board shows as many lines as asked for. */
async function untilLines(page: Page, test: (lines: number) => boolean): Promise<void> {
  for (let i = 0; i < 100; i += 1) {
    if (test(await linesShown(page))) return;
    await settled(page);
  }
  throw new Error(`The board shows ${await linesShown(page)} lines`);
}

test('the upper floor: strays a kilometre away are found, shown, dropped, and brought back by undo', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Upper');
  await bringIn(page, fileNamed('marram-upper.dxf', upperFloor().dxf));
  await page.getByText(/3 strays, the furthest 1,?\s?\d+ m away/).waitFor();
  await part(page, 'Recipe');
  const suggested = page.getByRole('list', { name: 'Suggested steps' });
  await suggested.getByText(/3 strays up to 1,\d{3} m away/).waitFor();
  const before = await linesShown(page);
  await page.getByRole('button', { name: /^Look at 9 dimensions/ }).click();
  await page.getByRole('status').filter({ hasText: 'Touches 9 dimensions, shown in amber.' }).waitFor();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: /^Apply all/ }).click();
  const steps = page.getByRole('list', { name: 'Steps of the recipe' });
  await steps.getByText('Drop strays').waitFor();
  await steps.getByText('9 dimensions').or(steps.getByText('9 entities')).waitFor();
  await untilLines(page, (lines) => lines > 0 && lines !== before);
  const kinds = (await stateOf(stage, page, project)).recipe[(await drawingsOf(page, project))[0].id].steps.map(
    ({ step }) => step.kind,
  );
  expect(kinds.slice(0, 2)).toEqual(['strays', 'leaveOutKinds']);
  // The report of the file is as it was: nothing of it is lost.
  await page.reload();
  await page.getByRole('list', { name: 'Steps of the recipe' }).getByText('Drop strays').waitFor();
  await page.getByRole('button', { name: /Undo/ }).click();
  await page.getByText('No step yet').waitFor();
  await untilLines(page, (lines) => lines === before);
  await context.close();
});

test('steps are switched, moved, changed, removed and typed; a wrong value is refused with a sentence', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Steps');
  await bringIn(page, fileNamed('marram-ground.dxf', groundFloor().dxf));
  await part(page, 'Recipe');
  const steps = page.getByRole('list', { name: 'Steps of the recipe' });
  const add = async (name: string) => {
    await page.getByRole('button', { name: 'Add a step' }).click();
    await page.getByRole('menuitem', { name, exact: true }).click();
  };
  await add('Leave out layers');
  await page
    .getByRole('status')
    .filter({ hasText: /Touches \d+ entities/ })
    .waitFor();
  await page.getByRole('button', { name: 'Apply', exact: true }).click();
  await steps.getByText('Leave out layers').waitFor();
  await add('Close gaps');
  await page.getByLabel('Gaps up to').fill('much');
  await page.getByText(/"much"/).waitFor();
  await page.getByLabel('Gaps up to').fill('8 mm');
  await page.getByRole('button', { name: 'Apply', exact: true }).click();
  await steps.getByText('up to 8 mm').waitFor();
  const order = async () =>
    Object.values((await stateOf(stage, page, project)).recipe)[0].steps.map(
      ({ step, on }) => `${step.kind}${on ? '' : ' off'}`,
    );
  expect(await order()).toEqual(['leaveOutLayers', 'closeGaps']);
  await page.getByRole('button', { name: 'Earlier: Close gaps' }).click();
  await steps.getByRole('listitem').first().getByText('Close gaps').waitFor();
  expect(await order()).toEqual(['closeGaps', 'leaveOutLayers']);
  await page
    .getByRole('switch', { name: 'Use Leave out layers' })
    .or(page.getByLabel('Use Leave out layers'))
    .first()
    .click();
  await steps.getByText('not used').waitFor();
  expect(await order()).toEqual(['closeGaps', 'leaveOutLayers off']);
  await page.getByRole('button', { name: 'Delete: Close gaps' }).click();
  await page.waitForFunction(() => document.querySelectorAll('[aria-label="Steps of the recipe"] li').length === 1);
  // Kept by a name, it serves the next job; copied, the other drawing of this one.
  await page.getByLabel('Use Leave out layers').first().click();
  await page.getByLabel('Name of the recipe').fill('Office of the north');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('list', { name: 'Kept recipes' }).getByText('Office of the north').waitFor();
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('marram-basement.dxf', basement().dxf));
  await page.getByRole('button', { name: /^marram-basement/ }).waitFor();
  await page.getByRole('button', { name: 'Copy to marram-basement' }).click();
  await page.getByRole('button', { name: /^marram-basement/ }).click();
  await steps.getByText('Leave out layers').waitFor();
  const other = await newProject(stage, page, 'Next job');
  await bringIn(page, fileNamed('marram-yard.dxf', yard().dxf));
  await part(page, 'Recipe');
  await page.getByRole('button', { name: 'Use recipe Office of the north' }).click();
  await page.getByRole('list', { name: 'Steps of the recipe' }).getByText('*FURN*').waitFor();
  expect(Object.values((await stateOf(stage, page, other)).recipe)[0].steps).toHaveLength(1);
  await context.close();
});

test('a zip of plans is unpacked in the window: each drawing comes in, and what is none is named', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Set');
  const set = zipSync({
    'set/marram-basement.dxf': strToU8(basement().dxf),
    'set/marram-yard.dxf': strToU8(yard().dxf),
    'set/read me.txt': strToU8('Plans of the station.'),
  });
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('set.zip', set));
  await page.getByText('Of set.zip only the drawings were taken, not read me.txt.').waitFor();
  await page.getByRole('button', { name: /^marram-basement/ }).waitFor();
  await page.getByRole('button', { name: /^marram-yard/ }).waitFor();
  expect(Object.values((await stateOf(stage, page, project)).drawing)).toHaveLength(2);
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('empty.zip', zipSync({ 'a.pdf': strToU8('x') })));
  await page.getByText('empty.zip holds no DXF and no IFC, but a.pdf.').waitFor();
  await context.close();
});

test('five plans on a sheet become five drawings, and a region drawn by hand a sixth', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Sheet');
  await bringIn(page, fileNamed('sheet.dxf', sheet().dxf));
  await part(page, 'Plans');
  await page.getByRole('heading', { name: '5 plans found on this sheet' }).waitFor();
  const names = await Promise.all([1, 2, 3, 4, 5].map((n) => page.getByLabel(`Name of plan ${n}`).inputValue()));
  expect([...names].sort()).toEqual([...sheetTitles].sort());
  await page.getByRole('button', { name: 'Create drawing of Basement' }).click();
  await page.getByRole('button', { name: /^Basement/ }).waitFor();
  await page.getByRole('button', { name: /^sheet/ }).click();
  await page.getByRole('button', { name: 'Create 5 drawings' }).click();
  await page.getByRole('button', { name: /^Wing/ }).waitFor();
  expect(
    (await drawingsOf(page, project)).map(({ name, setAside }) => `${name}${setAside ? ' aside' : ''}`).sort(),
  ).toEqual([...sheetTitles, 'Basement', 'sheet aside'].sort());
  await page.getByRole('button', { name: /Undo/ }).click();
  await page.waitForFunction(
    () => ![...document.querySelectorAll('button')].some((button) => button.textContent?.startsWith('Wing')),
  );
  // By hand: two corners and Enter make a rectangle round the first plan; 32.55 by 17.1 m with its grid overrun and
  // title.
  await page.getByRole('button', { name: 'Show all (Home)' }).click();
  await settled(page);
  const at = await boardMap(page);
  await page.getByRole('button', { name: 'Draw a region' }).click();
  await page.mouse.click(...at(-4, -5));
  await page.mouse.click(...at(36, 20));
  await page.keyboard.press('Enter');
  await page.getByLabel('Name of the new drawing').fill('By hand');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^By hand/ }).click();
  await part(page, 'Recipe');
  await page.getByText('keep inside 4 corners').waitFor();
  const made = (await drawingsOf(page, project)).find(({ name }) => name === 'By hand')!;
  const [step] = (await stateOf(stage, page, project)).recipe[made.id].steps;
  if (step.step.kind !== 'region') throw new Error('no region');
  expect(Math.min(...step.step.polygon.map(([x]) => x)) / 1000).toBeCloseTo(-4, 0);
  expect(Math.max(...step.step.polygon.map(([, y]) => y)) / 1000).toBeCloseTo(20, 0);
  await context.close();
});

test('how a drawing is shown is set, seen and kept: colours, fade, place, levels, layers alone, a clicked line', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Display');
  const red = groups([0, 'LAYER'], [2, 'RED'], [70, 0], [62, 1], [6, 'CONTINUOUS'], [370, 100]);
  const dashes = groups([0, 'LTYPE'], [2, 'DASHED'], [70, 0], [73, 2], [40, 2], [49, 1], [49, -1]);
  const broken = groups([0, 'LINE'], [8, 'RED'], [6, 'DASHED'], [10, 0], [20, 10], [11, 40], [21, 10]);
  await bringIn(
    page,
    fileNamed(
      'lines.dxf',
      dxf({
        header: groups([9, '$INSUNITS'], [70, 6]),
        tables: dashes + red,
        entities: line(0, 0, 40, 0, 'RED') + line(0, 30, 40, 30, 'OTHER') + broken,
      }),
    ),
  );
  await part(page, 'Display');
  await page.getByRole('button', { name: 'Show all (Home)' }).click();
  await settled(page);
  await page.mouse.move(300, 790);
  await settled(page);
  const pictures = [await picture(page)];
  const press = async (act: () => Promise<unknown>) => {
    await act();
    await page.mouse.move(300, 790);
    const now = await otherThan(page, pictures.at(-1)!);
    expect(pictures).not.toContain(now);
    pictures.push(now);
  };
  const toggle = (label: string) => page.getByLabel(label).click();
  await untilLines(page, (lines) => lines === 3);
  await press(() => toggle('Line types'));
  // 40 m in dashes of 1 m and gaps of 1 m are 20 dashes, beside the two whole lines.
  await untilLines(page, (lines) => lines === 22);
  await press(() => toggle('Line weights'));
  await press(async () => {
    await page.getByRole('combobox', { name: 'Colours' }).click();
    await page.getByRole('option', { name: 'one ink' }).click();
  });
  await press(async () => {
    await page.getByRole('combobox', { name: 'Colours' }).click();
    await page.getByRole('option', { name: 'a colour of my own' }).click();
    await page.getByLabel('Colour of RED').fill('#2244cc');
  });
  await press(async () => {
    await page.getByLabel('Fade').focus();
    for (let i = 0; i < 40; i += 1) await page.keyboard.press('ArrowRight');
  });
  await press(() => page.getByRole('button', { name: 'Show OTHER alone' }).click());
  await page.getByRole('heading', { name: 'Shown alone: OTHER' }).waitFor();
  await page.getByRole('button', { name: 'Show the others again', exact: true }).click();
  const at = await boardMap(page);
  await page.mouse.click(...at(20, 30));
  await page.getByText('LINE on layer OTHER').waitFor();
  await toggle('Over the model');
  await toggle('Seen on all levels, not only on its own');
  await toggle('Held: cannot be clicked or moved, still there to snap to');
  await page.getByRole('button', { name: 'Clear' }).click();
  await page.mouse.click(...at(20, 30));
  await page.getByText('Click a line to see what it is.').waitFor();
  await settled(page);
  const [display] = Object.values((await stateOf(stage, page, project)).display);
  expect(display).toMatchObject({
    colours: 'layer',
    layerColours: { RED: '#2244cc' },
    above: true,
    held: true,
    levels: 'all',
    lineTypes: true,
    lineWeights: true,
  });
  expect(display.fade).toBeCloseTo(0.4, 6);
  await page.reload();
  await untilLines(page, (lines) => lines === 22);
  expect(await page.getByLabel('Held: cannot be clicked or moved, still there to snap to').isChecked()).toBe(true);
  // On a level of its own it is still seen, and it cannot be moved by accident.
  await page.getByRole('button', { name: 'Add level' }).click();
  await page.getByRole('button', { name: /^Level 1,/ }).click();
  await untilLines(page, (lines) => lines === 22);
  await page.getByRole('navigation', { name: 'Course' }).getByText('Datum', { exact: true }).click();
  await page.getByRole('radio', { name: 'millimetres' }).check();
  await page.getByRole('button', { name: 'Take millimetres' }).click();
  await page.getByText(/lines is held and was not moved. Release it at Intake/).waitFor();
  await context.close();
});

test('revision B keeps roles and recipe, says what changed by layer, and leads back; a followed file tells of itself', async () => {
  const { page, context } = await stage.person();
  const later = groundFloor({ revision: 'B' }).dxf;
  await page.addInitScript(() => {
    // The person's own disk, as the browser would offer it.
    const disk = { name: 'marram-ground.dxf', text: '', lastModified: 1 };
    Object.assign(window, {
      disk,
      showOpenFilePicker: async () => [
        { name: disk.name, getFile: async () => new File([disk.text], disk.name, { lastModified: disk.lastModified }) },
      ],
    });
  });
  const project = await newProject(stage, page, 'Revisions');
  await bringIn(page, fileNamed('marram-ground.dxf', groundFloor().dxf));
  await part(page, 'Recipe');
  await page.getByRole('button', { name: /^Apply 9 dimensions/ }).click();
  await page.getByRole('list', { name: 'Steps of the recipe' }).getByText('dimensions').first().waitFor();
  await part(page, 'Revisions');
  await page.getByLabel('Next revision').setInputFiles(fileNamed('marram-ground-B.dxf', later));
  await page.getByText('Since revision 1').waitFor();
  // Two columns moved, a partition's two lines went, a door came with its block and two jambs and parts two wall faces,
  // a room and the title were renamed.
  const rows = await page.getByRole('table', { name: 'Changes by layer' }).getByRole('row').allInnerTexts();
  const changes = Object.fromEntries(
    rows.slice(1).map((row) => {
      const [layer, ...counts] = row.split('\t').map((cell) => cell.trim());
      return [layer, counts.map(Number)];
    }),
  );
  expect(changes['A-COLS']).toEqual([0, 0, 2]);
  expect(changes['A-DOOR']).toEqual([1, 0, 0]);
  expect(changes['A-WALL'][1]).toBe(2);
  expect(Object.keys(changes).sort()).toEqual(['A-COLS', 'A-DOOR', 'A-ROOM', 'A-TITLE', 'A-WALL']);
  const [drawing] = await drawingsOf(page, project);
  expect([drawing.revision, (await stateOf(stage, page, project)).recipe[drawing.id].steps.length]).toEqual([2, 1]);
  const plain = await picture(page);
  await page.getByRole('button', { name: 'Show on the board' }).click();
  await otherThan(page, plain);
  await page.getByRole('button', { name: 'Look at revision 1' }).click();
  await page.getByText('Looking at revision 1.').waitFor();
  expect((await drawingsOf(page, project))[0].revision).toBe(2);
  await page.getByRole('button', { name: 'Back to revision 2' }).click();
  await page.getByRole('button', { name: 'Use revision 1' }).click();
  await page.getByRole('button', { name: 'Use revision 2' }).waitFor();
  expect((await drawingsOf(page, project))[0].revision).toBe(1);
  await page.getByRole('button', { name: /Undo/ }).click();
  await page.getByRole('button', { name: 'Use revision 1' }).waitFor();
  await page.getByRole('button', { name: 'Follow a file on this computer' }).click();
  await page.getByText('Following').waitFor();
  await page.evaluate((text) => {
    Object.assign((window as unknown as { disk: object }).disk, { text, lastModified: 2 });
  }, groundFloor().dxf);
  await page.getByText('has changed on this computer.').waitFor();
  await page.getByRole('button', { name: 'Bring the change in' }).click();
  await page.getByText('Since revision 2').waitFor();
  expect((await drawingsOf(page, project))[0].revision).toBe(3);
  await context.close();
});

test('the other stories: a basement in centimetres, a yard in the survey, one layer for everything; and all in space', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Stories');
  await bringIn(page, fileNamed('marram-basement.dxf', basement().dxf));
  await page.getByText('header unit centimetres').waitFor();
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('marram-yard.dxf', yard().dxf));
  await page.getByRole('button', { name: /^marram-yard/ }).click();
  await page.getByRole('tab', { name: 'By layer' }).click();
  await page.getByRole('table', { name: 'Read by layer' }).getByText('C-FENCE').waitFor();
  // At five million metres from zero a fence post of 60 mm still shows its own size: a click at its edge finds the
  // circle.
  await part(page, 'Display');
  await page.getByRole('button', { name: /^Set aside marram-basement/ }).click();
  await page.getByRole('button', { name: 'Show all (Home)' }).click();
  await settled(page);
  const [post] = [onSurvey([-58, 30])];
  const at = await boardMap(page);
  await page.mouse.move(...at(...post));
  for (let i = 0; i < 7; i += 1) {
    await page.mouse.wheel(0, -400);
    await settled(page);
  }
  await settled(page);
  const near = await boardMap(page);
  await page.mouse.click(...near(post[0] + 0.06, post[1]));
  await page.getByText('CIRCLE on layer C-FENCE').waitFor();
  await page
    .getByLabel('Files to bring in')
    .setInputFiles(fileNamed('marram-one-layer.dxf', groundFloor({ oneLayer: true }).dxf));
  await page.getByRole('button', { name: /^marram-one-layer/ }).click();
  await part(page, 'Report');
  await page.getByText(/1 layer,/).waitFor();
  // The stack shows every drawing that hangs on a level, unless it is taken out of it.
  await page.getByRole('button', { name: 'The model in space' }).click();
  const stack = page.getByRole('application', { name: /^The model in space/ });
  await stack.waitFor();
  const seen = async () => {
    await page.mouse.move(300, 790);
    await settled(page);
    return picture(page);
  };
  const all = await seen();
  await stack.focus();
  await page.keyboard.press('ArrowRight');
  await otherThan(page, all);
  await part(page, 'Display');
  const before = await seen();
  await page.getByLabel('Seen in space with the model').click();
  await page.mouse.move(300, 790);
  await otherThan(page, before);
  expect(Object.values((await stateOf(stage, page, project)).display).some((row) => !row.stacked)).toBe(true);
  await context.close();
});

test('the report counts by kind, layer and block, in JSON and as a table; binary files and what is missing too', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'Report');
  await bringIn(page, fileNamed('r2018.dxf', readFileSync('src/core/drawing/fixtures/r2018-binary.dxf')));
  await page.getByText('2 3DSOLID').waitFor();
  await page.getByText('site/context.dxf').waitFor();
  await page.getByRole('tab', { name: 'By layer' }).click();
  await page.getByRole('table', { name: 'Read by layer' }).getByText('W\u00e4nde').waitFor();
  await page.getByRole('tab', { name: 'By block' }).click();
  await page.getByRole('table', { name: 'Read by block' }).getByText('DESK').waitFor();
  const save = async (name: string) => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name }).or(page.getByRole('button', { name })).first().click(),
    ]);
    return readFileSync((await download.path())!, 'utf8');
  };
  const intake = JSON.parse(await save('Save as JSON')) as IntakeFile;
  const csv = await save('as CSV');
  expect(intake.leftOut).toContainEqual({
    kind: '3DSOLID',
    count: 2,
    reason: 'It is a solid or surface model, not lines.',
    remedy: 'Ask for a 2D export of this view.',
  });
  const counted = csv
    .split('\r\n')
    .filter((row) => /^(read|left out),/.test(row))
    .reduce((sum, row) => sum + Number(row.split(',')[4]), 0);
  expect(counted).toBe([...intake.read, ...intake.leftOut].reduce((sum, row) => sum + row.count, 0));
  expect(csv).toContain('missing file,picture');
  expect((await drawingsOf(page, project))[0].name).toBe('r2018');
  await context.close();
});
