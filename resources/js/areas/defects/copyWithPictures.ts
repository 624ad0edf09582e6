import type { Api } from '@/api/client';
import { renderMarkdown } from '@/kit/markdown';

/** Wider pictures are made smaller: what is pasted is read, not measured. */
const WIDEST = 1400;

/** The pictures of a defect, as one sees them: what was drawn on them as well. */
export const picturesOf = (d: Api['DefectDetail']): { name: string; url: string }[] => [
  ...d.evidence
    .filter((e) => e.thumbnail_url && !e.gone)
    .map((e) => ({ name: e.caption || e.name, url: e.marked_url ?? e.url })),
  ...d.files.filter((f) => f.thumbnail_url).map((f) => ({ name: f.name, url: f.url })),
];

/** A picture as it can stand within a text: its own address is known to nobody outside. */
async function inline(url: string): Promise<string> {
  const response = await fetch(url, { credentials: 'same-origin' });
  if (!response.ok) throw new Error(`${url} answered ${response.status}`);
  const picture = await createImageBitmap(await response.blob());
  const scale = Math.min(1, WIDEST / picture.width);
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL('image/png');
}
const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** The report as a page of its own, with its pictures in it. */
export async function asHtml(d: Api['DefectDetail']): Promise<string> {
  const text = renderMarkdown(d.markdown.replaceAll(/^#+ (.*)$/gm, '**$1**'));
  const pictures = await Promise.all(
    picturesOf(d).map(
      async (p) => `<p><img src="${await inline(p.url)}" alt="${escaped(p.name)}"><br>${escaped(p.name)}</p>`,
    ),
  );
  return text + pictures.join('');
}

/** Whether the browser lets a page put more than words on the clipboard. */
export const copiesPictures = (): boolean =>
  typeof ClipboardItem !== 'undefined' && typeof navigator.clipboard?.write === 'function';

/** Puts the report with its pictures on the clipboard, and as text for where only text is taken. */
export async function copyWithPictures(d: Api['DefectDetail']): Promise<void> {
  // Handed over at once, while the key still counts: some browsers do not wait for the pictures.
  const html = asHtml(d).then((text) => new Blob([text], { type: 'text/html' }));
  await navigator.clipboard.write([
    new ClipboardItem({ 'text/html': html, 'text/plain': new Blob([d.plain], { type: 'text/plain' }) }),
  ]);
}
