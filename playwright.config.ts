import { defineConfig } from '@playwright/test';

/** Debian's Chromium, as root and without any network of its own. */
const CHROMIUM_FLAGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/shared-server.ts',
  workers: 2,
  retries: 0,
  // Guards against a journey that hangs, no bars: the unit tests run beside. No journey sets a narrower one of its own.
  timeout: 900_000,
  expect: { timeout: 120_000 },
  outputDir: 'test-results',
  reporter: [['list'], ['json', { outputFile: 'reports/browser.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: '/usr/bin/chromium', args: CHROMIUM_FLAGS },
    trace: 'off',
  },
});
