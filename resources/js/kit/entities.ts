/**
 * What `&auml;` and its like stand for, by the browser itself: it has the list of all names already. Takes the place of the package
 * of this name, which brings that list along once more.
 */
export function decodeHTML(text: string): string {
  const area = document.createElement('textarea');
  area.innerHTML = text.replaceAll('<', '&lt;');
  return area.value;
}

export const decodeHTMLStrict = decodeHTML;
