import * as v from 'valibot';
import { Problem, problemOf } from './problem';
import { knownHost, sameOrigin } from './sameOrigin';

const uuid = v.pipe(v.string(), v.uuid());

type Context<P extends string> = { params: Promise<Record<P, string>> };

/**
 * A route handler: checks host and origin, hands over the path's ids (each a UUID), and turns what goes wrong into
 * `{ message, ... }` with the fitting status.
 */
export function route<P extends string = never>(
  handler: (request: Request, params: Record<P, string>) => Promise<Response | object | void>,
) {
  return async (request: Request, context: Context<P>): Promise<Response> => {
    try {
      if (!knownHost(request.headers.get('host')))
        throw new Problem(421, 'This server does not answer to that host name. Set ZIRCON_HOSTS to add one.');
      if (request.method !== 'GET' && !sameOrigin(request))
        throw new Problem(403, 'The request came from another site and was refused.');
      const params = ((await context.params) as Record<P, string> | undefined) ?? ({} as Record<P, string>);
      for (const value of Object.values(params))
        if (!v.is(uuid, value)) throw new Problem(404, 'The address holds something that is not an id.');
      const answer = await handler(request, params);
      return answer instanceof Response
        ? answer
        : Response.json(answer ?? {}, {
            headers: { 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' },
          });
    } catch (error) {
      const { status, message, details } = problemOf(error);
      return Response.json({ message, ...details }, { status, headers: { 'cache-control': 'no-store' } });
    }
  };
}

const largestBody = 64 * 1024 * 1024;

/** The request's text, counted as it comes: one without a length, sent in pieces, ends at the limit too. */
async function textOf(request: Request): Promise<string> {
  if (request.body === null) return '';
  const pieces: Uint8Array[] = [];
  let length = 0;
  for await (const piece of request.body as unknown as AsyncIterable<Uint8Array>) {
    length += piece.length;
    if (length > largestBody) throw new Problem(413, 'The request is too large.');
    pieces.push(piece);
  }
  return Buffer.concat(pieces).toString('utf8');
}

/** The request's JSON in the shape expected, or a problem that says what is wrong with it. */
export async function bodyAs<S extends v.GenericSchema>(request: Request, schema: S): Promise<v.InferOutput<S>> {
  const length = Number(request.headers.get('content-length') ?? 0);
  if (length > largestBody) throw new Problem(413, 'The request is too large.');
  let json: unknown;
  try {
    json = JSON.parse(await textOf(request));
  } catch (error) {
    throw error instanceof Problem ? error : new Problem(400, 'The request is not JSON.');
  }
  const result = v.safeParse(schema, json);
  if (result.success) return result.output;
  const issue = result.issues[0];
  throw new Problem(400, `${issue.message} (${v.getDotPath(issue) ?? 'request'})`);
}
