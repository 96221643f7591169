import { NextResponse, type NextRequest } from 'next/server';
import { knownHost } from '@/server/sameOrigin';

/** Pages get a content security policy with a nonce of their own. API routes check origin and host themselves. */
export function proxy(request: NextRequest): NextResponse {
  if (!knownHost(request.headers.get('host')))
    return new NextResponse('This server does not answer to that host name. Set ZIRCON_HOSTS to add one.', {
      status: 421,
    });
  if (request.method !== 'GET' && request.method !== 'HEAD')
    return new NextResponse('A page is only looked at.', { status: 405, headers: { allow: 'GET, HEAD' } });
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const development = process.env.NODE_ENV === 'development';
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${development ? " 'unsafe-eval'" : ''}`,
    `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'no-referrer');
  return response;
}

export const config = { matcher: ['/((?!api/|_next/static|_next/image|icon.svg).*)'] };
