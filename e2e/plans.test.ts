import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import type { ElementRow } from '@/core/kinds/element';
import { wallLength, wallLine, type Wall } from '@/core/kinds/wall';
import { awayFromLine } from '@/core/kinds/lines';
import { area } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { bringIn, newProject, openStage, problems, stateOf, station, type Stage } from './harness';

/** Plans that another hand drew, with what is true of them as a model.json: from the raw file to an accepted level. */
const folder = join(__dirname, 'plans');

interface Truth {
  grids: { label: string }[];
  columns: { position: Point }[];
  walls: (Pick<Wall, 'start' | 'end' | 'thickness'> & { id: string; bulge: number | null })[];
  openings: { wall: string; kind: string; offset: number; width: number }[];
  zones: { name: string; number: string; outline: Point[] }[];
}

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  ({ page } = await stage.person());
}, 60_000);
afterAll(async () => stage.close());

/** How many of two lists have nothing that is alike in the other. */
function unlike<A, B>(as: readonly A[], bs: readonly B[], alike: (a: A, b: B) => boolean): number {
  return as.filter((a) => !bs.some((b) => alike(a, b))).length + bs.filter((b) => !as.some((a) => alike(a, b))).length;
}

type WallLike = Pick<Wall, 'start' | 'end' | 'thickness' | 'bulge'>;

/** Whether a wall lies on others of its thickness, however these are parted; a curved one on one like it. */
function liesOn(wall: WallLike, others: readonly WallLike[]): boolean {
  const same = others.filter(({ thickness }) => Math.abs(thickness - wall.thickness) < 0.002);
  const line = wallLine(wall);
  const points = line.slice(1).map((p, i): Point => [(line[i][0] + p[0]) / 2, (line[i][1] + p[1]) / 2]);
  return points.every((p) => same.some((other) => awayFromLine(wallLine(other), p) < 0.02));
}

/** The middle of an opening, by its wall. */
function middleOf({ offset, width }: { offset: number; width: number }, wall: WallLike): Point {
  const share = (offset + width / 2) / wallLength(wall);
  if (wall.bulge === 0)
    return [
      wall.start[0] + (wall.end[0] - wall.start[0]) * share,
      wall.start[1] + (wall.end[1] - wall.start[1]) * share,
    ];
  const line = wallLine(wall);
  return line[Math.round(share * (line.length - 1))];
}

/** How many elements a person would have to put right, by kind. */
function corrections(truth: Truth, elements: readonly ElementRow[]): Record<string, number> {
  const of = <K extends ElementRow['kind']>(kind: K) =>
    elements.filter((row): row is Extract<ElementRow, { kind: K }> => row.kind === kind);
  const walls = truth.walls.map((wall) => ({ ...wall, bulge: wall.bulge ?? 0 }));
  const read = of('wall').map(({ shape }) => shape);
  const byId = new Map(of('wall').map(({ id, shape }) => [id, shape]));
  const drawn = truth.openings.map((one) => ({
    place: middleOf(
      one,
      walls.find(({ id }) => id === one.wall)!,
    ),
    use: one.kind,
    width: one.width,
  }));
  const found = of('opening').map(({ shape }) => ({ ...shape, place: middleOf(shape, byId.get(shape.wall)!) }));
  return {
    grid: unlike(truth.grids, of('grid'), ({ label }, { shape }) => shape.label === label),
    columns: unlike(truth.columns, of('column'), (a, { shape }) => distance(a.position, shape.position) < 0.01),
    walls: walls.filter((wall) => !liesOn(wall, read)).length + read.filter((wall) => !liesOn(wall, walls)).length,
    // On a curved wall places are those of its chords.
    openings: unlike(
      drawn,
      found,
      (a, b) => a.use === b.use && distance(a.place, b.place) < 0.15 && Math.abs(a.width - b.width) < 0.02,
    ),
    zones: unlike(
      truth.zones,
      of('zone'),
      (a, { shape }) =>
        a.name === shape.name &&
        a.number === shape.number &&
        Math.abs(area(a.outline) / area(shape.outline)) > 0.98 &&
        Math.abs(area(a.outline) / area(shape.outline)) < 1.02,
    ),
  };
}

test.each([
  { file: 'inches', unit: 'inches' },
  { file: 'curved', unit: 'centimetres' },
  { file: 'one-layer', unit: 'millimetres' },
])('the plan $file becomes an accepted level with at most one decision in twenty elements', async ({ file, unit }) => {
  const project = await newProject(stage, page, `Plan ${file}`);
  await bringIn(page, join(folder, `${file}.dxf`));
  let decisions = 0;
  await station(page, 'Datum');
  await page.getByRole('button', { name: `Take ${unit}` }).click();
  decisions += 1;
  await page.getByText(`${unit} confirmed`).waitFor();
  await station(page, 'Reading');
  await page.getByRole('button', { name: /^Accept \d+ of all kinds$/ }).click();
  decisions += 1;
  const elements = Object.values((await stateOf(stage, page, project)).element);
  const truth = JSON.parse(readFileSync(join(folder, `${file}.json`), 'utf8')) as Truth;
  const wrong = corrections(truth, elements);
  for (const count of Object.values(wrong)) decisions += count;
  console.log(
    `${file}: ${decisions} decisions for ${elements.length} elements; to be put right: ${JSON.stringify(wrong)}`,
  );
  expect(elements.length).toBeGreaterThan(truth.columns.length + truth.walls.length + truth.zones.length);
  expect(20 * decisions).toBeLessThanOrEqual(elements.length);
});

test('nothing went wrong on the way that was not asked for', () => expect(problems).toEqual([]));
