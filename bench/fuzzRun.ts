import { fuzzCase, seedFiles } from './fuzzCase';

/** A share of the fuzz run, in a process of its own: says where it is, so that the parent sees what hangs. */
const [from, to] = process.argv.slice(2).map(Number);
const seeds = seedFiles();
let most = 0;
for (let number = from; number < to; number += 1) {
  process.send!({ at: number });
  const start = process.hrtime.bigint();
  let wrong: string | null;
  try {
    wrong = fuzzCase(seeds, number);
  } catch (error) {
    wrong = `an exception: ${(error as Error).stack ?? String(error)}`;
  }
  most = Math.max(most, Number(process.hrtime.bigint() - start) / 1e9);
  if (wrong !== null) process.send!({ wrong, number });
}
process.send!({ done: true, most, peak: process.resourceUsage().maxRSS * 1024 });
