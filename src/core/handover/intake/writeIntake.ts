import { reasonOf, type Account, type Reference } from '@/core/drawing/account';
import { Kind, kindNames, type Drawing } from '@/core/drawing/drawing';
import type { UnitVerdict } from '@/core/datum/evidence/judge';
import type { Role } from '@/core/sorting/roles';
import { findClusters, sortClusters } from '@/core/underlay/recipe/clusters';
import { mainContent, type Box } from '@/core/underlay/mainContent';
import { extentsOf, type Primitives } from '@/core/underlay/primitives';
import type { LengthUnit } from '@/core/units/length';
import { overviewOf, type Overview } from './overview';

/**
 * One line of the full account. `block` is null in the model space; a reason is given where the entities were left out.
 */
export interface AccountLine {
  kind: string;
  layer: string;
  block: string | null;
  entities: number;
  primitives: number;
  reason: string | null;
  remedy: string | null;
}

/** A block as the report shows it: what its definition holds, how often it is inserted, what that came to. */
export interface BlockLine {
  name: string;
  entities: number;
  inserted: number;
  primitives: number;
  kinds: Record<string, number>;
  reference: string | null;
}

/**
 * intake.json, version 1: what a drawing held, what was read, what was left out and why. Counts are of the file's own
 * entities.
 */
export interface IntakeFile {
  format: 'zircon-frame-intake';
  version: 1;
  file: string;
  sha256: string;
  dxfVersion: string;
  codePage: string;
  header: {
    insUnits: number | null;
    measurement: number | null;
    lengthFormat: number | null;
    dimensionFactor: number | null;
    insertionBase: [number, number] | null;
    extents: Box | null;
  };
  unit: {
    header: LengthUnit | null;
    chosen: LengthUnit | null;
    scale: number;
    confidence: number;
    cues: { cue: string; observations: number; favours: LengthUnit | null; weight: number }[];
  };
  read: { kind: string; count: number; primitives: number }[];
  leftOut: { kind: string; count: number; reason: string; remedy: string }[];
  /** The same, entity kind by layer by block. */
  account: AccountLine[];
  blocks: BlockLine[];
  /** Files that the drawing points at and does not hold. */
  references: Reference[];
  warnings: { code: string; message: string; line: number; handle: string }[];
  /** `kinds` counts a layer's entities by kind, left-out ones included. */
  layers: {
    name: string;
    entities: number;
    primitives: number;
    role: Role | null;
    why: string[];
    kinds: Record<string, number>;
  }[];
  extents: { all: Box | null; main: Box | null };
  /** Small pieces far from the main content: their boxes, and the distance in drawing units. */
  strays: { box: Box; away: number }[];
  overview: Overview | null;
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

/** At most this many strays and lines of the account are listed; a file from outside may have any number. */
const longestList = 20_000;
const mostStrays = 50;

export function writeIntake({ file, sha256, drawing, account, primitives, unit, roleOf }: IntakeInput): IntakeFile {
  const drawn = primitivesDrawn(drawing, primitives);
  const { header } = drawing;
  const lines = accountLines(drawing, account, drawn);
  const strays = sortClusters(findClusters(primitives)).strays.slice(0, mostStrays);
  return {
    format: 'zircon-frame-intake',
    version: 1,
    file,
    sha256,
    dxfVersion: header.version,
    codePage: header.codePage,
    header: {
      insUnits: header.insUnits,
      measurement: header.measurement,
      lengthFormat: header.lengthFormat,
      dimensionFactor: header.dimensionFactor,
      insertionBase: header.insertionBase,
      extents: header.extMin && header.extMax && [header.extMin, header.extMax],
    },
    unit: {
      header: unit.header,
      chosen: unit.chosen,
      scale: unit.scale,
      confidence: unit.confidence,
      cues: unit.cues.map(({ cue, observations, favours, weight }) => ({
        cue,
        observations,
        favours,
        weight: Number(weight.toFixed(3)),
      })),
    },
    read: total(account.read, (row) => row.kind).map(({ first, count }) => ({
      kind: first.kind,
      count,
      primitives: sumOfKind(primitives.counts, first.kind),
    })),
    leftOut: total(account.leftOut, (row) => `${row.kind}/${row.reason}`).map(({ first, count }) => ({
      kind: first.kind,
      count,
      ...reasonOf[first.reason],
    })),
    account: lines,
    blocks: blockLines(drawing, lines),
    references: account.references,
    warnings: [...account.warnings, ...unsaidWarnings(account), ...flattenWarnings(primitives)],
    layers: layerLines(drawing, account, primitives, roleOf),
    extents: { all: boxOf(primitives, extentsOf(primitives)), main: mainContent(primitives) },
    strays: strays.map(({ cluster, away }) => ({
      box: boxOf(primitives, cluster.box)!,
      away: Number(away.toPrecision(9)),
    })),
    overview: overviewOf(primitives),
  };
}

function total<T extends { count: number }>(rows: T[], key: (row: T) => string): { first: T; count: number }[] {
  const totals = new Map<string, { first: T; count: number }>();
  for (const row of rows) {
    const entry = totals.get(key(row));
    if (entry) entry.count += row.count;
    else totals.set(key(row), { first: row, count: row.count });
  }
  return [...totals.values()].sort((a, b) => b.count - a.count);
}

/** Several kinds of rows can have one name in the file. */
const sumOfKind = (counts: Record<number, number>, name: string): number =>
  kindNames.reduce((sum, kind, i) => sum + (kind === name ? (counts[i] ?? 0) : 0), 0);

/** Primitives by the kind, layer and block of the entity that drew them, under `kind/layer/block`. */
function primitivesDrawn(drawing: Drawing, p: Primitives): Map<string, number> {
  const perRow = new Uint32Array(drawing.kind.length);
  for (const row of p.entity) perRow[row] += 1;
  for (const { entity } of p.texts) perRow[entity] += 1;
  const drawn = new Map<string, number>();
  drawing.blocks.forEach(({ first, count }, block) => {
    for (let row = first; row < first + count; row += 1) {
      if (perRow[row] === 0) continue;
      const key = `${kindNames[drawing.kind[row]]}/${drawing.layer[row]}/${block}`;
      drawn.set(key, (drawn.get(key) ?? 0) + perRow[row]);
    }
  });
  return drawn;
}

function accountLines(drawing: Drawing, account: Account, drawn: Map<string, number>): AccountLine[] {
  const place = (row: { layer: number; block: number }) => ({
    layer: drawing.layers[row.layer].name,
    block: row.block === drawing.model ? null : drawing.blocks[row.block].name,
  });
  const lines: AccountLine[] = [
    ...account.read.map((row) => ({
      kind: row.kind,
      ...place(row),
      entities: row.count,
      primitives: drawn.get(`${row.kind}/${row.layer}/${row.block}`) ?? 0,
      reason: null,
      remedy: null,
    })),
    ...account.leftOut.map((row) => ({
      kind: row.kind,
      ...place(row),
      entities: row.count,
      primitives: 0,
      ...reasonOf[row.reason],
    })),
  ];
  return lines
    .sort(
      (a, b) =>
        (a.block ?? '').localeCompare(b.block ?? '') || a.layer.localeCompare(b.layer) || b.entities - a.entities,
    )
    .slice(0, longestList);
}

function blockLines(drawing: Drawing, lines: readonly AccountLine[]): BlockLine[] {
  const inserted = new Uint32Array(drawing.blocks.length);
  for (let row = 0; row < drawing.kind.length; row += 1)
    if (drawing.kind[row] === Kind.insert || drawing.kind[row] === Kind.table) {
      const block = drawing.numbers[drawing.at[row] + 5];
      if (block >= 0) inserted[block] += 1;
    }
  const found = new Map<string, BlockLine>();
  drawing.blocks.forEach(({ name, reference }, i) => {
    // The pictures of dimensions and the spaces of the drawing itself are no blocks that anybody made.
    if (i !== drawing.model && (!name.startsWith('*') || inserted[i] > 0))
      found.set(name, { name, entities: 0, inserted: inserted[i], primitives: 0, kinds: {}, reference });
  });
  for (const line of lines) {
    const block = line.block === null ? undefined : found.get(line.block);
    if (!block) continue;
    block.entities += line.entities;
    block.primitives += line.primitives;
    block.kinds[line.kind] = (block.kinds[line.kind] ?? 0) + line.entities;
  }
  return [...found.values()]
    .sort((a, b) => b.primitives - a.primitives || a.name.localeCompare(b.name))
    .slice(0, longestList);
}

function layerLines(
  drawing: Drawing,
  account: Account,
  p: Primitives,
  roleOf: IntakeInput['roleOf'],
): IntakeFile['layers'] {
  const kinds: Record<string, number>[] = drawing.layers.map(() => ({}));
  for (const { layer, kind, count } of [...account.read, ...account.leftOut])
    kinds[layer][kind] = (kinds[layer][kind] ?? 0) + count;
  const primitives = new Uint32Array(drawing.layers.length);
  for (const layer of p.layer) primitives[layer] += 1;
  for (const { layer } of p.texts) primitives[layer] += 1;
  return drawing.layers.map(({ name }, i) => ({
    name,
    entities: Object.values(kinds[i]).reduce((a, b) => a + b, 0),
    primitives: primitives[i],
    ...roleOf(name),
    kinds: kinds[i],
  }));
}

/** Says how many more warnings of a code there were than are listed. */
function unsaidWarnings({ warnings, warningCounts }: Account): IntakeFile['warnings'] {
  return Object.entries(warningCounts).flatMap(([code, count]) => {
    const listed = warnings.filter((warning) => warning.code === code).length;
    return count > listed
      ? [
          {
            code,
            message: `${(count - listed).toLocaleString('en')} more of this kind are counted and not listed.`,
            line: 0,
            handle: '',
          },
        ]
      : [];
  });
}

/** Of inserts left out so many are told one by one. */
const mostTold = 20;

function flattenWarnings({ limits }: Primitives): IntakeFile['warnings'] {
  const warnings: IntakeFile['warnings'] = [];
  const add = (code: string, message: string) => warnings.push({ code, message, line: 0, handle: '' });
  if (limits.recursion > 0)
    add(
      'recursion',
      `${limits.recursion} inserts lead a block back into itself; they were not followed. Ask for the drawing to be cleaned.`,
    );
  if (limits.nesting > 0)
    add('nesting', `${limits.nesting} inserts lie deeper than blocks may nest; they were not followed.`);
  for (const { block, parts } of limits.expansions.slice(0, mostTold))
    add(
      'expansion',
      `An insert of block ${block} comes to ${parts.toLocaleString('en')} parts, more than an ` +
        'insert of a plan can have; it was left out. Ask for the drawing without that array.',
    );
  if (limits.expansions.length > mostTold)
    add('expansion', `${limits.expansions.length - mostTold} more inserts come to too many parts; they were left out.`);
  if (limits.primitives)
    add(
      'primitives',
      'The drawing flattens to more primitives than the limit allows; the rest is not shown. ' +
        'Cut it into parts, or raise ZIRCON_MAX_PRIMITIVES.',
    );
  return warnings;
}

const boxOf = ({ origin: [ox, oy] }: Primitives, box: [number, number, number, number] | null): Box | null =>
  box && [
    [box[0] + ox, box[1] + oy],
    [box[2] + ox, box[3] + oy],
  ];
