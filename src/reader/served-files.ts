import fs from 'node:fs';
import path from 'node:path';

/** Folders whose files are served as they are, under the address of their path in there (a convention of those that write and build apps). */
const SERVED = ['public', 'static', '.'];

/** The file that is served under an address of the app's own, with its size; null where there is none. */
export function servedFile(root: string, url: string): { address: string; bytes: number } | null {
  if (!url.startsWith('/') || url.startsWith('//')) return null;
  const address = url.replace(/[?#].*$/, '');
  for (const folder of SERVED) {
    const full = path.join(root, folder, address);
    if (full.startsWith(root + path.sep) && fs.existsSync(full) && fs.statSync(full).isFile())
      return { address, bytes: fs.statSync(full).size };
  }
  return null;
}
