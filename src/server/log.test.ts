import { spawnSync } from 'node:child_process';
import { requestId } from './log';

const root = `${__dirname}/../..`;

/** What a process tells on its second output while it runs a piece of the program. */
function told(code: string, env: Record<string, string>): string[] {
  const { stderr, status } = spawnSync(
    process.execPath,
    [
      '--import',
      'tsx',
      '--input-type=module',
      '-e',
      `const { forRequest, log } = await import('@/server/log'); ${code}`,
    ],
    { encoding: 'utf8', cwd: root, env: { ...process.env, NODE_OPTIONS: '', ...env } },
  );
  expect(status).toBe(0);
  return stderr.split('\n').filter(Boolean);
}

/** An error as the database tells it: what rows hold stands in its detail. */
const failing = `
  const error = Object.assign(new Error('duplicate key'), { code: '23505', detail: 'Key (name)=(secret) exists' });
  log.told('before');
  forRequest('abc-12345', () => log.problem('Something went wrong', { error }));
  log.request({ method: 'GET', path: '/api/projects', status: 200, ms: 3 });
`;

test('where people sign in each thing is a line of JSON with the request it belongs to, and no row', () => {
  const lines = told(failing, { ZIRCON_SIGN_IN: '1' });
  const parsed = lines.map((line) => JSON.parse(line) as Record<string, unknown>);
  expect(parsed.map(({ level, message, request }) => [level, message, request])).toEqual([
    ['info', 'before', undefined],
    ['error', 'Something went wrong', 'abc-12345'],
    ['info', 'request', undefined],
  ]);
  expect(parsed[1].error).toMatchObject({ name: 'Error', message: 'duplicate key', code: '23505' });
  expect(parsed[2]).toMatchObject({ method: 'GET', path: '/api/projects', status: 200, ms: 3 });
  for (const { time } of parsed) expect(Math.abs(Date.parse(String(time)) - Date.now())).toBeLessThan(60_000);
  expect(lines.join('')).not.toContain('secret');
});

test('on one machine sentences are told, and requests are not', () => {
  const text = told(failing, { ZIRCON_SIGN_IN: '' }).join('\n');
  expect(text).toContain('Something went wrong Error: duplicate key');
  expect(text).not.toContain('/api/projects');
  expect(text.startsWith('before\n')).toBe(true);
});

test('an id that a proxy gave is taken over where it is one, and nothing else is', () => {
  const idOf = (given?: string) => requestId(new Headers(given === undefined ? {} : { 'x-request-id': given }));
  expect(idOf('7f3a.office-42')).toBe('7f3a.office-42');
  expect(idOf()).toMatch(/^[0-9a-f-]{36}$/);
  for (const bad of ['short', 'x'.repeat(65), 'a b c d e f g h', '{"level":"info"}'])
    expect(idOf(bad)).toMatch(/^[0-9a-f-]{36}$/);
});
