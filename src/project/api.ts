import { loadAnew } from './loadAnew';

/** An answer of the server that is no success: its sentence, and what came with it. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly details: Record<string, unknown>,
  ) {
    super(message);
  }
}

/** The server could not be reached at all. */
export class Unreachable extends Error {}

const gzipType = 'application/gzip';

/** Large answers come packed. */
function unpacked(response: Response): Response {
  if (response.body === null || response.headers.get('content-type') !== gzipType) return response;
  return new Response(response.body.pipeThrough(new DecompressionStream('gzip')));
}

/** Asks the server. @throws ApiError with the server's sentence, Unreachable where no answer came */
export async function api<T>(path: string, init: { method?: string; json?: unknown; body?: Blob } = {}): Promise<T> {
  const body = init.body ?? (init.json === undefined ? undefined : JSON.stringify(init.json));
  let response: Response;
  try {
    response = await fetch(path, {
      method: init.method ?? (body === undefined ? 'GET' : 'POST'),
      headers: {
        accept: `application/json, ${gzipType}`,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body }),
    });
  } catch {
    throw new Unreachable('The server does not answer.');
  }
  if (response.ok) return (await unpacked(response).json()) as T;
  const { message, ...details } = (await response.json().catch(() => ({}))) as {
    message?: string;
    signIn?: boolean;
  };
  if ((response.status === 502 || response.status === 503) && message === undefined)
    throw new Unreachable('The server does not answer.');
  // The session has ended: whoever is here signs in again, and is shown what they may see.
  if (response.status === 401 && details.signIn === true) loadAnew('/sign-in');
  throw new ApiError(response.status, message ?? `The server answered with status ${response.status}.`, details);
}
