import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';

/** The path of a file of the build for Node; the build is made where it isn't there yet. Throws when it doesn't make the file. */
export function built(file: string): string {
  const at = path.resolve('dist', file);
  if (!fs.existsSync(at)) execFileSync('npm', ['run', '--silent', 'build:node'], { stdio: 'inherit' });
  if (!fs.existsSync(at)) throw new Error(`the build makes no dist/${file}`);
  return at;
}
