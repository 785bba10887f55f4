import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';

const packages = ['core', 'contract', 'cli', 'web'] as const;
// Tests run from the source: no build stands between a change and its test.
const resolve = { conditions: ['source'] };
const MOCKED = 'web/test/**/*.mocked.test.ts';
const ssr = { resolve: { conditions: ['source'], externalConditions: ['source'] } };

export default defineConfig({
  test: {
    projects: [
      ...packages.map((name) => ({
        plugins: name === 'web' ? [vue()] : [],
        resolve,
        ssr,
        test: {
          name,
          include: [`${name}/test/**/*.test.ts`],
          exclude: [MOCKED],
          testTimeout: 30_000,
          // One reading of the modules for all files.
          isolate: false,
        },
      })),
      // Those that put others in the place of some read them anew.
      { plugins: [vue()], resolve, ssr, test: { name: 'mocked', include: [MOCKED], testTimeout: 30_000 } },
      { test: { name: 'scripts', include: ['scripts/test/**/*.test.ts'], testTimeout: 120_000, hookTimeout: 30_000 } },
      {
        resolve,
        ssr,
        test: {
          name: 'server',
          include: ['server/test/**/*.test.ts'],
          globalSetup: ['server/test/database.setup.ts'],
          testTimeout: 60_000,
          hookTimeout: 60_000,
          // One after the other on one database, and one reading of the modules for all of them.
          fileParallelism: false,
          isolate: false,
        },
      },
    ],
  },
});
