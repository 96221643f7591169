import type { Page } from 'playwright-core';
import { makePlan } from '../bench/makePlan';
import {
  boardMap,
  fileNamed,
  newProject,
  openStage,
  picture,
  problems,
  type Stage,
  settled,
  otherThan,
} from './harness';

let stage: Stage;
let page: Page;
const large = fileNamed('large.dxf', makePlan(200_000));
const second = fileNamed('second.dxf', makePlan(150_000));

beforeAll(async () => {
  stage = await openStage();
  ({ page } = await stage.person());
  await newProject(stage, page, 'Large');
}, 90_000);
afterAll(async () => stage.close());

const position = async (x: number, y: number) => {
  await page.mouse.move(x, y);
  await settled(page);
  return (await page.locator('[data-part=position]').textContent()) ?? '';
};

test('two large files are sent and read with progress; one of them is cancelled and leaves nothing', async () => {
  await page.getByLabel('Files to bring in').setInputFiles([large, second]);
  const line = page.getByText(/^second\.dxf/).locator('xpath=ancestor::div[2]');
  await line
    .getByText(/waiting to be read|reading|sending/)
    .first()
    .waitFor();
  await page.getByText(/second\.dxf (waiting|reading)/).waitFor({ timeout: 60_000 });
  await line.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('heading', { name: 'Intake report' }).waitFor({ timeout: 90_000 });
  await page.getByText(/second\.dxf/).waitFor({ state: 'detached' });
  const [row] = await stage.sql<{ files: number; size: number }>(
    'select count(*)::int as files, max(size)::int as size from files',
  );
  expect(row.files).toBe(1);
  expect(await stage.sql("select state from intakes where file_name = 'second.dxf'")).toEqual([{ state: 'cancelled' }]);
});

test('200,000 entities are shown; dragging and the wheel move the view about the cursor', async () => {
  await page.getByText(/[\d,]{7,} lines, 0 elements/).waitFor({ timeout: 60_000 });
  const box = (await page.getByRole('application').boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await settled(page);
  const before = await picture(page);
  const start = await position(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 20; i += 1) await page.mouse.move(x + i * 8, y + i * 3);
  await page.mouse.up();
  expect(await position(x + 160, y + 60)).toBe(start);
  await otherThan(page, before);
  const under = await position(x, y);
  for (let i = 0; i < 6; i += 1) await page.mouse.wheel(0, -200);
  await settled(page);
  expect(await position(x, y)).toBe(under);
});

test('the board is moved by keys too, and the view is kept across a reload', async () => {
  await page.getByRole('application').focus();
  await page.keyboard.press('Home');
  await settled(page);
  const at = await boardMap(page);
  await page.getByRole('application').focus();
  await page.keyboard.press('ArrowRight');
  await settled(page);
  const moved = await boardMap(page);
  expect(at(0, 0)[0] - moved(0, 0)[0]).toBeCloseTo(60, 0);
  await page.keyboard.press('+');
  await settled(page);
  const kept = await boardMap(page);
  await page.reload();
  await page.getByText(/[\d,]{7,} lines, 0 elements/).waitFor({ timeout: 60_000 });
  const again = await boardMap(page);
  expect(Math.abs(kept(0, 0)[0] - again(0, 0)[0])).toBeLessThan(2);
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
