import { blank, COLUMNS, type Column, type Row } from './steps';

/**
 * Reads what a spreadsheet puts on the clipboard: cells between tabs, rows between line ends, cells with either in
 * double quotes. Text that is no such table gives one cell for each line.
 */
export function cells(text: string): string[][] {
  const rows: string[][] = [];
  let row: string[] = [];
  let cell = '';
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text[i];
    if (quoted) {
      if (c !== '"') cell += c;
      else if (text[i + 1] === '"') {
        cell += '"';
        i++;
      } else quoted = false;
    } else if (c === '"' && cell === '' && closes(text, i)) quoted = true;
    else if (c === '\t') {
      row.push(cell);
      cell = '';
    } else if (c === '\n' || c === '\r') {
      if (c === '\r' && text[i + 1] === '\n') i++;
      row.push(cell);
      rows.push(row);
      row = [];
      cell = '';
    } else cell += c;
  }
  if (cell !== '' || row.length > 0) rows.push([...row, cell]);
  return rows
    .map((r) => r.map((c) => c.replaceAll('\r\n', '\n').trim()))
    .filter((r) => r.some((c) => c !== ''));
}

/** Whether a quote that opens a cell is closed right before a tab or a line end: a word in quotes is no quoted cell. */
function closes(text: string, from: number): boolean {
  for (let i = from + 1; i < text.length; i++) {
    if (text[i] !== '"') continue;
    if (text[i + 1] === '"') i++;
    else return i + 1 >= text.length || '\t\r\n'.includes(text[i + 1] as string);
  }
  return false;
}

/** Whether a pasted text is rows for the grid rather than words for a cell. */
export function isTable(text: string): boolean {
  return text.includes('\t') && cells(text).length > 0;
}

/** Pasted cells as rows of the grid, the first cell in a given column. */
export function asRows(pasted: readonly string[][], from: Column = 'action'): Row[] {
  const at = COLUMNS.indexOf(from);
  return pasted.map((line) => {
    const row = blank();
    line.slice(0, COLUMNS.length - at).forEach((cell, i) => {
      row[COLUMNS[at + i] as Column] = cell;
    });
    return row;
  });
}

export interface PastedCase {
  title: string;
  steps: Row[];
}

/**
 * Pasted rows as cases, when their first column is a title: four columns or more, the first filled where a case begins,
 * in more than one row. Null when it is not so.
 */
export function asCases(pasted: readonly string[][]): PastedCase[] | null {
  const wide = Math.max(0, ...pasted.map((r) => r.length));
  const titles = pasted.filter((r) => r[0]).length;
  if (wide < 4 || titles < 2 || !pasted[0]?.[0]) return null;
  const found: PastedCase[] = [];
  for (const line of pasted) {
    const last = found[found.length - 1];
    const target = line[0] && line[0] !== last?.title ? { title: line[0], steps: [] } : last;
    if (!target) return null;
    if (target !== last) found.push(target);
    const [row] = asRows([line.slice(1)]);
    if (row && row.action + row.data + row.expected !== '') target.steps.push(row);
  }
  return found.length > 1 ? found : null;
}
