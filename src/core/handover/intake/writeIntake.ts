import { reasonOf, type Account } from '@/core/drawing/account';
import { kindNames, type Drawing } from '@/core/drawing/drawing';
import type { UnitVerdict } from '@/core/datum/unitEvidence';
import type { Role } from '@/core/sorting/roles';
import { mainContent, type Box } from '@/core/underlay/mainContent';
import { extentsOf, type Primitives } from '@/core/underlay/primitives';
import type { LengthUnit } from '@/core/units/length';

/** intake.json, version 1: what a drawing held, what was read, what was left out and why. Counts are of the file's own entities. */
export interface IntakeFile {
  format: 'zircon-frame-intake';
  version: 1;
  file: string;
  sha256: string;
  dxfVersion: string;
  codePage: string;
  unit: { header: LengthUnit | null; chosen: LengthUnit | null; confidence: number; cues: { cue: string; observations: number; favours: LengthUnit | null; weight: number }[] };
  read: { kind: string; count: number; primitives: number }[];
  leftOut: { kind: string; count: number; reason: string; remedy: string }[];
  warnings: { code: string; message: string; line: number; handle: string }[];
  /** `kinds` counts a layer's entities by kind, left-out ones included. */
  layers: { name: string; entities: number; role: Role | null; why: string[]; kinds: Record<string, number> }[];
  extents: { all: Box | null; main: Box | null };
}

export interface IntakeInput {
  file: string;
  sha256: string;
  drawing: Drawing;
  account: Account;
  primitives: Primitives;
  unit: UnitVerdict;
  roleOf: (layer: string) => { role: Role | null; why: string[] };
}

export function writeIntake({ file, sha256, drawing, account, primitives, unit, roleOf }: IntakeInput): IntakeFile {
  const sum = <T extends { count: number }>(rows: T[], key: (row: T) => string) => {
    const totals = new Map<string, { first: T; count: number }>();
    for (const row of rows) {
      const total = totals.get(key(row));
      if (total) total.count += row.count; else totals.set(key(row), { first: row, count: row.count });
    }
    return [...totals.values()].sort((a, b) => b.count - a.count);
  };
  const read = sum(account.read, (row) => row.kind);
  const kinds = new Map<number, Record<string, number>>();
  for (const { layer, kind, count } of [...account.read, ...account.leftOut]) {
    const here = kinds.get(layer) ?? kinds.set(layer, {}).get(layer)!;
    here[kind] = (here[kind] ?? 0) + count;
  }
  return {
    format: 'zircon-frame-intake', version: 1, file, sha256, dxfVersion: drawing.header.version, codePage: drawing.header.codePage,
    unit: { header: unit.header, chosen: unit.chosen, confidence: unit.confidence, cues: unit.cues.map(({ cue, observations, favours, weight }) => ({ cue, observations, favours, weight: Number(weight.toFixed(3)) })) },
    read: read.map(({ first, count }) => ({ kind: first.kind, count, primitives: primitives.counts[kindNames.indexOf(first.kind as never)] ?? 0 })),
    leftOut: sum(account.leftOut, (row) => `${row.kind}/${row.reason}`).map(({ first, count }) => ({ kind: first.kind, count, ...reasonOf[first.reason] })),
    warnings: [...account.warnings, ...flattenWarnings(primitives)],
    layers: drawing.layers.map(({ name }, i) => ({ name, entities: Object.values(kinds.get(i) ?? {}).reduce((a, b) => a + b, 0), ...roleOf(name), kinds: kinds.get(i) ?? {} })),
    extents: { all: boxOf(primitives), main: mainContent(primitives) },
  };
}

function flattenWarnings({ limits, missingBlocks }: Primitives): IntakeFile['warnings'] {
  const warnings: IntakeFile['warnings'] = [];
  const add = (code: string, message: string) => warnings.push({ code, message, line: 0, handle: '' });
  if (limits.recursion > 0) add('recursion', `${limits.recursion} inserts lead a block back into itself; they were not followed. Ask for the drawing to be cleaned.`);
  if (limits.nesting > 0) add('nesting', `${limits.nesting} inserts lie deeper than blocks may nest; they were not followed.`);
  if (limits.primitives) add('primitives', 'The drawing flattens to more primitives than the limit allows; the rest is not shown. Cut it into parts, or raise the limit.');
  if (missingBlocks > 0) add('missingBlocks', `${missingBlocks} inserts name a block that is not in the file; nothing is shown for them.`);
  return warnings;
}

function boxOf(primitives: Primitives): Box | null {
  const box = extentsOf(primitives);
  return box && [[box[0] + primitives.origin[0], box[1] + primitives.origin[1]], [box[2] + primitives.origin[0], box[3] + primitives.origin[1]]];
}
