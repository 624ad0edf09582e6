import DOMPurify from 'dompurify';
import MarkdownIt from 'markdown-it';

const reader = new MarkdownIt({ html: false, linkify: false });
reader.disable('image');

const slug = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}\s-]/gu, '')
    .trim()
    .replace(/\s+/g, '-');

reader.renderer.rules.heading_open = (tokens, at) =>
  `<${tokens[at]!.tag} id="${slug(tokens[at + 1]?.content ?? '')}">`;

/**
 * A document as HTML, with its headings as places to go to.
 *
 * @param pages the names of the documents that are there: links between them lead on within, links to other files are plain words
 */
export function renderDocument(text: string, pages: string[]): string {
  const html = DOMPurify.sanitize(reader.render(text));
  return html.replace(/<a href="([^"]*)">(.*?)<\/a>/gs, (whole, to: string, words: string) => {
    const [, page, place = ''] = /^([\w-]*?)(?:\.md)?(#.*)?$/.exec(to) ?? [];
    if (page === undefined) return /^https?:/.test(to) ? whole : words;
    if (page === '') return whole;
    return pages.includes(page) ? `<a href="/docs/${page}${place}">${words}</a>` : words;
  });
}
