import vue from '@vitejs/plugin-vue';
import laravel from 'laravel-vite-plugin';
import subsetFont from 'subset-font';
import { defineConfig, type Plugin } from 'vite';

/** What is written here: Latin letters of western Europe, punctuation, arrows and a few signs; all else comes with its own file. */
const WRITTEN = [
  [0x20, 0x7e],
  [0xa0, 0xff],
  [0x131, 0x131],
  [0x152, 0x153],
  [0x2010, 0x2015],
  [0x2018, 0x2026],
  [0x2030, 0x203a],
  [0x20ac, 0x20ac],
  [0x2122, 0x2122],
  [0x2190, 0x2193],
  [0x2212, 0x2212],
] as const;

/** The weights in which text is set. */
const WEIGHTS = { wght: { min: 400, max: 700 } };

/** Takes out of the fonts what is never written in them: they are a fifth of what the first page loads. */
function smallerFonts(): Plugin {
  const text = WRITTEN.flatMap(([from, to]) =>
    Array.from({ length: to - from + 1 }, (_, i) => String.fromCodePoint(from + i)),
  ).join('');
  return {
    name: 'smaller-fonts',
    apply: 'build',
    async generateBundle(_, bundle) {
      for (const file of Object.values(bundle)) {
        if (file.type !== 'asset') continue;
        const mono = /commit-mono.*\.woff2$/.test(file.fileName);
        if (mono || /atkinson.*-latin-wght-normal.*\.woff2$/.test(file.fileName))
          file.source = await subsetFont(Buffer.from(file.source), text, {
            targetFormat: 'woff2',
            ...(mono ? { noLayoutClosure: true } : { variationAxes: WEIGHTS }),
          });
      }
    },
  };
}

export default defineConfig({
  plugins: [
    laravel({
      input: ['resources/css/app.css', 'resources/js/main.ts', 'resources/js/observer/observe.ts'],
      refresh: false,
    }),
    // Spaces between words in different elements are kept, also where a line ends between them.
    vue({ template: { compilerOptions: { whitespace: 'preserve' } } }),
    smallerFonts(),
  ],
  build: {
    minify: 'terser',
    sourcemap: false,
    assetsInlineLimit: 0,
    reportCompressedSize: false,
    rollupOptions: {
      output: {
        // What reads Markdown is one part, which comes later, however many pages use it.
        // What captures is one part too: the walk and a session begin with all of it.
        manualChunks: (id) => {
          if (/node_modules\/(markdown-it|dompurify|linkify-it|mdurl|uc\.micro|punycode)/.test(id))
            return 'markdown-reader';
          return /areas\/evidence\/(useCapture|useEvidence|parts\/CaptureTools)/.test(id)
            ? 'evidence-tools'
            : undefined;
        },
      },
    },
  },
  resolve: { alias: { '@': '/resources/js', entities: '/resources/js/kit/entities.ts' } },
});
