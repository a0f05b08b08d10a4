import type { NextConfig } from 'next';

const EVERYWHERE = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'x-frame-options': 'DENY',
};

const asList = (headers: Record<string, string>) =>
  Object.entries(headers).map(([key, value]) => ({ key, value }));

const config: NextConfig = {
  // The policy of each page has a nonce of its own, so it is set in src/proxy.ts.
  headers: () =>
    Promise.resolve([
      { source: '/:path*', headers: asList(EVERYWHERE) },
      {
        source: '/:workspace(w/[^/]+)?/api/:path*',
        headers: asList({
          'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
        }),
      },
    ]),
  // The workspace that such an address names is found by src/proxy.ts for pages and by `answer` for routes.
  rewrites: () =>
    Promise.resolve({
      beforeFiles: [{ source: '/w/:workspace/:path*', destination: '/:path*' }],
      afterFiles: [],
      fallback: [],
    }),
  poweredByHeader: false,
  serverExternalPackages: ['pg', 'typescript-classic', 'piscina', 'chokidar'],
  // Types and lint are checked by `npm run check`.
  typescript: { ignoreBuildErrors: true },
};

export default config;
