import { oneLine } from './one-line.ts';

/** A table as text: its head, and rows of cells. */
export interface TextTable {
  title: string;
  head: string[];
  rows: string[][];
}

/** Tables one under the other, as tables of Markdown; names from outside are no markup. */
export function tablesMarkdown(tables: readonly TextTable[]): string {
  const blocks = tables.map(({ title, head, rows }) => {
    const lines = [head, head.map((_, at) => (at === 0 ? '---' : '---:')), ...rows];
    return `### ${plain(title)}\n\n${lines.map((l, at) => `| ${l.map(at === 1 ? same : plain).join(' | ')} |`).join('\n')}`;
  });
  return `${blocks.join('\n\n')}\n`;
}

const same = (text: string) => text;

/** A text in which nothing is markup. */
export function plain(text: string): string {
  return oneLine(text)
    .replace(/\s+/g, ' ')
    .replace(/[\\`*_{}[\]<>|#~]/g, (c) => `\\${c}`);
}

/** Tables one under the other as comma-separated values (RFC 4180), the title before each row. */
export function tablesCsv(tables: readonly TextTable[]): string {
  return tables
    .map(({ title, head, rows }) => csvLines([['table', ...head], ...rows.map((r) => [title, ...r])]))
    .join('');
}

/** Lines as comma-separated values (RFC 4180). */
export function csvLines(lines: readonly string[][]): string {
  return `${lines.map((line) => line.map(quoted).join(',')).join('\r\n')}\r\n`;
}

/** A field that a table program could take for a formula, also after what it passes over, is told to be text. */
function quoted(field: string): string {
  const safe = /^[\s\p{Cc}]*[=+@\-＝＋＠－]/u.test(field) && Number.isNaN(Number(field)) ? `'${field}` : field;
  return /[",\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe;
}
