import vue from '@vitejs/plugin-vue';
import laravel from 'laravel-vite-plugin';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [laravel({ input: ['resources/css/app.css', 'resources/js/main.ts'], refresh: false }), vue()],
  build: { sourcemap: false, assetsInlineLimit: 0, reportCompressedSize: false },
  resolve: { alias: { '@': '/resources/js' } },
});
