import { subscribe } from 'node:diagnostics_channel';
import type { IncomingMessage } from 'node:http';

/** Methods that the web's own Request refuses to have, so that the framework would fail at them. */
const odd = new Set(['TRACE', 'TRACK', 'CONNECT']);
/** One that it can have, and that nothing here answers. */
const unanswered = 'PATCH';

/** Has odd methods answered as what they are: not allowed. */
export function refuseOddMethods(): void {
  subscribe('http.server.request.start', (message) => {
    const { request } = message as { request: IncomingMessage };
    if (odd.has(request.method ?? '')) request.method = unanswered;
  });
}
