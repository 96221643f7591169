import { AsyncLocalStorage } from 'node:async_hooks';
import { pino, type Logger } from 'pino';
import { settings } from './settings';

/** What is known beside the sentence: ids, counts, an error. Never what somebody sent, and no address's query. */
type More = Record<string, unknown> & { error?: unknown };

/** The id of the request that is being answered. */
const requests = new AsyncLocalStorage<string>();

/** Of an error its kind, sentence, code and place: what else a database tells may hold what rows hold. */
const errorOf = (error: unknown): object => {
  if (!(error instanceof Error)) return { message: String(error) };
  const { name, message, stack } = error;
  return { name, message, stack, ...('code' in error ? { code: error.code } : {}) };
};

let made: Logger | null = null;
/** Lines go out as they come: what is told just before a process ends is not lost. */
const lines = (): Logger =>
  (made ??= pino(
    {
      base: { process: process.pid },
      timestamp: pino.stdTimeFunctions.isoTime,
      formatters: { level: (level) => ({ level }) },
      messageKey: 'message',
      mixin: () => {
        const request = requests.getStore();
        return request === undefined ? {} : { request };
      },
      serializers: { error: errorOf },
    },
    pino.destination({ fd: process.stderr.fd, sync: true }),
  ));

function write(level: 'info' | 'error', words: string, more: More): void {
  if (settings.log === 'json') lines()[level](more, words);
  else console.error(...[words, more.error].filter((part) => part !== undefined));
}

/** Tells what happens: as lines of JSON with the request they belong to, or as sentences. */
export const log = {
  told: (words: string, more: More = {}): void => write('info', words, more),
  problem: (words: string, more: More = {}): void => write('error', words, more),
  /** A request that was answered; told in lines of JSON alone. */
  request(more: { method: string; path: string; status: number; ms: number; person?: string }): void {
    if (settings.log === 'json') lines().info(more, 'request');
  },
};

/** An id that a proxy gave a request: nothing that could be taken for another line, or for another field. */
const givenId = /^[\w.-]{8,64}$/;

/** The id of a request: that which the proxy before it gave, or a new one. */
export function requestId(headers: Headers): string {
  const given = headers.get('x-request-id');
  return given !== null && givenId.test(given) ? given : crypto.randomUUID();
}

/** Does something for a request: what is told meanwhile is told with its id. */
export const forRequest = <T>(id: string, run: () => T): T => requests.run(id, run);

/**
 * Goes on where whoever read this process's output has gone: a write that finds nobody would be told on the same
 * output, again and again, and the process would do nothing else.
 */
export function outliveReaders(): void {
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);
}
