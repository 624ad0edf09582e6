import DOMPurify from 'dompurify';
import MarkdownIt from 'markdown-it';
import mark from 'markdown-it-mark';

const reader = new MarkdownIt({ html: false, linkify: true, breaks: true, typographer: false });
reader.use(mark);
reader.disable(['image', 'heading', 'lheading', 'hr', 'table']);

const TAGS = ['p', 'strong', 'em', 'code', 'pre', 'ul', 'ol', 'li', 'a', 'br', 'blockquote', 's', 'mark'];

/** Limited Markdown as HTML: none of its own comes through, and what comes out is cleaned once more. */
export function renderMarkdown(text: string): string {
  return DOMPurify.sanitize(reader.render(text), { ALLOWED_TAGS: TAGS, ALLOWED_ATTR: ['href'] }).replaceAll(
    '<a ',
    '<a target="_blank" rel="noreferrer noopener" ',
  );
}
