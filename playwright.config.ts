import { defineConfig } from '@playwright/test'

// The app, its database and its clock are started by npm test: each worker has a rig of its own, whose
// addresses stand in RIGS. A file runs in one worker, its tests in their order.
const rigs = JSON.parse(process.env.RIGS ?? '[{}]') as NodeJS.ProcessEnv[]
Object.assign(process.env, rigs[Number(process.env.TEST_PARALLEL_INDEX ?? 0)])

export default defineConfig({
  testDir: 'tests/e2e',
  // A firm begins once in an empty database; everything else goes on in the demo's.
  testIgnore: process.env.BEGIN_CODE ? [] : ['first-day/**'],
  // Bounds for a slow machine; nothing waits for them when all is well.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  workers: rigs.length,
  fullyParallel: false,
  forbidOnly: true,
  // A second try keeps one stalled machine from hiding what the other tests say; npm test names those that needed it.
  retries: 1,
  outputDir: process.env.RESULTS ?? 'test-results',
  use: {
    baseURL: process.env.TEST_URL,
    viewport: { width: 1280, height: 800 },
    locale: 'en-US',
    timezoneId: 'America/New_York',
    // Nothing waits for a dialog to have faded in.
    contextOptions: { reducedMotion: 'reduce' },
    // Recording costs half as much again; what fails is tried once more, and recorded then.
    trace: 'on-first-retry',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-dev-shm-usage',
        '--disable-gpu',
        '--font-render-hinting=none',
        // Pages live for seconds here: what is optimised meanwhile is never run.
        '--js-flags=--no-maglev --no-opt',
      ],
    },
  },
})
