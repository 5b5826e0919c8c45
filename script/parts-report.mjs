import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { readSource } from '../dist/reader/read-source.js';

/** How often parts that are proposed from code agree, by route, module and place, with what is noted of an example. */
export function partsReport(example) {
  const folder = path.resolve('examples', example);
  const bare = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-parts-'));
  fs.cpSync(folder, bare, { recursive: true });
  fs.rmSync(path.join(bare, 'yokeline.app.json'));
  const said = (snapshot) =>
    new Set(snapshot.routes.flatMap((r) => r.parts.map((p) => `${r.pattern} ${p.module} ${p.place}`)));
  const noted = said(readSource(folder).snapshot);
  const found = said(readSource(bare).snapshot);
  fs.rmSync(bare, { recursive: true, force: true });
  return { right: [...found].filter((p) => noted.has(p)).length, found: found.size, noted: noted.size };
}
