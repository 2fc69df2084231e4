import { defineConfig } from '@playwright/test'
import { launchOptions } from './scripts/lib/install.mjs'

/** The journeys run in Debian's Chromium against the real application, which the set-up starts with its own start command. */
export default defineConfig({
  testDir: 'e2e',
  outputDir: '.test/playwright',
  globalSetup: './e2e/support/application.ts',
  timeout: 90_000,
  expect: { timeout: 10_000 },
  // One more than the cores: a journey waits for its page as often as it works.
  workers: 2,
  fullyParallel: true,
  forbidOnly: true,
  use: {
    actionTimeout: 10_000,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'UTC',
    launchOptions: launchOptions(),
  },
})
