import type { NextConfig } from 'next';

const config: NextConfig = {
  allowedDevOrigins: ['127.0.0.1'],
  serverExternalPackages: ['better-sqlite3', 'knex', 'sharp', 'pdfkit', 'svg-to-pdfkit', '@resvg/resvg-js'],
  poweredByHeader: false,
  // A little above the largest job file: what is larger is then seen to be larger, not cut off unseen.
  experimental: { proxyClientMaxBodySize: '110mb' },
  devIndicators: false,
  // Types are checked once, by `npm run types`.
  typescript: { ignoreBuildErrors: true },
};

export default config;
