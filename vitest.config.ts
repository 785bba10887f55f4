import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';
import { analyses } from './web/plugins/analyses.js';

const packages = ['core', 'contract', 'cli', 'web'] as const;
// Tests run from the source: no build stands between a change and its test.
const resolve = { conditions: ['source'] };
const MOCKED = 'web/test/**/*.mocked.test.ts';
/** Ends what hangs, in milliseconds; it measures nothing: a machine with eight times its load needs eight times as long. */
const HANG = 600_000;
const ssr = { resolve: { conditions: ['source'], externalConditions: ['source'] } };

// A sentence that differs is shown whole.
const expectations = { expect: { poll: { timeout: HANG / 5 } }, chaiConfig: { truncateThreshold: 0 } };

export default defineConfig({
  test: {
    projects: [
      ...packages.map((name) => ({
        plugins: name === 'web' ? [vue(), analyses()] : [],
        resolve,
        ssr,
        test: {
          name,
          include: [`${name}/test/**/*.test.ts`],
          exclude: [MOCKED],
          testTimeout: HANG,
          hookTimeout: HANG,
          ...expectations,
          // One reading of the modules for all files.
          isolate: false,
        },
      })),
      // Those that put others in the place of some read them anew.
      {
        plugins: [vue(), analyses()],
        resolve,
        ssr,
        test: { name: 'mocked', include: [MOCKED], testTimeout: HANG, ...expectations },
      },
      {
        resolve,
        ssr,
        test: { name: 'words', include: ['words/**/*.test.ts'], testTimeout: HANG, ...expectations },
      },
      {
        test: {
          name: 'scripts',
          include: ['scripts/test/**/*.test.ts'],
          testTimeout: HANG,
          hookTimeout: HANG,
          ...expectations,
        },
      },
      {
        resolve,
        ssr,
        test: {
          name: 'server',
          include: ['server/test/**/*.test.ts'],
          globalSetup: ['server/test/database.setup.ts'],
          testTimeout: HANG,
          hookTimeout: HANG,
          ...expectations,
          // One after the other on one database, and one reading of the modules for all of them.
          fileParallelism: false,
          isolate: false,
        },
      },
    ],
  },
});
