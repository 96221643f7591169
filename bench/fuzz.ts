import { fork } from 'node:child_process';
import { join } from 'node:path';
import { root } from '@/cli/system';

type Said = { at: number } | { wrong: string; number: number } | { done: true; most: number; peak: number };

/** Longest that one damaged file may take, in seconds. */
const patience = 30;

/**
 * `./run fuzz [files] [first]`: reads damaged files and tells which hang, throw, or come out empty without a word.
 * Bounded; every file follows from its number.
 */
export async function fuzz(args: string[]): Promise<number> {
  const [count = 20_000, first = 0] = args.map(Number);
  if (!Number.isInteger(count) || count < 1 || !Number.isInteger(first) || first < 0) {
    console.error('Usage: ./run fuzz [files] [number of the first], for example ./run fuzz 20000');
    return 2;
  }
  const { wrong, most, peak } = await fuzzed(count, first);
  for (const line of wrong.slice(0, 20)) console.log(line);
  console.log(
    `${count.toLocaleString('en')} damaged files, ${wrong.length} ended wrongly; the slowest ` +
      `took ${most.toFixed(2)} s, the most memory was ${(peak / 1e6).toFixed(0)} MB`,
  );
  return wrong.length === 0 ? 0 : 1;
}

/** What came of damaged files: which ended wrongly and how, the slowest in seconds, the most memory in bytes. */
interface Fuzzed {
  wrong: string[];
  most: number;
  peak: number;
}

/** Reads so many damaged files, from a number on, in two processes. */
export async function fuzzed(count: number, first: number): Promise<Fuzzed> {
  const shares = 2;
  const size = Math.ceil(count / shares);
  const ends = await Promise.all(
    Array.from({ length: shares }, (_, i) => share(first + i * size, first + Math.min(count, (i + 1) * size))),
  );
  return {
    wrong: ends.flatMap((end) => end.wrong),
    most: Math.max(...ends.map((end) => end.most)),
    peak: Math.max(...ends.map((end) => end.peak)),
  };
}

function share(from: number, to: number): Promise<Fuzzed> {
  return new Promise((resolve) => {
    const wrong: string[] = [];
    let [at, most, peak] = [from, 0, 0];
    const child = fork(join(root, 'bench/fuzzRun.ts'), [String(from), String(to)], {
      execArgv: ['--import', 'tsx', '--max-old-space-size=2000'],
      cwd: root,
    });
    let watch = setTimeout(() => undefined, 0);
    const wait = () => {
      clearTimeout(watch);
      watch = setTimeout(() => {
        wrong.push(`file ${at}: took longer than ${patience} s`);
        child.kill('SIGKILL');
      }, patience * 1000);
    };
    wait();
    child.on('message', (said: Said) => {
      wait();
      if ('at' in said) at = said.at;
      else if ('wrong' in said) wrong.push(`file ${said.number}: ${said.wrong}`);
      else {
        most = said.most;
        peak = said.peak;
      }
    });
    child.on('exit', (code) => {
      clearTimeout(watch);
      if (code !== 0 && wrong.length === 0) wrong.push(`file ${at}: the process ended with code ${code}`);
      resolve({ wrong, most, peak });
    });
  });
}
