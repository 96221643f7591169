import type { Page } from 'playwright-core';
import { heights, slabThickness, truss, trussMembers } from '../demo/section';
import type { ProjectState } from '@/core/model/state';
import {
  boardMap,
  ofKind,
  openFinished,
  part,
  problems,
  selection,
  station,
  typeAtCursor,
  stateOf as stateIn,
  type Stage,
  settled,
  openProject,
} from './harness';

let stage: Stage;
let project: string;

beforeAll(async () => {
  ({ stage, project } = await openFinished());
}, 90_000);
afterAll(async () => stage.close());

const stateOf = (page: Page): Promise<ProjectState> => stateIn(stage, page, project);

async function open(page: Page): Promise<void> {
  await openProject(stage, page, project);
}

/** Does something by the search box. */
async function find(page: Page, words: string, option: RegExp = /./): Promise<void> {
  await page.keyboard.press('Control+;');
  await page.keyboard.type(words);
  await page.getByRole('option').filter({ hasText: option }).first().click();
}

async function faceOn(page: Page): Promise<void> {
  await find(page, 'marram-section face on');
  await page.waitForFunction(() => window.zirconBoard!.scene.plane !== null);
  await page.waitForFunction(() => Object.keys(window.zirconBoard!.scene.model.element).length > 0);
  await settled(page);
}

async function inSpace(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'The model in space' }).click();
  await page.getByRole('application', { name: /^The model in space/ }).waitFor();
  await page.waitForFunction(() => (window.zirconSpace?.picture.box ?? null) !== null);
  await settled(page);
}

test('a truss of the section is taken at its true height, seen in the plan and in space, and undone', async () => {
  const { page, context } = await stage.person();
  await open(page);
  const before = ofKind(await stateOf(page), 'beam').length;
  await faceOn(page);
  await station(page, 'Tracing');
  await page.getByRole('button', { name: 'Take members by a click' }).click();
  const at = await boardMap(page);
  // The upper face of the upper chord.
  await page.mouse.click(...at(truss.from + 3, truss.high + truss.chord / 2));
  await page.getByRole('button', { name: /^Undo: Draw \d+ beams on a section/ }).waitFor();
  const state = await stateOf(page);
  const taken = ofKind(state, 'beam').filter(({ shape }) => shape.use === 'member');
  expect(ofKind(state, 'beam').length - before).toBe(trussMembers().length);
  const ends = (x: readonly number[], z: number) => [x[0], x[1], z].map((v) => v.toFixed(3)).join(' ');
  const found = taken.map(({ shape, levelId }) => {
    const level = state.level[levelId!];
    const top = level.elevation + level.height;
    return [ends(shape.start, top - shape.drop!), ends(shape.end, top - shape.endDrop!)].sort().join(' to ');
  });
  // The section is cut along grid line 2, at x = 5.4 m, from A at y = 0.
  const truth = trussMembers().map(({ start, end }) =>
    [start, end]
      .map(([along, z]) => ends([5.4, along], z))
      .sort()
      .join(' to '),
  );
  expect(found.sort()).toEqual(truth.sort());
  // In plan they lie on grid line 2 of the roof; in space one of them is hit from the south-west.
  await page.keyboard.press('Escape');
  await inSpace(page);
  const hit = await page.evaluate(
    (middle) => {
      const { picture, orbit } = window.zirconSpace!;
      const look = { ...orbit(), turn: 0.4, tilt: 0.2, x: middle[0], y: middle[1], z: middle[2], metresPerPixel: 0.01 };
      return picture.pick(look, { width: 800, height: 600 }, [400, 300]);
    },
    [5.4, truss.from + 2.55, truss.high],
  );
  expect(taken.map(({ id }) => id)).toContain(hit);
  await page.getByRole('button', { name: /^Undo: Draw \d+ beams on a section/ }).click();
  await page.getByRole('button', { name: /^Undo: Draw/ }).waitFor({ state: 'detached' });
  expect(ofKind(await stateOf(page), 'beam').length).toBe(before);
  await context.close();
});

test('a window and a roof plane are drawn in a section, at true height', async () => {
  const { page, context } = await stage.person();
  await open(page);
  const before = await stateOf(page);
  const ground = Object.values(before.level).find(({ name }) => name === 'Ground')!;
  // A partition that runs along grid line 2, where the section is cut at x = 5.4 m.
  const host = ofKind(before, 'wall').find(({ shape: { start, end }, levelId }) => {
    const along = [start, end].every(([x]) => Math.abs(x - 5.4) < 0.9);
    return levelId === ground.id && along && Math.abs(end[1] - start[1]) > 2;
  })!;
  const low = Math.min(host.shape.start[1], host.shape.end[1]);
  await faceOn(page);
  await find(page, 'On a section window or door by its corners');
  const at = await boardMap(page);
  await page.mouse.click(...at(low + 0.5, 1.1));
  await page.mouse.move(...at(low + 1.6, 2.4));
  await page.mouse.click(...at(low + 1.7, 2.5));
  await page.getByRole('button', { name: /^Undo: Draw 1 opening on a section/ }).waitFor();
  const known = new Set(ofKind(before, 'opening').map(({ id }) => id));
  const [made] = ofKind(await stateOf(page), 'opening').filter(({ id }) => !known.has(id));
  expect(made.shape.wall).toBe(host.id);
  expect(Math.abs(made.shape.sill - 1.1)).toBeLessThan(0.3);
  expect(Math.abs(made.shape.width - 1.2)).toBeLessThan(0.3);
  // It is seen there, and a click on it has it in hand.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.waitForFunction((id) => window.zirconBoard!.scene.model.element[id] !== undefined, made.id);
  await page.mouse.click(...at(low + 1.1, 1.8));
  await selection(page)
    .getByText(/^(door|window)/)
    .waitFor();
  await find(page, 'On a section roof plane from eaves to ridge');
  await page.mouse.click(...at(2.1, heights.parapet + 0.4));
  await page.mouse.move(...at(7, heights.parapet + 1.6));
  await page.mouse.click(...at(7.1, heights.parapet + 1.7));
  await page.getByRole('button', { name: /^Undo: Draw 1 roof plane on a section/ }).waitFor();
  const [roof] = ofKind(await stateOf(page), 'roof');
  // It rises along the section, which runs along y.
  expect(roof.shape.direction).toBeCloseTo(90, 6);
  expect(Math.abs(roof.shape.slope - 14.6)).toBeLessThan(6);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo: Draw 1 roof plane/ }).click();
  await page.getByRole('button', { name: /^Undo: Draw 1 opening/ }).click();
  await page.getByRole('button', { name: /^Undo: Draw/ }).waitFor({ state: 'detached' });
  await context.close();
});

test('a brace is drawn in a section by typed lengths; a storey height and a sill are picked from it', async () => {
  const { page, context } = await stage.person();
  await open(page);
  await faceOn(page);
  await station(page, 'Tracing');
  await page.getByRole('button', { name: 'Member from point to point' }).click();
  const at = await boardMap(page);
  await page.mouse.click(...at(2, 0.5));
  await page.mouse.move(...at(4, 1.5));
  await typeAtCursor(page, '3');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Undo: Draw 1 beam on a section/ }).waitFor();
  await page.keyboard.press('Escape');
  // The roof's mark stands at +7.50; the level is put there from 7.5 to the parapet and back.
  await page.getByRole('button', { name: 'Pick the elevation of Roof' }).click();
  await page.mouse.move(...at(17.1 + 2, heights.parapet));
  await settled(page);
  await page.mouse.click(...at(17.1 + 1, heights.parapet));
  await page.getByRole('button', { name: /^Undo: .*Roof/ }).waitFor();
  expect(Object.values((await stateOf(page)).level).find(({ name }) => name === 'Roof')!.elevation).toBe(8.6);
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: /^Undo: Draw 1 beam on a section/ }).waitFor();
  // A window of the ground floor, by the search box; its sill is picked where it cannot be, then where it is.
  const ground = Object.values((await stateOf(page)).level).find(({ name }) => name === 'Ground')!;
  const [window_] = ofKind(await stateOf(page), 'opening').filter(
    ({ shape, levelId }) => shape.use === 'window' && levelId === ground.id,
  );
  await find(page, window_.source!.handles[0], /^window/);
  await selection(page).waitFor();
  await faceOn(page);
  await page.getByRole('button', { name: 'Pick its sill' }).click();
  const there = await boardMap(page);
  await page.mouse.click(...there(truss.from, truss.low + truss.chord / 2));
  await page.getByText(/the head has to be the higher one/).waitFor();
  // The middle of a line of column B, from the floor to the slab above: half of 3.62 m.
  await page.getByRole('button', { name: 'Pick its head' }).click();
  await page.mouse.click(...there(truss.from + 0.3, heights.upper - slabThickness));
  await page.getByRole('button', { name: /^Undo: Head of 1 opening at 3\.620 m/ }).waitFor();
  await page.getByRole('button', { name: 'Pick its sill' }).click();
  await page.mouse.click(...there(truss.from + 0.3, (heights.upper - slabThickness) / 2));
  await page.getByRole('button', { name: /^Undo: Sill of 1/ }).waitFor();
  const { shape } = ofKind(await stateOf(page), 'opening').find(({ id }) => id === window_.id)!;
  expect([shape.sill, shape.sill + shape.height]).toEqual([expect.closeTo(1.81, 3), expect.closeTo(3.62, 3)]);
  await context.close();
});

test('in space a level is seen alone, the model is cut and turned, an element picked and its facts changed', async () => {
  const { page, context } = await stage.person();
  await open(page);
  await station(page, 'Tracing');
  await part(page, 'Change');
  await inSpace(page);
  const box = (await page.getByRole('application', { name: /^The model in space/ }).boundingBox())!;
  const middle: [number, number] = [box.x + box.width / 2, box.y + box.height / 2];
  const drawn = () => page.evaluate(() => JSON.stringify(window.zirconSpace!.orbit()));
  const first = await drawn();
  await page.mouse.move(...middle);
  await page.mouse.down();
  await page.mouse.move(middle[0] + 80, middle[1] + 20);
  await page.mouse.up();
  expect(await drawn()).not.toBe(first);
  expect(await selection(page).count()).toBe(0);
  await page.getByRole('button', { name: /^Look from/ }).click();
  await page.getByRole('menuitem', { name: 'From above' }).click();
  await page.locator('.MuiBackdrop-root').waitFor({ state: 'detached' });
  await page.waitForFunction(() => window.zirconSpace!.orbit().tilt > 1.57);
  // Column 1/A of the topmost storey, straight from above: at the project's zero.
  const pixel = await page.evaluate(() => {
    const { x, y, metresPerPixel } = window.zirconSpace!.orbit();
    return [-x / metresPerPixel, y / metresPerPixel];
  });
  await page.mouse.click(middle[0] + pixel[0], middle[1] + pixel[1]);
  await selection(page).waitFor();
  await page.keyboard.press('Escape');
  await selection(page).waitFor({ state: 'detached' });
  // Only the basement, cut at its floor: what is picked lies there.
  await page.getByRole('button', { name: /^Basement, / }).click();
  await page.getByRole('button', { name: 'Only Basement' }).click();
  await settled(page);
  await page.mouse.click(middle[0] + pixel[0], middle[1] + pixel[1]);
  await selection(page).waitFor();
  const basement = Object.values((await stateOf(page)).level).find(({ name }) => name === 'Basement')!;
  const before = ofKind(await stateOf(page), 'column').filter(({ levelId }) => levelId === basement.id);
  const width = page.getByRole('textbox', { name: 'Width', exact: true });
  await width.fill('500 mm');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Undo: (?!Draw)/ }).waitFor();
  const after = ofKind(await stateOf(page), 'column').filter(({ levelId }) => levelId === basement.id);
  const wide = after.filter(({ shape: { section } }) => section.shape === 'rectangle' && section.width === 0.5);
  expect([before.length - after.length, wide.length]).toEqual([0, 1]);
  expect(Math.hypot(...wide[0].shape.position)).toBeLessThan(0.01);
  // The look and the level are there again after a reload.
  await page.reload();
  await page.getByRole('button', { name: 'Only Basement', pressed: true }).waitFor();
  await page.waitForFunction(() => (window.zirconSpace?.orbit().tilt ?? 0) > 1.57);
  await page.getByRole('button', { name: 'Axes' }).click();
  await page.getByRole('button', { name: 'See through' }).click();
  await context.close();
});

test('the GPU keeps no more after the model was put together again and again', async () => {
  const { page, context } = await stage.person();
  await open(page);
  await inSpace(page);
  const held = () => page.evaluate(() => window.zirconSpace!.picture.held().geometries);
  const first = await held();
  const [column] = ofKind(await stateOf(page), 'column');
  for (let i = 0; i < 6; i += 1) {
    await find(page, column.source!.handles[0], /^column/);
    await selection(page).waitFor();
    await selection(page).getByRole('button', { name: 'Delete' }).click();
    await selection(page).waitFor({ state: 'detached' });
    await page.keyboard.press('Control+z');
    await settled(page);
  }
  await settled(page);
  expect(await held()).toBeLessThanOrEqual(first + 2);
  await context.close();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
