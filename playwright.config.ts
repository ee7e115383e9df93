import { defineConfig, devices } from '@playwright/test'
import { CHROMIUM_OPTIONS } from './e2e/chromium'

const port = process.env.TEST_PORT ?? '3601'

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/globalSetup.ts',
  globalTeardown: './e2e/globalTeardown.ts',
  // One server and one database: tests follow each other.
  workers: 1,
  // Everything is drawn in software, and the machine may be busy.
  timeout: 400_000,
  expect: { timeout: 60_000 },
  // A machine that many share can stand still for minutes: what fails is tried once more, and listed as flaky.
  retries: 1,
  reporter: [['list']],
  use: {
    ...devices['Desktop Chrome'],
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: CHROMIUM_OPTIONS,
  },
})
