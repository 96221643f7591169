import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { HeatFile } from '@/core/energy/file';
import type { StructureFile } from '@/core/structure/file';
import { trial } from './trial';

const folder = mkdtempSync(join(tmpdir(), 'zircon-trial-'));
const said: string[] = [];

afterAll(() => rmSync(folder, { recursive: true, force: true }));
afterEach(() => jest.restoreAllMocks());
beforeEach(() => {
  said.length = 0;
  for (const way of ['log', 'error'] as const)
    jest.spyOn(console, way).mockImplementation((...text: unknown[]) => {
      said.push(text.join(' '));
    });
});

function fileOf(name: string, content: unknown): string {
  const path = join(folder, name);
  writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
  return path;
}

const section = { shape: 'rectangle', width: 0.3, depth: 0.6 };
/** A beam of 6 m, clamped at one end and hinged at the other, with 10 kN/m. */
const propped = {
  format: 'zircon-frame-model',
  version: 1,
  unit: 'm',
  levels: [{ id: 'L1', name: 'Ground', elevation: 0, height: 3 }],
  beams: [{ id: 'B1', level: 'L1', start: [0, 0, 3], end: [6, 0, 3], section, releases: { start: ['ry'], end: [] } }],
  supports: [0, 6].map((x) => ({ id: `P${x}`, position: [x, 0, 3], fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'] })),
  loadCases: [{ id: 'Q', selfWeight: 0 }],
  loads: [{ case: 'Q', kind: 'member', element: 'B1', q: [0, 0, -10000] }],
};

test('a propped beam: 3/8 and 5/8 of its load, w L2 / 8 where it is clamped', async () => {
  const out = join(folder, 'out');
  expect(await trial([fileOf('propped.json', propped), '--kind', 'structure', '--out', out])).toBe(0);
  const file = JSON.parse(readFileSync(join(out, 'structure.json'), 'utf8')) as StructureFile;
  expect([file.format, file.version]).toEqual(['zircon-frame-structure', 1]);
  const [q] = file.results;
  expect(q.supports.map(({ value }) => value[2])).toEqual([expect.closeTo(22500, 6), expect.closeTo(37500, 6)]);
  expect(q.members[0].my[10]).toBeCloseTo(-45000, 6);
  expect(said).toEqual(['Q: applied 60.0 kN, reactions 60.0 kN, difference 0.0', 'Nothing was found.']);
});

test('heat: a room with nothing about it loses by its air, its floor and its roof', async () => {
  const outline = [
    [0, 0],
    [4, 0],
    [4, 3],
    [0, 3],
  ];
  const model = {
    format: 'zircon-frame-model',
    version: 1,
    unit: 'm',
    levels: [{ id: 'L1', name: 'Upper', elevation: 6, height: 3 }],
    zones: [{ id: 'Z', level: 'L1', name: 'Box', outline, height: 3, clearHeight: 2.5, temperature: 20, airChange: 1 }],
    site: { winterTemperature: -10 },
  };
  const out = join(folder, 'warm');
  expect(await trial([fileOf('box.json', model), '--kind', 'heat', '--out', out])).toBe(0);
  const file = JSON.parse(readFileSync(join(out, 'heat.json'), 'utf8')) as HeatFile;
  expect([file.format, file.version, file.zones.length]).toEqual(['zircon-frame-heat', 1, 1]);
  const [{ volume, ventilation, area }] = file.zones;
  expect([area, volume, ventilation]).toEqual([12, 30, 0.34 * 30].map((value) => expect.closeTo(value, 9)));
  // Nothing stands about it: that is found, and no heat is counted there.
  expect(file.findings.map(({ rule }) => rule)).toContain('does not close');
  expect(said[0]).toMatch(/^1 zone, 12\.0 m2: design heat load \d+\.\d\d kW/);
});

test('a mechanism is no failure: it is found, and the exit code is 0', async () => {
  const out = join(folder, 'loose');
  expect(await trial([fileOf('loose.json', { ...propped, supports: [] }), '--kind', 'structure', '--out', out])).toBe(
    0,
  );
  const { findings } = JSON.parse(readFileSync(join(out, 'structure.json'), 'utf8')) as StructureFile;
  expect(findings.some(({ rule }) => rule === 'mechanism')).toBe(true);
});

test('what is no model, and what is asked for wrongly, is said in one line, and nothing is written', async () => {
  const out = join(folder, 'none');
  expect(await trial([fileOf('bad.json', '{'), '--kind', 'structure', '--out', out])).toBe(3);
  expect(said.join()).toMatch(/is not JSON/);
  expect(await trial([join(folder, 'nowhere.json'), '--kind', 'structure', '--out', out])).toBe(3);
  expect(await trial([fileOf('a.json', propped), '--kind', 'wind', '--out', out])).toBe(2);
  expect(await trial([])).toBe(2);
  expect(existsSync(out)).toBe(false);
});
