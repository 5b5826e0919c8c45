import { DEFAULT_SERVER_MS, type RouteFont } from '../core/snapshot/route-types.ts';
import type { Notice } from '../core/snapshot/types.ts';
import { FreeNames } from '../core/text/free-names.ts';
import { builtAddress } from './built-address.ts';
import type { ReadModule } from './graph/read-module.ts';
import { servedFile } from './served-files.ts';

/**
 * Fonts in which the text of the app's pages is written, as its style sheets say. One whose size nobody can find out (of another
 * host, or not in the folder) is told instead; one that is written into its sheet travels with that.
 */
export function appFonts(
  root: string,
  styles: readonly ReadModule[],
  moduleAt: (path: string) => ReadModule | undefined,
): { fonts: RouteFont[]; notices: Notice[] } {
  const wanted = new Set(styles.flatMap((m) => m.fonts?.ofText ?? []));
  const names = new FreeNames();
  const fonts: RouteFont[] = [];
  const notices: Notice[] = [];
  for (const sheet of styles) {
    for (const { family, url, display, line } of sheet.fonts?.faces ?? []) {
      if (!wanted.has(family) || /^data:/i.test(url)) continue;
      const file = fileOf(root, sheet, url, moduleAt);
      if (file) {
        const id = names.give(family, (n) => `${family} ${n}`);
        fonts.push({
          id,
          ...file,
          serverMs: DEFAULT_SERVER_MS,
          declaredBy: sheet.path,
          display,
          evidence: { path: sheet.path, line },
        });
      } else {
        const message = `names the font ${family} at ${url}, whose size isn’t known; add it to the fonts of the routes, or no prediction counts it`;
        notices.push({ kind: 'font', path: sheet.path, message });
      }
    }
  }
  return { fonts, notices };
}

function fileOf(
  root: string,
  sheet: ReadModule,
  url: string,
  moduleAt: (path: string) => ReadModule | undefined,
): Pick<RouteFont, 'address' | 'bytes' | 'module'> | null {
  const module = sheet.resolved.get(url);
  const bytes = module === undefined ? undefined : moduleAt(module)?.module.fileBytes;
  if (bytes !== undefined && module !== undefined) return { address: builtAddress(module), bytes, module };
  return servedFile(root, url);
}
