import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { heatFile } from '@/core/energy/file';
import { tryHeat } from '@/core/energy/heat';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { Finding } from '@/core/proof/finding';
import { structureFile } from '@/core/structure/file';
import { tryStructure } from '@/core/structure/trial';
import { counted } from '@/core/model/counted';
import { lightingFile } from '@/core/lighting/file';
import { tryLight } from '@/core/lighting/light';
import { complain } from './complain';
import { countFindings, modelAt } from './modelAt';

/** What a trial writes, and says in a few lines. */
interface Tried {
  file: string;
  content: unknown;
  lines: string[];
  findings: Finding[];
}

function structure(model: ReadModel): Tried {
  const tried = tryStructure(model);
  const lines = tried.solution.cases.map(({ id, applied, reactions }) => {
    const [down, up] = [applied, reactions].map(([, , z]) => (Math.abs(z) / 1000).toFixed(1));
    const difference = Math.abs(applied[2] + reactions[2]) / 1000;
    return `${id}: applied ${down} kN, reactions ${up} kN, difference ${difference.toFixed(1)}`;
  });
  return { file: 'structure.json', content: structureFile(tried), lines, findings: tried.findings };
}

function heat(model: ReadModel): Tried {
  const tried = tryHeat(model);
  const { zones, building } = tried;
  const area = zones.reduce((sum, { room }) => sum + room.area, 0);
  const line =
    `${counted(zones.length, 'zone')}, ${area.toFixed(1)} m2: design heat load ${(building.designLoad / 1000).toFixed(2)} kW, ` +
    `${building.heating.toFixed(0)} kWh a year`;
  return { file: 'heat.json', content: heatFile(tried), lines: [line], findings: tried.findings };
}

function lighting(model: ReadModel): Tried {
  const tried = tryLight(model);
  const lines = tried.areas.map(
    ({ id, mean, uniformity, points }) =>
      `${id}: mean ${mean.toFixed(0)} lx, uniformity ${uniformity.toFixed(2)}, ${counted(points.length, 'point')}`,
  );
  return { file: 'lighting.json', content: lightingFile(tried), lines, findings: tried.findings };
}

const kinds: Record<string, (model: ReadModel) => Tried> = { structure, heat, lighting };
const usage = `Usage: ./run trial <model.json> --kind ${Object.keys(kinds).join('|')} --out <folder>
Calculates a model. structure writes structure.json: nodes, members, reactions, displacements, inner forces, findings.
heat writes heat.json: zones with their surfaces and losses, the design heat load, the need of each month, findings.
lighting writes lighting.json: calculation areas with their values, rooms with the light they absorb, findings.`;

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
    positionals: [path, ...more],
    values: { out, kind },
  } = parsed;
  if (path === undefined || more.length > 0 || !out || kind === undefined) return complain(2, usage);
  if (!Object.hasOwn(kinds, kind))
    return complain(2, `There is no trial of kind "${kind}"; expected ${Object.keys(kinds).join(' or ')}.`);
  const model = await modelAt(path);
  if (!model.ok) return complain(3, `${path}: ${model.message}`);
  const { file, content, lines, findings } = kinds[kind](model.value);
  try {
    await mkdir(out, { recursive: true });
    await writeFile(join(out, file), JSON.stringify(content));
  } catch (error) {
    return complain(2, `Cannot write to ${out}: ${(error as Error).message}`);
  }
  for (const line of lines) console.log(line);
  console.log(countFindings(findings));
  return 0;
}
