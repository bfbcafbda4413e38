import { defineConfig } from '@playwright/test';
import { launchOptions } from './scripts/lib/chromium.mjs';

const port = 4790;

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  timeout: 90_000,
  expect: { timeout: 10_000 },
  workers: 2,
  // A test that passes on its second try is reported as flaky, and fails the run (scripts/test.mjs).
  retries: 1,
  fullyParallel: true,
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: 'test-results/report.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    // But for the test of it, the application comes from the server.
    serviceWorkers: 'block',
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions,
    // What cannot be clicked is said while it is known why, and not at the end of a long walk.
    actionTimeout: 30_000,
  },
  webServer: {
    command: `node bin/astrolabe.js serve --port ${port}`,
    url: `http://127.0.0.1:${port}/`,
    reuseExistingServer: false,
  },
});
