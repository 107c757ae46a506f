import { defineConfig } from '@playwright/test';

/** Chromium as it runs without a desktop, a sandbox or a network. */
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
  testDir: '.',
  testMatch: process.env['ONLY'] ?? '*.spec.ts',
  // One server and one database for all: journeys run one after another and each makes what it needs.
  workers: 1,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  outputDir: '../.cache/playwright',
  reporter: [['line'], ['json', { outputFile: '../.cache/e2e.json' }]],
  use: {
    baseURL: process.env['BASE_URL'] ?? 'http://127.0.0.1:4180',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    colorScheme: 'light',
    launchOptions: { executablePath: '/usr/bin/chromium', args: CHROMIUM_FLAGS },
  },
});
