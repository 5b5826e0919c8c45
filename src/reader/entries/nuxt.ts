import fs from 'node:fs';
import path from 'node:path';
import { filesBelow } from '../files-below.ts';
import { textIfThere } from '../folder-files.ts';
import { type DirectoryRoute, segmentOf } from '../routes/directory-routes.ts';
import { hasDependency } from './conventions.ts';
import type { FoundEntry, PackageDescription } from './types.ts';

/**
 * Apps of `app.vue` with pages, layouts, plugins and components by folders (public conventions of Nuxt), at the top or below `app`. A page
 * beside a folder of its name stands around the pages in there; `layouts/default` stands around all that name no other layout.
 */
export function nuxtEntries(root: string, description: PackageDescription): FoundEntry[] {
  if (!hasDependency(description, 'nuxt')) return [];
  const base =
    ['app/', ''].find((b) => ['app.vue', 'pages', 'components'].some((n) => fs.existsSync(path.join(root, b, n)))) ??
    '';
  const below = (folder: string) => filesBelow(root, `${base}${folder}`).map((f) => `${base}${folder}/${f}`);
  const pages = below('pages').filter((f) => /\.(vue|tsx|jsx)$/.test(f));
  const app = fs.existsSync(path.join(root, `${base}app.vue`)) ? [`${base}app.vue`] : [];
  const layouts = below('layouts').filter((f) => f.endsWith('.vue'));
  const routes = pages.length > 0 ? pageRoutes(root, pages, layouts, `${base}pages/`) : wholeApp(app);
  if (routes.length === 0) return [];
  const alongside = [
    ...below('plugins').filter(
      (f) => /^[^/]+\.(ts|js|mjs)$/.test(f.slice(`${base}plugins/`.length)) && !f.includes('.server.'),
    ),
    ...below('middleware').filter((f) => /\.global\.(ts|js)$/.test(f)),
  ];
  return [
    {
      ...{ realm: 'site', document: null, html: null, routes, rendering: 'server', ships: 'everything' },
      aliases: new Map([
        ...[['~~', '.'] as const, ['@@', '.'] as const],
        ...[['~', base === '' ? '.' : 'app'] as const, ['@', base === '' ? '.' : 'app'] as const],
      ]),
      autoImports: ['composables', 'utils'].flatMap((f) =>
        below(f).filter((file) => /^[^/]+(\/index)?\.(ts|js|mjs)$/.test(file.slice(`${base}${f}/`.length))),
      ),
      filledIn: /^#(?!.*\.(?:js|ts)$)/,
      starts: [...app, ...alongside].map((f) => ({ address: `/${f}`, line: 1, kind: 'script' })),
      components: componentNames(
        below('components').filter((f) => /\.(vue|tsx|jsx)$/.test(f) && !f.includes('.server.')),
        `${base}components/`,
      ),
    },
  ];
}

function wholeApp(app: readonly string[]): DirectoryRoute[] {
  return app.map((page) => ({ pattern: '/', layouts: [], page, beside: [] }));
}

function pageRoutes(
  root: string,
  pages: readonly string[],
  layouts: readonly string[],
  folder: string,
): DirectoryRoute[] {
  const nameOf = (file: string) => file.slice(folder.length).replace(/\.\w+$/, '');
  const holds = (outer: string) => pages.some((p) => nameOf(p).startsWith(`${nameOf(outer)}/`));
  return pages
    .filter((page) => !holds(page))
    .map((page) => {
      const around = pages.filter((p) => p !== page && nameOf(page).startsWith(`${nameOf(p)}/`));
      const outermost = [...around, page][0];
      const names = nameOf(page).split('/');
      if (names[names.length - 1] === 'index') names.pop();
      const pattern = `/${names.flatMap((n) => segmentOf(n) ?? []).join('/')}`;
      return { pattern, layouts: [...layoutOf(root, outermost, layouts), ...around], page, beside: [] };
    })
    .sort((a, b) => (a.pattern < b.pattern ? -1 : 1));
}

/** The layout that a page names by `definePageMeta`, else the usual one. */
function layoutOf(root: string, page: string, layouts: readonly string[]): string[] {
  const text = textIfThere(root, page) ?? '';
  const meta = text.includes('definePageMeta') ? /\blayout\s*:\s*(false|['"]([\w-]+)['"])/.exec(text) : null;
  if (meta?.[1] === 'false') return [];
  const name = meta?.[2] ?? 'default';
  return layouts.filter((l) => l.endsWith(`/layouts/${name}.vue`) || l === `layouts/${name}.vue`);
}

/** Components by the names under which templates may use them without an import: their folders and their own name. */
function componentNames(files: readonly string[], folder: string): Map<string, string> {
  const names = new Map<string, string>();
  for (const file of files) {
    const pieces = file
      .slice(folder.length)
      .replace(/(\.client|\.server)?\.\w+$/, '')
      .split('/');
    if (pieces[pieces.length - 1] === 'index') pieces.pop();
    const words = pieces.map((p) => p.replace(/(^|[-_.])(\w)/g, (_, __, letter: string) => letter.toUpperCase()));
    // A name that begins with that of its folder doesn't say it twice.
    const whole = words.reduce((name, word) => (word.startsWith(name) ? word : name + word), '');
    names.set(whole, file);
  }
  return names;
}
