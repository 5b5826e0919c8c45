import { filesBelow } from '../files-below.ts';
import { type DirectoryRoute, segmentOf } from './directory-routes.ts';

const PAGE = /\.(tsx|jsx|ts|js|mdx)$/;
/** What isn't a page of its own in a folder of pages. */
const SPECIAL = /^(_\w+|404|500|middleware)$/;

/**
 * Routes by the convention of a folder in which each file is a page: its path is the address, `index` that of its folder,
 * `[id]` a variable. `_app` stands around all of them; `api` holds no pages, and neither do tests.
 */
export function pageFileRoutes(root: string): DirectoryRoute[] {
  for (const folder of ['pages', 'src/pages']) {
    const files = filesBelow(root, folder).filter((f) => PAGE.test(f) && !/\.(test|spec|d|stories)\.\w+$/.test(f));
    const frame = files.filter((f) => /^_app\.\w+$/.test(f)).map((f) => `${folder}/${f}`);
    const routes = files.flatMap((file): DirectoryRoute[] => {
      const names = file.replace(PAGE, '').split('/');
      if (names[0] === 'api' || SPECIAL.test(names[names.length - 1])) return [];
      if (names[names.length - 1] === 'index') names.pop();
      const pattern = `/${names.map(segmentOf).join('/')}`;
      return [{ pattern, layouts: frame, page: `${folder}/${file}`, beside: [] }];
    });
    if (routes.length > 0) return routes.sort((a, b) => (a.pattern < b.pattern ? -1 : 1));
  }
  return [];
}
