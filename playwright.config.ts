import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './tests/chromium.ts';

export default defineConfig({
  testDir: 'tests',
  testMatch: '*.spec.ts',
  outputDir: 'test-results',
  // The machines tests run on are shared, and stand still now and then.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  workers: process.env.PANDECTA_URL ? 1 : 2,
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: 'test-results/end-to-end.json' }]],
  use: {
    baseURL: process.env.PANDECTA_URL,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 60_000,
    permissions: ['clipboard-read', 'clipboard-write'],
    screenshot: 'only-on-failure',
    launchOptions: CHROMIUM,
  },
});
