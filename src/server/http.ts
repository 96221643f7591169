import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import * as v from 'valibot';
import { uuid } from '@/core/kinds/limits';
import type { Done } from './desk/tasks';
import type { Right } from '@/core/people';
import { jsonAs } from './json';
import { forRequest, log, requestId } from './log';
import { expectRight } from './people/rights';
import { personOf, type Person } from './people/sessions';
import { Problem, problemOf } from './problem';
import { knownHost, sameOrigin } from './sameOrigin';
import { settings } from './settings';

const plainHeaders = { 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' };

type Context<P extends string> = { params: Promise<Record<P, string>> };

/** Who may ask: anyone, who is signed in, owners of the installation, or who has a right in the address's project. */
export type Rule = 'anyone' | 'person' | 'head' | Right;

/**
 * A route handler: checks host, origin and who asks, hands over the path's ids (each a UUID), and turns what goes wrong
 * into `{ message, ... }` with the fitting status. Where nobody signs in anyone may all, and nobody asks.
 * @param rule who may ask; the table of all routes is made of it
 */
export function route<P extends string = never>(
  rule: Rule,
  handler: (request: Request, params: Record<P, string>, who: Person | null) => Promise<Response | object | void>,
) {
  const answered = async (request: Request, context: Context<P>, hearWho: (who: Person) => void) => {
    try {
      if (!knownHost(request.headers.get('host')))
        throw new Problem(421, 'This server does not answer to that host name. Set ZIRCON_HOSTS to add one.');
      if (request.method !== 'GET' && !sameOrigin(request))
        throw new Problem(403, 'The request came from another site and was refused.');
      const params = ((await context.params) as Record<P, string> | undefined) ?? ({} as Record<P, string>);
      for (const value of Object.values(params))
        if (!v.is(uuid, value)) throw new Problem(404, 'The address holds something that is not an id.');
      const who = settings.signIn ? await expectAllowed(rule, request, params) : null;
      if (who !== null) hearWho(who);
      const answer = await handler(request, params, who);
      return answer instanceof Response ? answer : Response.json(answer ?? {}, { headers: plainHeaders });
    } catch (error) {
      const { status, message, details } = problemOf(error);
      return Response.json({ message, ...details }, { status, headers: plainHeaders });
    }
  };
  const answer = (request: Request, context: Context<P>): Promise<Response> =>
    withId(request, (hearWho) => answered(request, context, hearWho));
  return Object.assign(answer, { rule });
}

/** Answers a request under an id, which stands in the answer and in all that is told of it meanwhile. */
async function withId(request: Request, run: (hearWho: (who: Person) => void) => Promise<Response>): Promise<Response> {
  const id = requestId(request.headers);
  return forRequest(id, async () => {
    const begun = performance.now();
    let person: string | undefined;
    const response = await run((who) => (person = who.id));
    response.headers.set('x-request-id', id);
    log.request({
      method: request.method,
      path: new URL(request.url).pathname,
      status: response.status,
      ms: Math.round(performance.now() - begun),
      person,
    });
    return response;
  });
}

/** Who asks. @throws Problem 401, 403 or 404 where they may not */
async function expectAllowed(
  rule: Rule,
  { headers }: Request,
  params: Partial<Record<string, string>>,
): Promise<Person | null> {
  const who = await personOf(headers);
  if (rule === 'anyone') return who;
  if (who === null) throw new Problem(401, 'Sign in first.', { signIn: true });
  if (rule === 'person') return who;
  if (rule === 'head') {
    if (!who.head) throw new Problem(403, 'That is for who owns this installation.');
    return who;
  }
  if (params.project === undefined) throw new Error('A right is asked for where the address names no project.');
  await expectRight(who, params.project, rule);
  return who;
}

/** Names, recipes and role maps are far smaller than this, bytes. */
const largestBody = 2 * 1024 * 1024;

/**
 * The request's bytes, counted as they come: one without a length, sent in pieces, ends at the limit too.
 * @param most bytes
 */
export async function bytesOf(request: Request, most: number): Promise<Uint8Array<ArrayBuffer>> {
  const tooLarge = new Problem(
    413,
    `The request has more than ${Math.ceil(most / 1024)} kB, the most that is taken at once. Do it in smaller steps.`,
  );
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge;
  if (request.body === null) return new Uint8Array();
  const pieces: Uint8Array[] = [];
  let length = 0;
  for await (const piece of request.body as unknown as AsyncIterable<Uint8Array>) {
    length += piece.length;
    if (length > most) throw tooLarge;
    pieces.push(piece);
  }
  const bytes = new Uint8Array(length);
  let at = 0;
  for (const piece of pieces) {
    bytes.set(piece, at);
    at += piece.length;
  }
  return bytes;
}

/** The request's JSON in the shape expected, or a problem that says what is wrong with it. */
export async function bodyAs<S extends v.GenericSchema>(request: Request, schema: S): Promise<v.InferOutput<S>> {
  return jsonAs(schema, await bytesOf(request, largestBody));
}

const compress = promisify(gzip);
const expand = promisify(gunzip);

const gzipType = 'application/gzip';
/** Shorter answers gain nothing by being compressed, bytes. */
const worthPacking = 16 * 1024;

/**
 * JSON that was put together elsewhere. Who accepts `application/gzip` gets it packed, as a type of its own: the
 * framework takes the content-encoding of a handler off.
 */
export async function packedAnswer(request: Request, { bytes, gzipped }: Done): Promise<Response> {
  const takes = (request.headers.get('accept') ?? '').includes(gzipType);
  const packs = takes && (gzipped || bytes.length > worthPacking);
  let body: Uint8Array = bytes;
  if (packs && !gzipped) body = await compress(bytes, { level: 1 });
  if (!packs && gzipped) body = await expand(bytes);
  const headers = { ...plainHeaders, vary: 'accept', 'content-type': packs ? gzipType : 'application/json' };
  return new Response(new Uint8Array(body), { headers });
}
