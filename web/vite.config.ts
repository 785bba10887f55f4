import vue from '@vitejs/plugin-vue';
import Components from 'unplugin-vue-components/vite';
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [
    vue(),
    // Only the parts of the component library that templates use, with their styles.
    Components({ dirs: [], resolvers: [ElementPlusResolver()], dts: 'src/generated/components.d.ts' }),
  ],
  resolve: { conditions: ['source', 'module', 'browser', 'import', 'default'] },
  worker: { format: 'es' },
  build: { target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 1500 },
  server: { proxy: { '/api': { target: process.env.VERDICT_API ?? 'http://127.0.0.1:4780', changeOrigin: false } } },
});
