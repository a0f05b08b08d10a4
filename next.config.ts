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
        source: '/api/:path*',
        headers: asList({
          'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
        }),
      },
    ]),
  poweredByHeader: false,
  serverExternalPackages: ['pg', 'typescript-classic', 'piscina'],
  // Types and lint are checked by `npm run check`.
  typescript: { ignoreBuildErrors: true },
};

export default config;
