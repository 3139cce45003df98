import { defineConfig } from '@playwright/test'

const browser = process.env.WAYBELL_BROWSER ?? '/usr/bin/chromium'

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  // No test is decided by time: these only end what hangs, also where the machine is busy with other things.
  timeout: process.env.CI ? 900_000 : 480_000,
  expect: { timeout: process.env.CI ? 120_000 : 45_000 },
  workers: 2,
  fullyParallel: true,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: 'test-results/report.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: browser,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
