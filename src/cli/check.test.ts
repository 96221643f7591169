import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Finding } from '@/core/proof/finding';
import { groundFloor } from '../../demo/ground';
import { check } from './check';
import { convert } from './convert';

const folder = mkdtempSync(join(tmpdir(), 'zircon-check-'));
const said: string[] = [];

afterAll(() => rmSync(folder, { recursive: true, force: true }));
beforeEach(() => {
  said.length = 0;
  for (const stream of ['log', 'error'] as const)
    jest.spyOn(console, stream).mockImplementation((...text: unknown[]) => {
      said.push(text.join(' '));
    });
});
afterEach(() => jest.restoreAllMocks());

const written = (name: string, content: string): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const findings = (out: string): Finding[] =>
  (JSON.parse(readFileSync(join(folder, out, 'findings.json'), 'utf8')) as { findings: Finding[] }).findings;

test('nothing is found in what the demo\u2019s ground floor becomes; a column moved off is found by its id', async () => {
  const drawing = written('ground.dxf', groundFloor().dxf);
  const settings = written('settings.json', JSON.stringify({ unit: 'mm' }));
  expect(await convert([drawing, '--out', join(folder, 'm'), '--settings', settings])).toBe(0);
  const path = join(folder, 'm', 'model.json');
  said.length = 0;
  expect(await check([path, '--out', join(folder, 'sound')])).toBe(0);
  expect([said, findings('sound')]).toEqual([['Nothing was found.'], []]);
  const model = JSON.parse(readFileSync(path, 'utf8')) as { openings: { id: string; offset: number }[] };
  model.openings[0].offset = 500;
  const broken = written('broken.json', JSON.stringify(model));
  expect(await check([broken, '--out', join(folder, 'broken')])).toBe(0);
  expect(findings('broken').map(({ rule, severity, elements }) => [rule, severity, elements[0]])).toContainEqual([
    'openings',
    'error',
    model.openings[0].id,
  ]);
});

test('wrong usage ends with 2, what is no model with 3 and one line, and nothing is written', async () => {
  const out = join(folder, 'none');
  expect(await check([])).toBe(2);
  expect(await check(['a.json', 'b.json', '--out', out])).toBe(2);
  expect(await check(['--nonsense'])).toBe(2);
  said.length = 0;
  expect(await check([join(folder, 'absent.json'), '--out', out])).toBe(3);
  expect(await check([written('text.json', 'not JSON'), '--out', out])).toBe(3);
  expect(said).toHaveLength(2);
  for (const line of said) expect(line).not.toMatch(/\n/);
  expect(existsSync(out)).toBe(false);
});
