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
  // A server and a database for each worker: the journeys of a file run one after another and each makes what it needs.
  workers: Number(process.env['WORKERS'] ?? 1),
  projects: process.env['ONLY']
    ? [{ name: 'production', testMatch: process.env['ONLY'] }]
    : [
        { name: 'development', testMatch: '*.spec.ts' },
        // Those marked `BUILT` once more on the build that people get.
        { name: 'production', testMatch: '*.spec.ts', grep: /@built/ },
      ],
  // A journey of many steps may take several times as long beside others on a busy machine; what is waited for has its own, short time.
  timeout: 300_000,
  // A machine that others use too may take its time: what passes waits for nothing.
  expect: { timeout: 20_000 },
  outputDir: '../.cache/playwright',
  reporter: [['line'], ['json', { outputFile: '../.cache/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // What is read is what the server has just said; the journey without a net has it on.
    serviceWorkers: 'block',
    colorScheme: 'light',
    launchOptions: { executablePath: '/usr/bin/chromium-headless-shell', args: CHROMIUM_FLAGS },
  },
});
