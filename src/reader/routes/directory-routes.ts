import fs from 'node:fs';
import path from 'node:path';

/** A route that a folder or a file in it stands for. */
export interface DirectoryRoute {
  pattern: string;
  /** Files, relative to the folder that is read; layouts outermost first. */
  layouts: string[];
  page: string;
  /** Files that come along: what stands in while it loads or fails, and what other slots of its layouts show. */
  beside: string[];
}

const ROOTS = ['app', 'src/app'];
const EXTENSIONS = ['tsx', 'jsx', 'ts', 'js', 'mdx'];
/** Files that stand in for a page (public convention of the app folder). */
const BESIDE = ['loading', 'error', 'not-found', 'default', 'global-error'];

/**
 * Routes by the convention of page files in folders: each folder is a segment of the address, a `page` file makes it a
 * route, `layout` and `template` files stand around all routes below. `(group)` folders don't show in the address, `[id]` is a
 * variable, `[...rest]` takes all that follows; `_private` folders are left out. The pages of `@slot` folders come along with
 * the route of the same address, and those of folders such as `(.)photo` only replace others inside the app.
 */
export function directoryRoutes(root: string): DirectoryRoute[] {
  for (const start of ROOTS) {
    const found: Found = { routes: [], slots: [] };
    walk(root, start, { segments: [], layouts: [], beside: [], slot: false }, found);
    for (const { pattern, page, layouts, beside } of found.slots)
      for (const route of found.routes)
        if (route.pattern === pattern || (page.includes('/default.') && route.pattern.startsWith(pattern)))
          route.beside.push(...[page, ...layouts, ...beside].filter((f) => !inRoute(route, f)));
    if (found.routes.length > 0) return found.routes.sort((a, b) => (a.pattern < b.pattern ? -1 : 1));
  }
  return [];
}

function inRoute({ layouts, page, beside }: DirectoryRoute, file: string): boolean {
  return page === file || layouts.includes(file) || beside.includes(file);
}

interface Found {
  routes: DirectoryRoute[];
  slots: DirectoryRoute[];
}

interface Above {
  segments: string[];
  layouts: string[];
  beside: string[];
  slot: boolean;
}

function walk(root: string, folder: string, above: Above, found: Found): void {
  const full = path.join(root, folder);
  if (!fs.existsSync(full) || !fs.statSync(full).isDirectory()) return;
  const named = (name: string) => fileNamed(full, folder, name) ?? [];
  const layouts = [...above.layouts, ...[named('layout'), named('template')].flat()];
  const beside = [...above.beside, ...BESIDE.flatMap(named)];
  const [page] = [named('page'), above.slot ? named('default') : []].flat();
  const pattern = `/${above.segments.join('/')}`;
  if (page) (above.slot ? found.slots : found.routes).push({ pattern, layouts, page, beside: [...beside] });
  for (const entry of fs.readdirSync(full, { withFileTypes: true })) {
    if (!entry.isDirectory() || /^[_.]/.test(entry.name) || entry.name === 'node_modules') continue;
    if (/^\(\.{1,3}\)/.test(entry.name)) continue;
    const segment = segmentOf(entry.name);
    const segments = segment === null ? above.segments : [...above.segments, segment];
    const slot = above.slot || entry.name.startsWith('@');
    walk(root, `${folder}/${entry.name}`, { segments, layouts, beside, slot }, found);
  }
}

function fileNamed(full: string, folder: string, name: string): string[] | null {
  const extension = EXTENSIONS.find((e) => fs.existsSync(path.join(full, `${name}.${e}`)));
  return extension ? [`${folder}/${name}.${extension}`] : null;
}

/** The segment of an address that a name in brackets stands for; null for a group or a slot. */
export function segmentOf(name: string): string | null {
  if (/^\(.*\)$/.test(name) || name.startsWith('@')) return null;
  return name.replace(/^\[\[?\.\.\.(.+?)\]?\]$/, '*$1').replace(/^\[\[?(.+?)\]?\]$/, ':$1');
}
