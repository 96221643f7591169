import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { structureFile } from '@/core/structure/file';
import { tryStructure } from '@/core/structure/trial';
import { complain } from './complain';
import { countFindings, modelAt } from './modelAt';

const kinds = ['structure'];
const usage = `Usage: ./run trial <model.json> --kind ${kinds.join('|')} --out <folder>
Calculates a model and writes structure.json: nodes, members, reactions, displacements, inner forces and findings.`;

/** `./run trial`. @returns the exit code: 0 done, 2 wrong usage, 3 the model cannot be read or calculated at all */
export async function trial(args: string[]): Promise<number> {
  let parsed;
  try {
    const options = { out: { type: 'string' }, kind: { type: 'string' } } as const;
    parsed = parseArgs({ args, allowPositionals: true, options });
  } catch (error) {
    return complain(2, `${(error as Error).message}\n${usage}`);
  }
  const {
    positionals: [file, ...more],
    values: { out, kind },
  } = parsed;
  if (file === undefined || more.length > 0 || !out || kind === undefined) return complain(2, usage);
  if (!kinds.includes(kind)) return complain(2, `There is no trial of kind "${kind}"; expected ${kinds.join(' or ')}.`);
  const model = await modelAt(file);
  if (!model.ok) return complain(3, `${file}: ${model.message}`);
  const tried = tryStructure(model.value);
  const { solution, findings } = tried;
  try {
    await mkdir(out, { recursive: true });
    await writeFile(join(out, 'structure.json'), JSON.stringify(structureFile(tried)));
  } catch (error) {
    return complain(2, `Cannot write to ${out}: ${(error as Error).message}`);
  }
  for (const { id, applied, reactions } of solution.cases) {
    const [down, up] = [applied, reactions].map(([, , z]) => (Math.abs(z) / 1000).toFixed(1));
    const difference = Math.abs(applied[2] + reactions[2]) / 1000;
    console.log(`${id}: applied ${down} kN, reactions ${up} kN, difference ${difference.toFixed(1)}`);
  }
  console.log(countFindings(findings));
  return 0;
}
