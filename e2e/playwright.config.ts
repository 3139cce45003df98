import { defineConfig } from '@playwright/test'
import { browserPath, launchOf } from './support/browsers.ts'
import { freshFolder } from './support/cli.ts'

// Pages built once per run, shared by its workers.
process.env.WAYBELL_BUILT ??= freshFolder()

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  // These only end hanging tests, also on a busy machine; no test is decided by time.
  timeout: 300_000,
  expect: { timeout: process.env.CI ? 120_000 : 45_000 },
  // Two cores: tests mostly wait.
  workers: 4,
  fullyParallel: true,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: 'test-results/report.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: launchOf(browserPath),
  },
})
