import { defineConfig } from '@playwright/test';
import { chromiumPath } from '../scripts/chromium.mjs';

export default defineConfig({
  testDir: '.',
  // Built already: to go through all of it once more takes every worker five seconds.
  build: { external: ['**/dist/**'] },
  workers: 3,
  fullyParallel: true,
  // Both end what hangs and measure nothing: a machine with eight times its load needs eight times as long.
  timeout: 600_000,
  expect: { timeout: 120_000 },
  reporter: [['list'], ['json']],
  outputDir: '../test-results',
  use: {
    browserName: 'chromium',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // Nothing to wait for while a list or a dialog glides into place.
    contextOptions: { reducedMotion: 'reduce' },
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: { executablePath: chromiumPath() },
  },
});
