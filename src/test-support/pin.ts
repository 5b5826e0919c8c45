import crypto from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';

/** As short lines: times and shares to three digits behind the point, tables of numbers as lists. */
export function told(value: unknown): string {
  return JSON.stringify(value, (_, v: unknown) => {
    if (typeof v === 'number') return Number.isFinite(v) ? Math.round(v * 1000) / 1000 : String(v);
    if (ArrayBuffer.isView(v)) return [...(v as unknown as Iterable<number>)];
    if (v instanceof Map) return Object.fromEntries(v);
    return v instanceof Set ? [...v] : v;
  });
}

/** Expects texts to be what they were, and writes them out where somebody asks for it. */
export function pin(name: string, text: string): void {
  const folder = process.env.PINNED;
  if (folder) fs.writeFileSync(path.join(folder, `${name.replace(/\W+/g, '-')}.txt`), text);
  const lines = text.split('\n').map((line) => crypto.createHash('sha256').update(line).digest('hex').slice(0, 12));
  expect(
    lines.length > 12 ? crypto.createHash('sha256').update(text).digest('hex').slice(0, 12) : lines.join(' '),
  ).toMatchSnapshot(name);
}

/** Runs a computation in steps; gives what it returns, and in short all that it told on its way. */
export function traced<T>(steps: Generator<unknown, T>): { result: T; way: string } {
  const hash = crypto.createHash('sha256');
  for (;;) {
    const step = steps.next();
    if (step.done) return { result: step.value, way: hash.digest('hex').slice(0, 12) };
    hash.update(told(step.value));
  }
}
