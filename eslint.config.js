import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import vue from 'eslint-plugin-vue';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['resources/js/api/schema.d.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    languageOptions: { globals: { ...Object.fromEntries(['window', 'document', 'navigator', 'location', 'localStorage', 'fetch', 'Blob', 'File', 'FormData', 'URL', 'Event', 'KeyboardEvent', 'ClipboardEvent', 'DragEvent', 'HTMLElement', 'HTMLInputElement', 'HTMLTextAreaElement', 'BroadcastChannel', 'setTimeout', 'clearTimeout', 'setInterval', 'clearInterval', 'performance', 'console', 'AbortSignal', 'Response', 'RequestInit', 'Intl'].map((n) => [n, 'readonly'])) } },
    rules: { '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }], 'vue/no-v-html': 'error', 'no-undef': 'off' },
  },
  {
    files: ['resources/js/kit/**', 'resources/js/api/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group: ['@/areas/*', '@/offline/*', '@/frame/*', '@/router'], message: 'The kit and the API know no area and no device.' }] }] },
  },
  {
    files: ['resources/js/offline/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group: ['@/areas/*', '@/frame/*', '@/router'], message: 'What the device keeps knows no area; areas bring their commands to it.' }] }] },
  },
  {
    files: ['resources/js/areas/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group: ['@/frame/*', '@/router'], message: 'An area does not know the frame around it.' }] }] },
  },
  {
    files: ['resources/js/areas/**'],
    ignores: ['resources/js/areas/*/queries.ts'],
    rules: { 'no-restricted-imports': ['error', { paths: [{ name: '@/api/client', importNames: ['api', 'send', 'unwrap'], message: 'All HTTP of an area stands in its queries.ts.' }], patterns: [{ group: ['@/frame/*', '@/router'], message: 'An area does not know the frame around it.' }] }] },
  },
  {
    files: ['resources/js/frame/**'],
    rules: { 'no-restricted-imports': ['error', { paths: [{ name: '@/api/client', importNames: ['api', 'send', 'unwrap'], message: 'All HTTP of an area stands in its queries.ts.' }] }] },
  },
  prettier,
);
