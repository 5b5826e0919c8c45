import path from 'node:path';

/** The address under which a build serves a file that scripts and style sheets import: no reading of sources can tell its real one. */
export function builtAddress(file: string): string {
  return `/assets/${path.basename(file)}`;
}
