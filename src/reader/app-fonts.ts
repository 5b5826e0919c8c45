import fs from 'node:fs';
import path from 'node:path';
import type { RouteFont } from '../core/snapshot/route-types.ts';
import { FreeNames } from '../core/text/free-names.ts';
import type { ReadModule } from './graph/read-module.ts';

/** Folders whose files are served as they are, under the address of their path in there (a convention of those that write and build apps). */
const SERVED = ['public', 'static', '.'];

/**
 * Fonts in which the text of the app's pages is written, as its style sheets say. Those whose size nobody can find out (from other
 * hosts) are left out.
 */
export function appFonts(
  root: string,
  styles: readonly ReadModule[],
  moduleAt: (path: string) => ReadModule | undefined,
): RouteFont[] {
  const wanted = new Set(styles.flatMap((m) => m.fonts?.ofText ?? []));
  const names = new FreeNames();
  return styles.flatMap((sheet) =>
    (sheet.fonts?.faces ?? []).flatMap(({ family, url, display }): RouteFont[] => {
      if (!wanted.has(family)) return [];
      const file = fileOf(root, sheet, url, moduleAt);
      if (!file) return [];
      const id = names.give(family, (n) => `${family} ${n}`);
      return [{ id, ...file, serverMs: 5, declaredBy: sheet.path, display }];
    }),
  );
}

function fileOf(
  root: string,
  sheet: ReadModule,
  url: string,
  moduleAt: (path: string) => ReadModule | undefined,
): Pick<RouteFont, 'address' | 'bytes' | 'module'> | null {
  const module = sheet.resolved.get(url);
  const bytes = module === undefined ? undefined : moduleAt(module)?.module.fileBytes;
  if (bytes !== undefined && module !== undefined)
    return { address: `/assets/${path.posix.basename(module)}`, bytes, module };
  if (!url.startsWith('/') || url.startsWith('//')) return null;
  const address = url.replace(/[?#].*$/, '');
  for (const folder of SERVED) {
    const full = path.join(root, folder, address);
    if (full.startsWith(root + path.sep) && fs.existsSync(full) && fs.statSync(full).isFile())
      return { address, bytes: fs.statSync(full).size };
  }
  return null;
}
