import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { groundFloor } from '../demo/ground';
import { root } from '@/cli/system';
import { defaultLimits } from '@/core/drawing/limits';
import { packDrawing, unpackDrawing } from '@/core/drawing/packDrawing';
import { readDxf } from '@/core/drawing/reader';
import { digest } from '@/core/handover/intake/digest';
import { mutate, seeded } from './mutate';

const limits = { ...defaultLimits, primitives: 100_000 };

/** The drawings that are damaged: another library's, of every version, ASCII and binary, and the demo's. */
export function seedFiles(): Uint8Array[] {
  const folder = join(root, 'src/core/drawing/fixtures');
  const files = readdirSync(folder)
    .filter((name) => name.endsWith('.dxf'))
    .map((name) => new Uint8Array(readFileSync(join(folder, name))));
  return [...files, new TextEncoder().encode(groundFloor().dxf)];
}

/**
 * Reads one damaged file as the server would.
 * @returns what is wrong with how it ended, or null: a result with a diagnosis where it is empty, or a clear sentence
 */
export function fuzzCase(seeds: Uint8Array[], number: number): string | null {
  const random = seeded(number);
  const bytes = mutate(seeds[number % seeds.length], random);
  const result = readDxf(bytes, limits);
  if (!result.ok) return result.message.length < 20 ? `an error without a sentence: "${result.message}"` : null;
  const { drawing, account } = result.value;
  if (drawing.kind.length === 0 && account.leftOut.length === 0 && account.warnings.length === 0)
    return 'an empty result without a diagnosis';
  const { intake, primitives } = digest('damaged.dxf', '', result.value, limits);
  if (primitives.xy.some((value) => !Number.isFinite(value))) return 'a coordinate that is no number';
  const counted = [...intake.read, ...intake.leftOut].some((row) => !(row.count > 0));
  if (counted) return 'a count that is not positive';
  const packed = unpackDrawing(packDrawing(drawing));
  if (packed.numbers.length !== drawing.numbers.length) return 'columns that do not come back';
  return null;
}
