import { defineConfig } from '@playwright/test'
import { browserPath, launchOf } from './support/browsers.ts'
import { freshFolder } from './support/cli.ts'

// Pages that are built once for all tests of a run; its workers have the same.
process.env.WAYBELL_BUILT ??= freshFolder()

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  // No test is decided by time: these only end what hangs, also where the machine is busy with other things.
  timeout: 300_000,
  expect: { timeout: process.env.CI ? 120_000 : 45_000 },
  // Two cores: tests wait for frames and for what rests as much as they compute.
  workers: 4,
  fullyParallel: true,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: 'test-results/report.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: launchOf(browserPath),
  },
})
