import fs from 'node:fs';
import path from 'node:path';
import { withoutQuery } from '../core/text/address.ts';

/** Folders whose files are served as they are, under the address of their path in there (a convention of those that write and build apps). */
const SERVED = ['public', 'static', '.'];

/** The file that is served under an address of the app's own, with its size; null where there is none. */
export function servedFile(root: string, url: string): { address: string; bytes: number } | null {
  const full = servedPath(root, url);
  return full === null ? null : { address: withoutQuery(url), bytes: fs.statSync(full).size };
}

/** The whole path of such a file on this machine; null where there is none. */
export function servedPath(root: string, url: string): string | null {
  if (!url.startsWith('/') || url.startsWith('//')) return null;
  const address = withoutQuery(url);
  for (const folder of SERVED) {
    const full = path.join(root, folder, address);
    if (full.startsWith(root + path.sep) && fs.existsSync(full) && fs.statSync(full).isFile()) return full;
  }
  return null;
}
