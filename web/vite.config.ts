import vue from '@vitejs/plugin-vue';
import Components from 'unplugin-vue-components/vite';
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers';
import { defineConfig, type Plugin } from 'vite';
import { analyses } from './plugins/analyses.js';
import { methods } from './plugins/methods.js';

/** The fonts once each: every browser that runs this page reads woff2, and the older form would only weigh. */
const onlyWoff2 = (): Plugin => ({
  name: 'only-woff2',
  enforce: 'pre',
  transform: (code, id) =>
    /@fontsource.*\.css/.test(id) ? code.replace(/,\s*url\([^)]*\.woff\)\s*format\(['"]woff['"]\)/g, '') : null,
});

/**
 * What several pages need, in few files: a stage in a hundred small ones waits for a hundred answers. What the first page needs stands by itself.
 */
const CHUNKS = [
  { name: 'first', tags: ['$initial' as const], priority: 2 },
  { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 150_000, priority: 1 },
];

export default defineConfig({
  plugins: [
    onlyWoff2(),
    analyses(),
    methods(),
    vue(),
    // Only the parts of the component library that templates use, with their styles.
    Components({ dirs: [], resolvers: [ElementPlusResolver()], dts: 'src/generated/components.d.ts' }),
  ],
  resolve: { conditions: ['source', 'module', 'browser', 'import', 'default'] },
  worker: {
    format: 'es',
    plugins: () => [analyses()],
    // What nearly all statistics rest on in one file; the rest is fetched with the stage that uses it.
    rolldownOptions: {
      output: {
        codeSplitting: { groups: [{ name: 'basics', minShareCount: 12 }] },
        strictExecutionOrder: true,
        entryFileNames: 'assets/worker/[name]-[hash].js',
        chunkFileNames: 'assets/worker/[name]-[hash].js',
      },
    },
  },
  build: {
    ...{ target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 1500 },
    rolldownOptions: {
      output: {
        codeSplitting: { groups: CHUNKS },
        // Files that hold parts of many modules must still run them in the order of their imports.
        strictExecutionOrder: true,
        chunkFileNames: ({ name }) => `assets/${name.split('~')[0]}-[hash].js`,
      },
    },
  },
  server: { proxy: { '/api': { target: process.env.VERDICT_API ?? 'http://127.0.0.1:4780', changeOrigin: false } } },
});
