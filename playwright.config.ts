import { defineConfig } from '@playwright/test';

/** Debian's Chromium, as it runs without a monitor. */
const CHROMIUM_ARGS = [
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
  globalSetup: './e2e/servers.ts',
  outputDir: 'test-results/browser',
  workers: 2,
  timeout: 120_000,
  // Two browsers on two cores: what is quick at rest may take a while.
  expect: { timeout: 30_000 },
  reporter: [['line'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Vienna',
    launchOptions: { executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS },
  },
});
