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
export async function api<T>(path: string, init: { method?: string; json?: unknown } = {}): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method: init.method ?? (init.json === undefined ? 'GET' : 'POST'),
      headers: {
        accept: `application/json, ${gzipType}`,
        ...(init.json === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(init.json === undefined ? {} : { body: JSON.stringify(init.json) }),
    });
  } catch {
    throw new Unreachable('The server does not answer.');
  }
  if (response.ok) return (await unpacked(response).json()) as T;
  const body = (await response.json().catch(() => ({}))) as { message?: string };
  const { message, ...details } = body;
  if ((response.status === 502 || response.status === 503) && message === undefined)
    throw new Unreachable('The server does not answer.');
  throw new ApiError(response.status, message ?? `The server answered with status ${response.status}.`, details);
}
