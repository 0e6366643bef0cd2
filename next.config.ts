import type { NextConfig } from 'next';

const config: NextConfig = {
  allowedDevOrigins: ['127.0.0.1'],
  serverExternalPackages: ['better-sqlite3', 'knex', 'sharp', 'pdfkit', 'svg-to-pdfkit', '@resvg/resvg-js'],
  poweredByHeader: false,
  devIndicators: false,
};

export default config;
