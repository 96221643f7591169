import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { prove } from '@/core/proof/prove';
import { complain } from './complain';
import { countFindings, modelAt } from './modelAt';

const usage = `Usage: ./run check <model.json> --out <folder>
Writes findings.json: what the rules that need no drawing find in a model.`;

/** `./run check`. @returns the exit code: 0 done, 2 wrong usage, 3 the model cannot be read */
export async function check(args: string[]): Promise<number> {
  let parsed;
  try {
    parsed = parseArgs({ args, allowPositionals: true, options: { out: { type: 'string' } } });
  } catch (error) {
    return complain(2, `${(error as Error).message}\n${usage}`);
  }
  const {
    positionals: [file, ...more],
    values: { out },
  } = parsed;
  if (file === undefined || more.length > 0 || !out) return complain(2, usage);
  const model = await modelAt(file);
  if (!model.ok) return complain(3, `${file}: ${model.message}`);
  const findings = prove(model.value);
  const told = findings.map(({ fix: _, ...finding }) => finding);
  const written = { format: 'zircon-frame-findings', version: 1, findings: told };
  try {
    await mkdir(out, { recursive: true });
    await writeFile(join(out, 'findings.json'), `${JSON.stringify(written, null, 1)}\n`);
  } catch (error) {
    return complain(2, `Cannot write to ${out}: ${(error as Error).message}`);
  }
  console.log(countFindings(findings));
  return 0;
}
