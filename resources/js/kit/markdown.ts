import DOMPurify from 'dompurify';
import MarkdownIt from 'markdown-it';
import mark from 'markdown-it-mark';

const reader = new MarkdownIt({ html: false, linkify: true, breaks: true, typographer: false });
reader.use(mark);
reader.disable(['image', 'heading', 'lheading', 'hr', 'table']);

/** Steps that were left out do not renumber those after them: each keeps the number that it was written with, unless that goes back. */
reader.core.ruler.push('numbers', ({ tokens }) => {
  const next: number[] = [];
  for (const token of tokens) {
    if (token.type === 'ordered_list_open') next.push(1);
    else if (token.type === 'bullet_list_open') next.push(Number.POSITIVE_INFINITY);
    else if (/_list_close$/.test(token.type)) next.pop();
    else if (token.type === 'list_item_open') {
      const [due, written] = [next.pop() ?? 1, Number(token.info)];
      if (written > due) token.attrSet('value', String(written));
      next.push(Math.max(due, written || 0) + 1);
    }
  }
});

const TAGS = ['p', 'strong', 'em', 'code', 'pre', 'ul', 'ol', 'li', 'a', 'br', 'blockquote', 's', 'mark'];

/** Limited Markdown as HTML: none of its own comes through, and what comes out is cleaned once more. */
export function renderMarkdown(text: string): string {
  return DOMPurify.sanitize(reader.render(text), {
    ALLOWED_TAGS: TAGS,
    ALLOWED_ATTR: ['href', 'value'],
  }).replaceAll('<a ', '<a target="_blank" rel="noreferrer noopener" ');
}
