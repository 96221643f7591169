import { elementsOfCandidates } from '@/core/decisions/decide';
import type { ElementKind, ElementRow } from '@/core/kinds/element';
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { asDrawn, metresPerDrawn, type Placement } from '@/core/datum/placement';
import { defaultLimits } from '@/core/drawing/limits';
import { DxfReader } from '@/core/drawing/reader';
import { writeElementsDxf } from '@/core/handover/dxf/writeElements';
import { digest, type Digest } from '@/core/handover/intake/digest';
import { writeModel } from '@/core/handover/model/writeModel';
import type { Candidate } from '@/core/reading/candidate';
import { kinds } from '@/core/kinds/kinds';
import { plainLevel } from '@/core/model/levels';
import { resolveBuilding } from '@/core/resolved/resolve';
import { rowsOfSheet } from '@/core/reading/beams/sheetRows';
import { read } from '@/core/reading/read';
import { Scene } from '@/core/reading/scene';
import { toleranceFor } from '@/core/patterns/settings';
import { fail, ok, type Result } from '@/core/result';
import { roleByRules } from '@/core/sorting/roles';
import { applyRecipe } from '@/core/underlay/recipe/apply';
import { lengthUnits, unitNames } from '@/core/units/length';
import { complain } from './complain';
import { parseSettings, type Settings } from './settings';

const usage = `Usage: ./run convert <drawing.dxf> [...] --out <folder> [--settings <file.json>]
Writes model.json, intake.json and model.dxf. With several drawings the intake of the second is intake-2.json, and so on.`;

/** `./run convert`. @returns the exit code: 0 done, 2 wrong usage, 3 the input cannot be read */
export async function convert(args: string[]): Promise<number> {
  let parsed;
  try {
    parsed = parseArgs({
      args,
      allowPositionals: true,
      options: { out: { type: 'string' }, settings: { type: 'string' } },
    });
  } catch (error) {
    return complain(2, `${(error as Error).message}\n${usage}`);
  }
  const {
    positionals: files,
    values: { out, settings: settingsFile },
  } = parsed;
  if (files.length === 0 || !out) return complain(2, usage);
  const settings = await readSettings(settingsFile);
  if (!settings.ok) return complain(2, settings.message);

  const drawings: { name: string; digest: Digest }[] = [];
  for (const file of files) {
    const result = await readDrawing(file, settings.value);
    if (!result.ok) return complain(3, `${file}: ${result.message}`);
    drawings.push({ name: basename(file), digest: result.value });
  }
  const { model, dxf, warnings } = convertDrawings(drawings, settings.value);
  for (const warning of warnings) console.error(warning);
  try {
    await mkdir(out, { recursive: true });
    await writeFile(join(out, 'model.json'), `${JSON.stringify(model, null, 1)}\n`);
    await writeFile(join(out, 'model.dxf'), dxf);
    for (const [i, drawing] of drawings.entries())
      await writeFile(
        join(out, i === 0 ? 'intake.json' : `intake-${i + 1}.json`),
        `${JSON.stringify(drawing.digest.intake, null, 1)}\n`,
      );
  } catch (error) {
    return complain(2, `Cannot write to ${out}: ${(error as Error).message}`);
  }
  const counts: [number, ElementKind][] = [
    [model.grids.length, 'grid'],
    [model.columns.length, 'column'],
    [model.beams.length, 'beam'],
    [model.walls.length, 'wall'],
    [model.openings.length, 'opening'],
    [model.slabs.length, 'slab'],
    [model.zones.length, 'zone'],
    [model.outdoor.length, 'outdoor'],
  ];
  const written = counts
    .filter(([count]) => count > 0)
    .map(([count, kind]) => `${count} ${kinds[kind].names[count === 1 ? 0 : 1]}`);
  console.log(`${written.join(', ') || 'Nothing read; an empty model'} written to ${out}`);
  return 0;
}

async function readSettings(file: string | undefined): Promise<Result<Settings>> {
  if (file === undefined) return parseSettings('{}');
  try {
    return parseSettings(await readFile(file, 'utf8'));
  } catch (error) {
    return fail(`Cannot read the settings ${file}: ${(error as Error).message}`);
  }
}

async function readDrawing(file: string, settings: Settings): Promise<Result<Digest>> {
  const reader = new DxfReader(defaultLimits);
  const hash = createHash('sha256');
  try {
    for await (const chunk of createReadStream(file, { highWaterMark: 1 << 20 })) {
      hash.update(chunk as Uint8Array);
      if (!reader.push(chunk as Uint8Array)) break;
    }
  } catch (error) {
    return fail(`The file cannot be opened: ${(error as Error).message}`);
  }
  const reading = reader.finish();
  if (!reading.ok) return reading;
  const { roles } = settings;
  const rules =
    roles === 'auto'
      ? undefined
      : (layer: string) => {
          const rule = roleByRules(layer, roles);
          return rule ? { role: rule.role, why: [`rule "${rule.pattern}"`] } : { role: null, why: [] };
        };
  return ok(digest(basename(file), hash.digest('hex'), reading.value, defaultLimits, rules));
}

/** Reads the elements of drawings that lie on one level as drawn, and writes them in the first drawing's unit. */
function convertDrawings(drawings: { name: string; digest: Digest }[], settings: Settings) {
  const warnings: string[] = [];
  const elements: ElementRow[] = [];
  const sheets = drawings.map(({ name, digest: { drawing, primitives } }) => ({
    sheet: name,
    rows: rowsOfSheet(drawing, primitives),
  }));
  let first: Placement | null = null;
  let number = 0;
  for (const {
    name,
    digest: { drawing, primitives, unit, intake },
  } of drawings) {
    const likeliest = lengthUnits.reduce((a, b) => (unit.probabilities[b] > unit.probabilities[a] ? b : a));
    const taken = settings.unit === 'auto' ? (unit.chosen ?? likeliest) : settings.unit;
    if (settings.unit === 'auto' && unit.chosen === null)
      warnings.push(
        `${name}: the unit is not certain; ${unitNames[taken]} were taken (probability ` +
          `${unit.confidence.toFixed(2)}). State "unit" in the settings.`,
      );
    intake.unit.chosen = settings.unit === 'auto' ? unit.chosen : settings.unit;
    const placement = asDrawn(taken, settings.unit === 'auto' ? unit.scale : 1);
    first ??= placement;
    const cleaned = applyRecipe(
      { drawing, raw: primitives, metresPerUnit: metresPerDrawn(placement) },
      settings.recipe,
    ).primitives;
    const scene = new Scene(
      drawing,
      cleaned,
      placement,
      intake.layers.map((layer) => layer.role),
    );
    const { candidates } = read({
      scene,
      accepted: elements.flatMap((element) => (element.kind === 'grid' ? [element.shape] : [])),
      linked: sheets.filter(({ sheet }) => sheet !== name),
      tolerance: toleranceFor(taken),
    });
    const newId = ({ kind }: Candidate) => {
      number += 1;
      return `${kind[0].toUpperCase()}${number}`;
    };
    elements.push(
      ...elementsOfCandidates(candidates, { levelId: 'L1', drawing: name, wallOf: () => null, newId }).map(
        ({ element }) => element,
      ),
    );
  }
  const building = resolveBuilding({ levels: [{ ...plainLevel, id: 'L1', ...settings.level }], elements });
  warnings.push(...building.unresolved.map(({ message }) => message));
  const model = writeModel({ building, drawingName: (name) => name });
  return { model, dxf: writeElementsDxf(elements, first!), warnings };
}
