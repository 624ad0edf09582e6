<script lang="ts">
import DOMPurify from 'dompurify';
import MarkdownIt from 'markdown-it';
import mark from 'markdown-it-mark';
import { defineComponent, h } from 'vue';

const reader = new MarkdownIt({ html: false, linkify: true, breaks: true, typographer: false });
reader.use(mark);
reader.disable(['image', 'heading', 'lheading', 'hr', 'table']);

/** Shows places for values as chips, those that are not known marked as such. */
function chips(html: string, known: string[] | null): string {
  if (known === null) return html;
  return html.replace(/(\\?)\{\{\s*([\p{L}\p{N}_]+)\s*\}\}/gu, (whole, slash: string, name: string) =>
    slash
      ? whole
      : `<span class="chip${known.includes(name.toLowerCase()) ? '' : ' unknown'}">${name}</span>`,
  );
}

/** Limited Markdown, shown safely: no HTML of its own comes through, and what comes out is cleaned once more. */
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
      const html = DOMPurify.sanitize(reader.render(props.text), {
        ALLOWED_TAGS: [
          'p',
          'strong',
          'em',
          'code',
          'pre',
          'ul',
          'ol',
          'li',
          'a',
          'br',
          'blockquote',
          's',
          'mark',
        ],
        ALLOWED_ATTR: ['href'],
      });
      return h('div', {
        class: 'markdown long',
        innerHTML: chips(
          html.replaceAll('<a ', '<a target="_blank" rel="noreferrer noopener" '),
          props.known,
        ).replace(/\uE000(\d+)\uE001/g, (_, n: string) => {
          return `<span class="chip">${reader.utils.escapeHtml(props.values[Number(n)] ?? '')}</span>`;
        }),
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
