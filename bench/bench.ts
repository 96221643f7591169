import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '@/cli/system';
import { makePlan } from './makePlan';

interface Measure { seconds: number; peak: number; entities: number; columns?: number }

const readers = ['zircon', 'bare', 'dxf-parser', 'dxf'] as const;
type Reader = (typeof readers)[number];

/** Reads a file with one reader in a process of its own: time warm, peak memory of the whole process. */
function measure(reader: Reader, file: string): Measure | { failed: string } {
  const done = spawnSync(process.execPath, ['--expose-gc', '--max-old-space-size=12000', '--import', 'tsx', join(root, 'bench/readOne.ts'), reader, file], { encoding: 'utf8', cwd: root, maxBuffer: 1 << 26 });
  const line = done.stdout.trim().split('\n').pop() ?? '';
  try { return JSON.parse(line) as Measure; } catch { return { failed: (done.stderr || line).trim().split('\n').pop() ?? 'no answer' }; }
}

const cell = (text: string) => text.padStart(11);

/**
 * `./run bench [entities ...]`: reading time and peak memory beside two public parsers and a bare loop that finds
 * every group code and parses every number without making strings. Ratios count; seconds depend on the machine.
 */
export async function bench(args: string[]): Promise<number> {
  const sizes = args.length > 0 ? args.map(Number) : [10_000, 100_000];
  if (sizes.some((n) => !Number.isInteger(n) || n < 1)) { console.error('Usage: ./run bench [entities ...], for example ./run bench 10000 100000 1000000'); return 2; }
  const folder = mkdtempSync(join(tmpdir(), 'zircon-bench-'));
  try {
    for (const entities of sizes) {
      const file = join(folder, 'plan.dxf');
      const text = makePlan(entities);
      writeFileSync(file, text);
      console.log(`\n${entities.toLocaleString('en')} entities, ${(text.length / 1e6).toFixed(1)} MB`);
      console.log(['reader'.padEnd(12), ...['seconds', 'peak MB', 'entities', 'time ratio', 'mem ratio'].map(cell)].join(''));
      const own = measure('zircon', file);
      for (const reader of readers) {
        const found = reader === 'zircon' ? own : measure(reader, file);
        if ('failed' in found) { console.log(`${reader.padEnd(12)} failed: ${found.failed}`); continue; }
        const ratio = (value: number, to: number) => (value / to).toFixed(2);
        const beside = 'failed' in own ? ['', ''] : [ratio(found.seconds, own.seconds), ratio(found.peak, own.peak)];
        console.log([reader.padEnd(12), ...[found.seconds.toFixed(3), (found.peak / 1e6).toFixed(0), found.entities.toLocaleString('en'), ...beside].map(cell)].join(''));
      }
      if (!('failed' in own) && own.columns) console.log(`columns sent to the browser: ${(own.columns / 1e6).toFixed(1)} MB, ${(own.columns / text.length).toFixed(3)} of the file`);
    }
    return 0;
  } finally { rmSync(folder, { recursive: true, force: true }); }
}
