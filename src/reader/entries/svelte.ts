import { filesBelow } from '../files-below.ts';
import { type DirectoryRoute, segmentOf } from '../routes/directory-routes.ts';
import { aroundAll, hasDependency } from './conventions.ts';
import type { FoundEntry, PackageDescription } from './types.ts';

const FOLDER = 'src/routes';

/**
 * Apps whose routes are folders with `+page.svelte` (public convention of SvelteKit): `+layout.svelte` stands around what is below, `@`
 * in a name leaves layouts out up to the folder that it names, `+page.ts` and `+layout.ts` come along, `.server` files stay on the server.
 */
export function svelteEntries(root: string, description: PackageDescription): FoundEntry[] {
  if (!hasDependency(description, '@sveltejs/kit')) return [];
  const files = filesBelow(root, FOLDER);
  const routes = files
    .filter((f) => /(^|\/)\+page(@[^/]*)?\.svelte$/.test(f))
    .map((page) => routeOf(files, page))
    .sort((a, b) => (a.pattern < b.pattern ? -1 : 1));
  if (routes.length === 0) return [];
  const starts = aroundAll(routes).map((l) => ({ address: `/${l}`, line: 1, kind: 'script' as const }));
  return [
    {
      ...{ realm: 'site', document: null, html: null, routes, starts, rendering: 'server', ships: 'everything' },
      aliases: new Map([['$lib', 'src/lib']]),
      filledIn: /^\$(app|env)\/|^\$service-worker$|^\.\/\$types$/,
    },
  ];
}

function routeOf(files: readonly string[], page: string): DirectoryRoute {
  const folders = page.split('/').slice(0, -1);
  let from = resetTo(page, folders);
  const layouts: string[] = [];
  const beside: string[] = [];
  // From the inside out: a layout may leave out those around it as well.
  for (let depth = folders.length; depth >= 0; depth--) {
    const folder = folders.slice(0, depth).join('/');
    const inside = files.filter((f) => f.slice(0, Math.max(0, f.lastIndexOf('/'))) === folder);
    if (depth > from) continue;
    const layout = inside.find((f) => /(^|\/)\+layout(@[^/]*)?\.svelte$/.test(f));
    if (layout) {
      layouts.unshift(`${FOLDER}/${layout}`);
      from = Math.min(from, resetTo(layout, folders));
    }
    beside.push(...inside.filter((f) => /(^|\/)\+layout\.(ts|js)$/.test(f)));
  }
  const own = files.filter(
    (f) =>
      f.startsWith(page.slice(0, page.lastIndexOf('/') + 1)) &&
      /^\+page\.(ts|js)$/.test(f.slice(page.lastIndexOf('/') + 1)),
  );
  return {
    pattern: `/${folders.flatMap((f) => segmentOf(f.replace(/=\w+(?=\])/, '')) ?? []).join('/')}`,
    layouts,
    page: `${FOLDER}/${page}`,
    beside: [...beside.reverse(), ...own].map((f) => `${FOLDER}/${f}`),
  };
}

/** The depth of the folder whose layout is the innermost one that counts for a file. */
function resetTo(file: string, folders: readonly string[]): number {
  const named = /@([^/]*)\.svelte$/.exec(file)?.[1];
  if (named === undefined) return folders.length;
  return named === '' ? 0 : folders.lastIndexOf(named) + 1;
}
