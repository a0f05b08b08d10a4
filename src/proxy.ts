/**
 * What every request goes through before any page or route: only hosts that are allowed are answered, requests that
 * change something or read from the API come from this app's own pages, addresses can be read, and each page gets a
 * policy of its own under which no script runs that the server did not write.
 */
import { NextResponse, type NextRequest } from 'next/server';
import { addressFault, originFault } from '@/server/http/guard';

export function proxy(request: NextRequest): NextResponse {
  const fault = addressFault(request.url) ?? originFault(request.method, request.nextUrl.pathname, request.headers);
  if (fault !== null) return withHeaders(NextResponse.json({ says: fault.says }, { status: fault.status }), null);
  const nonce = Buffer.from(crypto.getRandomValues(new Uint8Array(16))).toString('base64');
  const headers = new Headers(request.headers);
  // Next.js reads the nonce for its own scripts out of the policy.
  headers.set('content-security-policy', policy(nonce));
  headers.set('x-nonce', nonce);
  return withHeaders(NextResponse.next({ request: { headers } }), nonce);
}

function policy(nonce: string): string {
  // Development builds evaluate their modules.
  const evaluates = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';
  return [
    "default-src 'self'",
    // Scripts of behaviours run in WebAssembly, so the page itself needs no eval.
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${evaluates}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "frame-ancestors 'none'",
    "base-uri 'none'",
    "form-action 'self'",
  ].join('; ');
}

function withHeaders(response: NextResponse, nonce: string | null): NextResponse {
  const { headers } = response;
  headers.set('content-security-policy', nonce === null ? "default-src 'none'; frame-ancestors 'none'" : policy(nonce));
  headers.set('x-content-type-options', 'nosniff');
  headers.set('referrer-policy', 'same-origin');
  headers.set('cross-origin-opener-policy', 'same-origin');
  headers.set('cross-origin-resource-policy', 'same-origin');
  headers.set('x-frame-options', 'DENY');
  return response;
}

export const config = { matcher: ['/((?!_next/static|_next/image).*)'] };
