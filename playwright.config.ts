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
  // A guard against a journey that hangs, no bar: the unit tests run beside.
  timeout: 300_000,
  expect: { timeout: 20_000 },
  outputDir: 'test-results',
  reporter: [['list'], ['json', { outputFile: 'reports/browser.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: '/usr/bin/chromium', args: CHROMIUM_FLAGS },
    trace: 'off',
  },
});
