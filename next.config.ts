import type { NextConfig } from 'next';

/** Nothing here is shown within another site, told to one, or taken for what it is not. What a page may run, `proxy.ts` says. */
const HEADERS = {
  'X-Frame-Options': 'DENY',
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Cross-Origin-Opener-Policy': 'same-origin',
};

const config: NextConfig = {
  allowedDevOrigins: ['127.0.0.1'],
  serverExternalPackages: ['better-sqlite3', 'knex', 'sharp', 'pdfkit', 'svg-to-pdfkit', '@resvg/resvg-js'],
  poweredByHeader: false,
  headers: () =>
    Promise.resolve([
      { source: '/:path*', headers: Object.entries(HEADERS).map(([key, value]) => ({ key, value })) },
    ]),
  // The proxy holds a body whole before anything looks at it. A little above the largest of JSON: what is larger is then seen to be larger,
  // not cut off unseen. Files do not come that way.
  experimental: { proxyClientMaxBodySize: '2mb' },
  devIndicators: false,
  // Types are checked once, by `npm run types`.
  typescript: { ignoreBuildErrors: true },
};

export default config;
