import type { NextConfig } from 'next';

// Headers are set in src/proxy.ts, since the policy of each page has a nonce of its own.
const config: NextConfig = {
  poweredByHeader: false,
  serverExternalPackages: ['pg', 'typescript-classic', 'piscina'],
  // Types and lint are checked by `npm run check`.
  typescript: { ignoreBuildErrors: true },
};

export default config;
