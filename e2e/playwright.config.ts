import { defineConfig } from '@playwright/test';
import { chromiumPath } from '../scripts/chromium.mjs';

export default defineConfig({
  testDir: '.',
  // Built already: to go through all of it once more takes every worker five seconds.
  build: { external: ['**/dist/**'] },
  workers: 3,
  fullyParallel: true,
  timeout: 180_000,
  // Simulations share two cores with two other tests: what is waited for may take its time.
  expect: { timeout: 45_000 },
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
