import { defineConfig, devices } from '@playwright/test'
import { CHROMIUM_OPTIONS } from './e2e/chromium'

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/globalSetup.ts',
  // Every test has a solver of its own, and every worker a server: two at a time.
  fullyParallel: true,
  workers: 2,
  // Everything is drawn in software, and the machine may be busy.
  timeout: 400_000,
  expect: { timeout: 60_000 },
  // A machine that many share can stand still for minutes: what fails is tried once more, and listed as flaky.
  retries: 1,
  reporter: [['list']],
  use: {
    ...devices['Desktop Chrome'],
    viewport: { width: 1280, height: 800 },
    // What is drawn in software costs by the pixel; nothing that is tested is one.
    deviceScaleFactor: 0.25,
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: CHROMIUM_OPTIONS,
  },
})
