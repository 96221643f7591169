import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '@/cli/system';
import { benchBoard } from './board';
import { calibrate } from './calibrate';
import { benchExport } from './export';
import { benchFrames } from './frames';
import { makePlan } from './makePlan';
import { benchModel } from './model';
import { readingTable } from './reading';
import { benchServer } from './server';
import { benchSpace } from './space';
import { benchEnergy, benchLighting } from './rooms';
import { benchStructure } from './structure';
import { unitTable } from './units';
import { benchWindow } from './window';

interface Measure {
  seconds: number;
  peak: number;
  entities: number;
  columns?: number;
}

const readers = ['zircon', 'bare', 'dxf-parser', 'dxf'] as const;
type Reader = (typeof readers)[number];

/** Reads a file with one reader in a process of its own: time warm, peak memory of the whole process. */
function measure(reader: Reader, file: string): Measure | { failed: string } {
  const done = spawnSync(
    process.execPath,
    ['--max-old-space-size=12000', '--import', 'tsx', join(root, 'bench/readOne.ts'), reader, file],
    { encoding: 'utf8', cwd: root, maxBuffer: 1 << 26 },
  );
  const line = done.stdout.trim().split('\n').pop() ?? '';
  try {
    return JSON.parse(line) as Measure;
  } catch {
    return { failed: (done.stderr || line).trim().split('\n').pop() ?? 'no answer' };
  }
}

/** What follows reading, in a process of its own. */
function after(entities: number): string {
  const done = spawnSync(
    process.execPath,
    ['--max-old-space-size=12000', '--import', 'tsx', join(root, 'bench/snapOne.ts'), String(entities)],
    { encoding: 'utf8', cwd: root },
  );
  try {
    const found = JSON.parse(done.stdout.trim().split('\n').pop() ?? '') as Record<
      'flattened' | 'indexed' | 'judged' | 'median' | 'worst' | 'cleaned',
      number
    >;
    return (
      `flattened in ${found.flattened.toFixed(2)} s, indexed in ${found.indexed.toFixed(2)} s, ` +
      `its unit judged in ${found.judged.toFixed(2)} s; snapping ${found.median.toFixed(3)} ms ` +
      `(median), ${found.worst.toFixed(2)} ms (worst of 2,500); a recipe of four steps ` +
      `${found.cleaned.toFixed(2)} s`
    );
  } catch {
    return `what follows reading failed: ${done.stderr.trim().split('\n').pop() ?? ''}`;
  }
}

const cell = (text: string) => text.padStart(11);

/**
 * `./run bench units [plans]`: how often the unit is judged rightly. `./run bench reading [plans]`: what is read of
 * plans whose truth is known. `./run bench calibrate [plans]`: fits how sure a candidate is said to be. `./run bench
 * frames`: what a frame of the board takes in every tool. `./run bench space`: the model in space, finding and late
 * corrections. `./run bench structure`: the structural trial, beside a dense solver. `./run bench energy` and `./run
 * bench lighting`: the trials of heat and light by rooms. `./run bench export`: what goes out, format by format.
 * `./run bench [entities ...]`: reading time and peak memory beside two public parsers and
 * a bare loop that finds
 * every group code and parses every number without making strings. Ratios count; seconds depend on the machine.
 */
export async function bench(args: string[]): Promise<number> {
  if (args[0] === 'units') return unitTable(args.slice(1));
  if (args[0] === 'model') return benchModel(Number(args[1] ?? 20_000));
  if (args[0] === 'board') return benchBoard();
  if (args[0] === 'window') return benchWindow(Number(args[1] ?? 100_000));
  if (args[0] === 'frames') return benchFrames(Number(args[1] ?? 20_000), Number(args[2] ?? 100_000));
  if (args[0] === 'space') return benchSpace(Number(args[1] ?? 20_000), Number(args[2] ?? 100_000));
  if (args[0] === 'structure') return benchStructure(args.length > 1 ? args.slice(1).map(Number) : [500, 5000, 20_000]);
  if (args[0] === 'energy') return benchEnergy(args.length > 1 ? args.slice(1).map(Number) : [10, 100, 500]);
  if (args[0] === 'lighting') return benchLighting(args.length > 1 ? args.slice(1).map(Number) : [5, 25, 100]);
  if (args[0] === 'export') return benchExport(args.length > 1 ? args.slice(1).map(Number) : [1000, 10_000, 50_000]);
  if (args[0] === 'server') return benchServer(Number(args[1] ?? 50));
  if (args[0] === 'calibrate') return calibrate(args.slice(1));
  if (args[0] === 'reading') return readingTable(args.slice(1));
  const sizes = args.length > 0 ? args.map(Number) : [10_000, 100_000, 1_000_000];
  if (sizes.some((n) => !Number.isInteger(n) || n < 1)) {
    console.error('Usage: ./run bench [entities ...], for example ./run bench 10000 100000 1000000');
    return 2;
  }
  const folder = mkdtempSync(join(tmpdir(), 'zircon-bench-'));
  try {
    const grown: { entities: number; own: Measure }[] = [];
    for (const entities of sizes) {
      const file = join(folder, 'plan.dxf');
      const text = makePlan(entities);
      writeFileSync(file, text);
      console.log(`\n${entities.toLocaleString('en')} entities, ${(text.length / 1e6).toFixed(1)} MB`);
      console.log(
        ['reader'.padEnd(12), ...['seconds', 'peak MB', 'entities', 'time ratio', 'mem ratio'].map(cell)].join(''),
      );
      const own = measure('zircon', file);
      for (const reader of readers) {
        const found = reader === 'zircon' ? own : measure(reader, file);
        if ('failed' in found) {
          console.log(`${reader.padEnd(12)} failed: ${found.failed}`);
          continue;
        }
        const ratio = (value: number, to: number) => (value / to).toFixed(2);
        const beside = 'failed' in own ? ['', ''] : [ratio(found.seconds, own.seconds), ratio(found.peak, own.peak)];
        console.log(
          [
            reader.padEnd(12),
            ...[
              found.seconds.toFixed(3),
              (found.peak / 1e6).toFixed(0),
              found.entities.toLocaleString('en'),
              ...beside,
            ].map(cell),
          ].join(''),
        );
      }
      if ('failed' in own) continue;
      grown.push({ entities, own });
      console.log(
        `columns sent to the browser: ${((own.columns ?? 0) / 1e6).toFixed(1)} MB, ` +
          `${((own.columns ?? 0) / text.length).toFixed(3)} of the file`,
      );
      console.log(after(entities));
    }
    for (const [i, { entities, own }] of grown.entries()) {
      if (i === 0) continue;
      const before = grown[i - 1];
      const by = (now: number, then: number) => (now / then).toFixed(1);
      console.log(
        `from ${before.entities.toLocaleString('en')} to ${entities.toLocaleString('en')} ` +
          `entities: time times ${by(own.seconds, before.own.seconds)}, peak memory times ` +
          `${by(own.peak, before.own.peak)}`,
      );
    }
    return 0;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
