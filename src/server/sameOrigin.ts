import { settings } from './settings';

const nameOf = (host: string) => host.replace(/:\d+$/, '').toLowerCase();

/** Whether a Host header names this server. */
export const knownHost = (host: string | null): boolean => host !== null && settings.hosts.includes(nameOf(host));

/** Whether a request that changes something comes from a page of this very server, or from no page at all. */
export function sameOrigin(request: Request): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin' && site !== 'none') return false;
  const origin = request.headers.get('origin');
  if (origin === null) return true;
  try {
    return new URL(origin).host === request.headers.get('host');
  } catch {
    return false;
  }
}
