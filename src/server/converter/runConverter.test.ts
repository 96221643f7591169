import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runConverter } from './runConverter';

const folder = mkdtempSync(join(tmpdir(), 'zircon-converter-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const files = { in: join(folder, 'in.xyz'), out: join(folder, 'out.dxf') };
const never = new AbortController().signal;

/** A converter of a few words of JavaScript. */
function program(text: string): string[] {
  const path = join(folder, 'convert.mjs');
  writeFileSync(path, text);
  return [process.execPath, path, '{in}', '{out}'];
}

test('it gets both files, its words are kept, and nothing of the server is told to it', async () => {
  writeFileSync(files.in, 'plan; rm -rf');
  process.env.DATABASE_URL ??= 'postgres://secret@nowhere/x';
  const words = program(`
    import { readFileSync, writeFileSync } from 'node:fs';
    const [, , from, to] = process.argv;
    writeFileSync(to, readFileSync(from, 'utf8').toUpperCase());
    console.log('left out: 3 pictures');
    console.error(Object.keys(process.env).includes('DATABASE_URL') ? 'knows' : 'knows nothing');
  `);
  expect(await runConverter(words, files, folder, never)).toEqual({
    log: expect.stringMatching(/left out: 3 pictures[\s\S]*knows nothing/) as string,
    problem: null,
  });
  expect(readFileSync(files.out, 'utf8')).toBe('PLAN; RM -RF');
});

test('how it failed is said: its code, or that there is no such program', async () => {
  const ran = await runConverter(program("console.log('no licence'); process.exit(3);"), files, folder, never);
  expect(ran).toEqual({ log: 'no licence\n', problem: 'it ended with code 3' });
  const missing = await runConverter([join(folder, 'nothing'), '{in}', '{out}'], files, folder, never);
  expect(missing.problem).toContain('ENOENT');
});

test('what it says without end is cut, and it is ended at once when it is to end', async () => {
  const talks = await runConverter(
    program("for (let i = 0; i < 20000; i += 1) console.log('word ' + i);"),
    files,
    folder,
    never,
  );
  expect(talks.log.length).toBeLessThanOrEqual(64_000);
  expect(talks.log).toContain('word 19999');
  const ending = new AbortController();
  const done = join(folder, 'done');
  const waits = runConverter(
    program(
      `import { writeFileSync } from 'node:fs'; setTimeout(() => writeFileSync(${JSON.stringify(done)}, ''), 3000);`,
    ),
    files,
    folder,
    ending.signal,
  );
  ending.abort();
  expect((await waits).problem).not.toBeNull();
  expect(existsSync(done)).toBe(false);
});
