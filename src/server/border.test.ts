import * as v from 'valibot';
import { attachment } from './attachment';
import { bodyAs, route } from './http';
import { Problem, problemOf } from './problem';
import { knownHost, sameOrigin } from './sameOrigin';

const request = (headers: Record<string, string>, method = 'POST') =>
  new Request('http://127.0.0.1:4270/api/x', { method, headers });

afterEach(() => {
  delete process.env.ZIRCON_HOSTS;
});

test('only the loopback names are known, and those that are set', () => {
  expect(['127.0.0.1:4270', 'localhost', '[::1]:80', 'LOCALHOST:1'].map(knownHost)).toEqual([true, true, true, true]);
  expect(['zircon.example', '127.0.0.1.elsewhere.example', null, ''].map(knownHost)).toEqual([
    false,
    false,
    false,
    false,
  ]);
  process.env.ZIRCON_HOSTS = 'zircon.example, plans.example';
  expect(['plans.example:8080', 'other.example'].map(knownHost)).toEqual([true, false]);
});

test.each([
  [{}, true],
  [{ origin: 'http://127.0.0.1:4270', host: '127.0.0.1:4270' }, true],
  [{ 'sec-fetch-site': 'same-origin' }, true],
  [{ 'sec-fetch-site': 'none' }, true],
  [{ origin: 'http://127.0.0.1:9999', host: '127.0.0.1:4270' }, false],
  [{ origin: 'null', host: '127.0.0.1:4270' }, false],
  [{ 'sec-fetch-site': 'cross-site' }, false],
  [{ 'sec-fetch-site': 'same-site' }, false],
])('a request with %p is of this very server: %p', (headers, own) => {
  expect(sameOrigin(request(headers as Record<string, string>))).toBe(own);
});

describe('a route', () => {
  const context = (params: Record<string, string> = {}) => ({ params: Promise.resolve(params) });
  const answer = async (response: Response) => ({
    status: response.status,
    body: (await response.json()) as Record<string, unknown>,
  });

  test('answers with what its handler returns, never to be cached', async () => {
    const response = await route('anyone', async () => ({ a: 1 }))(request({ host: 'localhost' }), context());
    expect(response.headers.get('cache-control')).toBe('no-store');
    expect(await answer(response)).toEqual({ status: 200, body: { a: 1 } });
  });

  test('refuses foreign hosts, foreign origins and ids that are none before its handler runs', async () => {
    const handler = jest.fn();
    const call = async (headers: Record<string, string>, params = {}) =>
      (await route('anyone', handler)(request(headers), context(params))).status;
    expect([
      await call({ host: 'rebound.example' }),
      await call({ host: 'localhost', origin: 'http://x.example' }),
      await call({ host: 'localhost' }, { project: '1; drop table' }),
    ]).toEqual([421, 403, 404]);
    expect(handler).not.toHaveBeenCalled();
  });

  test('tells problems in their own words and hides the rest', async () => {
    const silent = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    const known = await answer(
      await route('anyone', async () => {
        throw new Problem(409, 'Look again.', { version: 3 });
      })(request({ host: 'localhost' }), context()),
    );
    expect(known).toEqual({ status: 409, body: { message: 'Look again.', version: 3 } });
    const unknown = await answer(
      await route('anyone', async () => {
        throw new Error('secret path /etc');
      })(request({ host: 'localhost' }), context()),
    );
    expect(unknown.status).toBe(500);
    expect(JSON.stringify(unknown.body)).not.toContain('secret');
    silent.mockRestore();
  });
});

test('a body is taken in its shape or refused, naming the place', async () => {
  const body = (text: string) =>
    bodyAs(
      new Request('http://localhost/', { method: 'POST', body: text }),
      v.strictObject({ name: v.pipe(v.string(), v.minLength(1, 'A name, please.')) }),
    );
  await expect(body('{"name":"x"}')).resolves.toEqual({ name: 'x' });
  await expect(body('{"name":""}')).rejects.toThrow('A name, please. (name)');
  await expect(body('{"name":"x","more":1}')).rejects.toThrow(/more/);
  await expect(body('not json')).rejects.toThrow('not JSON');
});

test.each([
  ['ECONNREFUSED', 503, /database does not answer.*start the database again/i],
  ['57P01', 503, /What was confirmed is safe/],
  ['53100', 507, /disk of the database is full.*make room/i],
  ['ENOSPC', 507, /disk/],
  ['53300', 503, /no connection left/],
  ['23503', 409, /still in use/],
  ['23514', 400, /outside its limits/],
  ['42P01', 503, /setting its database up/],
  ['28P01', 503, /the user or the password in DATABASE_URL/],
])('the error %s becomes status %d with a sentence that says what to do', (code, status, words) => {
  const problem = problemOf(Object.assign(new Error('x'), { code }));
  expect(problem.status).toBe(status);
  expect(problem.message).toMatch(words);
});

test('a file to be saved keeps its name, whatever letters it has', () => {
  const disposition = attachment('x', 'M\u00f6we "1"\r\n.json', 'application/json').headers.get('content-disposition')!;
  expect(disposition).toBe('attachment; filename="M_we _1___.json"; filename*=UTF-8\'\'M%C3%B6we%20%221%22%0D%0A.json');
});
