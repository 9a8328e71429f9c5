import { defineConfig } from '@playwright/test'

// The app, its database and its clock are started by npm test and shared: one worker, files in order of their names.
export default defineConfig({
  testDir: 'tests/e2e',
  // Bounds for a slow machine; nothing waits for them when all is well.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  workers: 1,
  fullyParallel: false,
  forbidOnly: true,
  // A second try keeps one stalled machine from hiding what the other tests say; npm test names those that needed it.
  retries: 1,
  outputDir: 'test-results',
  use: {
    baseURL: process.env.TEST_URL,
    viewport: { width: 1280, height: 800 },
    locale: 'en-US',
    timezoneId: 'America/New_York',
    trace: 'retain-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-dev-shm-usage',
        '--disable-gpu',
        '--font-render-hinting=none',
      ],
    },
  },
})
