import vue from '@vitejs/plugin-vue';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [vue()],
  test: { include: ['tests/Front/**/*.test.ts'], environment: 'node', testTimeout: 60_000 },
  resolve: { alias: { '@': fileURLToPath(new URL('./resources/js', import.meta.url)) } },
});
