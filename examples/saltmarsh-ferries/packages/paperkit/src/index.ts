import { kernel as barcode } from '../body/barcode.ts';
import { kernel as faces } from '../body/faces.ts';
import { kernel as layout } from '../body/layout.ts';
import { kernel as pages } from '../body/pages.ts';
import { kernel as streams } from '../body/streams.ts';
import { kernel as vector } from '../body/vector.ts';

export interface Sheet {
  title: string;
  lines: string[];
}

/** Lays a sheet out for print, with its lines broken and a code below, and gives its bytes. */
export function makeDocument({ title, lines }: Sheet): Uint8Array {
  const width = 60 + layout.run(2) + faces.run(3);
  const broken = [title, ...lines].flatMap((line) => line.match(new RegExp(`.{1,${width}}`, 'g')) ?? ['']);
  const code = [...title].map((c) => (c.charCodeAt(0) + barcode.run(6)).toString(2)).join('');
  const text = [...broken, code].map((line, i) => `${i * 14 + vector.run(5)} ${line}`).join('\n');
  return new TextEncoder().encode(`${pages.run(lines.length) + streams.run(4)}\n${text}`);
}
