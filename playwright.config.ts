import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'e2e',
  // Journeys run on the pages that makers get, whoever starts them.
  globalSetup: './e2e/pages.ts',
  workers: 2,
  timeout: 120_000,
  // A journey that fails once on a busy machine is tried again there, and shows as flaky in the report.
  retries: process.env.CI ? 1 : 0,
  expect: { timeout: 10_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 15_000,
    // Requests that a worker of the page answers cannot be held up or lost by a journey; one journey lets it in.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-background-networking',
        '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE localhost, EXCLUDE 127.0.0.1',
      ],
    },
  },
});
