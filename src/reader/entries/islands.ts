import path from 'node:path';
import { filesBelow } from '../files-below.ts';
import { textIfThere } from '../folder-files.ts';
import { segmentOf } from '../routes/directory-routes.ts';
import { hasDependency } from './conventions.ts';
import type { FoundEntry, PackageDescription } from './types.ts';

const FOLDER = 'src/pages';

/** Packages that draw islands in the browser, by the files that each draws. */
const RENDERERS = [
  { name: '@astrojs/react', ends: /\.[jt]sx$/ },
  { name: '@astrojs/preact', ends: /\.[jt]sx$/ },
  { name: '@astrojs/solid-js', ends: /\.[jt]sx$/ },
  { name: '@astrojs/vue', ends: /\.vue$/ },
  { name: '@astrojs/svelte', ends: /\.svelte$/ },
];

/**
 * Apps of islands, whose routes are files in a folder of pages (public conventions of Astro): pages are drawn on the server, and only
 * what a directive names is sent to the browser. A name that begins with `_` is no route, nor is an endpoint.
 */
export function islandEntries(root: string, description: PackageDescription): FoundEntry[] {
  if (!hasDependency(description, 'astro')) return [];
  const routes = filesBelow(root, FOLDER)
    .filter((f) => f.endsWith('.astro') && !f.split('/').some((name) => name.startsWith('_')))
    .map((file) => {
      const names = file.replace(/\.astro$/, '').split('/');
      if (names[names.length - 1] === 'index') names.pop();
      const pattern = `/${names.flatMap((n) => segmentOf(n) ?? []).join('/')}`;
      const page = `${FOLDER}/${file}`;
      return { pattern, layouts: layoutsOf(root, page), page, beside: [] };
    })
    .sort((a, b) => (a.pattern < b.pattern ? -1 : 1));
  if (routes.length === 0) return [];
  const aliases = new Map([['src', 'src']]);
  return [
    {
      ...{ realm: 'site', document: null, html: null, routes, starts: [], rendering: 'server', ships: 'everything' },
      ...{ aliases, filledIn: /^astro:/ },
      bringsAlong: RENDERERS.filter(({ name }) => hasDependency(description, name)).map(({ name, ends }) => ({
        ...{ ends, specifier: `${name}/client.js` },
      })),
    },
  ];
}

const LAYOUT = /^\s{0,20}import\s[^'"\n]{0,200}['"]([^'"\n]{1,300}\/layouts?\/[^'"\n]{1,200}\.astro)['"]/gm;

/** Layouts that a page imports: files in a folder of that name, which the page stands in. */
function layoutsOf(root: string, page: string): string[] {
  return [...(textIfThere(root, page) ?? '').matchAll(LAYOUT)].map(([, address]) =>
    address.startsWith('.')
      ? path.posix.join(path.posix.dirname(page), address)
      : `src/${address.replace(/^[@~]\//, '').replace(/^src\//, '')}`,
  );
}
