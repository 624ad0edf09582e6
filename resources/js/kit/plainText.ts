/** Characters of which no Markdown is made, wherever they stand. */
const SIGNS = String.raw`\p{L}\p{N}\p{M},;?"'“”„‘’…–—%€$£§°()+×→-`;
/** A dot or a colon after which no address begins, as at the end of a sentence, in 5.00 and 10:30; a stroke as in and/or. */
const STOPS = String.raw`(?<=\d)[.:](?=\d)|[.:](?![\p{L}\p{N}/.:])|(?<=[\p{L}\p{N}])/(?=[\p{L}\p{N}])`;
/** Places for values: a name, and the number of a value that stands in the text as it is. */
const PLACES = String.raw`\{\{ ?(?:[\p{L}\p{N}]|(?<=[\p{L}\p{N}])_(?=[\p{L}\p{N}]))+ ?\}\}|\uE000\d+\uE001`;
/** What makes a list or a line across of what follows. */
const LEADS = String.raw`(?!\d{1,9}[.)](?: |$))(?![-+](?: |$))(?!-+$)`;

const PLAIN = new RegExp(`^${LEADS}(?:${PLACES}|${STOPS}|[${SIGNS}]| (?! ))+(?<! )$`, 'u');

/** Whether a text can be shown without reading it as Markdown. */
export const isPlain = (text: string): boolean => text === '' || PLAIN.test(text);

const MARKS: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;' };

/** A text as the content of an element. */
export const escapeText = (text: string): string => text.replace(/[&<>]/g, (c) => MARKS[c] ?? c);

/** A text as it was typed, as HTML, with its lines and paragraphs. */
export const renderPlain = (text: string): string =>
  text.trim() === ''
    ? ''
    : text
        .trim()
        .split(/\n{2,}/)
        .map((p) => `<p>${escapeText(p).replaceAll('\n', '<br>\n')}</p>\n`)
        .join('');
