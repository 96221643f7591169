import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import DxfParser from 'dxf-parser';
import { readDxf } from './reader';

/** Drawings that public packages ship, read beside the parser that these packages are made for. */
const folder = join(process.cwd(), 'node_modules/three-dxf/sample/data');
const files = readdirSync(folder).filter((name) => name.endsWith('.dxf'));

test('the package ships drawings', () => {
  expect(files.length).toBeGreaterThan(0);
});

test.each(files)(
  '%s is read without loss: as many entities of each kind as the parser of its package finds',
  (name) => {
    const bytes = readFileSync(join(folder, name));
    const result = readDxf(bytes);
    if (!result.ok) throw new Error(result.message);
    const { account, drawing } = result.value;
    const theirs: Record<string, number> = {};
    for (const { type } of new DxfParser().parseSync(bytes.toString('utf8'))!.entities)
      theirs[type] = (theirs[type] ?? 0) + 1;
    const ours: Record<string, number> = {};
    for (const row of account.read) if (row.block === drawing.model) ours[row.kind] = (ours[row.kind] ?? 0) + row.count;
    expect(ours).toEqual(theirs);
    expect([account.leftOut.filter((row) => row.block === drawing.model), account.warnings]).toEqual([[], []]);
  },
);
