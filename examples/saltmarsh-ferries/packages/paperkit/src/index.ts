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
/** Lays a sheet out for print and gives its bytes. */
export function makeDocument(sheet: Sheet): Uint8Array {
  const size = pages.run(sheet.lines.length) + layout.run(2) + faces.run(3) + streams.run(4) + vector.run(5);
  return new Uint8Array(Math.abs(size + barcode.run(6)) % 4096);
}
