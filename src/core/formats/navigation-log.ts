import { InputError } from '../errors.ts';
import type { LogRecord } from '../visitors/learn.ts';

type Take = (record: LogRecord, line: number) => void;
type Refuse = (what: string, line: number) => void;
/** Takes lines of CSV apart; given from outside, since core brings no parser of its own. */
export type ReadCsv = (text: string) => string[][];

const COLUMNS = ['visit', 'time', 'route', 'action'] as const;
type Column = (typeof COLUMNS)[number];

/**
 * Reads a navigation log as it streams in: CSV with a heading (`visit`, `time`, `route`, `action` in any order, others
 * are ignored) or one JSON object per line with the same names. Times are ISO 8601 or ms since any instant. Hands on
 * record by record; lines that can't be read go to `refuse`. Throws InputError for a heading without what is needed.
 */
export class NavigationLog {
  /** The line that hasn't ended yet, as it came: joined once its end is there, since a line may come in many pieces. */
  private rest: string[] = [];
  private line = 0;
  private form: 'unknown' | 'json' | 'csv' = 'unknown';
  private columns = new Map<Column, number>();

  constructor(
    private readonly fileName: string,
    private readonly readCsv: ReadCsv,
    private readonly take: Take,
    private readonly refuse: Refuse,
  ) {}

  /** The next piece of the file. */
  push(piece: string): void {
    const end = piece.lastIndexOf('\n');
    if (end < 0) {
      this.rest.push(piece);
      return;
    }
    const text = this.rest.join('') + piece.slice(0, end);
    this.rest = [piece.slice(end + 1)];
    this.read(text);
  }

  /** The file is over. Throws InputError when nothing was in it. */
  end(): void {
    const last = this.rest.join('');
    this.rest = [];
    if (last.trim() !== '') this.read(last);
    if (this.form === 'unknown')
      throw new InputError(
        'Empty log',
        'The file has no lines. A log begins with a heading, or with a JSON object.',
        this.fileName,
      );
  }

  private read(text: string): void {
    let lines = text.split('\n');
    if (this.form === 'unknown') lines = this.begin(lines);
    if (this.form === 'json') for (const line of lines) this.json(line);
    else if (this.form === 'csv' && lines.length > 0) this.csv(lines);
  }

  /** Finds out from the first line that says something what the file is; gives the lines that hold records. */
  private begin(lines: string[]): string[] {
    const at = lines.findIndex((line) => line.trim() !== '');
    this.line += at < 0 ? lines.length : at;
    if (at < 0) return [];
    const first = lines[at].replace(/^\uFEFF/, '').trim();
    if (first.startsWith('{')) {
      this.form = 'json';
      return lines.slice(at);
    }
    this.form = 'csv';
    this.line++;
    const [heading = []] = this.readCsv(first);
    heading.forEach((name, at) => {
      const column = COLUMNS.find((c) => c === name.trim().toLowerCase());
      if (column) this.columns.set(column, at);
    });
    const missing = (['visit', 'time', 'route'] as const).filter((c) => !this.columns.has(c));
    if (missing.length > 0)
      throw new InputError(
        'Not a navigation log',
        `Its heading must name the columns visit, time, route (and action); missing: ${missing.join(', ')}.`,
        `${this.fileName}:${this.line}`,
      );
    return lines.slice(at + 1);
  }

  private csv(lines: readonly string[]): void {
    const rows = this.readCsv(lines.join('\n'));
    // A single empty line is no row to a reader of CSV, but it is a line of the file.
    if (rows.length === 0) this.line += lines.length;
    for (const row of rows) {
      this.line++;
      if (row.length === 1 && row[0].trim() === '') continue;
      const of = (column: Column) => row[this.columns.get(column) ?? -1]?.trim() ?? '';
      this.hand(of('visit'), of('time'), of('route'), of('action'), row.join(','));
    }
  }

  private json(line: string): void {
    this.line++;
    if (line.trim() === '') return;
    let item: Partial<Record<Column, unknown>> | null = null;
    try {
      item = JSON.parse(line);
    } catch {
      this.refuse(short(line), this.line);
      return;
    }
    if (typeof item !== 'object' || item === null) {
      this.refuse(short(line), this.line);
      return;
    }
    const { visit, time, route = '', action = '' } = item;
    this.hand(visit, time, route, action, line);
  }

  private hand(visit: unknown, time: unknown, route: unknown, action: unknown, line: string): void {
    const at = typeof time === 'number' ? time : timeOf(String(time ?? ''));
    const named = typeof visit === 'number' ? String(visit) : visit;
    if (
      typeof named !== 'string' ||
      named === '' ||
      !Number.isFinite(at) ||
      typeof route !== 'string' ||
      typeof action !== 'string'
    ) {
      this.refuse(short(line), this.line);
      return;
    }
    this.take({ visit: named, time: at, route, action }, this.line);
  }
}

function timeOf(said: string): number {
  return /^\d+(\.\d+)?$/.test(said) ? Number(said) : Date.parse(said);
}

function short(line: string): string {
  return line.length > 60 ? `${line.slice(0, 57)}…` : line;
}
