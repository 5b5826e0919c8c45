import type { Command } from 'commander';

/** Prints a result: JSON when asked for or when nobody reads along, else the lines for people. */
export function print(command: Command, result: unknown, lines: () => string[]): void {
  const json = command.optsWithGlobals().json === true || !process.stdout.isTTY;
  process.stdout.write(json ? `${JSON.stringify(result, null, 1)}\n` : `${lines().join('\n')}\n`);
}

/** Columns of text, the first one aligned left, the others right. */
export function columns(rows: (string | number)[][]): string[] {
  const widths = rows.reduce<number[]>((w, row) => row.map((cell, i) => Math.max(w[i] ?? 0, String(cell).length)), []);
  return rows.map((row) =>
    row
      .map((c, i) => (i === 0 ? String(c).padEnd(widths[i]) : String(c).padStart(widths[i])))
      .join('  ')
      .trimEnd(),
  );
}

/** Milliseconds to a tenth, for JSON; not a number becomes null there. */
export function ms(value: number): number | null {
  return Number.isFinite(value) ? Math.round(value * 10) / 10 : null;
}
