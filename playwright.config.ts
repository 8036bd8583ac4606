import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './tests/chromium.ts';

export default defineConfig({
  testDir: 'tests',
  testMatch: '*.spec.ts',
  outputDir: 'test-results',
  timeout: 120_000,
  expect: { timeout: 30_000 },
  workers: process.env.PANDECTA_URL ? 1 : 2,
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: 'test-results/end-to-end.json' }]],
  use: {
    baseURL: process.env.PANDECTA_URL,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 30_000,
    permissions: ['clipboard-read', 'clipboard-write'],
    screenshot: 'only-on-failure',
    launchOptions: CHROMIUM,
  },
});
