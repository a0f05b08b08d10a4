/**
 * What every request for a page goes through first: only hosts that are allowed are answered, addresses can be read, and
 * each page gets a policy of its own under which no script runs that the server did not write. Routes of the API ask the
 * same questions themselves (`server/routes/request.ts`), since passing through here costs a third of a small request; only
 * addresses with a percent sign come here, before Next.js stumbles over those that encode nothing.
 */
import { NextResponse, type NextRequest } from 'next/server';
import { apiError, pageError } from '@/server/routes/guard';
import { isWorkspaceName, splitAddress, WORKSPACE_HEADER } from '@/server/workspaces/address';

const HEADER = 'content-security-policy';

/** For pages under an address that names no workspace: a name that none can have, in letters that a header takes. */
const NO_WORKSPACE = '-';

export function proxy(request: NextRequest): NextResponse {
  const { workspace, path } = splitAddress(request.nextUrl.pathname);
  const api = path.startsWith('/api/');
  const fault = api ? apiError(request) : pageError(request);
  if (fault !== null)
    return NextResponse.json(
      { says: fault.says },
      { status: fault.status, headers: { [HEADER]: "default-src 'none'; frame-ancestors 'none'" } },
    );
  if (api) return NextResponse.next();
  const nonce = Buffer.from(crypto.getRandomValues(new Uint8Array(16))).toString('base64');
  const headers = new Headers(request.headers);
  const own = policy(nonce);
  // Next.js reads the nonce for its own scripts out of the policy.
  headers.set(HEADER, own);
  headers.set('x-nonce', nonce);
  // Nobody but the address says which workspace a page is about.
  headers.delete(WORKSPACE_HEADER);
  if (workspace !== null)
    headers.set(WORKSPACE_HEADER, isWorkspaceName(workspace) ? workspace : NO_WORKSPACE);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set(HEADER, own);
  return response;
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

export const config = {
  matcher: ['/((?!api/|w/[^/]+/api/|_next/static|_next/image).*)', '/((?:w/[^/]+/)?api/.*%.*)'],
};
