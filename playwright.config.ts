import { defineConfig } from '@playwright/test';

const port = Number(process.env['BROWSER_PORT'] ?? 4187);

/** Browser tests run on Debian's Chromium against the built application; `npm test` builds it first. */
export default defineConfig({
  testDir: 'tests/browser',
  fullyParallel: true,
  workers: 2,
  timeout: 600_000,
  // Waiting ends when what is waited for is there; the limit is for a machine that does other things as well.
  expect: { timeout: 180_000 },
  reporter: [
    ['line'],
    ['json', { outputFile: process.env['BROWSER_RESULTS'] ?? 'test-results/browser.json' }]
  ],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'UTC',
    locale: 'en-GB',
    // Kept files would be fetched once a test; `offline.spec.ts` has a browser of its own.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking']
    }
  },
  webServer: {
    command: 'node scripts/serve.mjs',
    url: `http://127.0.0.1:${port}/estate`,
    env: { HOST: '127.0.0.1', PORT: String(port) },
    reuseExistingServer: false
  }
});
