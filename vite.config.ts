import vue from '@vitejs/plugin-vue';
import laravel from 'laravel-vite-plugin';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [
    laravel({ input: ['resources/css/app.css', 'resources/js/main.ts'], refresh: false }),
    // Spaces between words in different elements are kept, also where a line ends between them.
    vue({ template: { compilerOptions: { whitespace: 'preserve' } } }),
  ],
  build: { sourcemap: false, assetsInlineLimit: 0, reportCompressedSize: false },
  resolve: { alias: { '@': '/resources/js' } },
});
