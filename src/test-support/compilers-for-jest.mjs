import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { transformFile } from '@swc/core';

const MADE = 'node_modules/.cache/yokeline/angular-compiler.cjs';

/** Writes the compiler of Angular's templates as a script that Jest can require; once for each version. */
export default async function writeCompilers() {
  const from = fileURLToPath(import.meta.resolve('@angular/compiler'));
  const to = path.resolve(MADE);
  if (fs.existsSync(to) && fs.statSync(to).mtimeMs >= fs.statSync(from).mtimeMs) return;
  const { code } = await transformFile(from, { module: { type: 'commonjs' }, jsc: { target: 'es2022' }, swcrc: false });
  fs.mkdirSync(path.dirname(to), { recursive: true });
  fs.writeFileSync(to, code);
}
