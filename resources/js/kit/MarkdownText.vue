<script lang="ts">
import { defineComponent, h, shallowRef } from 'vue';
import { escapeText, isPlain, renderPlain } from '@/kit/plainText';

/** What reads Markdown comes with the first text that needs it; most texts of a walk do not, and none waits for it to be read. */
const render = shallowRef<((text: string) => string) | null>(null);
let asked = false;
function ask(): void {
  if (asked) return;
  asked = true;
  import('@/kit/markdown').then(
    (m) => (render.value = m.renderMarkdown),
    () => (asked = false),
  );
}

/** Shows places for values as chips, those that are not known marked as such. */
function chips(html: string, known: string[] | null): string {
  if (known === null) return html;
  return html.replace(/(\\?)\{\{\s*([\p{L}\p{N}_]+)\s*\}\}/gu, (whole, slash: string, name: string) =>
    slash
      ? whole
      : `<span class="chip${known.includes(name.toLowerCase()) ? '' : ' unknown'}">${name}</span>`,
  );
}

/** Limited Markdown, shown safely; as it was typed until what reads it is there. */
export default defineComponent({
  props: {
    text: { type: String, required: true },
    /** Names that places such as {{name}} may have, in lower case; given, the places are shown as chips. */
    known: { type: Array as () => string[], default: null },
    /** Values that stand in the text as they are, in place of `\uE000<n>\uE001`: no Markdown is read in them. */
    values: { type: Array as () => string[], default: () => [] },
  },
  setup(props) {
    return () => {
      const plain = isPlain(props.text);
      if (!plain) ask();
      const html = plain || !render.value ? renderPlain(props.text) : render.value(props.text);
      return h('div', {
        class: 'markdown long',
        innerHTML: chips(html, props.known).replace(
          /\uE000(\d+)\uE001/g,
          (_, n: string) => `<span class="chip">${escapeText(props.values[Number(n)] ?? '')}</span>`,
        ),
      });
    };
  },
});
</script>

<style>
.markdown > * + * {
  margin-top: 9px;
}
.markdown ul {
  list-style: disc;
  padding-left: 20px;
}
.markdown ol {
  list-style: decimal;
  padding-left: 20px;
}
.markdown code {
  font-family: var(--mono);
  font-size: 0.9em;
  background: var(--well);
  padding: 0 4px;
  border-radius: 3px;
}
</style>
