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
  prettier,
);
