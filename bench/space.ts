import type { Page } from 'playwright-core';
import { asDrawn } from '@/core/datum/placement';
import { dxf, groups, readText } from '@/core/drawing/testing/dxf';
import { carriedBy } from '@/core/model/correction';
import { findElements, readyToFind } from '@/core/tracing/findElements';
import { findTexts, loweredTexts, wordsOf } from '@/core/underlay/findTexts';
import { flatten } from '@/core/underlay/flatten';
import { largeProject } from './frames';
import { makeModel } from './makeModel';
import { wait, withPage } from './pages';

/** Turns of the model in space that are measured. */
const turns = 60;

const told = (what: string, took: number, goal: number): void =>
  console.log(`${what.padEnd(52)}${took.toFixed(1).padStart(9)} ms   goal ${goal} ms`);

/** The second of two runs: what is made once is not counted again, as while somebody types on. */
function warm(work: () => unknown): { first: number; then: number } {
  const once = (): number => {
    const begun = performance.now();
    work();
    return performance.now() - begun;
  };
  return { first: once(), then: once() };
}

/** Finding and correcting, without a page. */
function benchCore(elements: number): void {
  const { model } = makeModel(elements);
  const texts = Array.from({ length: 100_000 }, (_, i) =>
    groups([0, 'TEXT'], [8, '0'], [10, i % 300], [20, Math.floor(i / 300)], [40, 0.2], [1, `Mark B${i} of beam`]),
  );
  const primitives = flatten(readText(dxf({ entities: texts.join('') })).drawing);
  // The window does this while nobody needs it.
  readyToFind(Object.values(model.element));
  loweredTexts(primitives);
  const search = warm(() => {
    findElements(model, wordsOf('beam level 3'));
    findTexts(primitives, wordsOf('b99999 mark'), 12);
  });
  told(`search of ${elements} elements and 100,000 texts, first`, search.first, 50);
  told('the same, typing on', search.then, 50);
  const rows = Object.values(model.element).slice(0, 5000);
  const correction = warm(() => carriedBy(model, rows, asDrawn('m'), asDrawn('mm')));
  told('late correction of 5,000 elements, shown', correction.first, 1000);
}

/** Turns the model with the pointer and says what its frames took. */
async function orbit(page: Page): Promise<number[]> {
  const box = (await page.getByRole('application', { name: /^The model in space/ }).boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  const frames: number[] = [];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 0; i < turns; i += 1) {
    await page.mouse.move(x + 3 * i, y + 10 * Math.sin(i / 9));
    frames.push(
      await page.evaluate(
        () => new Promise<number>((done) => requestAnimationFrame(() => done(window.zirconSpace!.lastFrame()))),
      ),
    );
  }
  await page.mouse.up();
  return frames;
}

/** `./run bench space [elements] [entities]`: the model in space, finding, late corrections. */
export function benchSpace(elements: number, entities: number): Promise<number> {
  benchCore(elements);
  return withPage(async (bench) => {
    const { page } = bench;
    await largeProject(bench, elements, entities);
    const begun = Date.now();
    await page.getByRole('button', { name: 'The model in space' }).click();
    await page.waitForFunction(() => (window.zirconSpace?.picture.box ?? null) !== null, null, wait);
    told('the model in space, opened', Date.now() - begun, 1500);
    const frames = (await orbit(page)).sort((a, b) => a - b);
    told('turning it, script of a frame, median', frames[Math.floor(frames.length / 2)], 8);
    told('turning it, script of a frame, 95 of 100', frames[Math.floor(frames.length * 0.95)], 8);
  });
}
