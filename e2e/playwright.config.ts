import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: './stories',
  globalSetup: './driver/template.ts',
  outputDir: '../test-results',
  timeout: 300_000,
  // generous, as in the unit tests: what never comes is still caught
  expect: { timeout: 45_000 },
  workers: 2,
  // in CI a story that fails is played once more on a fresh bench, and named as flaky when that passes: it is then to be mended
  retries: process.env['CI'] ? 1 : 0,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 60_000,
    // only the stories of the Lay stage ask for it
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
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
    trace: 'retain-on-failure',
  },
});
