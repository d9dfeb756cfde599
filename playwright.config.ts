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
  // The journeys share one demo laboratory and follow one another.
  workers: 1,
  timeout: 60_000,
  reporter: [['line'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    // Set by the global setup, before the workers that run the journeys read this file.
    ...(process.env.DEMO_URL ? { baseURL: process.env.DEMO_URL } : {}),
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Vienna',
    launchOptions: { executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS },
  },
});
