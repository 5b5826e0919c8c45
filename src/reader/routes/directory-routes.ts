import fs from 'node:fs';
import path from 'node:path';

/** A route that a folder stands for. */
export interface DirectoryRoute {
  pattern: string;
  /** Files, relative to the folder that is read; layouts outermost first. */
  layouts: string[];
  page: string;
}

const ROOTS = ['app', 'src/app'];
const EXTENSIONS = ['tsx', 'ts', 'jsx', 'js'];

/**
 * Routes by the convention of page files in folders: each folder is a segment of the address, a `page` file makes it a
 * route, `layout` files stand around all routes below. `(group)` folders don't show in the address, `[id]` is a
 * variable, `[...rest]` takes all that follows; folders that begin with `_` or `@` are left out.
 */
export function directoryRoutes(root: string): DirectoryRoute[] {
  for (const start of ROOTS) {
    const routes: DirectoryRoute[] = [];
    walk(root, start, [], [], routes);
    if (routes.length > 0) return routes.sort((a, b) => (a.pattern < b.pattern ? -1 : 1));
  }
  return [];
}

function walk(root: string, folder: string, segments: string[], layouts: string[], routes: DirectoryRoute[]): void {
  const full = path.join(root, folder);
  if (!fs.existsSync(full) || !fs.statSync(full).isDirectory()) return;
  const own = fileNamed(full, folder, 'layout');
  const around = own ? [...layouts, own] : layouts;
  const page = fileNamed(full, folder, 'page');
  if (page) routes.push({ pattern: `/${segments.join('/')}`, layouts: around, page });
  for (const entry of fs.readdirSync(full, { withFileTypes: true })) {
    if (!entry.isDirectory() || /^[_@.]/.test(entry.name) || entry.name === 'node_modules') continue;
    const segment = segmentOf(entry.name);
    walk(root, `${folder}/${entry.name}`, segment === null ? segments : [...segments, segment], around, routes);
  }
}

function fileNamed(full: string, folder: string, name: string): string | null {
  const extension = EXTENSIONS.find((e) => fs.existsSync(path.join(full, `${name}.${e}`)));
  return extension ? `${folder}/${name}.${extension}` : null;
}

function segmentOf(name: string): string | null {
  if (/^\(.*\)$/.test(name)) return null;
  return name.replace(/^\[\[?\.\.\.(.+?)\]?\]$/, '*$1').replace(/^\[(.+)\]$/, ':$1');
}
