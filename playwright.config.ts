import { defineConfig } from '@playwright/test'
import { CHROMIUM_ARGS, chromium } from './scripts/lib/system.mjs'

export default defineConfig({
  testDir: 'tests',
  testMatch: '**/*.e2e.ts',
  globalSetup: './tests/support/global-setup.ts',
  // Many a test waits for a network, a clock or a modem: three keep two cores at work.
  workers: 3,
  // Once more, on a database of its own: what passes only then is named at the end of the run.
  retries: 1,
  fullyParallel: false,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  outputDir: 'test-results/e2e',
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 20_000,
    launchOptions: {
      executablePath: process.env.MULTIVOX_CHROMIUM || (chromium() ?? '/usr/bin/chromium'),
      args: CHROMIUM_ARGS,
    },
  },
})
