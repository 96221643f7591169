import { csvParseRows } from 'd3';
import Excel from 'exceljs';
import { readDxf } from '@/core/drawing/reader';
import type { FileBack } from '@/core/exports/deliveries/report';
import type { ReadBack } from '@/core/exports/ifc/readBack';
import { outLayers } from '@/core/handover/dxf/writeElements';
import { readModel, type ReadModel } from '@/core/handover/model/readModel';
import { flatten } from '@/core/underlay/flatten';
import { pathCount } from '@/core/underlay/primitives';
import { Problem } from '../problem';
import { openGbxml } from './openGbxml';
import { openIfc } from './openIfc';
import { openPdf } from './openPdf';
import type { Schedule } from '@/core/exports/schedules/table';
import type { Written } from './formats';
import { allNodes, readXml } from './readXml';

/**
 * Reads files that were written again, each by another way than it was written, and counts what came back.
 * @param model what was written
 */
export const backReader =
  (model: ReadModel) =>
  async (written: Written): Promise<FileBack> => ({ file: written.file, kinds: await kindsIn(written, model) });

/** The kinds of things in a file; none where a format has nothing to be counted. */
async function kindsIn({ file, content, tables = [], sheets }: Written, model: ReadModel): Promise<ReadBack[]> {
  if (file.endsWith('.ifc')) return await openIfc(String(content), model);
  if (file.endsWith('.json')) return inJson(String(content), model);
  if (file.endsWith('.xml')) return inGbxml(String(content), model);
  if (file === 'model.dxf') return inDxf(String(content), model);
  if (file.endsWith('.dxf')) return inPlan(file, String(content));
  if (file.endsWith('.csv')) return inCsv(String(content), tables);
  if (file.endsWith('.svg')) return inSvg(file, String(content), model);
  if (typeof content === 'string') return [];
  if (file.endsWith('.xlsx')) return await inWorkbook(content, tables);
  return sheets === undefined ? [] : await openPdf(content, sheets);
}

/** Rows beneath the head of a schedule. */
const inCsv = (text: string, tables: readonly Schedule[]): ReadBack[] =>
  tables.map(({ name, rows }) => ({
    kind: `rows of ${name}`,
    model: rows.length,
    file: csvParseRows(text.replace(/^\ufeff/, '')).length - 1,
  }));

/** The texts of a plan; sections and storeys show some of them only. */
function inSvg(file: string, text: string, model: ReadModel): ReadBack[] {
  const root = readXml(text);
  if (!root.ok) throw unreadable(file, root.message);
  if (!file.startsWith('plan-')) return [];
  const texts = new Set([...allNodes(root.value)].filter(({ name }) => name === 'text').map((node) => node.text));
  // Signs that no line of text can show are written as spaces.
  const labels = model.grids.map(({ label }) => label.replace(/[\u0000-\u001f\u007f]/g, ' '));
  return [{ kind: 'labels of grid lines', model: labels.length, file: labels.filter((one) => texts.has(one)).length }];
}

const unreadable = (file: string, why: string): Problem =>
  new Problem(500, `${file} cannot be read again after it was written: ${why} Nothing was handed over.`);

const lists = ['columns', 'beams', 'walls', 'openings', 'slabs', 'zones', 'outdoor'] as const;

function inJson(text: string, model: ReadModel): ReadBack[] {
  const back = readModel(text);
  if (!back.ok) throw unreadable('model.json', back.message);
  return lists
    .filter((kind) => model[kind].length > 0)
    .map((kind) => ({ kind, model: model[kind].length, file: back.value[kind].length }));
}

function inGbxml(text: string, model: ReadModel): ReadBack[] {
  const back = openGbxml(text, model);
  if (!back.ok) throw unreadable('model.xml', back.message);
  return back.value;
}

function opened(file: string, text: string) {
  const read = readDxf(new TextEncoder().encode(text));
  if (!read.ok) throw unreadable(file, read.message);
  return read.value;
}

/** A plan that all of can be read. */
function inPlan(file: string, text: string): ReadBack[] {
  const { leftOut } = opened(file, text).account;
  if (leftOut.length > 0) throw unreadable(file, `${leftOut.length} kinds of entities were left out.`);
  return [];
}

/** Members and slabs by the lines of their layers. */
function inDxf(text: string, model: ReadModel): ReadBack[] {
  const { drawing } = opened('model.dxf', text);
  const paths = flatten(drawing);
  const onLayer = new Map<string, number>();
  for (let p = 0; p < pathCount(paths); p += 1) {
    const { name } = drawing.layers[paths.layer[p]];
    onLayer.set(name, (onLayer.get(name) ?? 0) + 1);
  }
  const rings = model.slabs.reduce((sum, { holes }) => sum + 1 + holes.length, 0);
  return [
    { kind: 'columns', model: model.columns.length, file: onLayer.get(outLayers.column) ?? 0 },
    { kind: 'beams', model: model.beams.length, file: onLayer.get(outLayers.beam) ?? 0 },
    { kind: 'outlines of slabs', model: rings, file: onLayer.get(outLayers.slab) ?? 0 },
  ].filter((one) => one.model > 0);
}

/** Rows of each sheet beneath its head, and the numbers among them that are the same. */
async function inWorkbook(bytes: Uint8Array, tables: readonly Schedule[]): Promise<ReadBack[]> {
  const book = new Excel.Workbook();
  await book.xlsx.load(new Uint8Array(bytes).buffer);
  const numbers: ReadBack = { kind: 'numbers', model: 0, file: 0 };
  const rowsBack = tables.map(({ name, rows }): ReadBack => {
    const sheet = book.getWorksheet(name.slice(0, longestName));
    rows.forEach((row, i) =>
      row.forEach((cell, j) => {
        if (typeof cell !== 'number') return;
        numbers.model += 1;
        if (sheet?.getCell(i + 2, j + 1).value === cell) numbers.file += 1;
      }),
    );
    return { kind: `rows of ${name}`, model: rows.length, file: (sheet?.actualRowCount ?? 1) - 1 };
  });
  return [...rowsBack, numbers];
}
/** A sheet's name has at most so many letters. */
const longestName = 31;
