import vue from '@vitejs/plugin-vue';
import laravel from 'laravel-vite-plugin';
import subsetFont from 'subset-font';
import { defineConfig, type Plugin } from 'vite';

/** What is written in fixed width: Latin letters of western Europe, punctuation, arrows and a few signs. */
const FIXED = [
  [0x20, 0x7e],
  [0xa0, 0xff],
  [0x2010, 0x2015],
  [0x2018, 0x2026],
  [0x2030, 0x203a],
  [0x20ac, 0x20ac],
  [0x2190, 0x2193],
  [0x2212, 0x2212],
] as const;

/** Takes out of the fixed-width font what is never written in it: it is a sixth of what the first page loads. */
function smallerFont(): Plugin {
  const text = FIXED.flatMap(([from, to]) =>
    Array.from({ length: to - from + 1 }, (_, i) => String.fromCodePoint(from + i)),
  ).join('');
  return {
    name: 'smaller-font',
    apply: 'build',
    async generateBundle(_, bundle) {
      for (const file of Object.values(bundle)) {
        if (file.type === 'asset' && /commit-mono.*\.woff2$/.test(file.fileName))
          file.source = await subsetFont(Buffer.from(file.source), text, { targetFormat: 'woff2' });
      }
    },
  };
}

export default defineConfig({
  plugins: [
    laravel({ input: ['resources/css/app.css', 'resources/js/main.ts'], refresh: false }),
    // Spaces between words in different elements are kept, also where a line ends between them.
    vue({ template: { compilerOptions: { whitespace: 'preserve' } } }),
    smallerFont(),
  ],
  build: { sourcemap: false, assetsInlineLimit: 0, reportCompressedSize: false },
  resolve: { alias: { '@': '/resources/js' } },
});
