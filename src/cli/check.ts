import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { readModel, type ReadModel } from '@/core/handover/model/readModel';
import { severities } from '@/core/proof/finding';
import { prove } from '@/core/proof/prove';
import { fail, type Result } from '@/core/result';
import { complain } from './complain';

const usage = `Usage: ./run check <model.json> --out <folder>
Writes findings.json: what the rules that need no drawing find in a model.`;

/** Larger files are no models, bytes. */
const largest = 1 << 29;

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
  const written = { format: 'zircon-frame-findings', version: 1, findings };
  try {
    await mkdir(out, { recursive: true });
    await writeFile(join(out, 'findings.json'), `${JSON.stringify(written, null, 1)}\n`);
  } catch (error) {
    return complain(2, `Cannot write to ${out}: ${(error as Error).message}`);
  }
  const counts = severities.map((severity) => {
    const count = findings.filter((finding) => finding.severity === severity).length;
    return `${count} ${severity}${count === 1 ? '' : 's'}`;
  });
  console.log(findings.length === 0 ? 'Nothing was found.' : counts.join(', '));
  return 0;
}

async function modelAt(file: string): Promise<Result<ReadModel>> {
  try {
    const bytes = await readFile(file);
    if (bytes.length > largest) return fail(`The file has ${bytes.length} bytes; at most ${largest} are read.`);
    return readModel(bytes.toString('utf8'));
  } catch (error) {
    return fail(`The file cannot be read: ${(error as Error).message}. Give the path of a model.json.`);
  }
}
