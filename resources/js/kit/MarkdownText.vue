<script lang="ts">
import DOMPurify from 'dompurify';
import MarkdownIt from 'markdown-it';
import { defineComponent, h } from 'vue';

const reader = new MarkdownIt({ html: false, linkify: true, breaks: true, typographer: false });
reader.disable(['image', 'heading', 'lheading', 'hr', 'table']);

/** Limited Markdown, shown safely: no HTML of its own comes through, and what comes out is cleaned once more. */
export default defineComponent({
  props: { text: { type: String, required: true } },
  setup(props) {
    return () => {
      const html = DOMPurify.sanitize(reader.render(props.text), {
        ALLOWED_TAGS: ['p', 'strong', 'em', 'code', 'pre', 'ul', 'ol', 'li', 'a', 'br', 'blockquote', 's'],
        ALLOWED_ATTR: ['href'],
      });
      return h('div', {
        class: 'markdown long',
        innerHTML: html.replaceAll('<a ', '<a target="_blank" rel="noreferrer noopener" '),
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
