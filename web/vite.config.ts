import vue from '@vitejs/plugin-vue';
import Components from 'unplugin-vue-components/vite';
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers';
import { defineConfig, type Plugin } from 'vite';

/** The fonts once each: every browser that runs this page reads woff2, and the older form would only weigh. */
const onlyWoff2 = (): Plugin => ({
  name: 'only-woff2',
  enforce: 'pre',
  transform: (code, id) =>
    /@fontsource.*\.css/.test(id) ? code.replace(/,\s*url\([^)]*\.woff\)\s*format\(['"]woff['"]\)/g, '') : null,
});

const GROUPS = [
  { name: 'vue', test: /node_modules\/(@vue|vue|vue-router|pinia|@vueuse)\// },
  { name: 'components', test: /node_modules\/(element-plus|@element-plus|@popperjs|@floating-ui|dayjs|lodash[^/]*)\// },
  { name: 'charts', test: /node_modules\/(chart\.js|chartjs[^/]*|@kurkle|@sgratzl)\// },
  { name: 'core', test: /\/(core|contract)\/src\// },
  { name: 'workbench', test: /\/web\/src\/(workbench|components|stores|charts)\// },
];

export default defineConfig({
  plugins: [
    onlyWoff2(),
    vue(),
    // Only the parts of the component library that templates use, with their styles.
    Components({ dirs: [], resolvers: [ElementPlusResolver()], dts: 'src/generated/components.d.ts' }),
  ],
  resolve: { conditions: ['source', 'module', 'browser', 'import', 'default'] },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1500,
    // Some thirty files instead of two hundred: what every page needs comes together, what one stage needs stays apart.
    rolldownOptions: { output: { codeSplitting: { groups: GROUPS } } },
  },
  server: { proxy: { '/api': { target: process.env.VERDICT_API ?? 'http://127.0.0.1:4780', changeOrigin: false } } },
});
